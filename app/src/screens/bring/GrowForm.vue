<script setup lang="ts">
import { type OptionField, importerOf, optionFields } from '@sphalerite/core/files';
import { computed } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import CheckField from '../../components/CheckField.vue';
import ColourField from '../../components/ColourField.vue';
import FormRow from '../../components/FormRow.vue';
import SelectField from '../../components/SelectField.vue';
import SlideRow from '../../components/SlideRow.vue';
import TextField from '../../components/TextField.vue';
import { useBringing } from './bring-state';
import ColoursGo from './ColoursGo.vue';

/** What is made up, by the wishes that it declares. */
const bringing = useBringing();
/** What lies on the ground without anything hanging over. */
const LIE = ['panels', 'terrain'];
const fields = computed(() =>
  bringing.waiting ? optionFields(importerOf(bringing.waiting.importer)!.options).filter((f) => f.key !== 'seed') : [],
);
const of = (...kinds: OptionField['kind'][]): OptionField[] => fields.value.filter((f) => kinds.includes(f.kind));
/** Shares go in hundredths. */
const step = (f: OptionField): number => (f.whole ? 1 : 0.01);
const wish = (f: OptionField, v: unknown): void => bringing.wish({ [f.key]: v });
</script>

<template>
  <div>
    <section class="panel-section">
      <div class="panel-head"><h3>Shape</h3></div>
      <select-field
        v-for="f in of('choice')"
        :key="f.key"
        :label="f.title"
        :model-value="String(bringing.options[f.key])"
        :choices="f.choices.map((c) => ({ value: c, text: `${f.title.toLowerCase()}: ${c}` }))"
        @change="(v: string) => wish(f, v)"
      />
      <slide-row
        v-for="f in of('number')"
        :key="f.key"
        :label="f.title.toLowerCase()"
        :name="`${f.title}: ${f.about}`"
        :data-tip="f.about"
        :model-value="Number(bringing.options[f.key])"
        :min="f.least ?? 0"
        :max="f.most ?? 100"
        :step="step(f)"
        @input="(v) => wish(f, v)"
      />
      <check-field
        v-for="f in of('switch')"
        :key="f.key"
        :model-value="bringing.options[f.key] === true"
        :tip="f.about"
        @change="(v) => wish(f, v)"
        >{{ f.title }}</check-field
      >
      <form-row v-for="f in of('text')" :key="f.key" stacked :label="f.title.toLowerCase()"
        ><text-field
          :label="`${f.title}: ${f.about}`"
          :model-value="String(bringing.options[f.key])"
          @change="(v) => wish(f, v)"
      /></form-row>
    </section>
    <section v-if="LIE.includes(bringing.waiting?.importer ?? '')" class="panel-section">
      <action-button
        class="wide"
        tip="Goes on as pictures of heights and colours: levels, smoothing, pieces and joining"
        :disabled="!bringing.made"
        @click="bringing.asHeights()"
        >Shape it as heights</action-button
      >
    </section>
    <section class="panel-section">
      <div class="panel-head">
        <h3>Colours</h3>
        <span class="quiet figures">{{ bringing.made?.facts['colours']?.[1] }}</span>
      </div>
      <div class="colours">
        <div v-for="f in of('colour')" :key="f.key" class="colour">
          <colour-field
            :label="`${f.title}: ${f.about}`"
            :model-value="String(bringing.options[f.key])"
            @change="(v) => wish(f, v)"
          /><span aria-hidden="true">{{ f.title.toLowerCase() }}</span>
        </div>
      </div>
      <colours-go />
    </section>
  </div>
</template>

<style scoped>
.wide {
  width: 100%;
}
.colours {
  display: grid;
  grid-template-columns: repeat(2, minmax(0, 1fr));
  gap: 4px 10px;
}
.colour {
  display: flex;
  gap: 8px;
  align-items: center;
  min-width: 0;
  color: var(--quiet);
}
</style>
