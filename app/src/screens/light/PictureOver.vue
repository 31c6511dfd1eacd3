<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { developFilm } from '@sphalerite/core/render';
import { computed, onMounted, ref, watch } from 'vue';
import { useSession } from '../../stores/session';
import { useLight } from './light-state';
import ActionButton from '../../components/ActionButton.vue';

const light = useLight();
const session = useSession();
const canvas = ref<HTMLCanvasElement>();
/** Large pictures are shown by every n-th pixel, so that a look never holds up the hand. */
const step = computed(() =>
  Math.ceil(Math.sqrt(((light.current?.film.width ?? 1) * (light.current?.film.height ?? 1)) / 600_000)),
);
const size = computed(
  () =>
    [
      Math.ceil((light.current?.film.width ?? 1) / step.value),
      Math.ceil((light.current?.film.height ?? 1) / step.value),
    ] as const,
);
/** The picture's own exposure may be changed after it was traced. */
const exposure = computed(() =>
  light.current
    ? (session.project?.shots.find((s) => s.id === light.current!.shot.id)?.exposure ?? light.current.shot.exposure)
    : 0,
);
let queued = false;
function draw(): void {
  queued = false;
  const p = light.current,
    c = canvas.value;
  if (!p || !c) return;
  const pixels = developFilm(light.shown(p), exposure.value, step.value);
  c.getContext('2d')!.putImageData(
    new ImageData(new Uint8ClampedArray(pixels.buffer), size.value[0], size.value[1]),
    0,
    0,
  );
}
const soon = (): void => {
  if (queued) return;
  queued = true;
  // Growing pictures are shown four times a second; more would only cost what tracing needs.
  setTimeout(() => requestAnimationFrame(draw), light.tracing ? 250 : 0);
};
watch(() => [light.grown, light.current, light.calm, exposure.value], soon, { flush: 'post' });
onMounted(soon);
</script>

<template>
  <div v-if="light.current" class="over" data-testid="picture">
    <canvas
      ref="canvas"
      :width="size[0]"
      :height="size[1]"
      :aria-label="`Picture of ${light.current.shot.name}`"
      role="img"
    />
    <action-button v-if="!light.tracing" class="back" @click="light.current = null">
      <IconX aria-hidden="true" />Back to the view
    </action-button>
  </div>
</template>

<style scoped>
.over {
  position: absolute;
  inset: 0;
  z-index: 1;
  display: grid;
  place-items: center;
  padding: 52px 16px 16px;
  background: var(--ground);
}
canvas {
  width: 100%;
  height: 100%;
  min-height: 0;
  object-fit: contain;
}
.back {
  position: absolute;
  right: 14px;
  top: 11px;
}
</style>
