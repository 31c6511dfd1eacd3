<script setup lang="ts">
import { useBuild } from '../build-state';
import ColourwayList from './ColourwayList.vue';
import { useColours } from './colours-state';
import PaletteForm from './PaletteForm.vue';
import PaletteTask from './PaletteTask.vue';
import RampForm from './RampForm.vue';
import SwatchForm from './SwatchForm.vue';
import SwatchTask from './SwatchTask.vue';

const build = useBuild();
const colours = useColours();
</script>

<template>
  <div>
    <PaletteTask v-if="colours.task?.kind === 'palette'" :task="colours.task" />
    <SwatchTask v-else-if="colours.task" :task="colours.task" />
    <template v-if="build.swatch"><SwatchForm /><RampForm /></template>
    <ColourwayList />
    <PaletteForm />
  </div>
</template>
