<script setup lang="ts">
import { GROUND_KINDS, type GroundKind } from '@sphalerite/core/model';
import { computed } from 'vue';
import ColourField from '../../components/ColourField.vue';
import FormRow from '../../components/FormRow.vue';
import SelectField from '../../components/SelectField.vue';
import { choices } from '../../components/choices';
import FigureSlide from './FigureSlide.vue';
import { GROUND_NAMES } from './panel-words';
import { useShot } from './shot-in-hand';

/** What things stand on, the edges of their cubes, and what hangs in the air. */
const hand = useShot();
const stage = computed(() => hand.shot!.stage);
const light = computed(() => hand.shot!.light);
</script>

<template>
  <section class="panel-section">
    <h2>Ground and air</h2>
    <form-row label="Ground"
      ><span class="row"
        ><SelectField
          label="Ground"
          :model-value="stage.ground.kind"
          :choices="choices(GROUND_KINDS, (k) => GROUND_NAMES[k])"
          @change="hand.set('stage', { ground: { ...stage.ground, kind: $event as GroundKind } })" /><colour-field
          v-if="stage.ground.kind !== 'none' && stage.ground.kind !== 'shadow'"
          label="Colour of the ground"
          :model-value="stage.ground.colour"
          @change="(colour) => hand.set('stage', { ground: { ...stage.ground, colour } })" /></span
    ></form-row>
    <FigureSlide
      label="edges"
      name="Rounded edges of cubes"
      :model-value="stage.edges"
      :min="0"
      :max="1"
      :step="0.05"
      :told="stage.edges === 0 ? 'sharp' : `${Math.round(stage.edges * 100)} %`"
      @input="(edges) => hand.drag('stage', { edges })"
      @change="(edges) => hand.set('stage', { edges })"
    />
    <FigureSlide
      label="fog"
      name="Fog"
      :model-value="Math.sqrt(light.fog.density)"
      :min="0"
      :max="1.5"
      :step="0.01"
      :told="light.fog.density === 0 ? 'none' : light.fog.density.toFixed(2)"
      @input="(v) => hand.dragLight('fog', { density: v * v })"
      @change="(v) => hand.light('fog', { density: v * v })"
    />
    <template v-if="light.fog.density > 0">
      <FigureSlide
        label="height"
        name="Height of the fog"
        :model-value="light.fog.height"
        :min="0"
        :max="20"
        :step="0.1"
        :told="light.fog.height === 0 ? 'all alike' : `${light.fog.height} m`"
        @input="(height) => hand.dragLight('fog', { height })"
        @change="(height) => hand.light('fog', { height })"
      />
      <form-row label="Colour of fog"
        ><colour-field
          label="Colour of the fog"
          :model-value="light.fog.colour"
          @change="(colour) => hand.light('fog', { colour })"
      /></form-row>
    </template>
    <FigureSlide
      label="ambient"
      name="Ambient light"
      :model-value="light.ambient.strength"
      :min="0"
      :max="1"
      :step="0.01"
      @input="(strength) => hand.dragLight('ambient', { strength })"
      @change="(strength) => hand.light('ambient', { strength })"
    />
  </section>
</template>
