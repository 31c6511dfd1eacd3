<script setup lang="ts">
import { IconAdjustmentsHorizontal } from '@tabler/icons-vue';
import { type Grade, NO_GRADE, TONE_CURVES, type ToneCurve } from '@sphalerite/core/model';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import ColourField from '../../components/ColourField.vue';
import FoldSection from '../../components/FoldSection.vue';
import { choices } from '../../components/choices';
import FigureSlide from './FigureSlide.vue';
import { useShot } from './shot-in-hand';

/** How light becomes a picture; what is traced already follows at once. */
const hand = useShot();
const grade = computed(() => hand.shot!.grade);
type Row = readonly [
  key: Exclude<keyof Grade, 'curve' | 'outline'>,
  label: string,
  name: string,
  min: number,
  max: number,
  step: number,
];
const FIRST: readonly Row[] = [
  ['exposure', 'exposure', 'Exposure', -6, 6, 0.05],
  ['bloom', 'bloom', 'Bloom', 0, 1, 0.01],
  ['contrast', 'contrast', 'Contrast', -1, 1, 0.02],
  ['saturation', 'colour', 'Saturation', -1, 1, 0.02],
];
const MORE: readonly Row[] = [
  ['warmth', 'warmth', 'Warmth', -1, 1, 0.02],
  ['tint', 'tint', 'Green or magenta', -1, 1, 0.02],
  ['vignette', 'corners', 'Vignette', 0, 1, 0.02],
  ['grain', 'grain', 'Grain', 0, 1, 0.02],
];
const LINES: readonly Row[] = [['steps', 'light steps', 'Steps of light', 0, 8, 1]];
const isPlain = computed(() => JSON.stringify(grade.value) === JSON.stringify(NO_GRADE));
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2 class="with-icon"><IconAdjustmentsHorizontal aria-hidden="true" />Grade</h2>
      <action-button v-if="!isPlain" look="bare" tip="As it was traced" @click="hand.change({ grade: NO_GRADE })"
        >plain</action-button
      >
    </div>
    <FigureSlide
      v-for="[key, label, name, min, max, step] in FIRST"
      :key="key"
      v-bind="{ label, name, min, max, step }"
      :model-value="grade[key]"
      @input="(v) => hand.drag('grade', { [key]: v })"
      @change="(v) => hand.set('grade', { [key]: v })"
    />
    <choice-field
      wide
      label="Tone curve"
      :model-value="grade.curve"
      :choices="choices(TONE_CURVES)"
      @change="(curve: ToneCurve) => hand.set('grade', { curve })"
    />
    <FoldSection id="light.grade" title="White balance and film">
      <FigureSlide
        v-for="[key, label, name, min, max, step] in MORE"
        :key="key"
        v-bind="{ label, name, min, max, step }"
        :model-value="grade[key]"
        @input="(v) => hand.drag('grade', { [key]: v })"
        @change="(v) => hand.set('grade', { [key]: v })"
      />
    </FoldSection>
    <FoldSection id="light.lines" title="Lines and steps">
      <FigureSlide
        label="outline"
        name="Width of the outline in pixels"
        :min="0"
        :max="12"
        :step="0.5"
        :model-value="grade.outline.width"
        @input="(width) => hand.drag('grade', { outline: { ...grade.outline, width } })"
        @change="(width) => hand.set('grade', { outline: { ...grade.outline, width } })"
      />
      <div v-if="grade.outline.width > 0" class="lines">
        <ColourField
          label="Colour of the outline"
          :model-value="grade.outline.colour"
          @change="(colour) => hand.set('grade', { outline: { ...grade.outline, colour } })"
        /><CheckField
          :model-value="grade.outline.inside"
          @change="(inside) => hand.set('grade', { outline: { ...grade.outline, inside } })"
          >also inside</CheckField
        >
      </div>
      <FigureSlide
        v-for="[key, label, name, min, max, step] in LINES"
        :key="key"
        v-bind="{ label, name, min, max, step }"
        :model-value="grade[key]"
        @input="(v) => hand.drag('grade', { [key]: v })"
        @change="(v) => hand.set('grade', { [key]: v })"
      />
    </FoldSection>
  </section>
</template>

<style scoped>
.lines {
  display: flex;
  align-items: center;
  gap: 12px;
}
.lines > :first-child {
  flex: none;
}
</style>
