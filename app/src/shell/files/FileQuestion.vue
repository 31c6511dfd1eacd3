<script setup lang="ts">
import { useArrivals } from '../../stores/arrivals';
import ActionButton from '../../components/ActionButton.vue';
import DialogBox from '../../components/DialogBox.vue';

/** What is to be done with a file that has more than one use. */
const arrivals = useArrivals();
</script>

<template>
  <dialog-box
    :model-value="arrivals.question !== null"
    :title="`What is “${arrivals.question?.title ?? ''}” for?`"
    width="420px"
    @update:model-value="arrivals.question?.answer(null)"
  >
    <div class="uses">
      <action-button
        v-for="o in arrivals.question?.offers ?? []"
        :key="o.importer"
        @click="arrivals.question?.answer(o.importer)"
        >{{ o.does }}</action-button
      >
    </div>
  </dialog-box>
</template>

<style scoped>
.uses {
  display: grid;
  gap: 8px;
}
</style>
