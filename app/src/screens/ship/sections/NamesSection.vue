<script setup lang="ts">
import { setProjectEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import NumberField from '../../../components/NumberField.vue';
import SelectField from '../../../components/SelectField.vue';
import TextField from '../../../components/TextField.vue';
import { choices } from '../../../components/choices';
import { useSession } from '../../../stores/session';
import { useShip } from '../ship-state';

/** Axes, units, origin and names of the target. */
const session = useSession();
const ship = useShip();
const place = computed(() => ship.profile!.place);
const names = computed(() => ship.profile!.names);
const cm = computed(() => (session.project?.metresPerUnit ?? 0) * 100);
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship names" title="Names and place" open>
      <form-row label="origin" stacked
        ><choice-field
          label="Origin"
          wide
          :model-value="place.origin"
          :choices="choices(['base', 'pivot', 'centre', 'corner'] as const)"
          @change="(origin) => ship.change({ place: { origin } })"
      /></form-row>
      <div class="pair">
        <select-field
          label="Axis that points up"
          :model-value="place.up"
          :choices="choices(['+y', '+z'] as const, (a) => `${a.toUpperCase()} up`)"
          @change="
            (up) =>
              ship.change({
                place: place.forward[1] === up[1] ? { up, forward: up === '+z' ? '-y' : '+z' } : { up },
              })
          "
        />
        <select-field
          label="Axis it faces along"
          :model-value="place.forward"
          :choices="
            choices(
              (['+z', '-z', '+x', '-x', '+y', '-y'] as const).filter((a) => a[1] !== place.up[1]),
              (a) => `faces ${a.toUpperCase()}`,
            )
          "
          @change="(forward) => ship.change({ place: { forward } })"
        />
      </div>
      <div class="pair">
        <number-field
          label="units / m"
          name="Units a metre"
          :model-value="place.unitsPerMetre"
          :min="0.001"
          @change="(unitsPerMetre) => ship.change({ place: { unitsPerMetre } })"
        />
        <number-field
          label="1 cube"
          name="Size of a cube in centimetres"
          unit="cm"
          :model-value="cm"
          :min="0.1"
          :step="0.1"
          @change="(v) => session.apply(setProjectEdit, { metresPerUnit: v / 100 })"
        />
      </div>
      <form-row label="prefix"
        ><text-field
          label="Prefix of names"
          :model-value="names.prefix"
          @change="(prefix) => ship.change({ names: { prefix } })"
      /></form-row>
      <form-row label="letters"
        ><select-field
          label="How names are spelt"
          :model-value="names.letters"
          :choices="choices(['as they are', 'small_letters', 'small-letters', 'JoinedWords'] as const)"
          @change="(letters) => ship.change({ names: { letters } })"
      /></form-row>
      <form-row label="sides"
        ><div class="pair">
          <text-field
            label="Behind names of the left side"
            :model-value="names.left"
            @change="(left) => ship.change({ names: { left } })"
          /><text-field
            label="Behind names of the right side"
            :model-value="names.right"
            @change="(right) => ship.change({ names: { right } })"
          /></div
      ></form-row>
      <form-row label="colliders"
        ><text-field
          label="Names of colliders"
          :model-value="names.collider"
          @change="(collider) => ship.change({ names: { collider } })"
      /></form-row>
    </fold-section>
  </section>
</template>

<style scoped>
.pair {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 6px;
}
</style>
