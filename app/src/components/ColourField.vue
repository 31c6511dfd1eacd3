<script setup lang="ts">
import { ElColorPicker } from 'element-plus';
import 'element-plus/theme-chalk/el-color-picker.css';
import 'element-plus/theme-chalk/el-color-picker-panel.css';
import 'element-plus/theme-chalk/el-input.css';

/** A plain colour, for light and grounds; what cubes are painted with has the swatches and their wheel. */
defineProps<{ modelValue: string; label: string; tip?: string }>();
const emit = defineEmits<{ change: [colour: string] }>();
</script>

<template>
  <el-color-picker
    class="colour-field"
    size="small"
    :model-value="modelValue"
    :aria-label="label"
    :data-tip="tip ?? label"
    color-format="hex"
    @change="(c: string | null) => c && emit('change', c.toLowerCase())"
  />
</template>

<style>
.colour-field .el-color-picker__trigger {
  width: 30px;
  height: 24px;
  padding: 2px;
  border-color: var(--line);
}
.colour-field .el-color-picker__icon {
  display: none;
}
</style>
