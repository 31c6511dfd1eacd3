<script setup lang="ts">
import { useFileDialog } from '@vueuse/core';
import ActionButton from './ActionButton.vue';

/**
 * Asks for files of the disk. Not `ElUpload`, which stands a button within a button and wants an address to send to: these
 * files go nowhere but to the caller.
 */
const props = withDefaults(
  defineProps<{ accept?: string; multiple?: boolean; disabled?: boolean; look?: 'plain' | 'primary' | 'link' }>(),
  { accept: '*', look: 'plain' },
);
const emit = defineEmits<{ files: [files: File[]] }>();
const { open, onChange } = useFileDialog({ reset: true });
onChange((list) => {
  if (list && list.length > 0) emit('files', [...list]);
});
const ask = (): void => open({ accept: props.accept, multiple: props.multiple ?? false });
</script>

<template>
  <action-button :look="look" :disabled="disabled" @click="ask"><slot /></action-button>
</template>
