<script setup lang="ts">
import { computed } from 'vue';
import type { Choice } from './choices';

/** What is seen of a `SelectField` before its list is there. */
const props = defineProps<{
  modelValue?: unknown;
  choices?: readonly Choice<never>[];
  label?: string;
  placeholder?: string;
}>();
const text = computed(() => props.choices?.find((c) => c.value === props.modelValue)?.text ?? props.placeholder ?? '');
</script>

<template>
  <div class="el-select el-select--small select-field" aria-hidden="true">
    <div class="el-select__wrapper el-select--small">{{ text }}</div>
  </div>
</template>
