<script setup lang="ts">
import { harmonies, makeSwatch, ramp, tones } from '@sphalerite/core/palette';
import { appendSwatchesEdit } from '@sphalerite/core/project';
import { computed, ref } from 'vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import { useColours } from './colours-state';
import FoldSection from '../../../components/FoldSection.vue';
import ActionButton from '../../../components/ActionButton.vue';

const session = useSession();
const build = useBuild();
const colours = useColours();
const steps = ref(5);
const shift = ref(12);
const base = computed(() => build.swatch!);
/** Two picked swatches are the ends; one alone is shown in its tones. */
const ends = computed(() => {
  const [a, b] = [colours.swatchOf(colours.picked[0] ?? 0), colours.swatchOf(colours.picked.at(-1) ?? 0)];
  return a && b && a !== b ? ([a, b] as const) : null;
});
const made = computed(() =>
  ends.value
    ? ramp(ends.value[0].colour, ends.value[1].colour, steps.value, shift.value)
    : tones(base.value.colour, steps.value, shift.value),
);
function addRamp(): void {
  const palette = session.palette!;
  const from = ends.value?.[0] ?? base.value;
  const stem = ends.value ? `${ends.value[0].name} to ${ends.value[1].name}` : base.value.name;
  const swatches = made.value.map((colour, i) =>
    makeSwatch(1, `${stem} ${i + 1}`, colour, {
      emissive: from.emissive,
      roughness: from.roughness,
      metalness: from.metalness,
      opacity: from.opacity,
      slot: from.slot,
    }),
  );
  session.apply(appendSwatchesEdit, { palette: palette.id, swatches, title: `Ramp ${stem}` });
  // The ramp lies ready to paint with.
  const after = session.palette!.swatches;
  colours.picked = made.value.flatMap(
    (colour) =>
      after.find((s) => s.colour === colour && s.emissive === from.emissive && s.opacity === from.opacity)?.byte ?? [],
  );
}
const addOne = (colour: string, name: string): unknown =>
  session.apply(appendSwatchesEdit, {
    palette: session.palette!.id,
    swatches: [makeSwatch(1, `${base.value.name}, ${name}`, colour)],
    title: `New swatch ${base.value.name}, ${name}`,
  });
</script>

<template>
  <!-- eslint-disable vue/no-restricted-html-elements -- swatch tiles -->
  <section class="panel-section" aria-label="Ramp">
    <div class="panel-head">
      <h2>Ramp</h2>
      <span class="quiet from">{{ ends ? `${ends[0].name} to ${ends[1].name}` : `tones of ${base.name}` }}</span>
    </div>
    <div class="strip" role="img" :aria-label="`Ramp of ${made.length}: ${made.join(', ')}`">
      <i v-for="(c, i) in made" :key="i" :style="{ background: c }" />
    </div>
    <div class="row">
      <NumberField
        label="steps"
        name="Steps of the ramp"
        :model-value="steps"
        :min="2"
        :max="32"
        @change="(v) => (steps = Math.round(v))"
      /><NumberField
        label="hue"
        name="Hue shift"
        unit="°"
        :model-value="shift"
        :min="-180"
        :max="180"
        :step="2"
        @change="(v) => (shift = v)"
      />
    </div>
    <action-button @click="addRamp">Add the ramp to the palette</action-button>
    <p v-if="!ends" class="quiet small">Ctrl-click a second swatch for a ramp between two.</p>
    <fold-section id="swatch-harmonies" title="Colours that go with it">
      <div v-for="h in harmonies(base.colour)" :key="h.name" class="harmony">
        <span class="quiet">{{ h.name }}</span><button
          v-for="c in h.colours"
          :key="c"
          type="button"
          class="dot"
          :style="{ background: c }"
          :aria-label="`Add ${h.name} ${c}`"
          :data-tip="`${c} · add it`"
          @click="addOne(c, h.name)"
        />
      </div>
    </fold-section>
  </section>
</template>

<style scoped>
.from {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  font-size: 12px;
}
.strip {
  display: flex;
  height: 26px;
  border-radius: var(--radius);
  overflow: hidden;
  border: 1px solid rgb(0 0 0 / 20%);
}
.strip i {
  flex: 1;
}
.small {
  font-size: 12px;
}
.harmony {
  display: flex;
  align-items: center;
  gap: 6px;
  margin-top: 5px;
  font-size: 12px;
}
.harmony span {
  width: 76px;
}
.dot {
  width: 24px;
  height: 20px;
  border-radius: 4px;
  border: 1px solid rgb(0 0 0 / 22%);
}
</style>
