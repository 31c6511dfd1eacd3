<script setup lang="ts" generic="T extends string | number | boolean">
import { ElSegmented } from 'element-plus';
import 'element-plus/theme-chalk/el-segmented.css';
import type { Choice } from './choices';

/** One of a few, side by side; more than six are easier found in a `SelectField`. Each is a real radio button. */
defineProps<{
  modelValue: T | null | undefined;
  choices: readonly Choice<T>[];
  label: string;
  wide?: boolean;
  upright?: boolean;
}>();
const emit = defineEmits<{ 'update:modelValue': [value: T]; change: [value: T] }>();
const of = (item: unknown): Choice<T> => item as Choice<T>;
function choose(v: unknown): void {
  emit('update:modelValue', v as T);
  emit('change', v as T);
}
</script>

<template>
  <el-segmented
    size="small"
    class="choice-field"
    :block="wide ?? false"
    :direction="upright ? 'vertical' : 'horizontal'"
    :model-value="modelValue as string"
    :options="choices as never"
    :aria-label="label"
    @update:model-value="choose"
  >
    <template #default="{ item }">
      <span v-for="c in [of(item)]" :key="String(c.value)" class="choice" :data-tip="c.tip ?? c.name">
        <component :is="c.icon" v-if="c.icon" aria-hidden="true" />
        <span v-if="c.text" :aria-hidden="c.name ? true : undefined">{{ c.text }}</span>
        <span v-if="c.name" class="visually-hidden">{{ c.name }}</span>
      </span>
    </template>
  </el-segmented>
</template>

<style>
.choice-field.el-segmented:not(.is-block) {
  flex: none;
}
.choice-field.el-segmented {
  --el-segmented-bg-color: var(--raised);
  --el-segmented-color: var(--ink);
  --el-segmented-item-selected-color: var(--resin);
  --el-segmented-item-selected-bg-color: var(--honey-soft);
  --el-segmented-item-hover-color: var(--ink);
  --el-segmented-item-hover-bg-color: color-mix(in srgb, var(--honey-soft) 55%, transparent);
  --el-segmented-item-active-bg-color: var(--honey-soft);
  --el-border-radius-base: 5px;
  --el-segmented-padding: 0px;
  min-height: 28px;
  padding: 0;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  font-size: 13px;
  overflow: hidden;
}
.choice-field.el-segmented .el-segmented__item {
  position: relative;
  padding: 0 9px;
  min-height: 26px;
  border-right: 1px solid var(--line);
  border-radius: 0;
}
.choice-field.el-segmented.is-block .el-segmented__item {
  /* They share the width; what there is belongs to their words. */
  padding: 0 3px;
}
.choice-field.el-segmented .el-segmented__item:last-child {
  border-right: 0;
}
.choice-field .el-segmented__group--vertical > .el-segmented__item {
  border-right: 0;
  min-height: 21px;
  font-size: 11px;
}
.choice-field.el-segmented .el-segmented__item-selected {
  border-radius: 0;
  box-shadow: inset 0 -2px var(--honey);
}
.choice-field.el-segmented .el-segmented__item.is-selected {
  font-weight: 600;
}
.choice-field.el-segmented .el-segmented__item.is-disabled {
  opacity: 0.45;
}
.choice-field .choice {
  display: inline-flex;
  align-items: center;
  gap: 5px;
}
.choice-field .choice svg {
  width: 17px;
  height: 17px;
  stroke-width: 1.6;
}
/* What is pressed is the real radio button. */
.choice-field .el-segmented__item-input {
  inset: 0;
  width: 100%;
  height: 100%;
  z-index: 2;
  opacity: 0;
  margin: 0;
  pointer-events: auto;
  cursor: pointer;
}
.choice-field .el-segmented__item:has(:focus-visible) {
  outline: 2px solid var(--resin);
  outline-offset: -2px;
}
</style>
