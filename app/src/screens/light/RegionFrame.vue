<script setup lang="ts">
import { computed, ref, useTemplateRef } from 'vue';
import { useGuides } from './guides';

/** Over the picture: what of it is traced first, and the drag that says so. */
const guides = useGuides();
const host = useTemplateRef<HTMLElement>('host');
const from = ref<readonly [number, number] | null>(null);
const at = (e: PointerEvent): [number, number] => {
  const r = host.value!.getBoundingClientRect();
  const share = (v: number, low: number, wide: number): number => Math.max(0, Math.min(1, (v - low) / wide));
  return [share(e.clientX, r.left, r.width), share(e.clientY, r.top, r.height)];
};
function down(e: PointerEvent): void {
  if (!guides.regioning || e.button !== 0) return;
  host.value!.setPointerCapture(e.pointerId);
  from.value = at(e);
}
function move(e: PointerEvent): void {
  if (!from.value) return;
  const [x, y] = at(e),
    [u, v] = from.value;
  guides.region = [Math.min(x, u), Math.min(y, v), Math.abs(x - u), Math.abs(y - v)];
}
function up(): void {
  if (!from.value) return;
  from.value = null;
  guides.regioning = false;
  // A click is no drag.
  if (guides.region && Math.min(guides.region[2], guides.region[3]) < 0.01) guides.region = null;
}
const place = computed(() => {
  const r = guides.region;
  if (!r) return null;
  const [left, top, width, height] = r.map((v) => `${v * 100}%`);
  return { left, top, width, height };
});
</script>

<template>
  <div
    ref="host"
    class="region"
    :class="{ drawing: guides.regioning }"
    data-testid="region"
    @pointerdown="down"
    @pointermove="move"
    @pointerup="up"
    @pointercancel="up"
  >
    <i v-if="place" :style="place" aria-hidden="true" />
  </div>
</template>

<style scoped>
.region {
  position: absolute;
  inset: 0;
}
.region.drawing {
  cursor: crosshair;
  pointer-events: auto;
}
.region i {
  position: absolute;
  border: 1.5px dashed var(--honey);
  box-shadow: 0 0 0 1px #0006;
}
</style>
