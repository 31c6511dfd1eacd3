<script setup lang="ts">
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import NumberField from '../../../components/NumberField.vue';
import { choices } from '../../../components/choices';
import { PATHS, type CardOptions } from '../../../tools/card';
import { useBuild } from '../build-state';

const build = useBuild();
const paths = choices(PATHS);
const c = computed(() => build.card);
const set = (more: Partial<CardOptions>): void => build.setOption(more);
/** A line that is even stays even. */
function thicken(v: number): void {
  const size = Math.round(v);
  set({ size, endSize: c.value.size === c.value.endSize ? size : c.value.endSize });
}
</script>

<template>
  <div class="line">
    <choice-field label="Path" :model-value="c.path" :choices="paths" @change="(path) => set({ path })" />
    <template v-if="c.path === 'steps'"
      ><number-field
        label="Rise"
        :model-value="c.rise"
        :min="1"
        :max="64"
        @change="(v) => set({ rise: Math.round(v) })" /><number-field
        label="Run"
        :model-value="c.run"
        :min="1"
        :max="64"
        @change="(v) => set({ run: Math.round(v) })"
    /></template>
  </div>
  <div class="line">
    <number-field
      label="Thick"
      name="Thickness"
      :model-value="c.size"
      :min="1"
      :max="64"
      @change="thicken"
    /><number-field
      label="to"
      name="Thickness at the end"
      :model-value="c.endSize"
      :min="1"
      :max="64"
      @change="(v) => set({ endSize: Math.round(v) })"
    /><check-field :model-value="c.joined" @change="(joined) => set({ joined })">faces meet</check-field>
  </div>
</template>
