<script setup lang="ts">
import { ElDialog } from 'element-plus';
import 'element-plus/theme-chalk/el-dialog.css';
import 'element-plus/theme-chalk/el-overlay.css';
import { nextTick, useId } from 'vue';

/**
 * A dialog over the bench. Its first field has the keys as soon as it is there (the library would leave them with the frame),
 * and while it is open no shortcut runs (see `App.vue`).
 */
withDefaults(defineProps<{ modelValue: boolean; title?: string; label?: string; width?: string; bare?: boolean }>(), {
  title: '',
  label: '',
  width: '420px',
});
const emit = defineEmits<{ 'update:modelValue': [open: boolean]; closed: [] }>();
const id = useId();
// Once it closes the keys are the bench's again, though it is still fading; the library would tell only after.
function close(): void {
  const at = document.activeElement;
  if (at instanceof HTMLElement && at.closest('.el-overlay')) at.blur();
  emit('update:modelValue', false);
}
async function begin(): Promise<void> {
  // The library takes the keys to the frame in between.
  await nextTick();
  await nextTick();
  const field = document.querySelector<HTMLInputElement>(
    `[data-dialog="${id}"] input:not([type="radio"], [type="checkbox"])`,
  );
  field?.focus();
  field?.select();
}
</script>

<template>
  <el-dialog
    :model-value="modelValue"
    :class="{ 'dialog-bare': bare }"
    :title="title || label"
    :width="width"
    :align-center="!bare"
    :top="bare ? '12vh' : undefined"
    :show-close="!bare"
    @close="close"
    @open-auto-focus="begin"
    @closed="emit('closed')"
    ><div :data-dialog="id"><slot /></div
  ></el-dialog>
</template>

<style>
.dialog-bare.el-dialog {
  padding: 0;
  overflow: hidden;
}
.dialog-bare .el-dialog__header {
  display: none;
}
</style>
