<script setup lang="ts" generic="T extends boolean | readonly unknown[]">
import { ElCheckbox } from 'element-plus';
import 'element-plus/theme-chalk/el-checkbox.css';

/** Yes or no, with its words beside it; with `value`, one of several that are ticked in a list. */
withDefaults(
  defineProps<{
    modelValue: T;
    value?: string | number | undefined;
    tip?: string | undefined;
    disabled?: boolean;
  }>(),
  { value: undefined, tip: undefined },
);
const emit = defineEmits<{ 'update:modelValue': [value: T]; change: [on: boolean] }>();
</script>

<template>
  <el-checkbox
    size="small"
    class="check-field"
    :model-value="modelValue as boolean"
    :value="value"
    :disabled="disabled"
    :data-tip="tip"
    @update:model-value="(v: unknown) => emit('update:modelValue', v as T)"
    @change="(v: unknown) => emit('change', v === true)"
    ><slot
  /></el-checkbox>
</template>

<style>
.check-field.el-checkbox {
  --el-checkbox-font-weight: 400;
  --el-checkbox-input-border: 1px solid var(--line-strong);
  --el-checkbox-border-radius: 3px;
  --el-checkbox-checked-text-color: var(--ink);
  --el-checkbox-checked-icon-color: var(--resin-ink);
  height: auto;
  min-height: 24px;
  margin: 0;
  white-space: normal;
  align-items: flex-start;
}
.check-field.el-checkbox .el-checkbox__input {
  margin-top: 4px;
}
.check-field.el-checkbox .el-checkbox__label {
  padding-left: 6px;
  font-size: 13px;
  line-height: 22px;
}
/* What is pressed is the real box, so that it can be seen by whatever looks for one. */
.check-field .el-checkbox__original {
  inset: 0;
  width: 100%;
  height: 100%;
  z-index: 2;
  cursor: pointer;
}
.check-field:has(:focus-visible) .el-checkbox__inner {
  outline: 2px solid var(--resin);
  outline-offset: 1px;
}
</style>
