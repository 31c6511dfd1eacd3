<script setup lang="ts">
import { computed } from 'vue';
import FoldSection from '../../../components/FoldSection.vue';
import NumberField from '../../../components/NumberField.vue';
import { useShip } from '../ship-state';

/** What the target can take. */
const ship = useShip();
const budget = computed(() => ship.profile!.budget);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship budget" title="Budget">
      <number-field
        v-for="[key, label] in [
          ['triangles', 'triangles'],
          ['bones', 'bones'],
          ['draws', 'draw calls'],
          ['texture', 'texels'],
          ['kilobytes', 'KB'],
        ] as const"
        :key="key"
        :label="label"
        :name="`Budget of ${label}`"
        :model-value="budget[key]"
        :min="0"
        @change="(v) => ship.change({ budget: { [key]: Math.round(v) } })"
      />
      <p class="quiet">0 is no limit.</p>
    </fold-section>
  </section>
</template>
