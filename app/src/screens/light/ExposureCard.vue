<script setup lang="ts">
import type { Exposed } from '@sphalerite/core/render';
import { computed } from 'vue';

/** How bright a picture is: how many pixels are of each brightness, and what share is burnt out. */
const props = defineProps<{ figures: Exposed; stops: number }>();
const path = computed(() => {
  const most = Math.max(...props.figures.bars.slice(1, 63), 1);
  const points = props.figures.bars.map((n, i) => `${(i / 63) * 172},${(48 - Math.min(1, n / most) * 46).toFixed(1)}`);
  return `M0,48 L${points.join(' L')} L172,48 Z`;
});
const told = computed(() => {
  const { burnt } = props.figures;
  const stops = `${props.stops > 0 ? '+' : ''}${props.stops.toFixed(1)} stops`;
  return `${stops} · ${(burnt * 100).toFixed(burnt < 0.1 ? 1 : 0)} % burnt out`;
});
</script>

<template>
  <figure class="exposure">
    <svg viewBox="0 0 172 48" aria-hidden="true"><path :d="path" /></svg>
    <figcaption class="figures" :class="{ much: figures.burnt > 0.01 }">{{ told }}</figcaption>
  </figure>
</template>

<style scoped>
.exposure {
  margin: 0;
  padding: 8px 10px;
  border-radius: var(--radius);
  background: color-mix(in srgb, #1e1b18 84%, transparent);
  color: #ede6db;
}
svg {
  display: block;
  width: 172px;
  height: 48px;
}
path {
  fill: #e3a127;
}
figcaption {
  margin-top: 4px;
  font-size: 11px;
}
.much {
  color: #ffb0a6;
}
</style>
