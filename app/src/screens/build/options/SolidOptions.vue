<script setup lang="ts">
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import NumberField from '../../../components/NumberField.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices } from '../../../components/choices';
import { OPEN_ENDS, PROFILES, SECTIONS, STANDS, type CardOptions } from '../../../tools/card';
import { useBuild } from '../build-state';

/** Options of boxes, ellipsoids and cylinders. */
defineProps<{ grows: boolean }>();
const build = useBuild();
const c = computed(() => build.card);
const set = (more: Partial<CardOptions>): void => build.setOption(more);
const stands = choices(STANDS, (p) => (p === 'surface' ? 'surface' : `on ${p}`));
const ends = choices(OPEN_ENDS, (e) =>
  e === 'closed' ? 'closed' : e === 'both' ? 'open at both' : `open at the ${e}`,
);
const inside = choices(['solid', 'hollow']);
/** Round shapes under one name each: a ball, or what stands along an axis by its profile. */
const SHAPES = ['ellipsoid', ...PROFILES] as const;
const shapes = choices(SHAPES, (s) => (s === 'straight' ? 'cylinder' : s));
function shape(s: (typeof SHAPES)[number]): void {
  if (s === 'ellipsoid') build.setReach('ellipsoid');
  else build.change({ reach: 'cylinder', profile: s });
}
</script>

<template>
  <div v-if="c.reach !== 'box'" class="line">
    <SelectField
      label="Shape"
      :model-value="c.reach === 'ellipsoid' ? 'ellipsoid' : c.profile"
      :choices="shapes"
      @change="shape"
    />
  </div>
  <div v-if="c.reach === 'cylinder'" class="line">
    <SelectField
      label="Section"
      :model-value="c.section"
      :choices="choices(SECTIONS)"
      @change="(section) => set({ section })"
    />
    <SelectField label="Stands along" :model-value="c.stand" :choices="stands" @change="(stand) => set({ stand })" />
    <check-field
      tip="Slice by slice: each click sets one and shows the next"
      :model-value="c.slices"
      @change="(slices) => set({ slices })"
      >slices</check-field
    >
    <number-field
      v-if="c.profile === 'taper'"
      label="Top"
      name="Width of the top"
      unit="%"
      :model-value="c.top"
      :min="0"
      :max="100"
      @change="(top) => set({ top })"
    />
  </div>
  <div v-if="c.verb !== 'select'" class="line">
    <choice-field
      label="Inside"
      :model-value="c.wall > 0 ? 'hollow' : 'solid'"
      :choices="inside"
      @change="(v) => set({ wall: v === 'hollow' ? c.wall || 1 : 0 })"
    />
    <template v-if="c.wall > 0"
      ><number-field
        class="wall"
        label="Wall"
        :model-value="c.wall"
        :min="1"
        :max="64"
        @change="(v) => set({ wall: Math.round(v) })"
      />
      <select-field
        v-if="c.reach !== 'ellipsoid'"
        label="Open ends"
        :model-value="c.ends"
        :choices="ends"
        @change="(e) => set({ ends: e })"
      /><check-field
        tip="Cubes of the wall meet in faces, which is thicker on slants; without, the wall is as thick as asked everywhere"
        :model-value="c.tight"
        @change="(tight) => set({ tight })"
        >faces meet</check-field
      ></template
    >
  </div>
  <div class="line checks">
    <check-field tip="Hold Ctrl" :model-value="c.centre" @change="(centre) => set({ centre })">from centre</check-field
    ><check-field tip="Hold Shift" :model-value="c.equal" @change="(equal) => set({ equal })">equal sides</check-field
    ><check-field
      v-if="grows"
      tip="New cubes take the colour of the cube they grow from"
      :model-value="c.grow"
      @change="(grow) => set({ grow })"
      >grow colour</check-field
    >
  </div>
</template>
