<script setup lang="ts">
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import NumberField from '../../../components/NumberField.vue';
import SelectField from '../../../components/SelectField.vue';
import type { CardOptions } from '../../../tools/card';
import { useBuild } from '../build-state';

/** A door or window: its border, how far it stands out, and what fills it. */
const build = useBuild();
const c = computed(() => build.card);
const set = (more: Partial<CardOptions>): void => build.setOption(more);
const fillings = computed(() => [
  { value: 0, text: 'a hole through the wall' },
  ...(build.palette?.swatches ?? []).map((s) => ({ value: s.byte, text: s.name })),
]);
</script>

<template>
  <div class="line">
    <number-field
      label="Border"
      :model-value="c.border"
      :min="0"
      :max="32"
      @change="(v) => set({ border: Math.round(v) })"
    /><number-field
      label="Proud"
      :model-value="c.proud"
      :min="0"
      :max="32"
      @change="(v) => set({ proud: Math.round(v) })"
    /><number-field
      v-if="c.filling !== 0"
      label="Recess"
      :model-value="c.recess"
      :min="0"
      :max="64"
      @change="(v) => set({ recess: Math.round(v) })"
    />
  </div>
  <div class="line">
    <SelectField
      class="wide"
      label="Filling"
      :model-value="c.filling"
      :choices="fillings"
      @change="(filling) => set({ filling })"
    /><check-field :model-value="c.sill" @change="(sill) => set({ sill })">sill</check-field>
  </div>
</template>
