<script setup lang="ts">
import type { HeightOptions } from '@sphalerite/core/intake';
import { computed } from 'vue';
import CheckField from '../../components/CheckField.vue';
import ChoiceField from '../../components/ChoiceField.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import TextField from '../../components/TextField.vue';
import { useBringing } from './bring-state';
import ColoursGo from './ColoursGo.vue';

/** How a picture of heights becomes parts. */
const bringing = useBringing();
const o = computed(() => bringing.options as HeightOptions);
const facts = computed(() => bringing.made?.facts ?? {});
const pieces = computed(() => facts.value['pieces'] ?? [0, 0]);
const seen = computed(() => (bringing.waiting?.find.files.length ?? 0) > 1);
const SLIDES = [
  ['height', 'height', 1, 128],
  ['levels', 'levels', 2, 64],
  ['smooth', 'smooth', 0, 8],
  ['base', 'base', 0, 32],
] as const;
</script>

<template>
  <div>
    <section class="panel-section">
      <div class="panel-head">
        <h3>Field</h3>
        <span class="quiet figures">{{ facts['size']?.join(' × ') }}</span>
      </div>
      <number-field
        label="width"
        name="Width of the field in cubes"
        :model-value="o.width || (facts['size']?.[0] ?? 0)"
        :min="1"
        :max="o.split === 'one' ? 256 : 4096"
        @change="(v) => bringing.wish({ width: Math.round(v) })"
      />
      <slide-row
        v-for="[key, label, least, most] in SLIDES"
        :key="key"
        :label="label"
        :name="`${label} of the field`"
        :model-value="o[key]"
        :min="least"
        :max="most"
        @input="(v) => bringing.wish({ [key]: v })"
      />
      <div class="checks">
        <check-field :model-value="o.invert" @change="(invert) => bringing.wish({ invert })">Invert</check-field>
        <check-field
          v-if="o.split !== 'pieces'"
          :model-value="o.empty >= 0"
          tip="Dark places become no cubes"
          @change="(on) => bringing.wish({ empty: on ? 0 : -1 })"
          >Dark is empty</check-field
        >
      </div>
      <slide-row
        v-if="o.empty >= 0 || o.split === 'pieces'"
        label="empty to"
        name="How dark is empty"
        :model-value="Math.max(0, o.empty)"
        :min="0"
        :max="254"
        @input="(empty) => bringing.wish({ empty })"
      />
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Colours</h3>
        <span class="quiet figures">{{ facts['colours']?.[1] }}</span>
      </div>
      <select-field
        label="Colours of the field"
        :model-value="o.colours"
        :choices="[
          { value: 'own', text: seen ? 'of the picture of colours' : 'tones by height' },
          ...(seen ? [{ value: 'palette', text: 'the nearest of the palette' }] : []),
          { value: 'each', text: 'a swatch for each piece' },
        ]"
        @change="(colours: string) => bringing.wish({ colours })"
      />
      <slide-row
        v-if="o.colours === 'own'"
        label="at most"
        name="At most so many colours"
        :model-value="seen ? o.most : Math.min(12, o.most)"
        :min="2"
        :max="seen ? 255 : 12"
        @input="(most) => bringing.wish({ most })"
      />
      <colours-go v-if="o.colours === 'own'" />
    </section>

    <section class="panel-section">
      <div class="panel-head">
        <h3>Split</h3>
        <span v-if="o.split !== 'one'" class="quiet figures">{{ pieces[0] }} parts</span>
      </div>
      <choice-field
        label="Split into"
        wide
        :model-value="o.split"
        :choices="[
          { value: 'one', text: 'one part' },
          { value: 'pieces', text: 'pieces', tip: 'A part for each connected piece' },
          { value: 'tiles', text: 'tiles', tip: 'Parts of 256 that meet without a seam' },
        ]"
        @change="(split) => bringing.wish({ split })"
      />
      <template v-if="o.split === 'pieces'">
        <number-field
          label="drop below"
          name="Drop pieces of fewer cubes"
          :model-value="o.drop"
          :min="0"
          @change="(v) => bringing.wish({ drop: Math.round(v) })"
        />
        <form-row label="join"
          ><text-field
            label="Pieces that stay together"
            :model-value="o.join"
            placeholder="3+5, 7+9"
            @change="(join) => bringing.wish({ join: join.replaceAll(' ', '') })"
        /></form-row>
      </template>
    </section>
  </div>
</template>

<style scoped>
.checks {
  display: flex;
  flex-wrap: wrap;
  gap: 2px 14px;
}
:deep(.form-row:not(.stacked)) {
  grid-template-columns: 58px minmax(0, 1fr);
}
</style>
