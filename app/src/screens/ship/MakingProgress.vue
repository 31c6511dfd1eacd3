<script setup lang="ts">
import TaskProgress from '../../components/TaskProgress.vue';
import { useShip } from './ship-state';

/** How far the files are, by itself: it changes many times while nothing around it does. */
const ship = useShip();
</script>

<template>
  <task-progress v-if="ship.progress !== null" label="Making the files" :done="ship.progress" @stop="ship.stop()" />
</template>
