<script setup lang="ts">
import { computed } from 'vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import SelectField from '../../../components/SelectField.vue';
import SliderField from '../../../components/SliderField.vue';
import { useShip } from '../ship-state';

/** What things bump into. */
const ship = useShip();
const SHAPES = [
  { value: 'one box', text: 'one box' },
  { value: 'boxes', text: 'boxes within a tolerance' },
  { value: 'convex', text: 'convex pieces' },
  { value: 'exact', text: 'exact surface' },
  { value: 'none', text: 'none' },
] as const;
const collider = computed(() => ship.profile!.collider);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship collider" title="Collider" open>
      <select-field
        label="Collider"
        :model-value="collider.shape"
        :choices="SHAPES"
        @change="(shape) => ship.change({ collider: shape === 'exact' ? { shape, moves: 'static' } : { shape } })"
      />
      <template v-if="collider.shape !== 'none'">
        <form-row v-if="collider.shape === 'boxes' || collider.shape === 'convex'" label="within" stacked
          ><div class="within">
            <slider-field
              label="Tolerance in cubes"
              :model-value="collider.tolerance"
              :min="0"
              :max="4"
              :step="0.5"
              @change="(tolerance) => ship.change({ collider: { tolerance } })"
            /><span class="figures unit">{{ collider.tolerance.toFixed(1) }} vx</span>
          </div></form-row
        >
        <choice-field
          label="Whether physics moves it"
          wide
          :model-value="collider.moves"
          :choices="[
            { value: 'static', text: 'static' },
            {
              value: 'moving',
              text: 'moving',
              tip: collider.shape === 'exact' ? 'Physics moves no exact collider; convex pieces are taken instead' : '',
            },
          ]"
          @change="
            (moves) =>
              ship.change({
                collider: moves === 'moving' && collider.shape === 'exact' ? { moves, shape: 'convex' } : { moves },
              })
          "
        />
        <choice-field
          label="What colliders are of"
          wide
          :model-value="collider.of"
          :choices="[
            { value: 'parts', text: 'each part' },
            { value: 'whole', text: 'the whole' },
          ]"
          @change="(of) => ship.change({ collider: { of } })"
        />
      </template>
    </fold-section>
  </section>
</template>

<style scoped>
.within {
  display: flex;
  align-items: center;
  gap: 8px;
  padding-left: 6px;
}
.within > :first-child {
  flex: 1;
}
.unit {
  min-width: 52px;
  text-align: right;
}
</style>
