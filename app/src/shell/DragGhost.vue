<script setup lang="ts">
import { drag } from '../components/drag';
</script>

<template>
  <div v-if="drag.what" class="ghost" :style="{ left: `${drag.x}px`, top: `${drag.y}px` }" aria-hidden="true">
    {{ drag.what.label }}
  </div>
</template>

<style>
.ghost {
  position: fixed;
  z-index: 4500;
  margin: 12px 0 0 10px;
  padding: 2px 9px;
  border-radius: var(--radius);
  background: var(--bar);
  color: var(--bar-strong);
  box-shadow: var(--shadow);
  pointer-events: none;
}
html.dragging,
html.dragging * {
  cursor: grabbing !important;
  user-select: none;
}
[data-over='on'] {
  box-shadow: inset 0 0 0 2px var(--honey);
}
[data-over='before'] {
  box-shadow: inset 0 2px var(--honey);
}
[data-over='after'] {
  box-shadow: inset 0 -2px var(--honey);
}
</style>
