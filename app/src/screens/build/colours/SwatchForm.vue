<script setup lang="ts">
import type { Swatch } from '@sphalerite/core/palette';
import { editSwatchEdit, resetLookEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import NameField from '../../../components/NameField.vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import ColourPick from './ColourPick.vue';
import SwatchChip from './SwatchChip.vue';
import { useColours } from './colours-state';
import ActionButton from '../../../components/ActionButton.vue';
import CheckField from '../../../components/CheckField.vue';
import CardChoice from '../../../components/CardChoice.vue';
import FoldSection from '../../../components/FoldSection.vue';
import FormRow from '../../../components/FormRow.vue';
import TextField from '../../../components/TextField.vue';
import { choices } from '../../../components/choices';

const session = useSession();
const build = useBuild();
const colours = useColours();
const swatch = computed(() => build.swatch!);
const palette = computed(() => session.palette!.id);
const way = computed(() => session.project?.colourways.find((c) => c.id === session.view.colourway) ?? null);
/** Whether the colourway in hand gives this swatch a look of its own. */
const own = computed(
  () => way.value?.changes.some((c) => c.palette === palette.value && c.byte === swatch.value.byte) ?? false,
);
const args = (change: Partial<Omit<Swatch, 'byte'>>) => ({
  palette: palette.value,
  byte: swatch.value.byte,
  change,
  colourway: session.view.colourway,
});
const change = (more: Partial<Omit<Swatch, 'byte'>>): unknown => session.apply(editSwatchEdit, args(more));
/** While a slider is dragged the view shows it; the drag is one step of the history. */
const show = (colour: string): void => void (session.preview = session.tryEdit(editSwatchEdit, args({ colour }), true));
const SURFACES = [
  { name: 'chalk', look: { roughness: 1, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'satin', look: { roughness: 0.5, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'gloss', look: { roughness: 0.08, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'metal', look: { roughness: 0.3, metalness: 0.9, opacity: 1, emissive: 0 } },
  { name: 'glass', look: { roughness: 0.06, metalness: 0, opacity: 0.4, emissive: 0 } },
  { name: 'glow', look: { roughness: 0.4, metalness: 0, opacity: 1, emissive: 4 } },
] as const;
const surfaces = choices(SURFACES.map((s) => s.name));
/** The named surface that the swatch has, if it is one. */
const surface = computed(
  () =>
    SURFACES.find((s) => (Object.keys(s.look) as (keyof typeof s.look)[]).every((k) => swatch.value[k] === s.look[k]))
      ?.name ?? null,
);
const surfaceAs = (name: string): unknown => change(SURFACES.find((s) => s.name === name)!.look);
const uses = computed(() => ({
  part: colours.inPart?.[swatch.value.byte] ?? 0,
  all: colours.use?.total[swatch.value.byte] ?? 0,
}));
</script>

<template>
  <section class="panel-section" aria-label="Swatch">
    <div class="panel-head">
      <SwatchChip :swatch="swatch" small /><NameField
        :name="swatch.name"
        label="Name of the swatch"
        :disabled="!session.writable"
        @rename="(name) => change({ name })"
      /><span class="figures quiet uses" data-tip="Cubes in this part, and in the project"
        >{{ uses.part.toLocaleString('en') }} of {{ uses.all.toLocaleString('en') }}</span
      >
    </div>
    <p v-if="way" class="way quiet">
      {{
        own
          ? `Has a look of its own in ${way.name}.`
          : `Looks as in the palette; a change here is for ${way.name} alone.`
      }}
      <action-button
        v-if="own"
        look="link"
        @click="session.apply(resetLookEdit, { colourway: way.id, palette, byte: swatch.byte })"
      >
        Back to the palette’s
      </action-button>
    </p>
    <ColourPick
      :key="`${session.view.colourway} ${swatch.byte}`"
      :model-value="swatch.colour"
      @try="show"
      @change="(colour) => change({ colour })"
    />
    <card-choice class="surfaces" label="Surface" :model-value="surface" :choices="surfaces" @change="surfaceAs" />
    <fold-section title="Surface by numbers" id="swatch-surface">
      <div class="two">
        <NumberField
          label="glow"
          :model-value="swatch.emissive"
          :min="0"
          :max="100"
          :step="0.5"
          @change="(v) => change({ emissive: v })"
        /><NumberField
          label="rough"
          :model-value="swatch.roughness"
          :min="0"
          :max="1"
          :step="0.1"
          @change="(v) => change({ roughness: v })"
        />
        <NumberField
          label="metal"
          :model-value="swatch.metalness"
          :min="0"
          :max="1"
          :step="0.1"
          @change="(v) => change({ metalness: v })"
        /><NumberField
          label="solid"
          name="Opacity"
          :model-value="swatch.opacity"
          :min="0"
          :max="1"
          :step="0.1"
          @change="(v) => change({ opacity: v })"
        />
      </div>
      <form-row label="Slot"
        ><text-field
          :model-value="swatch.slot"
          label="Material slot"
          placeholder="material of the engine"
          @change="(slot) => change({ slot: slot.trim() })"
      /></form-row>
      <check-field :model-value="swatch.helper" @change="change({ helper: !swatch.helper })"
        >helper: a spacer or mark, never counted or shipped</check-field
      >
    </fold-section>
  </section>
</template>

<style scoped>
.panel-head {
  gap: 6px;
}
.panel-head > :nth-child(2) {
  flex: 1;
  min-width: 0;
}
.uses {
  white-space: nowrap;
  font-size: 11px;
}
.way {
  font-size: 12px;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.surfaces.card-choice {
  grid-template-columns: repeat(3, 1fr);
}
</style>
