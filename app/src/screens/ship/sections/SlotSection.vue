<script setup lang="ts">
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import CommandButton from '../../../components/CommandButton.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import TextField from '../../../components/TextField.vue';
import { useFacePicking } from '../face-picking';
import { useShip } from '../ship-state';

/** Which material slot a face is of. */
const ship = useShip();
const picking = useFacePicking();
const mesh = computed(() => ship.profile!.mesh);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship slots" title="Material slots">
      <p class="quiet">Picked faces first, then the swatch’s own slot, then the way a face looks.</p>
      <form-row v-for="way in ['floors', 'walls', 'ceilings'] as const" :key="way" :label="way"
        ><text-field
          :label="`Slot of ${way}`"
          :model-value="mesh[way]"
          placeholder="as the swatch"
          @change="(name) => ship.change({ mesh: { [way]: name } })"
      /></form-row>
      <CommandButton id="ship.pickFaces" label />
      <template v-if="picking.on">
        <form-row label="slot"><text-field v-model="picking.slot" label="Slot that faces are picked for" /></form-row>
        <choice-field
          v-model="picking.reach"
          label="What a click takes"
          wide
          :choices="[
            { value: 'one', text: 'one', tip: 'The face of one cube' },
            { value: 'colour', text: 'colour', tip: 'The flat face of one colour' },
            { value: 'face', text: 'flat face', tip: 'The whole flat face' },
          ]"
        />
        <check-field v-model="picking.away" tip="Back to what swatches and directions say">Give back</check-field>
      </template>
    </fold-section>
  </section>
</template>
