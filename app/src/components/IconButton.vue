<script setup lang="ts">
import type { Component } from 'vue';
import ActionButton from './ActionButton.vue';

/** A button that is a picture; its name is told by the tooltip and to who cannot see it. */
withDefaults(
  defineProps<{
    icon: Component;
    /** Names it in full: "Delete Lantern". */
    label: string;
    /** Shorter than the name, where the place says the rest. */
    tip?: string | undefined;
    keys?: string | undefined;
    look?: 'plain' | 'primary' | 'dark' | 'bare';
    on?: boolean | undefined;
    disabled?: boolean | undefined;
  }>(),
  { look: 'bare', tip: undefined, keys: undefined, on: undefined },
);
</script>

<template>
  <action-button
    class="icon"
    :look="look"
    :tip="tip ?? label"
    :keys="keys"
    :on="on"
    :disabled="disabled"
    :aria-label="label"
    ><component :is="icon" aria-hidden="true"
  /></action-button>
</template>
