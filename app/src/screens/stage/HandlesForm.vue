<script setup lang="ts">
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import { useStage } from './stage-state';

/** By how much the handles in the view move and turn. */
const stage = useStage();
</script>

<template>
  <div class="handles">
    <div class="steps">
      <choice-field
        v-model="stage.step"
        label="Moved by"
        :choices="[
          { value: 1, text: '1', name: 'Whole units' },
          { value: 0.5, text: '½', name: 'Half units' },
          { value: 0, text: 'free', name: 'Any length' },
        ]"
      />
      <choice-field
        v-model="stage.turn"
        label="Turned by"
        :choices="[
          { value: 15, text: '15°', name: 'Steps of 15 degrees' },
          { value: 90, text: '90°', name: 'Quarter turns' },
          { value: 1, text: '1°', name: 'Single degrees' },
        ]"
      />
    </div>
    <check-field v-model="stage.snaps" tip="Pushed things are caught by edges and middles around them; Shift lets go"
      >Snap to neighbours</check-field
    >
    <check-field
      v-model="stage.onto"
      tip="Pushed things stand on what is under the hand, or against it, turned to its face; Shift keeps them on their level"
      >Onto faces</check-field
    >
    <check-field v-model="stage.together" tip="About the one in hand; else each about its own origin"
      >Together</check-field
    >
  </div>
</template>

<style scoped>
.handles {
  display: grid;
  gap: 4px;
  justify-items: start;
}
.steps {
  display: flex;
  flex-wrap: wrap;
  gap: 8px;
}
</style>
