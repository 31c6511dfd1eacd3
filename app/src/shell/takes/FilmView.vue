<script setup lang="ts">
import type { Grade } from '@sphalerite/core/model';
import { type Exposed, type FilmLight, isBurnt, isDrawn, thinned } from '@sphalerite/core/render';
import { computed, onBeforeUnmount, onMounted, ref, watch } from 'vue';
import { useNotices } from '../../stores/notices';
import { sharedPool } from '../../workers/pool';

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
const notices = useNotices();
const canvas = ref<HTMLCanvasElement>();
const step = computed(() =>
  Math.ceil(Math.sqrt((props.film.width * props.film.height) / (props.growing ? 200_000 : 600_000))),
);
const width = computed(() => Math.ceil(props.film.width / step.value)),
  height = computed(() => Math.ceil(props.film.height / step.value));
/** How long the last look took: while the film grows, looks take no more than a tenth of the time. */
let took = 0;
let queued = false,
  developing = false,
  again = false,
  gone = false;
/** Developed beside the page; while one look is worked out the next waits. */
async function draw(): Promise<void> {
  queued = false;
  if (developing) {
    again = true;
    return;
  }
  developing = true;
  const began = performance.now();
  const { grade, transparent } = props,
    film = thinned(props.film, step.value, isDrawn(grade)),
    thin = { ...grade, outline: { ...grade.outline, width: grade.outline.width / step.value } };
  try {
    const input = { film, grade: JSON.parse(JSON.stringify(thin)) as Grade, transparent };
    const made = await sharedPool().run('develop', () => input);
    if (!gone) show(made.pixels, film);
    emit('exposed', made.exposed);
  } catch (e) {
    notices.fail(e);
  } finally {
    developing = false;
    took = performance.now() - began;
    if (again) soon();
    again = false;
  }
}
function show(pixels: Uint8Array<ArrayBuffer>, { width: wide, height: high }: FilmLight): void {
  const c = canvas.value;
  if (!c || c.width !== wide || c.height !== high) return;
  if (props.zebra)
    for (let i = 0; i < pixels.length; i += 4) {
      const p = i / 4;
      if (isBurnt(pixels, i) && ((p % wide) + Math.floor(p / wide)) % 8 < 4) pixels.set([179, 38, 30], i);
    }
  c.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(pixels.buffer), wide, high), 0, 0);
}
const soon = (): void => {
  if (queued || gone) return;
  queued = true;
  setTimeout(
    () => requestAnimationFrame(() => void draw()),
    props.growing ? Math.min(3000, Math.max(400, took * 9)) : 0,
  );
};
onBeforeUnmount(() => (gone = true));
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
