<script setup lang="ts">
/** List rows as tiles beside each other: a picture with its name below. */
defineProps<{ label?: string }>();
</script>

<template>
  <div class="tiles" role="group" :aria-label="label"><slot /></div>
</template>

<style>
.tiles {
  display: grid;
  grid-template-columns: repeat(auto-fill, minmax(60px, 1fr));
  gap: 4px;
}
.tiles .list-item .action.el-button.list-row {
  padding: 3px 1px;
}
.tiles .list-item .list-row > span {
  flex-direction: column;
  gap: 1px;
  max-width: 100%;
}
.tiles b {
  max-width: 100%;
  font-size: 10.5px;
  font-weight: 500;
  overflow: hidden;
  text-overflow: ellipsis;
}
</style>
