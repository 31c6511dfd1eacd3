<script setup lang="ts">
import { type Vec3, add, scale } from '@sphalerite/core/math';
import { shotLamps } from '@sphalerite/core/render';
import { lampsOf } from '@sphalerite/core/scene';
import { useElementSize } from '@vueuse/core';
import { computed, ref, useTemplateRef } from 'vue';
import { useSession } from '../../stores/session';
import { useView } from '../../stores/view';
import { lampChange, lampChanges } from './lamp-changes';
import { useShot } from './shot-in-hand';

/** Over the view: the lamps of the scene where the shot has them. Dragged, they move along the picture, with Shift up and down alone. */
const session = useSession();
const view = useView();
const hand = useShot();
const host = useTemplateRef<HTMLElement>('host');
const { width } = useElementSize(host);
const held = ref<{ lamp: string; from: Vec3; x: number; y: number } | null>(null);
const lamps = computed(() => {
  const { shot } = hand,
    { project } = session;
  if (!shot || !project || shot.scene === null || view.turned < 0 || width.value === 0 || !view.viewport) return [];
  const on = view.viewport.projection(),
    box = view.viewport.canvas.getBoundingClientRect();
  const placed = lampsOf(project, shot.scene);
  return shotLamps(project, shot.scene, shot.light).flatMap(({ at }, i) => {
    const { lamp, copy } = placed[i]!,
      { x, y, ahead } = on(at);
    // Copies go where the first goes.
    return ahead && copy === 0 ? [{ id: lamp.id, name: lamp.name, at, x: x - box.left, y: y - box.top }] : [];
  });
});
function down(e: PointerEvent, lamp: string): void {
  if (e.button !== 0 || !session.writable) return;
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  held.value = { lamp, from: lampChange(hand.shot!.light, lamp).by, x: e.clientX, y: e.clientY };
}
function moved(e: PointerEvent): Vec3 {
  const { lamp, from, x, y } = held.value!;
  const { camera } = view.viewport!,
    on = view.viewport!.projection(),
    at = lamps.value.find((l) => l.id === lamp)!.at;
  // How far a pixel is there.
  const k =
    1 / Math.max(1e-3, Math.hypot(on(add(at, camera.right)).x - on(at).x, on(add(at, camera.right)).y - on(at).y));
  const along = e.shiftKey ? ([0, 0, 0] as Vec3) : scale(camera.right, (e.clientX - x) * k),
    up = scale(e.shiftKey ? [0, 1, 0] : camera.up, (y - e.clientY) * k);
  return add(from, add(along, up)).map((v) => Math.round(v * 4) / 4) as unknown as Vec3;
}
function move(e: PointerEvent): void {
  if (held.value) hand.dragLight('lamps', lampChanges(hand.shot!.light, held.value.lamp, { by: moved(e) }));
}
function up(e: PointerEvent): void {
  if (!held.value) return;
  const change = lampChanges(hand.shot!.light, held.value.lamp, { by: moved(e) });
  held.value = null;
  hand.light('lamps', change);
}
</script>

<template>
  <div ref="host" class="lamps">
    <i
      v-for="l in lamps"
      :key="l.id"
      class="lamp"
      :class="{ held: held?.lamp === l.id }"
      role="img"
      :aria-label="`${l.name}, to be dragged`"
      :data-tip="`${l.name}: drag it for this shot alone`"
      :style="{ left: `${l.x}px`, top: `${l.y}px` }"
      @pointerdown.stop="down($event, l.id)"
      @pointermove="move"
      @pointerup="up"
      @pointercancel="held = null"
    />
  </div>
</template>

<style scoped>
.lamps {
  position: absolute;
  inset: 0;
  pointer-events: none;
}
.lamp {
  position: absolute;
  width: 13px;
  height: 13px;
  margin: -7px 0 0 -7px;
  border: 2px solid #fff;
  border-radius: 50%;
  background: var(--honey);
  box-shadow: 0 0 0 1px #0008;
  pointer-events: auto;
  cursor: grab;
}
.lamp.held {
  cursor: grabbing;
}
</style>
