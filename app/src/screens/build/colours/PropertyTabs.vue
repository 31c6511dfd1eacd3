<script setup lang="ts">
import { ElTabPane, ElTabs } from 'element-plus';
import 'element-plus/theme-chalk/el-tabs.css';
import { defineAsyncComponent } from 'vue';
import { useSession } from '../../../stores/session';
import PartProperties from '../PartProperties.vue';
import { TABS, useColours } from './colours-state';

// Fetched when they are first looked at.
const ColoursPanel = defineAsyncComponent(() => import('./ColoursPanel.vue'));
const ApartPanel = defineAsyncComponent(() => import('../apart/ApartPanel.vue'));
const FinishPanel = defineAsyncComponent(() => import('./FinishPanel.vue'));
const colours = useColours();
const session = useSession();
const NAMES = { part: 'Part', colours: 'Colours', finish: 'Finish', apart: 'Apart' } as const;
</script>

<template>
  <el-tabs v-model="colours.tab" class="tabs-side" stretch>
    <el-tab-pane v-for="(t, i) in TABS" :key="t" :name="t">
      <template #label
        ><span :data-tip="NAMES[t]" :data-keys="`Shift+${i + 1}`">{{ NAMES[t] }}</span></template
      >
      <template v-if="colours.tab === t">
        <part-properties v-if="t === 'part'" />
        <colours-panel v-else-if="t === 'colours' && session.palette" />
        <finish-panel v-else-if="t === 'finish' && session.part" />
        <apart-panel v-else-if="t === 'apart' && session.part" />
      </template>
    </el-tab-pane>
  </el-tabs>
</template>

<style>
.tabs-side.el-tabs {
  --el-tabs-header-height: 34px;
  display: flex;
  flex-direction: column-reverse;
  justify-content: flex-end;
}
.tabs-side > .el-tabs__header {
  position: sticky;
  top: 0;
  z-index: 4;
  order: 1;
  margin: 0;
  padding: 0 10px;
  background: var(--panel);
}
.tabs-side > .el-tabs__content {
  overflow: visible;
}
.tabs-side .el-tabs__nav-wrap::after {
  height: 1px;
  background: var(--line);
}
.tabs-side .el-tabs__active-bar {
  background: var(--honey);
}
.tabs-side .el-tabs__item {
  padding: 0 4px;
  font-size: 13px;
  color: var(--quiet);
}
.tabs-side .el-tabs__item.is-active,
.tabs-side .el-tabs__item:hover {
  color: var(--ink);
}
.tabs-side .el-tabs__item.is-active {
  font-weight: 600;
}
</style>
