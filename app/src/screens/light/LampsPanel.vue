<script setup lang="ts">
import { IconLamp } from '@tabler/icons-vue';
import { type Lamp, find, isHiddenLamp } from '@sphalerite/core/model';
import { computed } from 'vue';
import ColourField from '../../components/ColourField.vue';
import FoldSection from '../../components/FoldSection.vue';
import { useSession } from '../../stores/session';
import FigureSlide from './FigureSlide.vue';
import { useShot } from './shot-in-hand';

/** Lamps of the scene and glow of swatches, dimmed for this shot alone. */
const session = useSession();
const hand = useShot();
const light = computed(() => hand.shot!.light);
const lamps = computed(() => find(session.project!.scenes, hand.shot!.scene)?.lamps ?? []);
const glowing = computed(() =>
  session.project!.palettes.reduce((n, p) => n + p.swatches.filter((s) => s.emissive > 0).length, 0),
);
const hidden = computed(() => session.project!.palettes.some((p) => p.swatches.some(isHiddenLamp)));
const changeOf = (l: Lamp) => light.value.lamps.changes.find((c) => c.lamp === l.id);
function changed(l: Lamp, more: { strength?: number; colour?: string | null }) {
  const own = changeOf(l) ?? { lamp: l.id, strength: 1, colour: null, by: [0, 0, 0] as const };
  return { changes: [...light.value.lamps.changes.filter((c) => c.lamp !== l.id), { ...own, ...more }] };
}
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2 class="with-icon"><IconLamp aria-hidden="true" />Lamps and glow</h2>
      <span class="figures quiet">{{ lamps.length + glowing }}</span>
    </div>
    <FigureSlide
      label="glow"
      name="Glow of swatches"
      :model-value="light.glow.strength"
      :min="0"
      :max="4"
      :step="0.05"
      @input="(strength) => hand.dragLight('glow', { strength })"
      @change="(strength) => hand.light('glow', { strength })"
    />
    <div class="row between">
      <span class="quiet">tint of the glow</span
      ><colour-field
        label="Tint of the glow"
        :model-value="light.glow.tint"
        @change="(tint) => hand.light('glow', { tint })"
      />
    </div>
    <template v-if="lamps.length > 0">
      <FigureSlide
        label="lamps"
        name="Strength of all lamps"
        :model-value="light.lamps.strength"
        :min="0"
        :max="4"
        :step="0.05"
        @input="(strength) => hand.dragLight('lamps', { strength })"
        @change="(strength) => hand.light('lamps', { strength })"
      />
      <FoldSection id="light.lamps" :title="`Each of ${lamps.length} in this shot`">
        <div v-for="l in lamps" :key="l.id" class="lamp">
          <span class="name">{{ l.name }}</span><colour-field
            :label="`Colour of ${l.name} in this shot`"
            :model-value="changeOf(l)?.colour ?? l.colour"
            @change="(colour) => hand.light('lamps', changed(l, { colour }))"
          />
          <FigureSlide
            class="slide"
            label="times"
            :name="`Strength of ${l.name} in this shot`"
            :model-value="changeOf(l)?.strength ?? 1"
            :min="0"
            :max="4"
            :step="0.05"
            @input="(strength) => hand.dragLight('lamps', changed(l, { strength }))"
            @change="(strength) => hand.light('lamps', changed(l, { strength }))"
          />
        </div>
      </FoldSection>
    </template>
    <p v-if="!hidden" class="quiet">A helper swatch that glows is a hidden lamp: it gives light and is not seen.</p>
  </section>
</template>

<style scoped>
.between {
  justify-content: space-between;
}
.lamp {
  display: grid;
  grid-template-columns: minmax(0, 1fr) auto;
  align-items: center;
}
.lamp .name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.lamp .slide {
  grid-column: 1 / -1;
}
</style>
