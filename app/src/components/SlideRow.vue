<script setup lang="ts">
import FormRow from './FormRow.vue';
import SliderField from './SliderField.vue';

/** A line of a form with a figure that is dragged, and read beside it. `name` says in full what the label says in short. */
defineProps<{ label: string; name: string; modelValue: number; min: number; max: number; step?: number }>();
defineEmits<{ input: [value: number]; change: [value: number] }>();
</script>

<template>
  <form-row :label="label"
    ><div class="slide">
      <slider-field
        :label="name"
        :model-value="modelValue"
        :min="min"
        :max="max"
        :step="step ?? 1"
        @input="(v) => $emit('input', v)"
        @change="(v) => $emit('change', v)"
      /><span class="figures">{{ modelValue }}</span>
    </div></form-row
  >
</template>

<style scoped>
.slide {
  display: flex;
  align-items: center;
  gap: 8px;
}
.slide > :first-child {
  flex: 1;
}
.figures {
  min-width: 26px;
  text-align: right;
}
</style>
