<script setup lang="ts">
import { ElDropdown } from 'element-plus';
import 'element-plus/theme-chalk/el-dropdown.css';
import type { Component } from 'vue';
import IconButton from './IconButton.vue';
import MenuList from './MenuList.vue';
import type { MenuItem } from './menu';

/** The menu itself of a `MenuButton`. */
defineProps<{ items: readonly MenuItem[]; label: string; icon: Component; columns?: boolean }>();
</script>

<template>
  <el-dropdown
    trigger="click"
    placement="top-start"
    :show-arrow="false"
    :persistent="false"
    :popper-class="columns ? 'menu wide' : 'menu'"
  >
    <icon-button :icon="icon" :label="label" />
    <template #dropdown><menu-list :items="items" :label="label" /></template>
  </el-dropdown>
</template>
