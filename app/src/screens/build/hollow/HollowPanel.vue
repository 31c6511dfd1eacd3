<script setup lang="ts">
import { computed } from 'vue';
import ActionButton from '../../../components/ActionButton.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import NumberField from '../../../components/NumberField.vue';
import { counted, say } from '../../../words';
import { useSelection } from '../selection/selection-state';
import { useHollow } from './hollow-state';

/** Thickness and kind of the walls that hollowing leaves, with what it would take. */
const hollow = useHollow();
const selection = useSelection();
const WALLS = [
  {
    value: false,
    name: 'even',
    tip: 'As thick as asked everywhere; where the surface is stepped, cubes may meet in edges',
  },
  { value: true, text: 'faces meet', tip: 'Cubes of the wall meet in faces, which is thicker at steps' },
];
const taken = computed(() =>
  hollow.cells ? say('hollow.takes', { cubes: counted(hollow.cells.count, 'cubes') }) : 'looking inside …',
);
</script>

<template>
  <section class="panel-section" aria-label="Hollow out">
    <div class="panel-head">
      <h2>Hollow out</h2>
      <span class="quiet">{{ selection.selected ? 'the selection' : 'the part' }}</span>
    </div>
    <div class="row">
      <number-field
        label="walls"
        name="Thickness of the walls"
        :model-value="hollow.wall"
        :min="1"
        :max="64"
        @change="(v) => (hollow.wall = Math.round(v))"
      />
    </div>
    <choice-field v-model="hollow.joined" wide label="Kind of wall" :choices="WALLS" />
    <p class="quiet" data-testid="hollow-takes">{{ taken }}</p>
    <div class="row">
      <action-button look="primary" @click="hollow.apply()">Hollow out</action-button
      ><action-button @click="hollow.on = false">Let go</action-button>
    </div>
  </section>
</template>
