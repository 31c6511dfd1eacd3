<script setup lang="ts">
import { type Axis, withAxis } from '@sphalerite/core/math';
import { type Lamp, placementsOf, placementName } from '@sphalerite/core/model';
import { changeLampsEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import ColourField from '../../components/ColourField.vue';
import FormRow from '../../components/FormRow.vue';
import NameField from '../../components/NameField.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import VectorField from '../../components/VectorField.vue';
import { useSession } from '../../stores/session';
import { fromDegrees, toDegrees, withComponent } from '../shared/degrees';

/** How a lamp shines and what it hangs on. */
const props = defineProps<{ lamp: Lamp }>();
const session = useSession();
/** As it is while it is moved. */
const shown = computed(
  () =>
    session.shown?.scenes.find((s) => s.id === session.scene?.id)?.lamps.find((l) => l.id === props.lamp.id) ??
    props.lamp,
);
function change(to: Partial<Lamp>, done = true): void {
  const args = { scene: session.scene!.id, changes: [{ id: props.lamp.id, change: to }] };
  if (done) session.apply(changeLampsEdit, args);
  else session.preview = session.tryEdit(changeLampsEdit, args, true);
}
const round = (v: number): number => Math.round(v * 100) / 100;
const homes = computed(() => [
  { value: null as string | null, text: 'nothing' },
  ...placementsOf(session.scene!).map((p) => ({
    value: p.id as string | null,
    text: placementName(session.project!, p),
  })),
]);
const turn = (axis: Axis, degrees: number): void =>
  change({ q: fromDegrees(withComponent(toDegrees(props.lamp.q), axis, degrees)) });
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <name-field label="Name of the lamp" :name="lamp.name" @rename="(name) => change({ name })" />
      <span class="quiet">lamp</span>
    </div>
    <choice-field
      label="Kind of lamp"
      :model-value="lamp.kind"
      :choices="[
        { value: 'point', text: 'point', name: 'All around' },
        { value: 'spot', text: 'spot', name: 'In a cone' },
        { value: 'panel', text: 'area', name: 'From a square' },
      ]"
      @change="(kind: Lamp['kind']) => change({ kind })"
    />
    <vector-field
      name="Place of the lamp"
      :model-value="shown.t.map(round)"
      @change="(a, v) => change({ t: withAxis(lamp.t, a, v) })"
    />
    <vector-field
      v-if="lamp.kind !== 'point'"
      name="Turn of the lamp"
      unit="°"
      :step="5"
      :model-value="toDegrees(shown.q).map(round)"
      @change="turn"
    />
    <form-row label="colour"
      ><colour-field label="Colour of the lamp" :model-value="lamp.colour" @change="(colour) => change({ colour })"
    /></form-row>
    <slide-row
      label="strength"
      name="Strength, in candela"
      :model-value="shown.strength"
      :min="0"
      :max="Math.max(200, lamp.strength)"
      @input="(strength) => change({ strength }, false)"
      @change="(strength) => change({ strength })"
    />
    <slide-row
      v-if="lamp.kind === 'spot'"
      label="angle"
      name="Angle of the cone, in degrees"
      :model-value="shown.angle"
      :min="5"
      :max="170"
      :step="5"
      @input="(angle) => change({ angle }, false)"
      @change="(angle) => change({ angle })"
    />
    <slide-row
      label="size"
      name="Size of the light, in project units: larger is softer"
      :model-value="shown.size"
      :min="0"
      :max="Math.max(40, lamp.size)"
      :step="0.5"
      @input="(size) => change({ size }, false)"
      @change="(size) => change({ size })"
    />
    <form-row label="hangs on"
      ><select-field
        label="What the lamp hangs on"
        :model-value="lamp.parent"
        :choices="homes"
        @change="(parent: string | null) => change({ parent, t: [0, 0, 0] })"
    /></form-row>
    <check-field :model-value="!lamp.hidden" @change="(on) => change({ hidden: !on })">Shines</check-field>
  </section>
</template>
