<script setup lang="ts">
import type { Grade } from '@sphalerite/core/model';
import { type Exposed, type FilmLight, developFilm, exposed, isBurnt } from '@sphalerite/core/render';
import { computed, onMounted, ref, watch } from 'vue';

/** A film as a picture, graded; large ones by every n-th pixel, so that a look never holds up the hand. */
const props = defineProps<{
  film: FilmLight;
  grade: Grade;
  transparent: boolean;
  /** Rises when the film has grown. */
  grown: number;
  /** Whether it is growing: then it is shown a few times a second, more would only cost what tracing needs. */
  growing: boolean;
  /** Whether what is burnt out is striped. */
  zebra: boolean;
  label: string;
}>();
const emit = defineEmits<{ exposed: [figures: Exposed] }>();
const canvas = ref<HTMLCanvasElement>();
const step = computed(() =>
  Math.ceil(Math.sqrt((props.film.width * props.film.height) / (props.growing ? 200_000 : 600_000))),
);
const width = computed(() => Math.ceil(props.film.width / step.value)),
  height = computed(() => Math.ceil(props.film.height / step.value));
let queued = false;
function draw(): void {
  queued = false;
  const c = canvas.value;
  if (!c) return;
  const pixels = developFilm(props.film, { grade: props.grade, transparent: props.transparent, step: step.value });
  emit('exposed', exposed(pixels));
  if (props.zebra)
    for (let i = 0; i < pixels.length; i += 4) {
      const p = i / 4;
      if (isBurnt(pixels, i) && ((p % width.value) + Math.floor(p / width.value)) % 8 < 4) pixels.set([179, 38, 30], i);
    }
  c.getContext('2d')!.putImageData(
    new ImageData(new Uint8ClampedArray(pixels.buffer), width.value, height.value),
    0,
    0,
  );
}
const soon = (): void => {
  if (queued) return;
  queued = true;
  setTimeout(() => requestAnimationFrame(draw), props.growing ? 400 : 0);
};
watch(() => [props.film, props.grown, props.grade, props.transparent, props.zebra], soon, { flush: 'post' });
onMounted(soon);
</script>

<template>
  <canvas ref="canvas" class="film" :width="width" :height="height" :aria-label="label" role="img" />
</template>

<style scoped>
.film {
  display: block;
  width: 100%;
  height: 100%;
}
</style>
