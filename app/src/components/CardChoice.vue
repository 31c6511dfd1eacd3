<script setup lang="ts" generic="T extends string | number">
import { ElRadioButton, ElRadioGroup } from 'element-plus';
import 'element-plus/theme-chalk/el-radio-button.css';
import 'element-plus/theme-chalk/el-radio-group.css';
import type { Choice } from './choices';

/** One of several that are shown rather than named: a picture, a colour, a small card. Each is a real radio button. */
defineProps<{ modelValue: T | null | undefined; choices: readonly Choice<T>[]; label: string; disabled?: boolean }>();
const emit = defineEmits<{ 'update:modelValue': [value: T]; change: [value: T] }>();
function choose(v: unknown): void {
  emit('update:modelValue', v as T);
  emit('change', v as T);
}
</script>

<template>
  <el-radio-group
    class="card-choice"
    :model-value="modelValue as string"
    :aria-label="label"
    :disabled="disabled ?? false"
    @update:model-value="choose"
  >
    <el-radio-button
      v-for="c in choices"
      :key="String(c.value)"
      :value="c.value"
      :disabled="c.disabled ?? false"
      :data-tip="c.tip"
      ><span class="card-content" aria-hidden="true"
        ><slot :choice="c">{{ c.text }}</slot></span
      ><span class="visually-hidden">{{ c.name ?? c.text }}</span></el-radio-button
    >
  </el-radio-group>
</template>

<style>
.card-choice.el-radio-group {
  display: grid;
  gap: 5px;
  align-items: stretch;
}
.card-choice .el-radio-button {
  --el-radio-button-checked-bg-color: var(--honey-soft);
  --el-radio-button-checked-text-color: var(--ink);
  --el-radio-button-checked-border-color: var(--honey);
  position: relative;
  display: flex;
  min-width: 0;
}
.card-choice .el-radio-button .el-radio-button__inner {
  flex: 1;
  min-width: 0;
  padding: 5px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--ink);
  font: inherit;
  font-size: 13px;
  line-height: 1.4;
  white-space: normal;
  text-align: center;
  box-shadow: none;
}
.card-choice .card-content {
  display: inherit;
  grid-template-columns: inherit;
  gap: inherit;
  justify-items: inherit;
}
.card-choice .el-radio-button:not(.is-disabled) .el-radio-button__inner:hover {
  border-color: var(--line-strong);
  color: var(--ink);
}
.card-choice .el-radio-button.is-active .el-radio-button__inner {
  background: var(--honey-soft);
  border-color: var(--honey);
  box-shadow: inset 0 0 0 1px var(--honey) !important;
}
.card-choice .el-radio-button__original-radio {
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  z-index: 2;
  cursor: pointer;
}
.card-choice .el-radio-button:has(:focus-visible) .el-radio-button__inner {
  outline: 2px solid var(--resin);
  outline-offset: 1px;
}
</style>
