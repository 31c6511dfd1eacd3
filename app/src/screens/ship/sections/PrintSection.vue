<script setup lang="ts">
import { computed } from 'vue';
import FoldSection from '../../../components/FoldSection.vue';
import NumberField from '../../../components/NumberField.vue';
import { useShip } from '../ship-state';

/** How large a print is, and how thin. */
const ship = useShip();
const print = computed(() => ship.profile!.print);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship print" title="Print" open>
      <number-field
        label="height"
        name="Height in millimetres"
        unit="mm"
        :model-value="print.height"
        :min="0"
        @change="(height) => ship.change({ print: { height } })"
      />
      <number-field
        label="thinnest wall"
        name="Thinnest wall in millimetres"
        unit="mm"
        :step="0.1"
        :model-value="print.wall"
        :min="0"
        @change="(wall) => ship.change({ print: { wall } })"
      />
    </fold-section>
  </section>
</template>
