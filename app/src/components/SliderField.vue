<script setup lang="ts">
import { ElSlider } from 'element-plus';
import 'element-plus/theme-chalk/el-slider.css';

/** A figure between two ends by dragging: `input` while it is dragged, `change` once it is let go. */
withDefaults(
  defineProps<{
    modelValue: number;
    label: string;
    min?: number;
    max?: number;
    step?: number;
    marks?: Record<number, string> | undefined;
    /** Paint for the runway, as for a channel of a colour. */
    track?: string | undefined;
    disabled?: boolean;
  }>(),
  { min: 0, max: 1, step: 0.05, marks: undefined, track: undefined },
);
const emit = defineEmits<{ input: [value: number]; change: [value: number] }>();
</script>

<template>
  <el-slider
    size="small"
    class="slider-field"
    :class="{ painted: track }"
    :style="track ? { '--track': track } : {}"
    :model-value="modelValue"
    :min="min"
    :max="max"
    :step="step"
    :marks="marks as never"
    :show-tooltip="false"
    :aria-label="label"
    :disabled="disabled ?? false"
    @keydown="(e: KeyboardEvent) => e.key !== 'Escape' && e.stopPropagation()"
    @input="(v: unknown) => emit('input', Number(v))"
    @change="(v: unknown) => emit('change', Number(v))"
  />
</template>

<style>
.slider-field.el-slider {
  --el-slider-main-bg-color: var(--resin);
  --el-slider-runway-bg-color: var(--line);
  --el-slider-height: 4px;
  --el-slider-button-size: 14px;
  --el-slider-button-wrapper-size: 26px;
  --el-slider-button-wrapper-offset: -11px;
  height: 26px;
  padding: 0 7px;
}
.slider-field .el-slider__button {
  border-color: var(--resin);
  background: var(--raised);
}
.slider-field .el-slider__button-wrapper:focus-visible {
  outline: none;
}
.slider-field .el-slider__button-wrapper:focus-visible .el-slider__button {
  outline: 2px solid var(--resin);
  outline-offset: 1px;
}
.slider-field.painted {
  --el-slider-height: 8px;
  --el-slider-button-wrapper-offset: -9px;
}
.slider-field.painted .el-slider__runway {
  background: var(--track);
}
.slider-field.painted .el-slider__bar {
  background: none;
}
</style>
