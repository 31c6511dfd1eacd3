<script setup lang="ts">
import { type Quat, type Vec3, lerp, mapVec, scale, slerp } from '@sphalerite/core/math';
import { type Channel, type Curve, TICKS } from '@sphalerite/core/model';
import { EVEN_CURVE, type KeyRef, keysOf, nearestFrame, sampleKeys } from '@sphalerite/core/motion';
import { type Edit, easeKeysEdit, setKeyEdit, shiftKeysEdit } from '@sphalerite/core/project';
import { useElementSize } from '@vueuse/core';
import { computed, ref, shallowRef } from 'vue';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees } from '../shared/degrees';
import { useAnimate } from './animate-state';
import ChoiceField from '../../components/ChoiceField.vue';
import { choices } from '../../components/choices';
import { say } from '../../words';

/** The bone in hand over time: a curve for each axis, keys to drag in time and value, and the handles of the way to the next key. */
const session = useSession();
const anim = useAnimate();
const host = ref<HTMLElement>();
const { width, height } = useElementSize(host);
const channel = ref<Channel>('turn');
const CHANNELS = choices(['turn', 'move', 'hinge', 'scale'] as const, (c) => (c === 'hinge' ? 'spin' : c));
const PAD = { left: 46, right: 14, top: 10, bottom: 20 };
const AXES = ['X', 'Y', 'Z'] as const;
const clip = computed(() => anim.clip);
const lane = computed(() => clip.value?.lanes.find((l) => l.bone === session.hand.bone) ?? null);
const keys = computed(() => (lane.value ? keysOf(lane.value, channel.value) : []));
const angles = computed(() => channel.value === 'turn' || channel.value === 'hinge');
/** A key's value as figures: angles in degrees. */
function figures(v: Vec3 | Quat): Vec3 {
  if (channel.value === 'turn') return toDegrees(v as Quat);
  return channel.value === 'hinge' ? scale(v as Vec3, 180 / Math.PI) : (v as Vec3);
}
function valueOf(v: Vec3): Vec3 | Quat {
  if (channel.value === 'turn') return fromDegrees(v);
  return channel.value === 'hinge' ? scale(v, Math.PI / 180) : v;
}
const at = (time: number): Vec3 => {
  const l = lane.value!;
  if (channel.value === 'turn') return figures(sampleKeys(l.turn, time, slerp)!);
  return figures(sampleKeys(l[channel.value], time, lerp)!);
};
/** Every axis at a sample each four pixels. */
const samples = computed(() => {
  const c = clip.value;
  if (!c || keys.value.length === 0) return [];
  const n = Math.max(2, Math.round((width.value - PAD.left - PAD.right) / 4));
  return Array.from({ length: n + 1 }, (_, i) => ({ time: (i / n) * c.length, v: at((i / n) * c.length) }));
});
/** While the hand is down the scale stays as it is, so that a value cannot run away from the pointer. */
const frozen = shallowRef<{ readonly lo: number; readonly hi: number } | null>(null);
const span = computed(() => {
  if (frozen.value) return frozen.value;
  const all = samples.value.flatMap((s) => [...s.v]);
  const lo = Math.min(0, ...all),
    hi = Math.max(0, ...all),
    pad = Math.max(angles.value ? 8 : 0.5, (hi - lo) * 0.12);
  return { lo: lo - pad, hi: hi + pad };
});
const x = (time: number): number =>
  PAD.left + (time / (clip.value?.length ?? 1)) * (width.value - PAD.left - PAD.right);
const y = (v: number): number =>
  PAD.top + ((span.value.hi - v) / (span.value.hi - span.value.lo)) * (height.value - PAD.top - PAD.bottom);
const timeAt = (px: number): number =>
  ((px - PAD.left) / (width.value - PAD.left - PAD.right)) * (clip.value?.length ?? 1);
const valueAt = (py: number): number =>
  span.value.hi - ((py - PAD.top) / (height.value - PAD.top - PAD.bottom)) * (span.value.hi - span.value.lo);
const path = (axis: number): string =>
  samples.value.map((s, i) => `${i === 0 ? 'M' : 'L'}${x(s.time).toFixed(1)} ${y(s.v[axis]!).toFixed(1)}`).join('');
const ticks = computed(() => {
  const { lo, hi } = span.value,
    step = [0.5, 1, 2, 5, 10, 15, 30, 45, 90, 180, 360, 720, 1800].find((s) => (hi - lo) / s <= 5) ?? 3600;
  return Array.from(
    { length: Math.floor(hi / step) - Math.ceil(lo / step) + 1 },
    (_, i) => (Math.ceil(lo / step) + i) * step,
  );
});
/** The key whose way to the next is shown: the chosen one, else the one before this moment. */
const current = computed(() => {
  const list = keys.value,
    own = anim.chosen.find((k) => k.bone === session.hand.bone && k.channel === channel.value);
  const i = own ? list.findIndex((k) => k.time === own.time) : list.findLastIndex((k) => k.time <= anim.time);
  const a = list[i],
    b = list[i + 1];
  if (!a || !b) return null;
  const va = figures(a.value),
    vb = figures(b.value);
  // The handles stand on the axis that goes furthest.
  const axis = [0, 1, 2].reduce((m, k) => (Math.abs(vb[k]! - va[k]!) > Math.abs(vb[m]! - va[m]!) ? k : m), 0);
  return { a, b, axis, from: va[axis]!, to: vb[axis]!, curve: a.curve ?? EVEN_CURVE };
});
const handle = (n: 0 | 1): { x: number; y: number } => {
  const c = current.value!,
    cx = c.curve[n * 2]!,
    cy = c.curve[n * 2 + 1]!;
  return { x: x(c.a.time + (c.b.time - c.a.time) * cx), y: y(c.from + (c.to - c.from) * cy) };
};
const refOf = (time: number): KeyRef => ({ bone: session.hand.bone!, channel: channel.value, time });

type Drag =
  | {
      readonly kind: 'key';
      readonly time: number;
      readonly axis: number;
      readonly x: number;
      readonly y: number;
      way: 'none' | 'time' | 'value';
    }
  | { readonly kind: 'handle'; readonly n: 0 | 1 };
let drag: Drag | null = null;
const where = (e: PointerEvent): { x: number; y: number } => {
  const r = host.value!.getBoundingClientRect();
  return { x: e.clientX - r.left, y: e.clientY - r.top };
};
function grabKey(e: PointerEvent, time: number, axis: number): void {
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  anim.chosen = [refOf(time)];
  anim.scrub(time);
  frozen.value = span.value;
  drag = { kind: 'key', time, axis, ...where(e), way: 'none' };
}
function grabHandle(e: PointerEvent, n: 0 | 1): void {
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  frozen.value = span.value;
  drag = { kind: 'handle', n };
}
/** What letting go would do: tried out while the hand is down, then done. */
function meant(e: PointerEvent): ((done: boolean) => void) | null {
  const c = session.clip,
    d = drag,
    p = where(e);
  if (!c || !d) return null;
  if (d.kind === 'handle') {
    const s = current.value!,
      tx = Math.max(0, Math.min(1, (timeAt(p.x) - s.a.time) / (s.b.time - s.a.time)));
    const ty = s.to === s.from ? d.n : Math.max(-2, Math.min(3, (valueAt(p.y) - s.from) / (s.to - s.from)));
    const curve = (d.n === 0 ? [tx, ty, s.curve[2], s.curve[3]] : [s.curve[0], s.curve[1], tx, ty]).map(
      (v) => Math.round(v * 1000) / 1000,
    ) as unknown as Curve;
    const args = { clip: c.id, keys: [refOf(s.a.time)], ease: 'curve' as const, curve };
    return (done) => go(done, easeKeysEdit, args);
  }
  if (d.way === 'none') d.way = Math.abs(p.x - d.x) > 4 ? 'time' : Math.abs(p.y - d.y) > 4 ? 'value' : 'none';
  if (d.way === 'time') {
    const delta = nearestFrame(c, timeAt(p.x)) - d.time;
    return (done) => go(done, shiftKeysEdit, { clip: c.id, keys: [refOf(d.time)], delta });
  }
  const own = c.lanes.find((l) => l.bone === session.hand.bone),
    key = own && keysOf(own, channel.value).find((k) => k.time === d.time);
  if (d.way !== 'value' || !key) return null;
  const step = channel.value === 'turn' ? 1 : channel.value === 'hinge' ? 5 : 0.25,
    v = mapVec(figures(key.value), (o, i) => (i === d.axis ? Math.round(valueAt(p.y) / step) * step : o));
  const args = {
    clip: c.id,
    bone: session.hand.bone!,
    channel: channel.value,
    key: { ...key, value: valueOf(v) },
  };
  return (done) => go(done, setKeyEdit, args);
}
function go<A>(done: boolean, edit: Edit<A>, args: A): void {
  if (done) session.apply(edit, args);
  else session.preview = session.tryEdit(edit, args, true);
}
const ghost = ref<{ x: number; y: number } | null>(null);
function move(e: PointerEvent): void {
  if (!drag) return;
  const run = meant(e);
  // A key on its way in time is shown by the pointer alone: its dot is drawn anew wherever it lands.
  if (drag.kind === 'handle' || drag.way === 'value') run?.(false);
  ghost.value = where(e);
}
function up(e: PointerEvent): void {
  const run = meant(e);
  drag = null;
  ghost.value = frozen.value = null;
  session.preview = null;
  run?.(true);
}
const scrub = (e: PointerEvent): void => {
  if (e.buttons & 1 && !drag) anim.scrub(timeAt(where(e).x));
};
</script>

<template>
  <div class="curves">
    <div class="side">
      <choice-field label="Channel" wide v-model="channel" :choices="CHANNELS" />
      <ul>
        <li v-for="a in AXES" :key="a" :class="a.toLowerCase()"><i aria-hidden="true" />{{ a }}</li>
      </ul>
      <p class="quiet">
        {{ session.bone ? say('curves.hint', { n: keys.length }) : 'Choose a bone.' }}
      </p>
    </div>
    <div ref="host" class="host" @pointerdown.self="scrub" @pointermove="scrub">
      <svg
        v-if="keys.length > 0 && clip"
        :width="width"
        :height="height"
        role="img"
        aria-label="Curves"
        @pointermove="move"
        @pointerup="up"
      >
        <g v-for="t in ticks" :key="t">
          <line :x1="PAD.left" :x2="width - PAD.right" :y1="y(t)" :y2="y(t)" class="grid" :class="{ zero: t === 0 }" />
          <text :x="PAD.left - 6" :y="y(t) + 4" class="figures">{{ t }}{{ angles ? '°' : '' }}</text>
        </g>
        <path v-for="(a, i) in AXES" :key="a" :d="path(i)" class="line" :class="a.toLowerCase()" />
        <line :x1="x(anim.time)" :x2="x(anim.time)" y1="0" :y2="height" class="needle" />
        <template v-if="current">
          <path
            :d="`M${x(current.a.time)} ${y(current.from)}L${handle(0).x} ${handle(0).y}M${x(current.b.time)} ${y(current.to)}L${handle(1).x} ${handle(1).y}`"
            class="arm"
          />
          <circle
            v-for="n in [0, 1] as const"
            :key="n"
            :cx="handle(n).x"
            :cy="handle(n).y"
            r="6"
            class="handle"
            :class="{ own: current.a.ease === 'curve' }"
            role="button"
            :aria-label="n === 0 ? 'Handle out of the key' : 'Handle into the next'"
            @pointerdown.stop="grabHandle($event, n)"
          />
        </template>
        <g v-for="k in keys" :key="k.time">
          <circle
            v-for="(a, i) in AXES"
            :key="a"
            :cx="x(k.time)"
            :cy="y(figures(k.value)[i]!)"
            r="4.5"
            class="dot"
            :class="[
              a.toLowerCase(),
              {
                on: anim.chosen.some((c) => c.bone === session.hand.bone && c.channel === channel && c.time === k.time),
              },
            ]"
            role="button"
            :aria-label="`${a} at frame ${Math.round((k.time * clip.fps) / TICKS)}`"
            @pointerdown.stop="grabKey($event, k.time, i)"
          />
        </g>
        <circle v-if="ghost" :cx="ghost.x" :cy="ghost.y" r="7" class="ghost" />
      </svg>
      <p v-else class="quiet hint">
        {{ clip ? `No ${channel === 'hinge' ? 'spin' : channel} keys of this bone.` : 'Choose a clip on the left.' }}
      </p>
    </div>
  </div>
</template>

<style scoped>
.curves {
  display: grid;
  grid-template-columns: 190px minmax(0, 1fr);
  min-height: 0;
}
.side {
  padding: 10px 12px;
  display: grid;
  gap: 8px;
  align-content: start;
  border-right: 1px solid var(--line);
  font-size: 12px;
}
.wide {
  display: flex;
}
.wide button {
  flex: 1;
}
ul {
  list-style: none;
  display: flex;
  gap: 14px;
  margin: 0;
  padding: 0;
}
li {
  display: flex;
  gap: 5px;
  align-items: center;
}
li i {
  width: 14px;
  height: 3px;
  background: var(--c);
}
.x {
  --c: var(--axis-x);
}
.y {
  --c: var(--axis-y);
}
.z {
  --c: var(--axis-z);
}
.host {
  position: relative;
  min-width: 0;
  min-height: 0;
  overflow: hidden;
  touch-action: none;
}
svg {
  display: block;
  position: absolute;
  inset: 0;
}
.grid {
  stroke: var(--line);
  stroke-width: 1;
}
.grid.zero {
  stroke: var(--line-strong);
}
text {
  fill: var(--quiet);
  font-size: 10.5px;
  text-anchor: end;
}
.line {
  fill: none;
  stroke: var(--c);
  stroke-width: 2;
  pointer-events: none;
}
.dot {
  fill: var(--panel);
  stroke: var(--c);
  stroke-width: 2.5;
  cursor: move;
}
.dot.on {
  fill: var(--c);
}
.arm {
  stroke: var(--quiet);
  stroke-width: 1.2;
  stroke-dasharray: 3 3;
  fill: none;
  pointer-events: none;
}
.handle {
  fill: var(--panel);
  stroke: var(--resin);
  stroke-width: 2;
  cursor: grab;
}
.handle.own {
  fill: var(--honey);
}
.ghost {
  fill: none;
  stroke: var(--honey);
  stroke-width: 2;
  pointer-events: none;
}
.needle {
  stroke: var(--resin);
  stroke-width: 2;
  pointer-events: none;
}
.hint {
  padding: 14px;
}
</style>
