<script setup lang="ts">
import {
  DIRECTIONS,
  MAKES,
  PATH_KINDS,
  type PathKind,
  type Makes,
  PICTURE_FILES,
  type PictureFile,
  SERIES_FILES,
  type SeriesFile,
} from '@sphalerite/core/model';
import { computed } from 'vue';
import { choices } from '../../components/choices';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { DRAWN } from './panel-words';
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
/** What turns goes once about; past something one goes a part of that. */
function take(kind: PathKind): void {
  const past = kind === 'fly-past';
  const fits = past === (output.value.path.kind === 'fly-past');
  path({ kind, ...(fits ? {} : { reach: past ? 90 : 360 }) });
}
const path = (change: Partial<typeof output.value.path>): void =>
  hand.set('output', { path: { ...output.value.path, ...change } });
</script>

<template>
  <section class="output" aria-label="Output">
    <h2 class="visually-hidden">Output</h2>
    <div class="cells first">
      <ChoiceField
        wide
        label="What the shot becomes"
        :model-value="output.makes"
        :choices="MAKES.map((value) => ({ value, text: value }))"
        @change="(makes: Makes) => hand.set('output', { makes })"
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
      />
    </div>
    <div v-if="output.makes !== 'sprites'" class="cells sized">
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
      /><CheckField :model-value="output.transparent" @change="(transparent) => hand.set('output', { transparent })"
        >transparent</CheckField
      >
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
      /><NumberField
        label="px"
        name="Pixels a cube"
        :model-value="output.sprites.scale"
        :min="1"
        :max="64"
        :step="1"
        @change="(scale) => sprites({ scale: Math.round(scale) })"
      /><NumberField
        label="pad"
        name="Clear pixels about each sprite"
        :model-value="output.sprites.padding"
        :min="0"
        :max="64"
        :step="1"
        @change="(padding) => sprites({ padding: Math.round(padding) })"
      />
    </div>
    <div class="cells">
      <SelectField
        v-if="output.makes !== 'picture'"
        label="How it is made"
        :model-value="output.drawn ? 'drawn' : 'traced'"
        :choices="DRAWN"
        @change="(how) => hand.set('output', { drawn: how === 'drawn' })"
      /><template v-if="output.makes === 'picture' || !output.drawn"
        ><NumberField
          label="samples"
          name="Samples"
          class="wide"
          :model-value="output.samples"
          :min="1"
          :max="4096"
          :step="16"
          @change="(v) => hand.set('output', { samples: Math.round(v) })" /><NumberField
          label="noise"
          name="Noise at which a part is done"
          class="wide"
          unit="%"
          :model-value="Math.round(output.noise * 1000) / 10"
          :min="0"
          :max="50"
          :step="1"
          @change="(v) => hand.set('output', { noise: v / 100 })" /></template
      ><CheckField
        v-if="output.makes === 'path'"
        :model-value="output.path.plays"
        tip="What has a clip goes on with it while the camera moves"
        @change="(plays) => path({ plays })"
        >playing</CheckField
      >
    </div>
    <div class="cells" :class="{ way: output.makes === 'path' }">
      <template v-if="output.makes === 'path'"
        ><SelectField
          label="What moves"
          :model-value="output.path.kind"
          :choices="choices(PATH_KINDS)"
          @change="(kind) => take(kind as PathKind)" /><NumberField
          label="°"
          name="Degrees that it reaches over"
          :model-value="output.path.reach"
          :min="1"
          :max="3600"
          :step="15"
          @change="(reach) => path({ reach })" /></template
      ><NumberField
        v-if="output.makes !== 'picture'"
        label="fps"
        name="Frames a second"
        :model-value="output.fps"
        :min="1"
        :max="60"
        :step="1"
        @change="(fps) => hand.set('output', { fps: Math.round(fps) })"
      /><template v-if="output.makes === 'path'"
        ><NumberField
          label="s"
          name="Seconds that it takes"
          :model-value="output.seconds"
          :min="0.1"
          :max="600"
          :step="0.5"
          @change="(seconds) => hand.set('output', { seconds })"
        /><CheckField :model-value="output.path.eased" @change="(eased) => path({ eased })">eased</CheckField></template
      ><template v-if="output.makes === 'sprites'"
        ><CheckField :model-value="output.sprites.trim" @change="(trim) => sprites({ trim })">trim</CheckField
        ><CheckField :model-value="output.sprites.shadow" @change="(shadow) => sprites({ shadow })"
          >shadows</CheckField
        ></template
      ><CheckField
        v-if="output.makes === 'picture' && output.file.startsWith('png') && output.transparent"
        :model-value="output.cut"
        @change="(cut) => hand.set('output', { cut })"
        >cut out</CheckField
      ><CheckField
        v-if="output.makes === 'picture' && output.file === 'exr'"
        :model-value="output.passes"
        @change="(passes) => hand.set('output', { passes })"
        >passes</CheckField
      >
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
.cells.sized {
  grid-auto-flow: row;
  grid-template-columns: repeat(3, minmax(0, 1fr)) auto;
}
.cells.way {
  grid-auto-flow: row;
  grid-template-columns: minmax(0, 1.7fr) repeat(3, minmax(0, 1fr)) auto;
}
.cells.first {
  grid-auto-columns: minmax(0, 5fr) minmax(0, 2fr);
}
.cells :deep(.select-field.el-select) {
  min-width: 0;
}
</style>
