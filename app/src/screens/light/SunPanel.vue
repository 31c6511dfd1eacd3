<script setup lang="ts">
import { IconSun } from '@tabler/icons-vue';
import { computed } from 'vue';
import ColourField from '../../components/ColourField.vue';
import NumberField from '../../components/NumberField.vue';
import FigureSlide from './FigureSlide.vue';
import { useShot } from './shot-in-hand';
import SunBall from './SunBall.vue';
import { hourOf, hourTold, sunAt } from '@sphalerite/core/render';

/** Where the sun stands: by the ball, by figures, or by the time of day. */
const hand = useShot();
const sun = computed(() => hand.shot!.light.sun);
const hour = computed(() => hourOf(sun.value));
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2 class="with-icon"><IconSun aria-hidden="true" />Sun</h2>
      <span class="row"
        ><span class="figures quiet">{{ hourTold(hour) }}</span
        ><colour-field
          label="Colour of the sun"
          :model-value="sun.colour"
          @change="(colour) => hand.light('sun', { colour })"
      /></span>
    </div>
    <div class="sun">
      <SunBall
        :azimuth="sun.azimuth"
        :elevation="sun.elevation"
        @drag="(v) => hand.dragLight('sun', v)"
        @change="(v) => hand.light('sun', v)"
      />
      <div class="figures-col">
        <NumberField
          label="dir"
          name="Sun direction"
          unit="°"
          :model-value="sun.azimuth"
          :step="5"
          @change="(azimuth) => hand.light('sun', { azimuth })"
        /><NumberField
          label="up"
          name="Sun height"
          unit="°"
          :model-value="sun.elevation"
          :min="-10"
          :max="90"
          :step="2"
          @change="(elevation) => hand.light('sun', { elevation })"
        /><NumberField
          label="size"
          name="Sun width"
          unit="°"
          :model-value="sun.size"
          :min="0.1"
          :max="90"
          @change="(size) => hand.light('sun', { size })"
        />
      </div>
    </div>
    <FigureSlide
      label="strength"
      name="Sun strength"
      :model-value="sun.strength"
      :min="0"
      :max="6"
      :step="0.05"
      @input="(strength) => hand.dragLight('sun', { strength })"
      @change="(strength) => hand.light('sun', { strength })"
    />
    <FigureSlide
      label="time"
      name="Time of day"
      :model-value="hour"
      :min="5"
      :max="21"
      :step="0.1"
      :told="hourTold(hour)"
      @input="(v) => hand.dragLight('sun', sunAt(v))"
      @change="(v) => hand.light('sun', sunAt(v))"
    />
  </section>
</template>

<style scoped>
.sun {
  display: flex;
  gap: 10px;
  align-items: center;
}
.figures-col {
  display: grid;
  gap: 5px;
  flex: 1 1 104px;
  min-width: 0;
}
</style>
