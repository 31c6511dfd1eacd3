<script setup lang="ts">
import { type Vec3, mapVec, withAxis } from '@sphalerite/core/math';
import { computed } from 'vue';
import CheckField from './CheckField.vue';
import NumberField from './NumberField.vue';
import VectorField from './VectorField.vue';

/** A scale in per cent: one number for all three axes, or each its own when that is unlocked. Null stands for several that differ. */
const props = defineProps<{ modelValue: readonly (number | null)[]; name: string }>();
const emit = defineEmits<{ change: [scale: (was: Vec3) => Vec3] }>();
const percent = computed(() => props.modelValue.map((v) => (v === null ? null : v * 100)));
const even = computed(() => props.modelValue.every((v) => v === props.modelValue[0]));
/** Whether each axis has its own. */
const wanted = defineModel<boolean>('apart', { default: false });
const apart = computed(() => wanted.value || !even.value);
const LEAST = 1,
  MOST = 10_000;
</script>

<template>
  <vector-field
    v-if="apart"
    :name="name"
    :model-value="percent"
    :step="5"
    :min="LEAST"
    :max="MOST"
    unit="%"
    @change="(a, v) => emit('change', (was) => withAxis(was, a, v / 100))"
  />
  <number-field
    v-else
    label=""
    :name="name"
    :model-value="percent[0] ?? null"
    :step="5"
    :min="LEAST"
    :max="MOST"
    unit="%"
    @change="(v) => emit('change', (was) => mapVec(was, () => v / 100))"
  />
  <check-field v-if="even" v-model="wanted">each axis its own</check-field>
</template>
