<script setup lang="ts">
/** A line of a form: what it is, and the control for it. `stacked` puts the words above. */
defineProps<{ label: string; stacked?: boolean }>();
</script>

<template>
  <div class="form-row" :class="{ stacked }">
    <span class="form-word" aria-hidden="true">{{ label }}</span><slot />
  </div>
</template>

<style scoped>
.form-row {
  display: grid;
  grid-template-columns: minmax(72px, 1fr) minmax(0, 1.7fr);
  align-items: center;
  gap: 8px;
  min-height: 28px;
}
.form-row.stacked {
  grid-template-columns: minmax(0, 1fr);
  gap: 3px;
}
.form-word {
  color: var(--quiet);
}
</style>
