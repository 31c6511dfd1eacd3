<script setup lang="ts">
import ChoiceField from '../../../components/ChoiceField.vue';
import NumberField from '../../../components/NumberField.vue';
import { choices } from '../../../components/choices';
import { TIPS } from '../../../tools/card';
import { useBuild } from '../build-state';

const build = useBuild();
const tips = choices(TIPS);
</script>

<template>
  <div class="line">
    <choice-field
      label="Tip"
      :model-value="build.card.tip"
      :choices="tips"
      @change="(tip) => build.setOption({ tip })"
    />
    <number-field
      label="Size"
      name="Size of the brush"
      :model-value="build.card.size"
      :min="1"
      :max="64"
      @change="(v) => build.setOption({ size: Math.round(v) })"
    />
  </div>
</template>
