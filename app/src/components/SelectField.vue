<script setup lang="ts" generic="T extends string | number | null">
import 'element-plus/theme-chalk/el-select.css';
import SelectFacade from './SelectFacade.vue';
import type { Choice } from './choices';
import { later } from './later';

/** One of many, in a list that opens; a long one can be typed into. */
defineProps<{
  modelValue: T | undefined;
  choices: readonly Choice<T>[];
  label: string;
  /** Stands there while nothing is chosen. */
  placeholder?: string;
  disabled?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: T]; change: [value: T] }>();
</script>

<script lang="ts">
const SelectList = later(() => import('./SelectList.vue'), SelectFacade);
</script>

<template>
  <component
    :is="SelectList"
    :model-value="modelValue"
    :choices="choices"
    :label="label"
    :placeholder="placeholder ?? ''"
    :disabled="disabled ?? false"
    @update:model-value="(v: T) => emit('update:modelValue', v)"
    @change="(v: T) => emit('change', v)"
  />
</template>

<style>
.select-field.el-select {
  min-width: 92px;
}
.select-field .el-select__wrapper {
  min-height: 28px;
  padding: 2px 8px;
  font-size: 13px;
  line-height: 20px;
  background: var(--raised);
  border-radius: var(--radius);
  box-shadow: 0 0 0 1px var(--line) inset;
}
.select-field .el-select__wrapper.is-hovering:not(.is-focused) {
  box-shadow: 0 0 0 1px var(--line-strong) inset;
}
.select-field .el-select__wrapper.is-focused {
  box-shadow: 0 0 0 1px var(--resin) inset;
}
</style>
