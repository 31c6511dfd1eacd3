<script setup lang="ts">
import { IconPlayerPause, IconPlayerPlay, IconPlayerSkipBack, IconRepeat } from '@tabler/icons-vue';
import { type Bone, TICKS, sideSuffix } from '@sphalerite/core/model';
import { type KeyRef, framesIn, keyTimes } from '@sphalerite/core/motion';
import { setClipEdit, shiftKeysEdit } from '@sphalerite/core/project';
import { bonesInOrder } from '@sphalerite/core/rig';
import { useElementSize } from '@vueuse/core';
import { computed, ref } from 'vue';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';

const session = useSession();
const anim = useAnimate();
const SPEEDS = [{ v: 0.25, t: '¼' }, { v: 0.5, t: '½' }, { v: 1, t: '1×' }];
const NAMES = 168;
const PAD = 12;
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
  return Array.from({ length: Math.floor(n / every) + 1 }, (_, i) => ({ frame: i * every, at: x(Math.round((i * every * TICKS) / c.fps)) }));
});
/** Lanes of bones that have keys, and of the one in hand, in the order of the rig. */
const lanes = computed(() => {
  const c = clip.value, p = session.project;
  if (!c || !p) return [];
  return bonesInOrder(p.rig).flatMap((bone: Bone) => {
    const lane = c.lanes.find((l) => l.bone === bone.id);
    return lane || bone.id === session.view.bone ? [{ bone, keys: lane ? keyTimes(lane) : [] }] : [];
  });
});
const isChosen = (bone: string, time: number): boolean => anim.chosen.some((k) => k.bone === bone && k.time === time);
const refsOf = (bone: string, key: { time: number; channels: readonly KeyRef['channel'][] }): KeyRef[] => key.channels.map((channel) => ({ bone, channel, time: key.time }));

let drag: { from: number; moved: boolean } | null = null;
const shift = ref(0);
function grab(e: PointerEvent, bone: string, key: { time: number; channels: KeyRef['channel'][] }): void {
  session.choose({ bone });
  const refs = refsOf(bone, key);
  if (e.shiftKey) anim.chosen = isChosen(bone, key.time) ? anim.chosen.filter((k) => k.bone !== bone || k.time !== key.time) : [...anim.chosen, ...refs];
  else if (!isChosen(bone, key.time)) anim.chosen = refs;
  drag = { from: e.clientX, moved: false };
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
}
function pull(e: PointerEvent): void {
  const c = clip.value;
  if (!drag || !c) return;
  const frame = TICKS / c.fps;
  shift.value = Math.round((((e.clientX - drag.from) / usable.value) * c.length) / frame) * frame;
  if (shift.value !== 0) drag.moved = true;
}
function drop(key: { time: number }): void {
  const c = session.clip;
  if (drag && c && shift.value !== 0) {
    const first = Math.min(...anim.chosen.map((k) => k.time)), last = Math.max(...anim.chosen.map((k) => k.time));
    const d = Math.round(Math.max(-first, Math.min(c.length - last, shift.value)));
    if (session.apply(shiftKeysEdit, { clip: c.id, keys: anim.chosen, delta: d })) anim.chosen = anim.chosen.map((k) => ({ ...k, time: k.time + d }));
  } else if (drag && !drag.moved) anim.scrub(key.time);
  drag = null;
  shift.value = 0;
}

const box = ref<{ x0: number; y0: number; x1: number; y1: number } | null>(null);
const lanesBox = ref<HTMLElement>();
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
const LANE = 22;
function boxEnd(e: PointerEvent): void {
  const b = box.value;
  box.value = null;
  if (!b) return;
  const [l, r] = [Math.min(b.x0, b.x1), Math.max(b.x0, b.x1)], [t, u] = [Math.min(b.y0, b.y1), Math.max(b.y0, b.y1)];
  if (r - l < 4 && u - t < 4) {
    anim.chosen = [];
    anim.scrub(timeAt(e.clientX));
    return;
  }
  anim.chosen = lanes.value.flatMap(({ bone, keys }, i) => ((i + 1) * LANE > t && i * LANE < u ? keys.filter((k) => x(k.time) >= l && x(k.time) <= r).flatMap((k) => refsOf(bone.id, k)) : []));
}
function ruler(e: PointerEvent): void {
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  anim.scrub(timeAt(e.clientX));
}
const rulerMove = (e: PointerEvent): void => {
  if (e.buttons & 1) anim.scrub(timeAt(e.clientX));
};
const depth = (bone: Bone): number => {
  let d = 0;
  for (let b: Bone | undefined = bone; b?.parent; b = session.project!.rig.bones.find((o) => o.id === b!.parent)) d++;
  return d;
};
</script>

<template>
  <div class="animate-bench">
    <header class="transport">
      <button type="button" class="bare" aria-label="To the first frame" title="To the first frame" @click="anim.scrub(0)"><IconPlayerSkipBack aria-hidden="true" /></button>
      <button type="button" class="btn dark play" :aria-label="anim.playing ? 'Stop' : 'Play'" title="Play or stop · P" :disabled="!clip" @click="anim.play()"><IconPlayerPause v-if="anim.playing" aria-hidden="true" /><IconPlayerPlay v-else aria-hidden="true" /></button>
      <button type="button" class="bare" :class="{ looped: clip?.loop }" aria-label="Loop" title="Loop" :aria-pressed="clip?.loop" :disabled="!clip" @click="session.apply(setClipEdit, { clip: clip!.id, loop: !clip!.loop })"><IconRepeat aria-hidden="true" /></button>
      <div class="segments figures"><button v-for="s in SPEEDS" :key="s.v" type="button" :aria-pressed="anim.speed === s.v" :aria-label="`Speed ${s.v}`" @click="anim.speed = s.v">{{ s.t }}</button></div>
      <span class="gap" />
      <span v-if="clip" class="figures quiet" data-testid="frame">frame {{ Math.round((anim.time * clip.fps) / TICKS) }} of {{ anim.frames }} · {{ (anim.time / TICKS).toFixed(2) }} s</span>
    </header>
    <div ref="track" class="track">
      <div v-if="clip" class="ruler" data-testid="ruler" role="slider" tabindex="0" aria-label="Frame" :aria-valuenow="Math.round((anim.time * clip.fps) / TICKS)" aria-valuemin="0" :aria-valuemax="anim.frames" @pointerdown="ruler" @pointermove="rulerMove" @keydown.left.prevent.stop="anim.step(-1)" @keydown.right.prevent.stop="anim.step(1)">
        <span class="span" :style="{ left: `${x(0)}px`, width: `${x(clip.length) - x(0)}px` }" />
        <span v-for="m in marks" :key="m.frame" class="mark figures" :style="{ left: `${m.at}px` }">{{ m.frame }}</span>
        <span class="now figures" :style="{ left: `${x(anim.time)}px` }">{{ Math.round((anim.time * clip.fps) / TICKS) }}</span>
      </div>
      <div v-if="clip" ref="lanesBox" class="lanes" @pointerdown.self="boxStart" @pointermove="boxMove" @pointerup="boxEnd">
        <div v-for="l in lanes" :key="l.bone.id" class="lane" :class="{ on: l.bone.id === session.view.bone }" @pointerdown.self="boxStart">
          <button type="button" class="name" :style="{ paddingLeft: `${10 + Math.min(5, depth(l.bone)) * 8}px` }" @click="session.choose({ bone: l.bone.id })"><i :class="l.bone.side" aria-hidden="true" />{{ l.bone.name }}{{ sideSuffix(l.bone.side) }}</button>
          <span v-if="l.keys.length > 1" class="bar" :class="l.bone.side" :style="{ left: `${x(l.keys[0]!.time)}px`, width: `${x(l.keys.at(-1)!.time) - x(l.keys[0]!.time)}px` }" />
          <button
            v-for="k in l.keys" :key="k.time" type="button" class="key" :class="[l.bone.side, k.ease, { on: isChosen(l.bone.id, k.time) }]" :style="{ left: `${x(k.time + (isChosen(l.bone.id, k.time) ? shift : 0))}px` }"
            :aria-label="`Key of ${l.bone.name}${sideSuffix(l.bone.side)} at frame ${Math.round((k.time * clip.fps) / TICKS)}`" @pointerdown.stop="grab($event, l.bone.id, k)" @pointermove="pull" @pointerup.stop="drop(k)"
          />
        </div>
        <p v-if="lanes.length === 0" class="quiet hint">No keys yet. Click a joint in the view and drag a ring.</p>
        <span class="needle" :style="{ left: `${x(anim.time)}px` }" />
        <span v-if="box" class="rubber" :style="{ left: `${Math.min(box.x0, box.x1)}px`, top: `${Math.min(box.y0, box.y1)}px`, width: `${Math.abs(box.x1 - box.x0)}px`, height: `${Math.abs(box.y1 - box.y0)}px` }" />
      </div>
      <p v-else class="quiet hint">Choose a clip on the left, or make one.</p>
    </div>
  </div>
</template>

<style scoped>
.animate-bench { display: grid; grid-template-rows: 44px 1fr; height: 100%; }
.transport { display: flex; align-items: center; gap: 8px; padding: 0 14px; border-bottom: 1px solid var(--line); }
.play { width: 36px; padding: 0; color: #f0b648; }
.looped { color: var(--resin); background: var(--honey-soft); }
.gap { flex: 1; }
.track { position: relative; display: grid; grid-template-rows: 24px 1fr; min-height: 0; overflow: hidden; }
.ruler { position: relative; border-bottom: 1px solid var(--line); cursor: ew-resize; touch-action: none; }
.span { position: absolute; inset-block: 0; background: var(--honey-soft); }
.mark { position: absolute; top: 3px; transform: translateX(-50%); color: var(--quiet); pointer-events: none; }
.now { position: absolute; top: 3px; transform: translateX(-50%); padding: 0 7px; border-radius: 4px; background: var(--resin); color: var(--resin-ink); pointer-events: none; line-height: 18px; }
.lanes { position: relative; overflow: auto; touch-action: none; }
.lane { position: relative; height: 22px; }
.lane.on { background: var(--honey-soft); }
.lane.on .name { font-weight: 600; }
.name { position: absolute; left: 0; top: 0; width: 168px; height: 22px; display: flex; align-items: center; gap: 7px; text-align: left; white-space: nowrap; overflow: hidden; font-size: 12px; }
.name i { flex: none; width: 4px; height: 12px; border-radius: 2px; background: var(--honey); }
.name i.left { background: #7d5a98; }
.name i.right { background: #2a7a70; }
.bar { position: absolute; top: 9px; height: 4px; border-radius: 2px; background: var(--honey); opacity: 0.35; pointer-events: none; }
.bar.left { background: #7d5a98; }
.bar.right { background: #2a7a70; }
.key { position: absolute; top: 6px; width: 11px; height: 11px; transform: translateX(-50%); border-radius: 3px; background: #c98a16; cursor: grab; touch-action: none; }
.key.left { background: #7d5a98; }
.key.right { background: #2a7a70; }
.key.step { border-radius: 0; }
.key.even { border-radius: 50%; }
.key.on { outline: 2px solid var(--ink); outline-offset: 1px; }
.needle { position: absolute; top: 0; bottom: 0; min-height: 100%; width: 2px; margin-left: -1px; background: var(--resin); pointer-events: none; }
.rubber { position: absolute; border: 1px solid var(--honey); background: color-mix(in srgb, var(--honey) 18%, transparent); pointer-events: none; }
.hint { padding: 12px 14px; }
</style>
