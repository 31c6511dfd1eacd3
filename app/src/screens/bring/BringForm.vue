<script setup lang="ts">
import { type Component, computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import CommandButton from '../../components/CommandButton.vue';
import GrowForm from './GrowForm.vue';
import HeightForm from './HeightForm.vue';
import MeshForm from './MeshForm.vue';
import PictureForm from './PictureForm.vue';
import SlicesForm from './SlicesForm.vue';
import { useBringing } from './bring-state';

/** How it comes in: a form for each way. */
const bringing = useBringing();
const FORMS: Readonly<Record<string, Component>> = {
  picture: PictureForm,
  height: HeightForm,
  mesh: MeshForm,
  slices: SlicesForm,
};
const where = computed(() => {
  const n = bringing.namesakes;
  if (!bringing.again) return `Into the ${n} parts of the same names`;
  return n === 1 ? 'In place of what it was' : `In place of the ${n} parts that it was`;
});
const form = computed(() => (bringing.waiting ? (FORMS[bringing.waiting.importer] ?? GrowForm) : undefined));
</script>

<template>
  <template v-if="form">
    <section class="panel-section">
      <CommandButton id="bring.take" label look="primary" />
      <CommandButton id="bring.cancel" label />
      <check-field
        v-if="bringing.namesakes > 0"
        :model-value="bringing.goesHome"
        tip="They keep their mounts, pivots and clips; what they were goes to the bin"
        @change="(v) => (bringing.home = v)"
        >{{ where }}</check-field
      >
    </section>
    <component :is="form" class="form" />
  </template>
</template>

<style scoped>
.form {
  min-width: 0;
}
</style>
