<script setup lang="ts">
import { IconFile3d, IconFileZip, IconPalette } from '@tabler/icons-vue';
import type { Takes } from '@sphalerite/core/files';
import type { Component } from 'vue';
import { OUTPUTS, useShip } from './ship-state';

const ship = useShip();
const ICONS: Partial<Record<Takes, Component>> = { model: IconFile3d, project: IconFileZip, palette: IconPalette };
</script>

<template>
  <div>
    <div class="panel-head tray-head"><h2>Outputs</h2></div>
    <button
      v-for="e in OUTPUTS"
      :key="e.id"
      type="button"
      class="list-row"
      :class="{ on: e.id === ship.chosen }"
      :aria-pressed="e.id === ship.chosen"
      @click="ship.chosen = e.id"
    >
      <component :is="ICONS[e.takes]" aria-hidden="true" /><span class="text"
        ><b>{{ e.name }}</b
        ><small class="quiet"
          >{{ e.about
          }}<template v-if="e.id === ship.chosen && ship.bytes > 0">
            · {{ Math.ceil(ship.bytes / 1024) }} KB</template
          ></small
        ></span
      >
    </button>
  </div>
</template>

<style scoped>
.list-row {
  min-height: 50px;
}
.list-row svg {
  flex: none;
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
</style>
