<script setup lang="ts">
import { IconFile3d, IconFileZip } from '@tabler/icons-vue';
import { runCommand } from '../../stores/commands';
import { useShip } from './ship-state';

const ship = useShip();
</script>

<template>
  <div>
    <div class="panel-head tray-head"><h2>Outputs</h2></div>
    <div class="list-row on">
      <IconFile3d aria-hidden="true" /><span class="text"
        ><b>Game file</b
        ><small class="quiet"
          >GLB (glTF 2.0) · {{ ship.made ? `${Math.ceil(ship.made.bytes.length / 1024)} KB` : '…' }}</small
        ></span
      >
    </div>
    <button type="button" class="list-row" @click="runCommand('project.export')">
      <IconFileZip aria-hidden="true" /><span class="text"
        ><b>Project file</b><small class="quiet">.sphal, to keep or pass on</small></span
      >
    </button>
  </div>
</template>

<style scoped>
.list-row {
  min-height: 50px;
}
.list-row svg {
  width: 24px;
  height: 24px;
  stroke-width: 1.4;
  color: var(--resin);
}
.text {
  display: grid;
}
.text b {
  font-weight: 600;
}
</style>
