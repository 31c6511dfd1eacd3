<script setup lang="ts">
import { TILES } from '@sphalerite/core/paint';
import { computed } from 'vue';
import CheckField from '../../../components/CheckField.vue';
import ChoiceField from '../../../components/ChoiceField.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import NumberField from '../../../components/NumberField.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices, group } from '../../../components/choices';
import PicturePreview from '../PicturePreview.vue';
import { useLooking } from '../looking';
import { useSession } from '../../../stores/session';
import { useShip } from '../ship-state';

/** Where colours are read from. */
const session = useSession();
const ship = useShip();
const looking = useLooking();
const picture = computed(() => ship.profile!.picture);
const looks = computed(() => ship.profile!.looks);
const mesh = computed(() => ship.profile!.mesh);
const ways = computed(() => session.project?.colourways.length ?? 0);
/** Pictures that repeat, for each slot that shows. */
const slots = computed(() => looking.facts?.slots ?? []);
const slotName = (material: string): string => {
  const palette = session.project?.palettes[0]?.name ?? '';
  return material === palette ? '' : material.replace(/ transparent$/, '');
};
const tileOf = (slot: string): string => {
  const t = ship.profile!.tiles.find((o) => o.slot === slot);
  return t?.blob ? `blob ${t.blob}` : (t?.picture ?? 'none');
};
const tileChoices = computed(() => [
  { value: 'none', text: 'plain colour' },
  ...choices(TILES),
  ...group(
    'reference pictures',
    (session.project?.references ?? []).map((r) => ({ value: `blob ${r.blob}`, text: r.name })),
  ),
]);
function setTile(slot: string, value: string): void {
  const others = ship.profile!.tiles.filter((t) => t.slot !== slot);
  const blob = value.startsWith('blob ') ? value.slice(5) : null;
  const picture = blob || value === 'none' ? null : value;
  ship.change({ tiles: picture || blob ? [...others, { slot, picture, blob }] : others });
}
</script>

<template>
  <section class="panel-section">
    <fold-section id="ship texture" title="Texture" open>
      <picture-preview />
      <choice-field
        label="Texture layout"
        wide
        :model-value="picture.layout"
        :choices="[
          { value: 'strip', text: 'strip', tip: 'A texel for each swatch' },
          { value: 'atlas', text: 'atlas', tip: 'Pictures packed side by side; alike ones once' },
          { value: 'tiling', text: 'tiling', tip: 'Coordinates in whole cubes, for pictures that repeat' },
        ]"
        @change="(layout) => ship.change({ picture: { layout } })"
      />
      <template v-if="picture.layout === 'tiling'">
        <number-field
          label="cubes a picture"
          name="Cubes a picture is long"
          :model-value="picture.cubes"
          :min="0.25"
          @change="(cubes) => ship.change({ picture: { cubes } })"
        />
        <form-row v-for="s in slots" :key="s.name" :label="s.name" stacked
          ><select-field
            :label="`Picture on ${s.name}`"
            :model-value="tileOf(slotName(s.name))"
            :choices="tileChoices"
            @change="(v: string) => setTile(slotName(s.name), v)"
        /></form-row>
      </template>
      <div v-else-if="picture.layout === 'atlas' || mesh.merge === 'all'" class="pair">
        <number-field
          label="pad"
          name="Padding in texels"
          :model-value="picture.padding"
          :min="0"
          :max="32"
          @change="(v) => ship.change({ picture: { padding: Math.round(v) } })"
        />
        <number-field
          label="max"
          name="Longest edge of the picture"
          :model-value="picture.most"
          :min="16"
          :max="8192"
          :step="16"
          @change="(v) => ship.change({ picture: { most: Math.round(v) } })"
        />
      </div>
      <div class="checks">
        <check-field
          v-if="picture.layout !== 'tiling'"
          :model-value="picture.powersOfTwo"
          @change="(powersOfTwo) => ship.change({ picture: { powersOfTwo } })"
          >Powers of two</check-field
        >
        <check-field
          :model-value="picture.second"
          tip="A second set of coordinates without overlaps, for baked light"
          @change="(second) => ship.change({ picture: { second } })"
          >Second set</check-field
        >
      </div>
      <form-row label="see-through" stacked
        ><choice-field
          label="See-through"
          wide
          :model-value="looks.seeThrough"
          :choices="choices(['blend', 'mask'] as const)"
          @change="(seeThrough) => ship.change({ looks: { seeThrough } })"
      /></form-row>
      <form-row v-if="ways > 0" label="colourways" stacked
        ><choice-field
          label="Colourways"
          wide
          :model-value="looks.colourways"
          :choices="choices(['variants', 'files', 'none'] as const)"
          @change="(colourways) => ship.change({ looks: { colourways } })"
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
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
</style>
