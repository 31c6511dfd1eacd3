<script setup lang="ts">
import {
  DIRECTIONS,
  MAKES,
  type Makes,
  PICTURE_FILES,
  type PictureFile,
  SERIES_FILES,
  type SeriesFile,
} from '@sphalerite/core/model';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { SHAPES, shaped } from './output-shapes';
import { useShot } from './shot-in-hand';

/** What the shot becomes: a picture, or many that move or stand on a sheet. */
const hand = useShot();
const output = computed(() => hand.shot!.output);
const shape = computed(() => SHAPES.find((s) => s.is(output.value.size))?.value ?? '');
const PICTURES: Record<PictureFile, string> = {
  png: 'PNG',
  png16: 'PNG, 16 bits',
  jpeg: 'JPEG',
  webp: 'WebP',
  exr: 'EXR',
};
const SERIES: Record<SeriesFile, string> = { gif: 'GIF', webm: 'WebM', mp4: 'MP4', zip: 'PNG frames' };
const texts = <T extends string>(of: Record<T, string>, list: readonly T[]) =>
  list.map((value) => ({ value, text: of[value] }));
const sprites = (change: Partial<typeof output.value.sprites>): void =>
  hand.set('output', { sprites: { ...output.value.sprites, ...change } });
</script>

<template>
  <section class="output" aria-label="Output">
    <h2 class="visually-hidden">Output</h2>
    <ChoiceField
      wide
      label="What the shot becomes"
      :model-value="output.makes"
      :choices="MAKES.map((value) => ({ value, text: value }))"
      @change="(makes: Makes) => hand.set('output', { makes })"
    />
    <div v-if="output.makes !== 'sprites'" class="cells">
      <NumberField
        label="W"
        name="Picture width"
        :model-value="output.size[0]"
        :min="16"
        :max="8192"
        :step="16"
        @change="(v) => hand.set('output', { size: [Math.round(v), output.size[1]] })"
      /><NumberField
        label="H"
        name="Picture height"
        :model-value="output.size[1]"
        :min="16"
        :max="8192"
        :step="16"
        @change="(v) => hand.set('output', { size: [output.size[0], Math.round(v)] })"
      /><SelectField
        label="Shape of the picture"
        :model-value="shape"
        :choices="[...SHAPES, ...(shape === '' ? [{ value: '', text: 'own' }] : [])]"
        @change="$event && hand.set('output', { size: shaped($event, output.size) })"
      />
    </div>
    <div v-else class="cells">
      <SelectField
        label="From how many sides"
        :model-value="String(output.sprites.directions)"
        :choices="DIRECTIONS.map((d) => ({ value: String(d), text: d === 1 ? '1 side' : `${d} sides` }))"
        @change="(d) => sprites({ directions: Number(d) as (typeof DIRECTIONS)[number] })"
      /><SelectField
        label="Clips on the sheet"
        :model-value="output.sprites.clips"
        :choices="[
          { value: 'one', text: 'its clip' },
          { value: 'all', text: 'all clips' },
        ]"
        @change="(clips) => sprites({ clips: clips as 'one' | 'all' })"
      />
    </div>
    <div class="cells">
      <NumberField
        label="samples"
        name="Samples"
        :model-value="output.samples"
        :min="1"
        :max="65536"
        :step="8"
        @change="(v) => hand.set('output', { samples: Math.round(v) })"
      /><SelectField
        v-if="output.makes === 'picture'"
        label="Kind of file"
        :model-value="output.file"
        :choices="texts(PICTURES, PICTURE_FILES)"
        @change="(file) => hand.set('output', { file: file as PictureFile })"
      /><SelectField
        v-else-if="output.makes !== 'sprites'"
        label="Kind of file"
        :model-value="output.series"
        :choices="texts(SERIES, SERIES_FILES)"
        @change="(series) => hand.set('output', { series: series as SeriesFile })"
      /><NumberField
        v-else
        label="pixels a cube"
        :model-value="output.sprites.scale"
        :min="1"
        :max="64"
        :step="1"
        @change="(scale) => sprites({ scale: Math.round(scale) })"
      />
    </div>
    <div class="cells">
      <NumberField
        v-if="output.makes !== 'picture'"
        label="fps"
        name="Frames a second"
        :model-value="output.fps"
        :min="1"
        :max="60"
        :step="1"
        @change="(fps) => hand.set('output', { fps: Math.round(fps) })"
      /><NumberField
        v-if="output.makes === 'turn'"
        label="s"
        name="Seconds once about"
        :model-value="output.seconds"
        :min="0.1"
        :max="600"
        :step="0.5"
        @change="(seconds) => hand.set('output', { seconds })"
      /><template v-if="output.makes === 'sprites'"
        ><CheckField :model-value="output.sprites.trim" @change="(trim) => sprites({ trim })">trim</CheckField
        ><CheckField :model-value="output.sprites.shadow" @change="(shadow) => sprites({ shadow })"
          >shadows</CheckField
        ></template
      >
      <template v-else>
        <CheckField :model-value="output.transparent" @change="(transparent) => hand.set('output', { transparent })"
          >transparent</CheckField
        ><CheckField
          v-if="output.makes === 'picture' && output.file === 'png' && output.transparent"
          :model-value="output.cut"
          @change="(cut) => hand.set('output', { cut })"
          >cut out</CheckField
        ><CheckField
          v-if="output.makes === 'picture' && output.file === 'exr'"
          :model-value="output.passes"
          @change="(passes) => hand.set('output', { passes })"
          >passes</CheckField
        >
      </template>
    </div>
  </section>
</template>

<style scoped>
.output {
  display: grid;
  gap: 6px;
  align-content: start;
  padding: 10px 14px;
  min-width: 0;
  border-right: 1px solid var(--line);
}
.cells {
  display: grid;
  grid-auto-flow: column;
  grid-auto-columns: minmax(0, 1fr);
  align-items: center;
  gap: 6px;
}
.cells :deep(.select-field.el-select) {
  min-width: 0;
}
</style>
