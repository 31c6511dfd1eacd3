<script setup lang="ts">
import type { Component } from 'vue';
import IconButton from './IconButton.vue';
import { later } from './later';
import type { MenuItem } from './menu';

/** A button that opens a menu, which the arrows walk. `columns` for many short lines. */
defineProps<{ items: readonly MenuItem[]; label: string; icon: Component; columns?: boolean }>();
</script>

<script lang="ts">
const MenuDropdown = later(() => import('./MenuDropdown.vue'), IconButton);
</script>

<template>
  <component :is="MenuDropdown" :items="items" :label="label" :icon="icon" :columns="columns ?? false" />
</template>
