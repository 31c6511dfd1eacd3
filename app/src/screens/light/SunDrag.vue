<script setup lang="ts">
import { ref } from 'vue';
import { useShot } from './shot-in-hand';

/** Over the picture: drags turn the sun, across around, up and down higher and lower. */
const hand = useShot();
const held = ref<{ x: number; y: number; azimuth: number; elevation: number } | null>(null);
/** Degrees of a pixel. */
const STEP = 0.4;
function down(e: PointerEvent): void {
  if (e.button !== 0) return;
  (e.currentTarget as Element).setPointerCapture(e.pointerId);
  const { azimuth, elevation } = hand.shot!.light.sun;
  held.value = { x: e.clientX, y: e.clientY, azimuth, elevation };
}
function at(e: PointerEvent): { azimuth: number; elevation: number } {
  const { x, y, azimuth, elevation } = held.value!;
  const around = azimuth - (e.clientX - x) * STEP;
  return {
    azimuth: Math.round(((((around + 180) % 360) + 360) % 360) - 180),
    elevation: Math.round(Math.max(-10, Math.min(90, elevation - (e.clientY - y) * STEP))),
  };
}
function move(e: PointerEvent): void {
  if (held.value) hand.dragLight('sun', at(e));
}
function up(e: PointerEvent): void {
  if (!held.value) return;
  const turned = at(e);
  held.value = null;
  hand.light('sun', turned);
}
</script>

<template>
  <div
    class="sun-drag"
    data-testid="sun-drag"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="
      held = null;
      hand.letGo();
    "
  />
</template>

<style scoped>
.sun-drag {
  position: absolute;
  inset: 0;
  pointer-events: auto;
  cursor: move;
}
</style>
