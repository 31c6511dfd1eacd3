<script setup lang="ts">
import type { Clip, ClipFloor } from '@sphalerite/core/model';
import { setClipEdit } from '@sphalerite/core/project';
import { computed } from 'vue';
import ChoiceField from '../../components/ChoiceField.vue';
import NumberField from '../../components/NumberField.vue';
import { useSession } from '../../stores/session';

/** The ground that a clip is checked against: level at a height, a slope, or steps along the way the figure faces. */
const props = defineProps<{ clip: Clip }>();
const session = useSession();
const LEVEL: ClipFloor = { height: 0, rise: 0, run: 0 };
const SHAPES = [
  { value: 'level', text: 'level' },
  { value: 'slope', text: 'slope' },
  { value: 'steps', text: 'steps' },
] as const;
type Shape = (typeof SHAPES)[number]['value'];
const floor = computed(() => props.clip.floor ?? LEVEL);
const shape = computed<Shape>(() => (floor.value.run > 0 ? 'steps' : floor.value.rise === 0 ? 'level' : 'slope'));
const degrees = computed(() => Math.round(((Math.atan(floor.value.rise) * 180) / Math.PI) * 10) / 10);
function set(to: Partial<ClipFloor>): void {
  const next = { ...floor.value, ...to };
  const level = next.height === 0 && next.rise === 0 && next.run === 0;
  session.apply(setClipEdit, { clip: props.clip.id, floor: level ? null : next });
}
/** Begins with a gentle slope, or with steps as high as a small foot. */
const BEGIN: Record<Shape, Partial<ClipFloor>> = {
  level: { rise: 0, run: 0 },
  slope: { rise: Math.tan(Math.PI / 12), run: 0 },
  steps: { rise: 4, run: 8 },
};
</script>

<template>
  <div class="floor" role="group" aria-label="Ground of the clip">
    <choice-field
      label="Shape of the ground"
      :model-value="shape"
      :choices="SHAPES"
      @change="(s) => s !== shape && set(BEGIN[s])"
    />
    <number-field
      label="at"
      name="Height of the ground"
      :model-value="floor.height"
      :step="0.5"
      @change="(height) => set({ height })"
    />
    <number-field
      v-if="shape === 'slope'"
      label="up"
      name="Slope of the ground"
      :model-value="degrees"
      unit="°"
      :min="-80"
      :max="80"
      :step="5"
      @change="(v) => set({ rise: Math.tan((v * Math.PI) / 180) })"
    />
    <template v-if="shape === 'steps'">
      <number-field
        label="rise"
        name="Rise of a step"
        :model-value="floor.rise"
        :step="0.5"
        @change="(rise) => set({ rise })"
      /><number-field
        label="run"
        name="Run of a step"
        :model-value="floor.run"
        :min="0.5"
        :step="0.5"
        @change="(run) => set({ run })"
      />
    </template>
  </div>
</template>

<style scoped>
.floor {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 5px;
}
.floor > :first-child {
  grid-column: 1 / -1;
}
</style>
