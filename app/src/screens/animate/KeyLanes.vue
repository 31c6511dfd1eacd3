<script setup lang="ts">
import { type Bone, type Id, TICKS, sideSuffix } from '@sphalerite/core/model';
import { framesIn, keyTimes } from '@sphalerite/core/motion';
import { bonesInOrder } from '@sphalerite/core/rig';
import { useElementSize } from '@vueuse/core';
import { computed, ref, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useWayBack } from '../../stores/way-back';
import { partOn } from '../shared/open-part';
import { useAnimate } from './animate-state';
import { type BoneLane, type Drawn, useKeyHands } from './key-hands';
import { useDialogs } from '../../stores/dialogs';
import { LANE_COMMANDS } from './lane-commands';
import SwapLanes from './SwapLanes.vue';
import SideTag from '../../components/SideTag.vue';

/** Lanes of keys by bone, then what sets of alternates wear. Only the lanes in sight are drawn, and a drag moves drawn keys without drawing anew. */
const dialogs = useDialogs();
const session = useSession();
const notices = useNotices();
const anim = useAnimate();
const NAMES = 168;
const PAD = 12;
const LANE = 22;
const track = ref<HTMLElement>();
const { width } = useElementSize(track);
const clip = computed(() => anim.clip);
const usable = computed(() => Math.max(60, width.value - NAMES - PAD * 2));
const x = (ticks: number): number => NAMES + PAD + (clip.value ? (ticks / clip.value.length) * usable.value : 0);
const timeAt = (clientX: number): number => {
  const left = track.value!.getBoundingClientRect().left;
  return ((clientX - left - NAMES - PAD) / usable.value) * (clip.value?.length ?? 0);
};
/** Ruler marks, thinned out so that figures never touch. */
const marks = computed(() => {
  const c = clip.value;
  if (!c) return [];
  const n = framesIn(c);
  const every = [1, 2, 3, 5, 6, 10, 12, 24, 48, 120].find((k) => (usable.value / n) * k > 34) ?? 240;
  return Array.from({ length: Math.floor(n / every) + 1 }, (_, i) => ({
    frame: i * every,
    at: x(Math.round((i * every * TICKS) / c.fps)),
  }));
});

/** Keys that a seal keeps look as if cast. */
const sealed = computed(() => session.project?.seal?.clips.includes(clip.value?.id ?? '') ?? false);
/** The colour of a lane is changed at its dot, or by a right click on its name. */
function laneMenu(e: MouseEvent, bone: string): void {
  session.choose({ bone });
  dialogs.openMenu(e, LANE_COMMANDS);
}
function nameDown(e: MouseEvent, bone: string): void {
  if ((e.target as HTMLElement).tagName === 'I') laneMenu(e, bone);
  else session.choose({ bone });
}

const way = useWayBack();
/** A double click on a bone's name leads to its part. */
function openPart(bone: string): void {
  const part = partOn(bone);
  if (part) void way.open(part).catch(notices.fail);
}

/** Lanes of bones that have keys, of the one in hand, and of those whose name is asked for, in the order of the rig. */
const boneLanes = computed<BoneLane[]>(() => {
  const c = clip.value,
    p = session.project;
  if (!c || !p) return [];
  const wanted = anim.filter.trim().toLowerCase(),
    byBone = new Map(c.lanes.map((l) => [l.bone, l]));
  return bonesInOrder(p.rig).flatMap((bone: Bone) => {
    const lane = byBone.get(bone.id);
    // A name that is asked for finds every bone, with keys or without.
    if (!lane && bone.id !== session.hand.bone && !wanted) return [];
    if (
      (wanted && !`${bone.name}${sideSuffix(bone.side)}`.toLowerCase().includes(wanted)) ||
      (anim.side !== 'all' && bone.side !== anim.side)
    )
      return [];
    return [{ bone, keys: lane ? keyTimes(lane) : [] }];
  });
});
/** Lanes of alternates; while bones are sought they stand aside. */
const swaps = computed(() => (anim.filter || anim.side !== 'all' ? 0 : (clip.value?.swaps.length ?? 0)));
const lanesBox = ref<HTMLElement>();
const top = ref(0);
const { height } = useElementSize(lanesBox);
const first = computed(() => Math.max(0, Math.floor(top.value / LANE) - 2));
const seen = computed(() =>
  boneLanes.value
    .slice(first.value, first.value + Math.ceil(height.value / LANE) + 4)
    .map((l, i) => ({ ...l, at: (first.value + i) * LANE })),
);
const total = computed(() => (boneLanes.value.length + swaps.value) * LANE);

/** Very many keys in sight are drawn as one outline a lane, and found by where the pointer is; fewer are buttons. */
const dense = computed(() => seen.value.reduce((n, l) => n + l.keys.length, 0) > 240);
const outline = (lane: BoneLane, chosen: boolean): string =>
  lane.keys
    .filter((k) => isChosen(lane.bone.id, k.time) === chosen)
    .map((k) => `M${(x(k.time + (chosen ? dragged(k.time) : 0)) - 5).toFixed(1)} 6h10v10h-10z`)
    .join('');
/** How near a key of a dense lane must be to be meant, in pixels. */
const GRAB = 7;
let grabbed: Drawn | null = null;
function laneDown(e: PointerEvent, lane: BoneLane): void {
  const px = e.clientX - track.value!.getBoundingClientRect().left;
  grabbed = null;
  // Dense lanes are one outline, so the key under the pointer is sought here.
  let best = dense.value ? GRAB : 0;
  for (const k of lane.keys) {
    const away = Math.abs(x(k.time) - px);
    if (away < best) [best, grabbed] = [away, k];
  }
  if (grabbed) grab(e, lane.bone.id, grabbed);
  else boxStart(e);
}
function laneUp(): void {
  if (grabbed) drop(grabbed);
  grabbed = null;
}

const { isChosen, refsOf, grab, pull, drop, press, arrow, dragged, shift } = useKeyHands(boneLanes, usable);

const box = ref<{ x0: number; y0: number; x1: number; y1: number } | null>(null);
function boxStart(e: PointerEvent): void {
  const r = lanesBox.value!.getBoundingClientRect();
  if (e.clientX - r.left < NAMES) return;
  lanesBox.value!.setPointerCapture(e.pointerId);
  const [px, py] = [e.clientX - r.left, e.clientY - r.top + lanesBox.value!.scrollTop];
  box.value = { x0: px, y0: py, x1: px, y1: py };
}
function boxMove(e: PointerEvent): void {
  if (!box.value) return;
  const r = lanesBox.value!.getBoundingClientRect();
  box.value = { ...box.value, x1: e.clientX - r.left, y1: e.clientY - r.top + lanesBox.value!.scrollTop };
}
function boxEnd(e: PointerEvent): void {
  const b = box.value;
  box.value = null;
  if (!b) return;
  const [l, r] = [Math.min(b.x0, b.x1), Math.max(b.x0, b.x1)],
    [t, u] = [Math.min(b.y0, b.y1), Math.max(b.y0, b.y1)];
  if (r - l < 4 && u - t < 4) {
    anim.chosen = [];
    anim.scrub(timeAt(e.clientX));
    return;
  }
  const inside = boneLanes.value.flatMap(({ bone, keys }, i) =>
    (i + 1) * LANE > t && i * LANE < u
      ? keys.filter((k) => x(k.time) >= l && x(k.time) <= r).flatMap((k) => refsOf(bone.id, k))
      : [],
  );
  anim.chosen = e.shiftKey ? [...anim.chosen, ...inside.filter((k) => !isChosen(k.bone, k.time))] : inside;
}
function ruler(e: PointerEvent): void {
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  anim.scrub(timeAt(e.clientX));
}
const rulerMove = (e: PointerEvent): void => {
  if (e.buttons & 1) anim.scrub(timeAt(e.clientX));
};
const depths = computed(() => {
  const p = session.project,
    out = new Map<Id, number>();
  if (p) for (const b of bonesInOrder(p.rig)) out.set(b.id, b.parent === null ? 0 : (out.get(b.parent) ?? 0) + 1);
  return out;
});
const tone = (bone: Bone): Record<string, string> => (bone.colour ? { '--tone': bone.colour } : {});
// The lane of a bone that is chosen in the view comes into sight.
watch(
  () => session.hand.bone,
  (id) => {
    const i = boneLanes.value.findIndex((l) => l.bone.id === id),
      el = lanesBox.value;
    if (i < 0 || !el) return;
    if (i * LANE < el.scrollTop) el.scrollTop = i * LANE;
    else if ((i + 1) * LANE > el.scrollTop + el.clientHeight) el.scrollTop = (i + 1) * LANE - el.clientHeight;
  },
  { flush: 'post' },
);
</script>

<template>
  <div ref="track" class="track">
    <div
      v-if="clip"
      class="ruler"
      data-testid="ruler"
      role="slider"
      tabindex="0"
      aria-label="Frame"
      :aria-valuenow="Math.round((anim.time * clip.fps) / TICKS)"
      aria-valuemin="0"
      :aria-valuemax="anim.frames"
      @pointerdown="ruler"
      @pointermove="rulerMove"
      @keydown.left.prevent.stop="anim.step(-1)"
      @keydown.right.prevent.stop="anim.step(1)"
    >
      <span
        class="span"
        :style="{
          left: `${x(anim.range?.[0] ?? 0)}px`,
          width: `${x(anim.range?.[1] ?? clip.length) - x(anim.range?.[0] ?? 0)}px`,
        }"
      />
      <span v-for="m in marks" :key="m.frame" class="mark figures" :style="{ left: `${m.at}px` }">{{ m.frame }}</span>
      <span class="now figures" :style="{ left: `${x(anim.time)}px` }">{{
        Math.round((anim.time * clip.fps) / TICKS)
      }}</span>
    </div>
    <div
      v-if="clip"
      ref="lanesBox"
      class="lanes"
      :class="{ sealed }"
      :style="{ '--shift': `${(shift / clip.length) * usable}px` }"
      @scroll="top = ($event.target as HTMLElement).scrollTop"
      @pointerdown.self="boxStart"
      @pointermove="boxMove"
      @pointerup="boxEnd"
    >
      <div class="all" :style="{ height: `${total}px` }" @pointerdown.self="boxStart">
        <div
          v-for="l in seen"
          :key="l.bone.id"
          class="lane"
          :class="[l.bone.side, { on: l.bone.id === session.hand.bone }]"
          :style="{ top: `${l.at}px`, ...tone(l.bone) }"
          @pointerdown.self="laneDown($event, l)"
          @pointermove="grabbed && pull($event)"
          @pointerup="laneUp"
        >
          <!-- eslint-disable-next-line vue/no-restricted-html-elements -- part of a lane: names it, as high as its keys -->
          <button
            type="button"
            class="name"
            :style="{ paddingLeft: `${10 + Math.min(5, depths.get(l.bone.id) ?? 0) * 8}px` }"
            @click="nameDown($event, l.bone.id)"
            @dblclick="openPart(l.bone.id)"
            @contextmenu.prevent="laneMenu($event, l.bone.id)"
          >
            <i aria-hidden="true" data-tip="Colour of the lane" />{{ l.bone.name }}<side-tag :side="l.bone.side" />
          </button>
          <span
            v-if="l.keys.length > 1"
            class="bar"
            :style="{ left: `${x(l.keys[0]!.time)}px`, width: `${x(l.keys.at(-1)!.time) - x(l.keys[0]!.time)}px` }"
          />
          <svg v-if="dense" class="outlines" aria-hidden="true">
            <path :d="outline(l, false)" />
            <path class="chosen" :d="outline(l, true)" />
          </svg>
          <!-- eslint-disable-next-line vue/no-restricted-html-elements -- part of a lane: drawn by the hundred, dragged in time -->
          <button
            v-for="k in dense ? [] : l.keys"
            :key="k.time"
            type="button"
            class="key"
            :class="[k.ease, { on: isChosen(l.bone.id, k.time) }]"
            :style="{ left: `${x(k.time + (isChosen(l.bone.id, k.time) ? dragged(k.time) : 0))}px` }"
            :aria-label="`Key of ${l.bone.name}${sideSuffix(l.bone.side)} at frame ${Math.round((k.time * clip.fps) / TICKS)}`"
            @pointerdown.stop="grab($event, l.bone.id, k)"
            @pointermove="pull"
            @pointerup.stop="drop(k)"
            @keydown.enter.prevent="press($event, l.bone.id, k)"
            @keydown.left="arrow($event, l.bone.id, k.time)"
            @keydown.right="arrow($event, l.bone.id, k.time)"
            @keydown.up="arrow($event, l.bone.id, k.time)"
            @keydown.down="arrow($event, l.bone.id, k.time)"
          />
        </div>
        <swap-lanes
          v-if="swaps > 0"
          :clip="clip"
          :x="x"
          :per-pixel="clip.length / usable"
          :top="boneLanes.length * LANE"
          :size="LANE"
        />
        <span class="needle" :style="{ left: `${x(anim.time)}px` }" />
      </div>
      <p v-if="boneLanes.length === 0" class="quiet hint">
        {{
          anim.filter || anim.side !== 'all'
            ? 'No lane is called so.'
            : 'No keys yet. Click a joint in the view and drag a ring.'
        }}
      </p>
      <span
        v-if="box"
        class="rubber"
        :style="{
          left: `${Math.min(box.x0, box.x1)}px`,
          top: `${Math.min(box.y0, box.y1)}px`,
          width: `${Math.abs(box.x1 - box.x0)}px`,
          height: `${Math.abs(box.y1 - box.y0)}px`,
        }"
      />
    </div>
    <p v-else class="quiet hint">Choose a clip on the left, or make one.</p>
  </div>
</template>

<style scoped>
.track {
  position: relative;
  display: grid;
  grid-template-rows: 24px minmax(0, 1fr);
  min-height: 0;
  overflow: hidden;
}
.ruler {
  position: relative;
  border-bottom: 1px solid var(--line);
  cursor: ew-resize;
  touch-action: none;
}
.span {
  position: absolute;
  inset-block: 0;
  background: var(--honey-soft);
}
.mark {
  position: absolute;
  top: 3px;
  transform: translateX(-50%);
  color: var(--quiet);
  pointer-events: none;
}
.now {
  position: absolute;
  top: 3px;
  transform: translateX(-50%);
  padding: 0 7px;
  border-radius: 4px;
  background: var(--resin);
  color: var(--resin-ink);
  pointer-events: none;
  line-height: 18px;
}
.lanes {
  position: relative;
  overflow: auto;
  touch-action: none;
}
.all {
  position: relative;
  min-height: 100%;
}
.lane {
  position: absolute;
  left: 0;
  right: 0;
  height: 22px;
  --tone: var(--side-centre);
}
.sealed .key {
  cursor: not-allowed;
  filter: grayscale(0.85);
}
.sealed .all {
  background: repeating-linear-gradient(
    -45deg,
    transparent 0 9px,
    color-mix(in srgb, var(--line) 34%, transparent) 9px 10px
  );
}
.lane.left {
  --tone: var(--side-left);
}
.lane.right {
  --tone: var(--side-right);
}
.lane.on {
  background: var(--honey-soft);
}
.lane.on .name {
  font-weight: 600;
}
.name {
  position: absolute;
  left: 0;
  top: 0;
  width: 168px;
  height: 22px;
  display: flex;
  align-items: center;
  gap: 7px;
  text-align: left;
  white-space: nowrap;
  overflow: hidden;
  font-size: 12px;
}
.name i {
  flex: none;
  width: 4px;
  height: 12px;
  border-radius: 2px;
  background: var(--tone);
}
.bar {
  position: absolute;
  top: 9px;
  height: 4px;
  border-radius: 2px;
  background: var(--tone);
  opacity: 0.35;
  pointer-events: none;
}
.key {
  position: absolute;
  top: 6px;
  width: 11px;
  height: 11px;
  transform: translateX(-50%);
  border-radius: 3px;
  background: var(--tone);
  cursor: grab;
  touch-action: none;
}
.key.step {
  border-radius: 0;
}
.key.linear {
  border-radius: 50%;
}
.key.curve {
  border-radius: 50% 3px;
}
.key.on {
  outline: 2px solid var(--ink);
  outline-offset: 1px;
  transform: translateX(calc(-50% + var(--shift)));
}
.outlines {
  position: absolute;
  inset: 0;
  width: 100%;
  height: 100%;
  pointer-events: none;
}
.outlines path {
  fill: var(--tone);
}
.outlines .chosen {
  stroke: var(--ink);
  stroke-width: 2;
  transform: translateX(var(--shift));
}
.needle {
  position: absolute;
  top: 0;
  bottom: 0;
  min-height: 100%;
  width: 2px;
  margin-left: -1px;
  background: var(--resin);
  pointer-events: none;
}
.rubber {
  position: absolute;
  border: 1px solid var(--honey);
  background: color-mix(in srgb, var(--honey) 18%, transparent);
  pointer-events: none;
}
.hint {
  padding: 12px 14px;
  position: absolute;
  top: 0;
}
</style>
