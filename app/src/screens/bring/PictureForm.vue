<script setup lang="ts">
import { DITHERS, MOST_CUBES, type PictureOptions } from '@sphalerite/core/intake';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import ColourField from '../../components/ColourField.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import SliderField from '../../components/SliderField.vue';
import { choices } from '../../components/choices';
import { useBringing } from './bring-state';
import ColoursGo from './ColoursGo.vue';
import SwatchesOnly from './SwatchesOnly.vue';

/** How a picture becomes a part. */
const bringing = useBringing();
const o = computed(() => bringing.options as PictureOptions);
const size = computed(() => bringing.made?.facts['size'] ?? [0, 0]);
/** How many there are, and how they lie; null for a picture of one thing. */
const sprites = computed(() => bringing.made?.facts['sprites'] ?? null);
const colours = computed(() => bringing.made?.facts['colours'] ?? [0, 0]);
</script>

<template>
  <div>
    <section class="panel-section">
      <div class="panel-head">
        <h3>Size</h3>
        <span class="quiet figures">{{ size[0] }} × {{ size[1] }} of {{ MOST_CUBES }}</span>
      </div>
      <number-field
        label="width"
        name="Width in cubes"
        :model-value="o.width || size[0]!"
        :min="1"
        :max="MOST_CUBES"
        @change="(v) => bringing.wish({ width: Math.round(v) })"
      />
      <check-field
        :model-value="o.blocks === 'found'"
        tip="Pixel art that was enlarged comes back a cube a pixel"
        @change="(on) => bringing.wish({ blocks: on ? 'found' : 'ignored', width: 0 })"
        >Find enlarged pixels</check-field
      >
      <choice-field
        label="How it stands"
        wide
        :model-value="o.stand"
        :choices="choices(['upright', 'flat'] as const)"
        @change="(stand) => bringing.wish({ stand })"
      />
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Sprites</h3>
        <span v-if="sprites" class="quiet figures">{{ sprites[0] }} of {{ sprites[1] }} × {{ sprites[2] }}</span>
      </div>
      <select-field
        label="What the picture shows"
        :model-value="o.sprites"
        :choices="[
          { value: 'one', text: 'one thing' },
          { value: 'parts', text: 'a sheet: each a part' },
          { value: 'alternates', text: 'a sheet: alternates of one' },
          { value: 'frames', text: 'a sheet: frames of a clip' },
        ]"
        @change="(sprites: string) => bringing.wish({ sprites, width: 0 })"
      />
      <template v-if="o.sprites !== 'one'">
        <div class="two">
          <number-field
            label="across"
            name="Sprites across"
            :model-value="o.across || (sprites?.[1] ?? 1)"
            :min="1"
            :max="64"
            @change="(v) => bringing.wish({ across: Math.round(v) })"
          /><number-field
            label="down"
            name="Sprites down"
            :model-value="o.down || (sprites?.[2] ?? 1)"
            :min="1"
            :max="64"
            @change="(v) => bringing.wish({ down: Math.round(v) })"
          />
        </div>
        <number-field
          v-if="o.sprites === 'frames'"
          label="frames a second"
          :model-value="o.fps"
          :min="1"
          :max="60"
          @change="(v) => bringing.wish({ fps: Math.round(v) })"
        />
      </template>
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Colours</h3>
        <span class="quiet figures">{{ colours[1] }} of {{ colours[0]?.toLocaleString('en') }}</span>
      </div>
      <choice-field
        label="Which colours"
        wide
        :model-value="o.colours"
        :choices="[
          { value: 'own', text: 'own', tip: 'As few of its own as you say' },
          { value: 'palette', text: 'palette', tip: 'The nearest of the palette in hand' },
        ]"
        @change="(c) => bringing.wish({ colours: c })"
      />
      <template v-if="o.colours === 'own'">
        <slide-row
          label="at most"
          name="At most so many colours"
          :model-value="o.most"
          :min="2"
          :max="255"
          @input="(most) => bringing.wish({ most })"
        />
        <colours-go />
      </template>
      <swatches-only v-else :model-value="o.only" @change="(only) => bringing.wish({ only })" />
      <form-row label="dither"
        ><select-field
          label="Dithering"
          :model-value="o.dither"
          :choices="choices(DITHERS)"
          @change="(dither: string) => bringing.wish({ dither })"
      /></form-row>
      <slide-row
        label="opaque from"
        name="How opaque a pixel must be"
        :model-value="o.clear"
        :min="0"
        :max="255"
        @input="(clear) => bringing.wish({ clear })"
      />
      <div class="key">
        <check-field
          :model-value="o.key !== ''"
          tip="A colour that is no cube: a backdrop"
          @change="(on) => bringing.wish({ key: on ? '#ffffff' : '' })"
          >Leave out</check-field
        >
        <colour-field
          v-if="o.key"
          label="Colour to leave out"
          :model-value="o.key"
          @change="(key) => bringing.wish({ key })"
        />
        <slider-field
          v-if="o.key"
          label="How near to that colour"
          :model-value="o.reach"
          :min="0"
          :max="0.4"
          :step="0.01"
          @input="(reach) => bringing.wish({ reach })"
        />
      </div>
    </section>

    <section class="panel-section">
      <h3>Depth</h3>
      <number-field
        label="thick"
        name="Thickness in cubes"
        :model-value="o.thick"
        :min="1"
        :max="MOST_CUBES"
        @change="(v) => bringing.wish({ thick: Math.round(v) })"
      />
      <select-field
        label="Relief"
        :model-value="o.relief"
        :choices="[
          { value: 'none', text: 'no relief' },
          { value: 'bright', text: 'what is bright stands out' },
          { value: 'dark', text: 'what is dark stands out' },
          { value: 'puffed', text: 'puffed from its outline' },
        ]"
        @change="(relief) => bringing.wish({ relief })"
      />
      <template v-if="o.relief !== 'none'">
        <slide-row
          label="raise"
          name="How far it stands out"
          :model-value="o.raise"
          :min="1"
          :max="64"
          @input="(raise) => bringing.wish({ raise })"
        />
        <check-field
          :model-value="o.back === 'mirrored'"
          @change="(on) => bringing.wish({ back: on ? 'mirrored' : 'flat' })"
          >Back as the front</check-field
        >
      </template>
      <div class="key">
        <check-field
          :model-value="o.outline !== ''"
          tip="A rim of one cube"
          @change="(on) => bringing.wish({ outline: on ? '#182028' : '' })"
          >Outline</check-field
        >
        <colour-field
          v-if="o.outline"
          label="Colour of the outline"
          :model-value="o.outline"
          @change="(outline) => bringing.wish({ outline })"
        />
      </div>
    </section>
  </div>
</template>

<style scoped>
.two {
  display: grid;
  grid-template-columns: 1fr 1fr;
  gap: 6px;
}
.key {
  display: flex;
  flex-wrap: wrap;
  align-items: center;
  gap: 4px 10px;
}
.key > :nth-child(3) {
  flex: 1;
  min-width: 80px;
}
:deep(.form-row:not(.stacked)) {
  grid-template-columns: 76px minmax(0, 1fr);
}
</style>
