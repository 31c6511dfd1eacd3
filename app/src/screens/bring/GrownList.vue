<script setup lang="ts">
import { GENERATORS } from '@sphalerite/core/generate';
import {
  IconTrees,
  IconCloud,
  IconDiamond,
  IconLink,
  IconMountain,
  IconLayoutGrid,
  IconTree,
  IconWall,
} from '@tabler/icons-vue';
import type { Component } from 'vue';
import ActionButton from '../../components/ActionButton.vue';
import { makeUp } from '../../shell/files/dispatcher';
import { useBringing } from './bring-state';

/** What can be made up without any file. */
const bringing = useBringing();
const ICONS: Readonly<Record<string, Component>> = {
  ...{ tree: IconTree, rock: IconMountain, terrain: IconTrees, wall: IconWall, panels: IconLayoutGrid },
  ...{ crystal: IconDiamond, cloud: IconCloud, rope: IconLink },
};
const choose = (id: string): void => {
  if (bringing.waiting) bringing.use(id);
  else void makeUp(id);
};
</script>

<template>
  <div class="grown">
    <div class="panel-head tray-head"><h2>Make up</h2></div>
    <action-button
      v-for="g in GENERATORS"
      :key="g.id"
      class="kind"
      :on="g.id === bringing.waiting?.importer"
      :tip="g.about"
      @click="choose(g.id)"
      ><component :is="ICONS[g.id]" :size="18" :stroke-width="1.6" /><span>{{ g.name }}</span></action-button
    >
    <p class="quiet">Or drop a picture or a mesh, or press Ctrl O to choose one.</p>
  </div>
</template>

<style scoped>
.grown {
  display: grid;
  gap: 6px;
  padding-bottom: 12px;
}
.grown > :not(.tray-head) {
  margin: 0 12px;
}
.kind :deep(span) {
  display: flex;
  gap: 9px;
  align-items: center;
}
.kind.action.el-button {
  justify-content: flex-start;
}
p {
  margin-top: 8px !important;
}
</style>
