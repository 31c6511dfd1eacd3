<script setup lang="ts">
import { IconCamera } from '@tabler/icons-vue';
import { type CameraKind, metresOf } from './panel-words';
import { focalLength, fovOfLens } from '@sphalerite/core/render';
import { length, sub } from '@sphalerite/core/math';
import { computed } from 'vue';
import ChoiceField from '../../components/ChoiceField.vue';
import CommandButton from '../../components/CommandButton.vue';
import FoldSection from '../../components/FoldSection.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { useSession } from '../../stores/session';
import { straightened } from './camera-kinds';
import FigureSlide from './FigureSlide.vue';
import { useShot } from './shot-in-hand';

/** Where a shot looks from and through what lens. */
const session = useSession();
const hand = useShot();
const camera = computed(() => hand.shot!.camera);
const KINDS: { value: CameraKind; text: string }[] = [
  { value: 'perspective', text: 'Perspective' },
  { value: 'orthographic', text: 'Orthographic' },
  { value: 'isometric', text: 'True isometric' },
  { value: 'dimetric', text: '2:1 dimetric' },
  { value: 'three-quarter', text: '45° three-quarter' },
  { value: 'top', text: 'Top-down' },
];
const QUICK = KINDS.slice(0, 3).map((k) => ({
  ...k,
  text: k.value === 'perspective' ? 'perspective' : k.value === 'orthographic' ? 'ortho' : 'isometric',
}));
function take(kind: CameraKind): void {
  const c = session.shot!.camera;
  const away = length(sub(c.eye, c.target));
  // What is in the middle stays as large.
  const half = Math.tan((c.fov * Math.PI) / 360);
  const height = c.kind === 'perspective' ? 2 * away * half : c.height;
  hand.set('camera', straightened({ ...c, kind, height }));
}
const lens = computed(() => Math.round(focalLength(camera.value) * 1000));
const metres = computed(() => session.project!.metresPerUnit);
const focus = computed(() => camera.value.focus ?? length(sub(camera.value.eye, camera.value.target)));
/** Apertures by halves of a stop from f/0.1 to f/32; all the way up everything is sharp. */
const STOPS = 34;
const aperture = computed(() =>
  camera.value.aperture === 0
    ? STOPS
    : Math.max(0, Math.min(STOPS - 1, Math.round(Math.log2(camera.value.aperture / 0.1) * 4))),
);
const stopOf = (v: number): number => (v >= STOPS ? 0 : Math.round(0.1 * 2 ** (v / 4) * 100) / 100);
const told = computed(() => (camera.value.aperture === 0 ? 'sharp' : `f/${camera.value.aperture}`));
</script>

<template>
  <section class="panel-section">
    <div class="panel-head">
      <h2 class="with-icon"><IconCamera aria-hidden="true" />Camera</h2>
      <span class="figures quiet">{{
        camera.kind === 'perspective' ? `${lens} mm` : `${metresOf(camera.height, metres)} high`
      }}</span>
    </div>
    <choice-field
      class="kinds"
      wide
      label="Kind of camera"
      :model-value="camera.kind"
      :choices="QUICK"
      @change="take"
    />
    <FigureSlide
      v-if="camera.kind === 'perspective'"
      label="lens"
      name="Length of the lens"
      :model-value="lens"
      :min="10"
      :max="200"
      :told="`${lens} mm`"
      @input="(v) => hand.drag('camera', { fov: fovOfLens(v / 1000) })"
      @change="(v) => hand.set('camera', { fov: fovOfLens(v / 1000) })"
    />
    <FigureSlide
      label="focus"
      name="Distance of what is sharp"
      :model-value="Math.log2(focus)"
      :min="0"
      :max="10"
      :step="0.02"
      :told="metresOf(focus, metres)"
      @input="(v) => hand.drag('camera', { focus: 2 ** v })"
      @change="(v) => hand.set('camera', { focus: 2 ** v })"
    />
    <FigureSlide
      label="aperture"
      name="Aperture"
      :model-value="aperture"
      :min="0"
      :max="STOPS"
      :told="told"
      @input="(v) => hand.drag('camera', { aperture: stopOf(v) })"
      @change="(v) => hand.set('camera', { aperture: stopOf(v) })"
    />
    <div class="row wrap">
      <CommandButton id="light.lock" text="Lock" /><CommandButton id="light.camera" text="From view" /><CommandButton
        id="light.focus"
        text="Focus"
      />
    </div>
    <FoldSection id="light.lens" title="More of the lens">
      <form-row label="Kind"
        ><SelectField
          label="Every kind of camera"
          :model-value="camera.kind"
          :choices="KINDS"
          @change="take($event as CameraKind)"
      /></form-row>
      <div class="row">
        <NumberField
          label="roll"
          name="Roll"
          unit="°"
          :model-value="camera.roll"
          :min="-180"
          :max="180"
          @change="(roll) => hand.set('camera', { roll })"
        /><NumberField
          label="blades"
          name="Blades of the iris"
          :model-value="camera.blades"
          :min="0"
          :max="16"
          @change="(v) => hand.set('camera', { blades: Math.round(v) })"
        />
      </div>
      <div class="row">
        <NumberField
          label="right"
          name="Picture moved to the right"
          :model-value="camera.shift[0]"
          :min="-2"
          :max="2"
          :step="0.05"
          @change="(v) => hand.set('camera', { shift: [v, camera.shift[1]] })"
        /><NumberField
          label="up"
          name="Picture moved up"
          :model-value="camera.shift[1]"
          :min="-2"
          :max="2"
          :step="0.05"
          @change="(v) => hand.set('camera', { shift: [camera.shift[0], v] })"
        />
      </div>
    </FoldSection>
  </section>
</template>

<style scoped>
.wrap {
  flex-wrap: wrap;
}
.kinds.el-segmented :deep(.el-segmented__item) {
  padding: 0;
  font-size: 12px;
}
</style>
