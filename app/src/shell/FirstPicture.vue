<script setup lang="ts">
import { standing } from '../components/later';
</script>

<template>
  <!-- On a first visit the stored picture of the demo is there at once; the live view takes its place. -->
  <div v-if="!standing" class="first-picture">
    <img src="/content/tamsin.png" alt="Tamsin the lamplighter" width="340" height="340" />
    <p>Tamsin is on her way to the bench…</p>
  </div>
</template>

<style scoped>
.first-picture {
  position: fixed;
  inset: 0;
  z-index: 1500;
  display: grid;
  place-content: center;
  justify-items: center;
  gap: 6px;
  background: linear-gradient(var(--view-top), var(--view-bottom));
  color: var(--quiet);
}
</style>
