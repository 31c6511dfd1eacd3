<script setup lang="ts">
import { ElDropdownItem, ElDropdownMenu } from 'element-plus';
import 'element-plus/theme-chalk/el-dropdown-menu.css';
import 'element-plus/theme-chalk/el-dropdown-item.css';
import 'element-plus/theme-chalk/el-scrollbar.css';
import type { MenuItem } from './menu';

/** The lines of a menu, for `MenuButton` and the right-click menu. */
defineProps<{ items: readonly MenuItem[]; label: string }>();
</script>

<template>
  <el-dropdown-menu class="menu-list" :aria-label="label">
    <el-dropdown-item
      v-for="i in items"
      :key="i.text"
      :disabled="i.why !== undefined"
      :data-tip="i.why"
      @click="i.run()"
    >
      <component :is="i.icon" v-if="i.icon" aria-hidden="true" /><span class="menu-text">{{ i.text }}</span
      ><kbd v-if="i.keys">{{ i.keys }}</kbd>
    </el-dropdown-item>
  </el-dropdown-menu>
</template>

<style>
.menu.el-popper {
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: var(--shadow);
}
.menu-list.el-dropdown-menu {
  --el-dropdown-menuItem-hover-fill: var(--honey-soft);
  --el-dropdown-menuItem-hover-color: var(--ink);
  min-width: 200px;
  padding: 5px;
  border-radius: 8px;
  background: var(--raised);
}
.menu.wide .menu-list {
  display: grid;
  grid-template-columns: repeat(3, 1fr);
}
.menu-list .el-dropdown-menu__item {
  min-height: 28px;
  gap: 8px;
  padding: 0 10px;
  border-radius: 4px;
  font-size: 13px;
  line-height: 20px;
  color: var(--ink);
  outline: none;
}
.menu-list .el-dropdown-menu__item.is-disabled {
  color: var(--quiet);
  opacity: 0.7;
}
.menu-list svg {
  width: 17px;
  height: 17px;
  flex: none;
  stroke-width: 1.6;
}
.menu-list .menu-text {
  flex: 1;
}
.menu-list kbd {
  margin-left: 14px;
}
</style>
