<script setup lang="ts">
import type { EChartsType } from 'echarts/core';
import { computed, useTemplateRef } from 'vue';
import VChart from 'vue-echarts';
import { useSettings } from '../../stores/settings';
import { type ChartOption, chartTheme } from './theme';

/** A chart in the look of the application, as large as the place it stands in. Fetched when the first one is shown. */
const props = defineProps<{ option: ChartOption; label: string }>();
const emit = defineEmits<{
  /** Where it was clicked, in the units of its axes. */
  point: [x: number, y: number];
  /** What was clicked, as the option has it. */
  pick: [data: unknown];
}>();
const { settings } = useSettings();
// Read anew when the theme changes.
const theme = computed(() => (settings.theme, chartTheme()));
const chart = useTemplateRef<EChartsType>('chart');
function click(e: { offsetX: number; offsetY: number }): void {
  const at = chart.value?.convertFromPixel('grid', [e.offsetX, e.offsetY]) as number[] | undefined;
  if (at) emit('point', at[0]!, at[1]!);
}
</script>

<template>
  <v-chart
    ref="chart"
    class="chart-view"
    :option="props.option"
    :theme="theme"
    :init-options="{ renderer: 'svg' }"
    :update-options="{ notMerge: true }"
    autoresize
    role="img"
    :aria-label="label"
    @zr:click="click"
    @click="(e: { data?: unknown }) => emit('pick', e.data)"
  />
</template>

<style>
.chart-view {
  display: block;
  width: 100%;
  height: 100%;
  min-width: 0;
}
</style>
