<script setup lang="ts" generic="T extends string | number | null">
import { ElRadio } from 'element-plus';
import 'element-plus/theme-chalk/el-radio.css';

/** One of several that stand apart from each other, as rows of a list do; for those side by side see `ChoiceField`. */
defineProps<{ modelValue: T; value: T }>();
const emit = defineEmits<{ change: [value: T] }>();
</script>

<template>
  <el-radio
    size="small"
    class="radio-field"
    :model-value="String(modelValue)"
    :value="String(value)"
    @change="emit('change', value)"
    ><slot
  /></el-radio>
</template>

<style>
.radio-field.el-radio {
  --el-radio-input-border-color: var(--line-strong);
  --el-radio-text-color: var(--ink);
  height: auto;
  min-height: 28px;
  margin: 0;
  min-width: 0;
}
.radio-field.el-radio .el-radio__label {
  padding-left: 6px;
  font-size: 13px;
  color: var(--ink);
  overflow: hidden;
  text-overflow: ellipsis;
}
.radio-field.el-radio.is-checked .el-radio__label {
  font-weight: 600;
}
.radio-field .el-radio__original {
  inset: 0;
  width: 100%;
  height: 100%;
  margin: 0;
  z-index: 2;
  cursor: pointer;
}
.radio-field:has(:focus-visible) .el-radio__inner {
  outline: 2px solid var(--resin);
  outline-offset: 1px;
}
</style>
