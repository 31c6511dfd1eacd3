<script setup lang="ts">
import { ElEmpty } from 'element-plus';
import 'element-plus/theme-chalk/el-empty.css';
import type { Component } from 'vue';

/** Stands where there is nothing yet: what would stand here, and what to do for it. */
defineProps<{ icon?: Component; text: string }>();
</script>

<template>
  <el-empty class="empty-state" :image-size="28" :description="text">
    <template #image><component :is="icon" v-if="icon" aria-hidden="true" /><span v-else /></template>
    <slot />
  </el-empty>
</template>

<style>
.empty-state.el-empty {
  --el-empty-padding: 10px 12px 12px;
  --el-empty-description-margin-top: 4px;
}
.empty-state .el-empty__image svg {
  width: 26px;
  height: 26px;
  color: var(--quiet);
  stroke-width: 1.4;
}
.empty-state .el-empty__description p {
  font-size: 13px;
  color: var(--quiet);
  text-wrap: balance;
}
.empty-state .el-empty__bottom {
  margin-top: 8px;
}
</style>
