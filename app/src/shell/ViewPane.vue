<script setup lang="ts">
import { computed, onBeforeUnmount, onMounted, ref, shallowRef, watch, watchEffect } from 'vue';
import CommandButton from '../components/CommandButton.vue';
import { useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import { LEVELS } from '../viewport/drawn/detail';
import { type ViewName } from '../viewport/orbit-camera';
import { ViewInput } from '../viewport/view-input';
import { Viewport } from '../viewport/viewport';
import { giveWay, sharedPool } from '../workers/pool';
import { VISIONS, VISION_MATRIX } from '@sphalerite/core/palette';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { VISION_NAMES } from './view-commands';
import { useDialogs } from '../stores/dialogs';
import OrientationCube from './OrientationCube.vue';
import type { ScreenControl } from './screen';
import ActionButton from '../components/ActionButton.vue';
import TextField from '../components/TextField.vue';
import { type DropTarget, vDrop } from '../components/drag';
import { firstPictureStands, later } from '../components/later';

// No chip asks for a number before there is something to see.
const NumberField = later(() => import('../components/NumberField.vue'));
const AxisChips = later(() => import('./AxisChips.vue'));
const TracedInset = later(() => import('./TracedInset.vue'));
/** Screens beside whose view a traced inset can stand. */
const INSET_ON = ['build', 'rig', 'stage'];
const dialogs = useDialogs();
const props = defineProps<{ control: ScreenControl | null }>();
const host = ref<HTMLElement>();
const VIEW_MENU = ['view.frame', 'view.all', 'view.flat', 'edit.undo', 'help.search'];
const view = useView();
const { settings } = useSettings();
const angles = shallowRef({ yaw: 0, pitch: 0 });
const lost = ref(false);
/** Where the pointer is over the view, for the figures that go along with a drag. */
const hand = shallowRef<{ x: number; y: number } | null>(null);
function follow(e: PointerEvent): void {
  if (e.buttons > 0) giveWay();
  const box = host.value!.getBoundingClientRect();
  hand.value = {
    x: Math.min(e.clientX - box.left + 18, box.width - 170),
    y: Math.min(e.clientY - box.top + 16, box.height - 34),
  };
}
/** Chips of a drag go along with the pointer; those of what is carried stay where it was taken up, so that the pointer reaches them. */
const chipsAt = shallowRef<{ x: number; y: number } | null>(null);
watch([hand, () => view.axes?.carried ?? null], ([at, carried], [, was]) => {
  if (!carried || was !== true) chipsAt.value = at ?? chipsAt.value;
});
/** What is dragged from a tray onto the cubes. */
const drop = computed((): DropTarget => ({
  accepts: (what) => props.control?.accepts?.(what) ?? false,
  drop: (what, { clientX: x, clientY: y }) => {
    const ray = view.viewport?.rayAt(x, y);
    if (ray) props.control?.drop?.(what, { ray, x, y, shift: false, alt: false, ctrl: false });
  },
}));
/** Texts that go along with places of the world. */
const labels = shallowRef<{ text: string; tone: string; shift: boolean; x: number; y: number }[]>([]);
function placeLabels(): void {
  const v = view.viewport,
    list = props.control?.labels?.() ?? [];
  if (!v || (list.length === 0 && labels.value.length === 0)) return;
  const box = host.value!.getBoundingClientRect();
  labels.value = list.flatMap((l) => {
    const s = v.screenOf(l.at);
    return s.ahead
      ? [
          {
            text: l.text,
            tone: l.tone,
            shift: l.shift ?? false,
            x: Math.round(s.x - box.left),
            y: Math.round(s.y - box.top),
          },
        ]
      : [];
  });
}
let input: ViewInput | null = null;

onMounted(() => {
  let v: Viewport;
  try {
    v = new Viewport(host.value!, {
      mesh: (grid, chunks) => sharedPool().run('mesh', (sent) => ({ grid: sent.packGrid(grid), chunks })),
      coarsen: async (grid) => {
        const { forms, quads } = await sharedPool().run('coarser', (sent) => ({
          grid: sent.packGrid(grid),
          levels: LEVELS,
        }));
        return { quads, forms: forms.map((f) => VoxelGrid.fromBricks(f.bounds, f.bricks)) };
      },
    });
  } catch {
    lost.value = true;
    firstPictureStands();
    return;
  }
  let span = 0,
    stood = '';
  v.onFrame = () => {
    const c = v.camera;
    if (c.yaw !== angles.value.yaw || c.pitch !== angles.value.pitch) angles.value = { yaw: c.yaw, pitch: c.pitch };
    if (c.span !== span) {
      span = c.span;
      view.cameraTick++;
    }
    const stands = JSON.stringify(c.state());
    if (stands !== stood) {
      stood = stands;
      view.turned++;
    }
    placeLabels();
    if (v.drawsScene) firstPictureStands();
  };
  v.canvas.setAttribute(
    'aria-label',
    'The view. Drag on empty ground to turn, wheel to come nearer, K for the keyboard cursor.',
  );
  v.canvas.setAttribute('role', 'application');
  input = new ViewInput(
    v,
    () => props.control?.pointer ?? null,
    (e) => dialogs.openMenu(e, [...(props.control?.menu ?? []), ...VIEW_MENU]),
  );
  view.setViewport(v);
});
onBeforeUnmount(() => {
  input?.dispose();
  view.viewport?.dispose();
  view.setViewport(null);
});

let framed = '';
watchEffect(() => view.viewport?.sharpen(settings.sharpness));
watchEffect(() => {
  const v = view.viewport;
  const scene = props.control?.scene();
  if (!v || !scene) return;
  view.pose = scene.pose;
  v.setScene({
    ...scene,
    lamps: settings.glow && settings.lit ? (scene.lamps ?? []) : [],
    edges: settings.edges,
    lit: settings.lit,
    glow: settings.glow,
    shadows: settings.shadows && settings.lit,
    grid: settings.grid,
  });
  if (framed !== scene.project.id) {
    framed = scene.project.id;
    if (!props.control?.ownCamera) v.frame();
  }
});
watchEffect(() => {
  const v = view.viewport;
  if (v && props.control) v.setOverlay(props.control.overlay());
});
watch(
  () => props.control,
  (_now, before) => before?.pointer.cancel(),
);

function look(name: ViewName): void {
  view.viewport?.look((c) => c.look(name));
}
</script>

<template>
  <section class="view" :class="settings.backdrop" aria-label="View">
    <!-- Filters that show colours as other eyes see them; linear light, as the figures in core say. -->
    <svg class="filters" aria-hidden="true">
      <filter v-for="v in VISIONS.slice(1)" :id="`see-${v}`" :key="v" color-interpolation-filters="linearRGB">
        <feColorMatrix
          type="matrix"
          :values="VISION_MATRIX[v].map((r) => `${r.join(' ')} 0 0`).join(' ') + ' 0 0 0 1 0'"
        />
      </filter>
    </svg>
    <div
      ref="host"
      class="host see-colours"
      @pointermove="follow"
      @wheel.passive="giveWay"
      @pointerleave="hand = null"
      v-drop="drop"
    />
    <output
      v-if="hand && view.measure"
      class="live figures"
      :style="{ left: `${hand.x}px`, top: `${hand.y}px` }"
      aria-hidden="true"
      >{{ view.measure }}</output
    >
    <AxisChips
      v-if="view.axes && chipsAt"
      :axes="view.axes"
      :style="{ left: `${chipsAt.x}px`, top: `${chipsAt.y + 28}px` }"
    />
    <ol
      v-if="hand && view.under.length > 1"
      class="live under"
      aria-label="Under the pointer"
      :style="{ left: `${hand.x}px`, top: `${hand.y}px` }"
    >
      <li v-for="n in view.under" :key="n">{{ n }}</li>
      <li class="quiet">click again: the next</li>
    </ol>
    <p v-if="lost" class="no-graphics">
      This browser gives no WebGL 2, which the view needs. Turn graphics acceleration on, or open Sphalerite in another
      browser.
    </p>
    <header class="where">
      <h1 v-if="control">
        <template v-for="(t, i) in control.trail()" :key="i"
          ><span v-if="i > 0" class="sep" aria-hidden="true">›</span
          ><span :class="{ last: i === control.trail().length - 1 }">{{ t }}</span></template
        >
      </h1>
      <div class="switches" role="toolbar" aria-label="View">
        <CommandButton id="view.flat" bare /><CommandButton id="view.grid" bare /><CommandButton
          id="view.edges"
          bare
        /><CommandButton id="view.shadows" bare />
        <CommandButton v-for="t in control?.tools ?? []" :id="t" :key="t" bare />
        <CommandButton id="view.neighbours" bare /><CommandButton id="view.frame" bare />
      </div>
      <div v-if="control" class="chips">
        <span v-if="settings.vision !== 'all'" class="chip green"
          >seen {{ VISION_NAMES[settings.vision]
          }}<action-button look="bare" class="chip-act" @click="settings.vision = 'all'">end</action-button></span
        >
        <!-- By place: a text that counts down must not take its button from under the pointer. -->
        <span v-for="(c, i) in control.chips()" :key="c.field?.label ?? i" class="chip" :class="c.tone"
          ><i v-if="c.colour" class="chip-colour" :style="{ background: c.colour }" /><component
            :is="c.icon"
            v-if="c.icon"
            aria-hidden="true"
          />{{ c.text
          }}<number-field
            v-if="c.field"
            class="chip-field"
            label=""
            :name="c.field.label"
            :model-value="c.field.value"
            :step="c.field.step"
            @change="c.field.change"
          /><text-field
            v-if="c.words"
            class="chip-words"
            :label="c.words.label"
            :model-value="c.words.value"
            @change="c.words.change"
          /><action-button v-if="c.run" look="bare" class="chip-act" @click="c.run()">{{ c.does }}</action-button></span
        >
      </div>
    </header>
    <span
      v-for="(l, i) in labels"
      :key="i"
      class="mark figures"
      :class="[l.tone, { beside: l.shift }]"
      :style="{ left: `${l.x}px`, top: `${l.y}px` }"
      aria-hidden="true"
      >{{ l.text }}</span
    >
    <OrientationCube class="cube" :yaw="angles.yaw" :pitch="angles.pitch" @look="look" />
    <TracedInset v-if="settings.inset && INSET_ON.includes(view.screen)" />
    <slot />
  </section>
</template>

<style scoped>
.filters {
  position: absolute;
  width: 0;
  height: 0;
}
.view {
  container: view / inline-size;
  position: relative;
  width: 100%;
  height: 100%;
  overflow: hidden;
  background: linear-gradient(var(--view-top), var(--view-bottom));
}
.view.light {
  background: #f2f2f0;
}
.view.grey {
  background: #808080;
}
.view.dark {
  background: #1c1c1d;
}
.host,
.host :deep(canvas) {
  position: absolute;
  inset: 0;
  display: block;
  outline-offset: -3px;
}
/* Names give way to the switches beside them; chips stand below both. */
.where {
  position: absolute;
  z-index: 2;
  left: 16px;
  right: 13px;
  top: 10px;
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
  gap: 4px 16px;
  pointer-events: none;
}
h1 {
  font-size: 17px;
  font-weight: 400;
  color: var(--quiet);
  display: flex;
  gap: 6px;
  white-space: nowrap;
  min-width: 0;
  /* Over a dark picture or backdrop the names are read as well; over the plain view their plate is hardly seen. */
  justify-self: start;
  max-width: 100%;
  margin-left: -8px;
  padding: 1px 8px;
  border-radius: 6px;
  background: color-mix(in srgb, var(--panel) 85%, transparent);
}
h1 span {
  overflow: hidden;
  text-overflow: ellipsis;
  flex-shrink: 3;
}
h1 .sep {
  flex: none;
}
h1 .last {
  color: var(--ink);
  font-weight: 600;
  flex-shrink: 1;
}
.chips {
  grid-column: 1 / -1;
  max-width: max(420px, calc(100% - 224px));
  display: flex;
  flex-wrap: wrap;
  gap: 6px;
}
.chip {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  padding: 0 10px;
  min-height: 24px;
  border-radius: 12px;
  font-size: 12px;
  background: color-mix(in srgb, var(--panel) 88%, transparent);
  border: 1px solid currentcolor;
}
.chip svg {
  width: 15px;
  height: 15px;
}
.chip.red {
  color: var(--axis-x);
}
.chip.green {
  color: var(--verdigris);
}
.chip.resin {
  color: var(--resin);
}
.switches {
  grid-column: 2;
  pointer-events: auto;
  display: flex;
  gap: 3px;
  padding: 3px;
  border: 1px solid var(--line);
  border-radius: 8px;
  background: color-mix(in srgb, var(--panel) 92%, transparent);
}

@container view (max-width: 640px) {
  .where .switches {
    grid-column: 1 / -1;
    justify-self: start;
  }
}
.cube {
  position: absolute;
  right: 18px;
  bottom: 14px;
}
.chip .chip-act.el-button {
  --el-button-text-color: currentcolor;
  --el-button-hover-text-color: currentcolor;
  pointer-events: auto;
  min-height: 18px;
  margin: 0 -6px 0 2px;
  padding: 0 8px;
  border: 0;
  border-radius: 9px;
  color: inherit;
  background: color-mix(in srgb, currentcolor 14%, transparent);
  font-weight: 600;
  line-height: 18px;
}
.chip .chip-act.el-button:hover {
  background: color-mix(in srgb, currentcolor 26%, transparent);
}
.mark {
  position: absolute;
  z-index: 2;
  transform: translate(-50%, -50%);
  padding: 0 6px;
  border-radius: 4px;
  background: color-mix(in srgb, var(--panel) 88%, transparent);
  font-size: 11px;
  line-height: 17px;
  pointer-events: none;
  white-space: nowrap;
}
.mark.beside {
  transform: translate(10px, -50%);
  font-weight: 600;
}
.mark.x {
  color: var(--axis-x);
}
.mark.y {
  color: var(--axis-y);
}
.mark.z {
  color: var(--axis-z);
}
.mark.ink {
  background: var(--bar);
  color: var(--bar-strong);
}
.live {
  position: absolute;
  z-index: 3;
  padding: 2px 9px;
  border-radius: 5px;
  background: var(--bar);
  color: var(--bar-strong);
  pointer-events: none;
  white-space: nowrap;
}
.no-graphics {
  position: absolute;
  inset: 40% 20%;
}
.chip-colour {
  width: 11px;
  height: 11px;
  border-radius: 3px;
  border: 1px solid var(--line);
}
.chip-field,
.chip-words {
  width: 58px;
  margin-left: 5px;
  pointer-events: auto;
}
.chip-words {
  width: 104px;
  margin-left: 0;
}
.under {
  list-style: none;
  margin: 0;
  padding: 4px 9px;
}
.under li:first-child {
  font-weight: 600;
}
.under .quiet {
  color: var(--bar-ink);
  font-size: 11px;
}
</style>
