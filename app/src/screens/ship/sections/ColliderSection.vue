<script setup lang="ts">
import { computed } from 'vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import SliderField from '../../../components/SliderField.vue';
import { useShip } from '../ship-state';

/** What things bump into. */
const ship = useShip();
const collider = computed(() => ship.profile!.collider);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship collider" title="Collider" open>
      <choice-field
        label="Collider"
        wide
        :model-value="collider.shape"
        :choices="[
          { value: 'one box', text: 'box', tip: 'One box around it' },
          { value: 'boxes', text: 'boxes', tip: 'Few boxes within the tolerance' },
          { value: 'convex', text: 'convex', tip: 'Convex pieces within the tolerance' },
          { value: 'exact', text: 'exact', tip: 'Its own surface; for what stands still' },
          { value: 'none', text: 'none' },
        ]"
        @change="(shape) => ship.change({ collider: shape === 'exact' ? { shape, moves: 'static' } : { shape } })"
      />
      <template v-if="collider.shape !== 'none'">
        <form-row v-if="collider.shape === 'boxes' || collider.shape === 'convex'" label="within"
          ><slider-field
            label="Tolerance in cubes"
            :model-value="collider.tolerance"
            :min="0"
            :max="4"
            :step="0.5"
            @change="(tolerance) => ship.change({ collider: { tolerance } })"
          /><span class="figures unit">{{ collider.tolerance.toFixed(1) }} vx</span></form-row
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
.unit {
  min-width: 52px;
  text-align: right;
}
</style>
