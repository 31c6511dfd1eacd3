<script setup lang="ts">
import { computed } from 'vue';
import { useView } from '../../stores/view';
import { useStage } from './stage-state';

/** The frame that is drawn around what shall be chosen. */
const stage = useStage();
const view = useView();
const frame = computed(() => {
  const f = stage.drawnFrame,
    box = view.viewport?.canvas.getBoundingClientRect();
  return (
    f &&
    box && { left: `${f.x - box.left}px`, top: `${f.y - box.top}px`, width: `${f.width}px`, height: `${f.height}px` }
  );
});
</script>

<template>
  <div v-if="frame" class="frame" :style="frame" data-testid="choosing-frame" />
</template>

<style scoped>
.frame {
  position: absolute;
  pointer-events: none;
  border: 1.5px dashed var(--ink);
  border-radius: 3px;
  background: color-mix(in srgb, var(--honey) 16%, transparent);
}
</style>
