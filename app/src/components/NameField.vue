<script setup lang="ts">
import { nextTick, ref } from 'vue';

/** A name that is read until it is clicked or F2 is pressed, then typed. */
const props = defineProps<{ name: string; label: string; disabled?: boolean }>();
const emit = defineEmits<{ rename: [name: string] }>();
const editing = ref(false);
const text = ref('');
const field = ref<HTMLInputElement>();

async function begin(): Promise<void> {
  if (props.disabled) return;
  text.value = props.name;
  editing.value = true;
  await nextTick();
  field.value?.select();
}
function end(keep: boolean): void {
  if (!editing.value) return;
  editing.value = false;
  if (keep && text.value.trim() !== props.name) emit('rename', text.value);
}
defineExpose({ begin });
</script>

<template>
  <input
    v-if="editing"
    ref="field"
    v-model="text"
    class="name-input"
    :aria-label="label"
    maxlength="120"
    @keydown.enter="end(true)"
    @keydown.esc="end(false)"
    @blur="end(true)"
    @keydown.stop
  />
  <button
    v-else
    type="button"
    class="name-text"
    :title="`Rename (F2)`"
    :aria-label="`${label}: ${name}`"
    @click="begin"
    @keydown.f2.stop="begin"
  >
    {{ name }}
  </button>
</template>

<style scoped>
.name-text {
  font-weight: 600;
  text-align: left;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
  max-width: 100%;
}
.name-text:hover {
  text-decoration: underline dotted var(--quiet);
  text-underline-offset: 3px;
}
.name-input {
  width: 100%;
  font-weight: 600;
  border: 1px solid var(--resin);
  border-radius: 4px;
  background: var(--raised);
  padding: 1px 4px;
  outline: none;
}
</style>
