<script setup lang="ts">
import { ElCollapse, ElCollapseItem } from 'element-plus';
import 'element-plus/theme-chalk/el-collapse.css';
import { computed } from 'vue';
import { useSettings } from '../stores/settings';

/** What is seldom needed, folded under its title; the browser remembers which are open. */
const props = defineProps<{ title: string; id: string; open?: boolean }>();
const { settings } = useSettings();
const isOpen = computed(() => settings.folds[props.id] ?? props.open ?? false);
const HERE = 'here';
</script>

<template>
  <el-collapse
    class="fold"
    :model-value="isOpen ? [HERE] : []"
    expand-icon-position="left"
    @update:model-value="(v: unknown) => (settings.folds[id] = (v as string[]).includes(HERE))"
  >
    <el-collapse-item :name="HERE" :title="title"
      ><div v-if="isOpen" class="fold-body"><slot /></div
    ></el-collapse-item>
  </el-collapse>
</template>

<style>
.fold.el-collapse {
  --el-collapse-header-height: 26px;
  --el-collapse-header-bg-color: transparent;
  --el-collapse-header-text-color: var(--quiet);
  --el-collapse-content-bg-color: transparent;
  --el-collapse-content-text-color: var(--ink);
  --el-collapse-content-font-size: 13px;
  border: 0;
}
.fold .el-collapse-item__header,
.fold .el-collapse-item__wrap {
  border: 0;
  font-size: 13px;
  font-weight: 500;
}
.fold .el-collapse-item__header:hover {
  color: var(--ink);
}
.fold .el-collapse-item__header .el-collapse-item__arrow {
  margin: 0 4px 0 0;
}
.fold .el-collapse-item__content {
  padding: 4px 0 2px;
  line-height: inherit;
}
.fold-body {
  display: grid;
  gap: 8px;
}
</style>
