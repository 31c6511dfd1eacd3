<script setup lang="ts">
import { type Clip, type Id, TICKS, find } from '@sphalerite/core/model';
import { moveSwapEdit, removeSwapsEdit } from '@sphalerite/core/project';
import { computed, shallowRef } from 'vue';
import { useSession } from '../../stores/session';
import { useAnimate } from './animate-state';

/** What sets of alternates wear over time: each key is dragged, moved by arrows and deleted as keys of bones are. */
const props = defineProps<{
  clip: Clip;
  /** Pixels of a time in ticks, and ticks of a pixel. */
  x: (ticks: number) => number;
  perPixel: number;
  /** Where the first lane stands, and how high each is. */
  top: number;
  size: number;
}>();
const session = useSession();
const anim = useAnimate();
const lanes = computed(() => {
  const p = session.project;
  return (p?.rig.alternateSets ?? []).flatMap((set) => {
    const lane = props.clip.swaps.find((l) => l.alternateSet === set.id);
    const nameOf = (mount: Id | null): string =>
      find(p!.parts, find(p!.rig.mounts, mount)?.part ?? null)?.name ?? 'nothing';
    return lane ? [{ set, keys: lane.keys.map((k) => ({ time: k.time, name: nameOf(k.mount) })) }] : [];
  });
});
const frame = computed(() => TICKS / props.clip.fps);
/** The key that is held, and by how many ticks it was moved. */
const held = shallowRef<{ readonly set: Id; readonly time: number; readonly from: number; readonly by: number } | null>(
  null,
);
const placeOf = (set: Id, time: number): number =>
  props.x(held.value?.set === set && held.value.time === time ? time + held.value.by : time);
function down(e: PointerEvent, set: Id, time: number): void {
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  held.value = { set, time, from: e.clientX, by: 0 };
}
function pull(e: PointerEvent): void {
  if (!held.value) return;
  const ticks = (e.clientX - held.value.from) * props.perPixel,
    by = Math.round(ticks / frame.value) * frame.value;
  held.value = { ...held.value, by: Math.max(-held.value.time, Math.min(props.clip.length - held.value.time, by)) };
}
function up(): void {
  const h = held.value;
  held.value = null;
  if (!h) return;
  if (h.by === 0) anim.scrub(h.time);
  else move(h.set, h.time, h.by);
}
function move(alternateSet: Id, time: number, by: number): void {
  const to = Math.round(time + by);
  if (to >= 0 && to <= props.clip.length) session.apply(moveSwapEdit, { clip: props.clip.id, alternateSet, time, to });
}
const remove = (alternateSet: Id, time: number): unknown =>
  session.apply(removeSwapsEdit, { clip: props.clip.id, alternateSet, times: [time] });
</script>

<template>
  <div
    v-for="(l, i) in lanes"
    :key="l.set.id"
    class="lane"
    :style="{ top: `${top + i * size}px`, height: `${size}px` }"
  >
    <span class="name">{{ l.set.name }} <small class="quiet">wears</small></span>
    <!-- By their order, so that a key that the arrows move keeps the keyboard. -->
    <!-- eslint-disable-next-line vue/no-restricted-html-elements -- part of a lane: stands at its time -->
    <button
      v-for="(k, n) in l.keys"
      :key="n"
      type="button"
      class="worn"
      :style="{ left: `${placeOf(l.set.id, k.time)}px` }"
      :data-tip="k.name"
      :aria-label="`${l.set.name} wears ${k.name} from frame ${Math.round((k.time * clip.fps) / TICKS)}`"
      @pointerdown.stop="down($event, l.set.id, k.time)"
      @pointermove="pull"
      @pointerup.stop="up"
      @keydown.enter.prevent="anim.scrub(k.time)"
      @keydown.left.prevent.stop="move(l.set.id, k.time, -frame)"
      @keydown.right.prevent.stop="move(l.set.id, k.time, frame)"
      @keydown.delete.prevent.stop="remove(l.set.id, k.time)"
    >
      {{ k.name }}
    </button>
  </div>
</template>

<style scoped>
.lane {
  position: absolute;
  left: 0;
  right: 0;
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
  padding-left: 10px;
  white-space: nowrap;
  overflow: hidden;
  font-size: 12px;
}
.worn {
  position: absolute;
  top: 2px;
  height: 18px;
  max-width: 90px;
  padding: 0 5px;
  border-radius: 3px;
  background: var(--honey-soft);
  border: 1px solid var(--honey);
  font-size: 11px;
  line-height: 16px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  cursor: grab;
  touch-action: none;
}
</style>
