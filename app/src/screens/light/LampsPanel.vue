<script setup lang="ts">
import { IconLamp } from '@tabler/icons-vue';
import { type Lamp, type LampChange, find, isHiddenLamp } from '@sphalerite/core/model';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import ColourField from '../../components/ColourField.vue';
import FoldSection from '../../components/FoldSection.vue';
import { useSession } from '../../stores/session';
import { lampChange, lampChanges } from './lamp-changes';
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
const changeOf = (l: Lamp) => lampChange(light.value, l.id);
const changed = (l: Lamp, more: Partial<LampChange>) => lampChanges(light.value, l.id, more);
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
            :model-value="changeOf(l).colour ?? l.colour"
            @change="(colour) => hand.light('lamps', changed(l, { colour }))"
          />
          <FigureSlide
            class="slide"
            label="times"
            :name="`Strength of ${l.name} in this shot`"
            :model-value="changeOf(l).strength"
            :min="0"
            :max="4"
            :step="0.05"
            @input="(strength) => hand.dragLight('lamps', changed(l, { strength }))"
            @change="(strength) => hand.light('lamps', changed(l, { strength }))"
          />
          <div v-if="changeOf(l).by.some((v) => v !== 0)" class="row slide">
            <span class="quiet">moved by {{ changeOf(l).by.join(', ') }}</span
            ><action-button look="bare" @click="hand.light('lamps', changed(l, { by: [0, 0, 0] }))">back</action-button>
          </div>
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
