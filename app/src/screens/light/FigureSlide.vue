<script setup lang="ts">
import SliderField from '../../components/SliderField.vue';

/** A figure that is dragged, with its short name before it and what it is read as behind. */
withDefaults(
  defineProps<{
    label: string;
    name: string;
    modelValue: number;
    min: number;
    max: number;
    step?: number;
    told?: string;
  }>(),
  { step: 1, told: '' },
);
defineEmits<{ input: [value: number]; change: [value: number] }>();
const short = (v: number): string => String(Math.round(v * 100) / 100);
</script>

<template>
  <div class="figure-slide">
    <span class="word" aria-hidden="true">{{ label }}</span><slider-field
      :label="name"
      :model-value="modelValue"
      :min="min"
      :max="max"
      :step="step"
      @input="(v) => $emit('input', v)"
      @change="(v) => $emit('change', v)"
    /><span class="figures">{{ told || short(modelValue) }}</span>
  </div>
</template>

<style scoped>
.figure-slide {
  display: grid;
  grid-template-columns: 62px minmax(0, 1fr) 58px;
  align-items: center;
  gap: 4px;
}
.word {
  color: var(--quiet);
}
.figures {
  text-align: right;
}
</style>
