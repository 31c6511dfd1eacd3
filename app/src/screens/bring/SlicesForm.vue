<script setup lang="ts">
import type { SliceOptions } from '@sphalerite/core/intake';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import { useBringing } from './bring-state';
import ColoursGo from './ColoursGo.vue';

/** How slices become a part. */
const bringing = useBringing();
const o = computed(() => bringing.options as SliceOptions);
const facts = computed(() => bringing.made?.facts ?? {});
const pictures = computed(() => bringing.waiting?.find.files.filter((f) => /\.png$/i.test(f.name)).length ?? 0);
const told = computed(() => bringing.waiting?.find.files.some((f) => /\.json$/i.test(f.name)) ?? false);
</script>

<template>
  <div>
    <section class="panel-section">
      <div class="panel-head">
        <h3>Slices</h3>
        <span class="quiet figures">{{ facts['slices']?.[0] }}</span>
      </div>
      <select-field
        label="The way from slice to slice"
        :model-value="o.order"
        :choices="[
          { value: 'told', text: told ? 'as the text beside them tells' : 'floor plans, bottom up' },
          ...(told ? [{ value: 'bottom up', text: 'floor plans, bottom up' }] : []),
          { value: 'back to front', text: 'seen from the front, back to front' },
          { value: 'left to right', text: 'seen from the side, left to right' },
        ]"
        @change="(order: string) => bringing.wish({ order })"
      />
      <check-field :model-value="o.backwards" @change="(backwards) => bringing.wish({ backwards })"
        >The last one first</check-field
      >
    </section>
    <section v-if="pictures === 1" class="panel-section">
      <div class="panel-head">
        <h3>Tiles</h3>
        <span class="quiet">row by row</span>
      </div>
      <div class="three">
        <number-field
          label="W"
          name="Width of a tile in pixels"
          :model-value="o.wide || (facts['slices']?.[1] ?? 0)"
          :min="1"
          :max="256"
          @change="(v) => bringing.wish({ wide: Math.round(v) })"
        />
        <number-field
          label="H"
          name="Height of a tile in pixels"
          :model-value="o.high || (facts['slices']?.[2] ?? 0)"
          :min="1"
          :max="256"
          @change="(v) => bringing.wish({ high: Math.round(v) })"
        />
        <number-field
          label="n"
          name="How many tiles"
          :model-value="o.count || (facts['slices']?.[0] ?? 0)"
          :min="1"
          :max="256"
          @change="(v) => bringing.wish({ count: Math.round(v) })"
        />
      </div>
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h3>Colours</h3>
        <span class="quiet figures">{{ facts['colours']?.[1] }}</span>
      </div>
      <choice-field
        label="Colours of the slices"
        wide
        :model-value="o.colours"
        :choices="[
          { value: 'own', text: 'own' },
          { value: 'palette', text: 'palette', tip: 'The nearest of the palette in hand' },
        ]"
        @change="(colours) => bringing.wish({ colours })"
      />
      <check-field
        :model-value="o.zero === 'cube'"
        tip="Of pictures with a palette of their own; else it is empty"
        @change="(on) => bringing.wish({ zero: on ? 'cube' : 'empty' })"
        >Index 0 is a cube too</check-field
      >
      <colours-go v-if="o.colours === 'own'" />
    </section>
  </div>
</template>

<style scoped>
.three {
  display: grid;
  grid-template-columns: repeat(3, minmax(0, 1fr));
  gap: 6px;
}
</style>
