<script setup lang="ts">
import type { OptionField } from '@sphalerite/core/files';
import CheckField from '../../components/CheckField.vue';
import FormRow from '../../components/FormRow.vue';
import NumberField from '../../components/NumberField.vue';
import TextField from '../../components/TextField.vue';
import SelectField from '../../components/SelectField.vue';
import { choices } from '../../components/choices';

/** A form for options, made of what their schema says. */
defineProps<{ fields: readonly OptionField[]; values: Record<string, unknown> }>();
const emit = defineEmits<{ change: [key: string, value: unknown] }>();
</script>

<template>
  <div v-for="f in fields" :key="f.key" class="option">
    <check-field
      v-if="f.kind === 'switch'"
      :model-value="values[f.key] === true"
      @change="(v) => emit('change', f.key, v)"
      >{{ f.title }}</check-field
    >
    <number-field
      v-else-if="f.kind === 'number'"
      :label="f.title"
      :model-value="Number(values[f.key])"
      :min="f.least ?? -1e9"
      :max="f.most ?? 1e9"
      @change="(v) => emit('change', f.key, v)"
    />
    <form-row v-else-if="f.kind === 'text'" :label="f.title"
      ><text-field :label="f.title" :model-value="String(values[f.key])" @change="(v) => emit('change', f.key, v)"
    /></form-row>
    <form-row v-else :label="f.title" stacked
      ><SelectField
        :label="f.title"
        :model-value="String(values[f.key])"
        :choices="choices(f.choices)"
        @change="(v) => emit('change', f.key, v)"
    /></form-row>
    <small v-if="f.about" class="quiet">{{ f.about }}</small>
  </div>
</template>

<style scoped>
.option {
  display: grid;
  gap: 1px;
}
.option small {
  padding-left: 22px;
}
</style>
