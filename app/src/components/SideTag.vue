<script setup lang="ts">
import type { Side } from '@sphalerite/core/model';

/** Left or right of the character's own, by one letter in one colour wherever it is named; nothing for the centre. */
defineProps<{ side: Side | undefined }>();
</script>

<template>
  <span v-if="side && side !== 'centre'" class="side-tag" :class="side" :data-tip="`${side} of the character’s own`"
    ><span class="visually-hidden">{{ ` ${side}` }}</span></span
  >
</template>

<style>
.side-tag {
  flex: none;
  display: inline-grid;
  place-items: center;
  width: 16px;
  height: 16px;
  border-radius: 8px;
  font-size: 10.5px;
  line-height: 16px;
  color: var(--panel);
  background: var(--side-left);
}
.side-tag.right {
  background: var(--side-right);
}
.side-tag::before {
  content: 'L';
  font-weight: 700;
}
.side-tag.right::before {
  content: 'R';
}
</style>
