<script setup lang="ts">
import { IconLayoutGrid, IconListDetails, IconPlus } from '@tabler/icons-vue';
import { addSwatchEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useDialogs } from '../../../stores/dialogs';
import { useSession } from '../../../stores/session';
import { useSettings } from '../../../stores/settings';
import { useBuild } from '../build-state';
import { useSelection } from '../selection/selection-state';
import SwatchChip from './SwatchChip.vue';
import { useColours } from './colours-state';
import ActionButton from '../../../components/ActionButton.vue';
import IconButton from '../../../components/IconButton.vue';

const dialogs = useDialogs();
const session = useSession();
const build = useBuild();
const colours = useColours();
const selection = useSelection();
const { settings } = useSettings();
const palette = computed(() => build.palette);
const swatch = computed(() => build.swatch);
const way = computed(() => session.project?.colourways.find((c) => c.id === session.view.colourway)?.name ?? '');
function add(): void {
  if (!palette.value) return;
  session.apply(addSwatchEdit, {
    palette: palette.value.id,
    name: `${swatch.value?.name ?? 'Swatch'} copy`,
    colour: swatch.value?.colour ?? '#888888',
  });
  build.byte = session.palette?.swatches.at(-1)?.byte ?? build.byte;
  colours.tab = 'colours';
}
const surface = computed(() => {
  const s = swatch.value;
  if (!s) return '';
  return [
    s.emissive > 0 ? `glow ${s.emissive}` : '',
    s.metalness > 0 ? `metal ${s.metalness}` : '',
    s.opacity < 1 ? `transparent ${(1 - s.opacity).toFixed(1)}` : '',
    `rough ${s.roughness}`,
  ].filter(Boolean)[0]!;
});
const rows = computed(() =>
  [
    ['last', colours.last],
    ['most', colours.most],
  ]
    .map(([name, bytes]) => ({
      name: name as string,
      list: (bytes as number[]).flatMap((b) => colours.swatchOf(b) ?? []).slice(0, 5),
    }))
    .filter((r) => r.list.length > 0),
);
const place = (byte: number): number => colours.picked.indexOf(byte) + 1;
const howOf = (e: MouseEvent): 'hand' | 'add' | 'range' =>
  e.ctrlKey || e.metaKey ? 'add' : e.shiftKey ? 'range' : 'hand';
function menuOf(e: MouseEvent, byte: number): void {
  if (!colours.picked.includes(byte)) colours.take(byte);
  dialogs.openMenu(e, [
    'swatch.edit',
    'swatch.replace',
    'swatch.delete',
    'swatch.renameMany',
    'select.hue',
    'swatch.ramp',
  ]);
}
/** Arrows go from swatch to swatch, as in any group of choices, unless they move something in the view. */
function key(e: KeyboardEvent): void {
  const step = { ArrowRight: 1, ArrowDown: 1, ArrowLeft: -1, ArrowUp: -1 }[e.key];
  if (!step || e.ctrlKey || e.altKey || e.shiftKey || build.cursor || selection.active || build.waiting?.box) return;
  e.preventDefault();
  e.stopPropagation();
  const list = palette.value?.swatches ?? [];
  const next = list[(list.findIndex((s) => s.byte === swatch.value?.byte) + step + list.length) % list.length];
  if (!next) return;
  colours.take(next.byte);
  (e.currentTarget as HTMLElement).querySelector<HTMLElement>(`[data-byte="${next.byte}"]`)?.focus();
}
</script>

<template>
  <!-- eslint-disable vue/no-restricted-html-elements -- swatch tiles: 255 drawn at once, picked in order, walked by arrows as one group -->
  <section v-if="palette" class="swatches" aria-label="Swatches">
    <div class="panel-head">
      <h3>
        {{ palette.name }} palette<span v-if="way" class="way"> in {{ way }}</span>
      </h3>
      <span class="row"
        ><span class="figures quiet">{{ palette.swatches.length }} of 255</span>
        <icon-button
          :icon="settings.swatchNames ? IconLayoutGrid : IconListDetails"
          :label="settings.swatchNames ? 'Swatches as tiles' : 'Swatches by name'"
          :tip="settings.swatchNames ? 'As tiles' : 'By name, with counts'"
          @click="settings.swatchNames = !settings.swatchNames"
      /></span>
    </div>
    <div class="body see-colours">
      <div class="left">
        <action-button
          class="inhand"
          :aria-expanded="colours.tab === 'colours'"
          :aria-label="`Edit swatch ${swatch?.name}`"
          tip="Edit this swatch"
          keys="Shift+2"
          @click="colours.tab = 'colours'"
        >
          <span class="fill" :style="{ background: swatch?.colour }" /><b>{{ swatch?.name }}</b
          ><small class="figures">{{ surface }}</small>
        </action-button>
        <div v-for="r in rows" :key="r.name" class="recent">
          <span class="quiet">{{ r.name }}</span><button
            v-for="s in r.list"
            :key="s.byte"
            type="button"
            class="mini"
            :style="{ background: s.colour }"
            :aria-label="`${s.name}, used ${r.name}`"
            :data-tip="s.name"
            @click="colours.take(s.byte)"
          />
        </div>
      </div>
      <div
        class="grid"
        :class="{ names: settings.swatchNames }"
        role="radiogroup"
        aria-label="Swatch in hand"
        @keydown="key"
      >
        <button
          v-for="s in palette.swatches"
          :key="s.byte"
          type="button"
          role="radio"
          class="swatch"
          :class="{ on: s.byte === swatch?.byte, picked: place(s.byte) > 0 }"
          :data-byte="s.byte"
          :tabindex="s.byte === swatch?.byte ? 0 : -1"
          :aria-checked="s.byte === swatch?.byte"
          :aria-label="s.name || `swatch ${s.byte}`"
          :data-tip="`${s.name} · ${s.colour}`"
          @click="colours.take(s.byte, howOf($event))"
          @contextmenu.prevent="menuOf($event, s.byte)"
        >
          <SwatchChip
            :swatch="s"
            :small="settings.swatchNames"
            :named="settings.swatchNames"
            :count="settings.swatchNames ? (colours.use?.total[s.byte] ?? 0) : null"
          /><em v-if="place(s.byte)" class="figures">{{ place(s.byte) }}</em>
        </button>
        <icon-button class="plus" :icon="IconPlus" label="New swatch" @click="add" />
      </div>
    </div>
  </section>
</template>

<style scoped>
.panel-head h3 {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.way {
  color: var(--resin);
}
.panel-head .row {
  flex: none;
  gap: 2px;
}
.body {
  display: flex;
  gap: 12px;
  margin-top: 3px;
  align-items: flex-start;
}
.left {
  display: grid;
  gap: 4px;
  flex: none;
  width: 104px;
}
.inhand.el-button {
  width: 100%;
  padding: 0;
  overflow: hidden;
}
.inhand.el-button :deep(> span) {
  display: grid;
  gap: 0;
  justify-items: start;
  width: 100%;
  line-height: 1.45;
  text-align: left;
}
.fill {
  width: 100%;
  height: 30px;
}
.inhand b {
  padding: 2px 7px 0;
  font-size: 12px;
  font-weight: 600;
  max-width: 100%;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.inhand small {
  padding: 0 7px 3px;
  font-size: 10px;
  color: var(--quiet);
  white-space: nowrap;
}
.recent {
  display: flex;
  align-items: center;
  gap: 2px;
  height: 15px;
  font-size: 10px;
}
.recent span {
  width: 27px;
}
.mini {
  width: 13px;
  height: 13px;
  border-radius: 3px;
  border: 1px solid rgb(0 0 0 / 22%);
}
.grid {
  display: flex;
  flex-wrap: wrap;
  gap: 4px;
  padding: 3px;
  min-width: 0;
}
.grid.names {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(134px, 1fr));
  gap: 1px 8px;
  flex: 1;
}
.swatch {
  position: relative;
  line-height: 0;
  border-radius: 6px;
}
.names .swatch {
  line-height: 1.3;
  text-align: left;
  padding: 1px 4px 1px 1px;
  font-size: 12px;
}
.names .swatch :deep(.chip) {
  width: 100%;
}
.swatch.on {
  outline: 2px solid var(--honey);
  outline-offset: 1px;
}
.swatch.on::after {
  content: '';
  position: absolute;
  left: 3px;
  bottom: 2px;
  width: 8px;
  height: 5px;
  border: solid #ffffff;
  border-width: 0 0 2px 2px;
  transform: rotate(-45deg);
  filter: drop-shadow(0 0 1px #000000) drop-shadow(0 0 1px #000000);
}
.names .swatch.on::after {
  left: 5px;
  bottom: 6px;
}
.swatch em {
  position: absolute;
  right: -3px;
  top: -4px;
  min-width: 13px;
  padding: 0 2px;
  border-radius: 7px;
  background: var(--bar);
  color: var(--bar-strong);
  font-size: 9px;
  line-height: 13px;
  font-style: normal;
  text-align: center;
}
.plus.el-button.bare {
  width: 22px;
  min-height: 22px;
  border-radius: 5px;
  border: 1px dashed var(--line-strong);
}
</style>
