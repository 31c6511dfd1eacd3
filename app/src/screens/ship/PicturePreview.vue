<script setup lang="ts">
import { onBeforeUnmount, ref, watch } from 'vue';
import { useLooking } from './looking';
import { useShip } from './ship-state';

/** The picture of the delivery as it is in the file, with its size and how many bytes it takes. */
const ship = useShip();
const looking = useLooking();
const canvas = ref<HTMLCanvasElement>();
const text = ref('');
function draw(): void {
  const source = looking.arrived?.picture() ?? null,
    c = canvas.value;
  if (!c) return;
  const g = c.getContext('2d')!;
  g.clearRect(0, 0, c.width, c.height);
  text.value = '';
  if (!source) return;
  text.value = `${source.width} × ${source.height}`;
  g.imageSmoothingEnabled = false;
  const k = Math.min(c.width / source.width, c.height / source.height);
  // A strip of one row is drawn as high as the place for it.
  const high = source.height === 1 ? c.height : source.height * k;
  g.drawImage(source.image, 0, 0, source.width * k, high);
}
const stop = watch(() => [looking.arrived, canvas.value], draw, { flush: 'post', immediate: true });
onBeforeUnmount(stop);
</script>

<template>
  <div class="picture">
    <canvas ref="canvas" width="64" height="64" aria-hidden="true" />
    <dl class="figures">
      <dt>picture</dt>
      <dd>{{ text || '–' }}</dd>
      <dt>materials</dt>
      <dd>{{ ship.counts['materials'] ?? '–' }}</dd>
    </dl>
  </div>
</template>

<style scoped>
.picture {
  display: grid;
  grid-template-columns: auto minmax(0, 1fr);
  gap: 10px;
  align-items: center;
  margin-bottom: 6px;
}
canvas {
  width: 56px;
  height: 56px;
  border: 1px solid var(--line);
  border-radius: 4px;
  image-rendering: pixelated;
  background: repeating-conic-gradient(var(--line) 0 25%, var(--panel) 0 50%) 0 0 / 10px 10px;
}
dl {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  gap: 2px 6px;
  margin: 0;
}
dt {
  color: var(--quiet);
  overflow: hidden;
  text-overflow: ellipsis;
}
dd {
  margin: 0;
  white-space: nowrap;
}
</style>
