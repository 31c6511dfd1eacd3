<script setup lang="ts">
import { IconCube, IconFile3d, IconFileZip, IconPalette } from '@tabler/icons-vue';
import type { Takes } from '@sphalerite/core/files';
import type { Component } from 'vue';
import { OUTPUTS, useShip } from './ship-state';
import ListRow from '../../components/ListRow.vue';

const ship = useShip();
const ICONS: Partial<Record<Takes, Component>> = {
  model: IconFile3d,
  solid: IconCube,
  project: IconFileZip,
  palette: IconPalette,
};
</script>

<template>
  <div>
    <div class="panel-head tray-head"><h2>Outputs</h2></div>
    <list-row v-for="e in OUTPUTS" :key="e.id" :on="e.id === ship.chosen" @click="ship.chosen = e.id">
      <template #picture><component :is="ICONS[e.takes]" aria-hidden="true" /></template>
      <span class="text"
        ><b>{{ e.name }}</b
        ><small class="quiet"
          >{{ e.about
          }}<template v-if="e.id === ship.chosen && ship.bytes > 0">
            · {{ Math.ceil(ship.bytes / 1024) }} KB</template
          ></small
        ></span
      >
    </list-row>
  </div>
</template>

<style scoped>
.list-item :deep(.list-row svg) {
  width: 24px;
  height: 24px;
  stroke-width: 1.4;
  color: var(--resin);
}
.text {
  display: grid;
  text-align: left;
}
.text b {
  font-weight: 600;
}
.text small {
  white-space: normal;
}
</style>
