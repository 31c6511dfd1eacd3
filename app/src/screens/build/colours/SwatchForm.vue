<script setup lang="ts">
import type { Swatch } from '@sphalerite/core/palette';
import { editSwatchEdit, resetLookEdit } from '@sphalerite/core/project';
import { computed, ref, watch } from 'vue';
import NameField from '../../../components/NameField.vue';
import NumberField from '../../../components/NumberField.vue';
import { useSession } from '../../../stores/session';
import { useBuild } from '../build-state';
import ColourPick from './ColourPick.vue';
import SwatchChip from './SwatchChip.vue';
import { useColours } from './colours-state';

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
const slot = ref('');
watch(
  () => swatch.value.slot,
  (s) => (slot.value = s),
  { immediate: true },
);
const SURFACES = [
  { name: 'chalk', look: { roughness: 1, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'satin', look: { roughness: 0.5, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'gloss', look: { roughness: 0.08, metalness: 0, opacity: 1, emissive: 0 } },
  { name: 'metal', look: { roughness: 0.3, metalness: 0.9, opacity: 1, emissive: 0 } },
  { name: 'glass', look: { roughness: 0.06, metalness: 0, opacity: 0.4, emissive: 0 } },
  { name: 'glow', look: { roughness: 0.4, metalness: 0, opacity: 1, emissive: 4 } },
] as const;
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
      /><span class="figures quiet uses" title="Cubes in this part, and in the project"
        >{{ uses.part.toLocaleString('en') }} of {{ uses.all.toLocaleString('en') }}</span
      >
    </div>
    <p v-if="way" class="way quiet">
      {{
        own
          ? `Has a look of its own in ${way.name}.`
          : `Looks as in the palette; a change here is for ${way.name} alone.`
      }}
      <button
        v-if="own"
        type="button"
        class="link"
        @click="session.apply(resetLookEdit, { colourway: way.id, palette, byte: swatch.byte })"
      >
        Back to the palette’s
      </button>
    </p>
    <ColourPick
      :key="`${session.view.colourway} ${swatch.byte}`"
      :model-value="swatch.colour"
      @try="show"
      @change="(colour) => change({ colour })"
    />
    <div class="segments surfaces" role="group" aria-label="Surface">
      <button
        v-for="s in SURFACES"
        :key="s.name"
        type="button"
        :aria-pressed="(Object.keys(s.look) as (keyof typeof s.look)[]).every((k) => swatch[k] === s.look[k])"
        @click="change(s.look)"
      >
        {{ s.name }}
      </button>
    </div>
    <details>
      <summary>Surface by numbers</summary>
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
      <label class="field"
        ><span class="quiet">Slot</span
        ><input
          v-model="slot"
          class="text"
          maxlength="120"
          placeholder="material of the engine"
          aria-label="Material slot"
          @keydown.stop
          @keydown.enter="($event.target as HTMLElement).blur()"
          @change="change({ slot: slot.trim() })"
      /></label>
      <label class="check"
        ><input type="checkbox" :checked="swatch.helper" @change="change({ helper: !swatch.helper })" />helper: a spacer
        or mark, never counted or shipped</label
      >
    </details>
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
.link {
  color: var(--resin);
  text-decoration: underline;
}
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.surfaces {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
}
.surfaces button {
  padding: 0;
  min-height: 24px;
  border-bottom: 1px solid var(--line);
  font-size: 12px;
}
.surfaces button:nth-child(3n) {
  border-right: 0;
}
.surfaces button:nth-child(n + 4) {
  border-bottom: 0;
}
.field {
  display: flex;
  align-items: center;
  gap: 8px;
}
.text {
  flex: 1;
  min-width: 0;
  height: 26px;
  padding: 0 8px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
}
details > * + * {
  margin-top: 8px;
}
summary {
  cursor: pointer;
  color: var(--quiet);
  font-size: 12px;
}
.check {
  display: flex;
  gap: 6px;
  align-items: center;
  font-size: 12px;
}
.check input {
  accent-color: var(--resin);
  margin: 0;
}
</style>
