<script setup lang="ts">
import { composite } from '@sphalerite/core/model';
import { byteCounts } from '@sphalerite/core/voxel';
import { computed } from 'vue';
import GrowBench from './GrowBench.vue';
import { useBringing } from './bring-state';

/** Others to choose from where something is made up; else the colours that come, as large as their share of the cubes. */
const bringing = useBringing();
const rows = computed(() => {
  const p = bringing.made?.project;
  if (!p) return [];
  const counts = new Uint32Array(256);
  for (const part of p.parts) byteCounts(composite(part), counts);
  return p.palettes[0]!.swatches.map((s) => ({ ...s, n: counts[s.byte]! })).filter((s) => s.n > 0);
});
const grows = computed(() => bringing.waiting?.find.files.length === 0);
</script>

<template>
  <grow-bench v-if="grows" />
  <div v-else class="bring-bench">
    <div class="panel-head">
      <h3>Colours that come</h3>
      <span class="quiet figures">{{ rows.length }}</span>
    </div>
    <ul aria-label="Colours that come">
      <li
        v-for="s in rows"
        :key="s.byte"
        :style="{ background: s.colour, flexGrow: Math.sqrt(s.n) }"
        :data-tip="`${s.name} · ${s.n.toLocaleString('en')} cubes`"
      />
    </ul>
  </div>
</template>

<style scoped>
.bring-bench {
  display: grid;
  grid-template-rows: auto minmax(0, 1fr);
  gap: 8px;
  height: 100%;
  padding: 8px 14px 12px;
}
ul {
  display: flex;
  flex-wrap: wrap;
  align-content: stretch;
  gap: 4px;
  margin: 0;
  padding: 0;
  list-style: none;
  overflow: auto;
}
li {
  min-width: 22px;
  min-height: 22px;
  border-radius: 4px;
  border: 1px solid var(--line);
}
</style>
