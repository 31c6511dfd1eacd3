<script setup lang="ts">
import {
  IconAugmentedReality,
  IconBox,
  IconBrush,
  IconBucketDroplet,
  IconCircle,
  IconCone,
  IconCubePlus,
  IconCylinder,
  IconDots,
  IconEraser,
  IconLine,
  IconPlus,
  IconPoint,
  IconSelectAll,
  IconSphere,
  IconStackPush,
  IconRubberStamp,
  IconWindow,
} from '@tabler/icons-vue';
import { type Component, computed } from 'vue';
import type { ToolCard } from '../../tools/card';
import { MORE_CARDS } from '../../tools/more-cards';
import { useDialogs } from '../../stores/dialogs';
import { useBuild } from './build-state';
import { later } from '../../components/later';
import MenuButton from '../../components/MenuButton.vue';
import TextField from '../../components/TextField.vue';
import { type DropTarget, vDrag, vDrop } from '../../components/drag';

// What a first visit waits for are the cubes; these come when they are seen.
const ToolOptions = later(() => import('./options/ToolOptions.vue'));
const SwatchPanel = later(() => import('./colours/SwatchPanel.vue'));
const SymmetryOptions = later(() => import('./SymmetryOptions.vue'));
const dialogs = useDialogs();
const build = useBuild();
const REACH_ICONS: Record<ToolCard['reach'], Component> = {
  point: IconPoint,
  brush: IconBrush,
  line: IconLine,
  box: IconCubePlus,
  ellipsoid: IconSphere,
  cylinder: IconCylinder,
  extrude: IconStackPush,
  fill: IconBucketDroplet,
  stamp: IconRubberStamp,
  opening: IconWindow,
};
function icon(c: ToolCard): Component {
  if (c.reach === 'extrude' || c.reach === 'opening' || c.reach === 'stamp') return REACH_ICONS[c.reach];
  if (c.verb === 'select') return IconSelectAll;
  if (c.verb === 'erase') return IconEraser;
  if (c.reach === 'cylinder' && c.profile === 'dome') return IconAugmentedReality;
  if (c.reach === 'cylinder' && c.profile === 'cone') return IconCone;
  if (c.reach === 'brush' && c.tip === 'ball') return c.verb === 'paint' ? IconBrush : IconCircle;
  return REACH_ICONS[c.reach] ?? IconBox;
}
const more = computed(() => [
  { text: 'this one again', icon: IconDots, run: () => build.keepAsNew({ name: `${build.card.name} 2` }) },
  ...MORE_CARDS.map((c) => ({ text: c.name, icon: icon(c), run: () => build.keepAsNew(c) })),
]);

function rename(i: number, name: string): void {
  if (name.trim()) build.setCards(build.cards.with(i, { ...build.cards[i]!, name: name.trim().slice(0, 24) }));
}
const place = (at: number): DropTarget => ({
  accepts: (what) => what.kind === 'tool',
  drop: (what) => move(Number(what.ids[0]), at),
});
function move(from: number, at: number): void {
  if (from === at) return;
  const inHand = build.cards[build.index];
  const rest = build.cards.toSpliced(from, 1);
  build.setCards(rest.toSpliced(at, 0, build.cards[from]!));
  build.index = Math.max(0, build.cards.indexOf(inHand!));
}
function menuOf(e: MouseEvent, i: number): void {
  build.index = i;
  dialogs.openMenu(e, ['card.rename', 'card.duplicate', 'card.first', 'card.remove', 'card.reset']);
}
</script>

<template>
  <div class="build-bench">
    <section class="tools" aria-label="Tools">
      <div class="panel-head">
        <h3>Tools</h3>
        <span class="row"
          ><span class="figures quiet">1–9</span>
          <menu-button :icon="IconPlus" label="Add a tool" :items="more" columns
        /></span>
      </div>
      <div class="cards" :class="{ many: build.cards.length > 8 }" role="radiogroup" aria-label="Tool in hand">
        <!-- eslint-disable-next-line vue/no-restricted-html-elements -- a tool card: icon, number and name in one, dragged and renamed in its place -->
        <button
          v-for="(c, i) in build.cards"
          :key="i"
          type="button"
          role="radio"
          class="card"
          :class="{ on: i === build.index }"
          :aria-checked="i === build.index"
          :data-tip="c.name"
          :data-keys="i < 9 ? String(i + 1) : undefined"
          @click="build.take(i)"
          @dblclick="build.naming = i"
          @contextmenu.prevent="menuOf($event, i)"
          v-drag="() => ({ kind: 'tool', ids: [String(i)], label: c.name })"
          v-drop="place(i)"
        >
          <kbd v-if="i < 9" class="n">{{ i + 1 }}</kbd><component :is="icon(c)" aria-hidden="true" />
          <text-field
            v-if="build.naming === i"
            :model-value="c.name"
            label="Name of the tool"
            :most="24"
            eager
            @click.stop
            @change="(name) => rename(i, name)"
            @leave="build.naming = -1"
          />
          <span v-else>{{ c.name }}{{ i === build.index && build.changed ? ' *' : '' }}</span>
        </button>
      </div>
    </section>
    <ToolOptions class="options" />
    <SymmetryOptions class="symmetry" />
    <SwatchPanel class="colours" />
  </div>
</template>

<style scoped>
.build-bench {
  display: grid;
  grid-template-columns: minmax(292px, 352px) minmax(264px, 330px) 124px 1fr;
  height: 100%;
}
.build-bench > * {
  padding: 9px 12px;
  border-right: 1px solid var(--line);
  min-width: 0;
  overflow: auto;
  /* A shade at the edge tells that there is more below or above; it goes when one is there. */
  background:
    linear-gradient(var(--panel) 40%, transparent) local,
    linear-gradient(transparent, var(--panel) 60%) 0 100% / 100% 40px local,
    linear-gradient(color-mix(in srgb, var(--ink) 18%, transparent), transparent) scroll,
    linear-gradient(transparent, color-mix(in srgb, var(--ink) 18%, transparent)) 0 100% / 100% 14px scroll;
  background-size:
    100% 40px,
    100% 40px,
    100% 12px,
    100% 14px;
  background-repeat: no-repeat;
}
.cards {
  display: grid;
  grid-template-columns: repeat(4, 1fr);
  gap: 7px 8px;
  margin-top: 5px;
}
.card {
  position: relative;
  display: grid;
  justify-items: center;
  align-content: center;
  gap: 2px;
  height: 48px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  font-weight: 500;
  font-size: 11.5px;
  letter-spacing: -0.1px;
  transition: border-color var(--quick);
}
.card:hover {
  border-color: var(--line-strong);
}
.card svg {
  width: 20px;
  height: 20px;
  stroke-width: 1.5;
}
.card.on {
  background: #2a2521;
  border-color: var(--honey);
  color: #ffffff;
}
.card.on svg {
  color: #f0b648;
}
.many .card {
  height: 37px;
  gap: 0;
  font-size: 11px;
}
.many .card svg {
  width: 17px;
  height: 17px;
}
.many {
  gap: 5px 6px;
}
.card .text-field {
  --el-input-height: 18px;
  width: 92%;
  font-size: 11px;
}
.n {
  position: absolute;
  left: 5px;
  top: 3px;
  border: 0;
  background: none;
  padding: 0;
  font-size: 10px;
}
.card.on .n {
  color: #f0b648;
}
.colours {
  border-right: 0 !important;
}
.card > span {
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
@media (max-width: 1180px) {
  .build-bench {
    grid-template-columns: 272px 262px 112px 1fr;
  }
  .card,
  .many .card {
    font-size: 10px;
    letter-spacing: -0.3px;
  }
}
</style>
