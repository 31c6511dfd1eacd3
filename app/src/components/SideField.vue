<script setup lang="ts">
import type { Side } from '@sphalerite/core/model';
import ChoiceField from './ChoiceField.vue';

/** Left, right or neither, of the character's own; null where several differ. */
defineProps<{ modelValue: Side | null; label: string }>();
defineEmits<{ change: [side: Side] }>();
const SIDES = [
  { value: 'left', text: 'L', name: 'left' },
  { value: 'right', text: 'R', name: 'right' },
  { value: 'centre', text: '–', name: 'centre' },
] as const;
</script>

<template>
  <choice-field
    class="side-field"
    :label="label"
    :model-value="modelValue"
    :choices="SIDES"
    @change="(side) => $emit('change', side)"
  />
</template>

<style>
.side-field.el-segmented .el-segmented__item {
  padding: 0 5px;
}
</style>
