<script setup lang="ts">
import { AXES, type Axis } from '@sphalerite/core/math';
import NumberField from './NumberField.vue';

/** A row of three numbers, one for each axis: a place or a turn, or the width, height and depth of a size. */
const props = withDefaults(
  defineProps<{
    /** For each axis; `null` stands for several that differ. */
    modelValue: ArrayLike<number | null>;
    /** What they are the X, Y and Z of; before width, height and depth it may be missing. */
    name?: string;
    size?: boolean;
    step?: number;
    min?: number;
    max?: number;
    unit?: string;
  }>(),
  { name: '', step: 1, min: -Infinity, max: Infinity, unit: '' },
);
const emit = defineEmits<{ change: [axis: Axis, value: number]; enter: [field: HTMLInputElement] }>();
const LETTERS = ['x', 'y', 'z'] as const,
  SIZES = ['width', 'height', 'depth'] as const;
function nameOf(axis: Axis): string {
  const of = props.size ? SIZES[axis] : LETTERS[axis].toUpperCase();
  return props.name ? `${props.name} ${of}` : of[0]!.toUpperCase() + of.slice(1);
}
</script>

<template>
  <div class="row">
    <number-field
      v-for="a in AXES"
      :key="a"
      :axis="LETTERS[a]"
      :label="(size ? SIZES : LETTERS)[a][0]!.toUpperCase()"
      :name="nameOf(a)"
      :model-value="modelValue[a] ?? null"
      :step="step"
      :min="min"
      :max="max"
      :unit="unit"
      @change="(v) => emit('change', a, v)"
      @enter="(field) => emit('enter', field)"
    />
  </div>
</template>
