<script setup lang="ts">
import { ref } from 'vue';
import ActionButton from './ActionButton.vue';
import TextField from './TextField.vue';

/** A name that is read until it is clicked or F2 is pressed, then typed. */
defineProps<{ name: string; label: string; disabled?: boolean }>();
const emit = defineEmits<{ rename: [name: string] }>();
const editing = ref(false);
const begin = (): void => void (editing.value = true);
defineExpose({ begin });
</script>

<template>
  <text-field
    v-if="editing"
    :model-value="name"
    :label="label"
    eager
    @change="(text) => emit('rename', text)"
    @leave="editing = false"
  />
  <action-button
    v-else
    look="row"
    class="name-text"
    tip="Rename"
    keys="F2"
    :disabled="disabled"
    :aria-label="`${label}: ${name}`"
    @click="begin"
    @keydown.f2.stop="begin"
    ><span class="text">{{ name }}</span></action-button
  >
</template>

<style scoped>
.name-text.el-button {
  --el-button-hover-bg-color: transparent;
  --el-button-disabled-bg-color: transparent;
  width: auto;
  flex: 1;
  min-height: 22px;
  padding: 0;
  font-weight: 600;
}
.name-text.el-button.is-disabled {
  opacity: 1;
}
.text {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.name-text:hover .text {
  text-decoration: underline dotted var(--quiet);
  text-underline-offset: 3px;
}
</style>
