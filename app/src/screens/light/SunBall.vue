<script setup lang="ts">
import { computed } from 'vue';

/** The sun seen from above: the middle is overhead, the rim the horizon, below is in front. It is dragged to where it should stand. */
const props = defineProps<{ azimuth: number; elevation: number }>();
const emit = defineEmits<{
  drag: [sun: { azimuth: number; elevation: number }];
  change: [sun: { azimuth: number; elevation: number }];
}>();
function around(e: PointerEvent): void {
  const el = e.currentTarget as HTMLElement;
  if (e.type === 'pointerdown') el.setPointerCapture(e.pointerId);
  else if (!(e.buttons & 1) && e.type !== 'pointerup') return;
  const r = el.getBoundingClientRect();
  const dx = e.clientX - r.left - r.width / 2,
    dy = e.clientY - r.top - r.height / 2;
  const far = Math.min(1, Math.hypot(dx, dy) / (r.width / 2));
  const sun = {
    azimuth: Math.round((Math.atan2(dx, dy) * 180) / Math.PI),
    elevation: Math.round(Math.acos(far) * (180 / Math.PI)),
  };
  if (e.type === 'pointerup') emit('change', sun);
  else emit('drag', sun);
}
const dot = computed(() => {
  const r = Math.cos((Math.max(0, props.elevation) * Math.PI) / 180) * 42,
    a = (props.azimuth * Math.PI) / 180;
  return { cx: 48 + Math.sin(a) * r, cy: 48 + Math.cos(a) * r };
});
</script>

<template>
  <svg
    viewBox="0 0 96 96"
    class="dial"
    role="img"
    aria-label="Direction of the sun, seen from above; drag the sun"
    @pointerdown="around"
    @pointermove="around"
    @pointerup="around"
  >
    <circle cx="48" cy="48" r="43" />
    <circle cx="48" cy="48" r="22" class="mid" />
    <path d="M44 44h8v8h-8z" class="model" />
    <line x1="48" y1="48" :x2="dot.cx" :y2="dot.cy" />
    <circle :cx="dot.cx" :cy="dot.cy" r="6" class="disc" />
  </svg>
</template>

<style scoped>
.dial {
  flex: none;
  width: 92px;
  height: 92px;
  cursor: grab;
  touch-action: none;
}
.dial circle {
  fill: var(--ground);
  stroke: var(--line-strong);
}
.dial .mid {
  fill: none;
  stroke: var(--line);
}
.dial .model {
  fill: var(--quiet);
}
.dial line {
  stroke: var(--honey);
  stroke-width: 2;
}
.dial .disc {
  fill: var(--honey);
  stroke: var(--resin);
}
</style>
