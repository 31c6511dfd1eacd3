<script setup lang="ts">
import FormRow from '../../../components/FormRow.vue';
import SelectField from '../../../components/SelectField.vue';
import { choices } from '../../../components/choices';
import { SNAPS, SNAP_NAMES } from '../../shared/joint-snap';
import { usePivot } from './pivot-state';

/** What a pivot dragged by its dot comes to rest on. */
const pivot = usePivot();
</script>

<template>
  <form-row label="snaps to"
    ><SelectField v-model="pivot.snap" label="A dragged pivot snaps to" :choices="choices(SNAPS, (n) => SNAP_NAMES[n])"
  /></form-row>
</template>
