<script setup lang="ts">
import type { Swatch } from '@sphalerite/core/palette';

/** A swatch as it is known everywhere: its colour, marks for its surface, and its name where there is room. */
defineProps<{ swatch: Swatch; named?: boolean; count?: number | null; small?: boolean }>();
</script>

<template>
  <span class="chip" :class="{ named, small }">
    <i
      class="tile"
      :class="{ hatched: swatch.helper, transparent: swatch.opacity < 1 }"
      :style="{ '--c': swatch.colour }"
      ><b v-if="swatch.emissive > 0" class="sun" /><b v-if="swatch.metalness > 0.5" class="metal" /><b
        v-if="swatch.opacity < 1"
        class="pane"
    /></i>
    <span v-if="named" class="name">{{ swatch.name || `swatch ${swatch.byte}` }}</span>
    <span v-if="count !== undefined && count !== null" class="figures n">{{ count.toLocaleString('en') }}</span>
  </span>
</template>

<style scoped>
.chip {
  display: inline-flex;
  align-items: center;
  gap: 6px;
  min-width: 0;
  max-width: 100%;
}
.tile {
  position: relative;
  display: block;
  flex: none;
  width: 22px;
  height: 22px;
  border-radius: 5px;
  /* Of the ink, so that the darkest and the lightest are seen on either theme. */
  border: 1px solid color-mix(in srgb, var(--ink) 34%, transparent);
  background: var(--c);
  overflow: hidden;
}
.small .tile {
  width: 16px;
  height: 16px;
  border-radius: 4px;
}
.hatched {
  background-image: repeating-linear-gradient(45deg, #23201e 0 3px, transparent 3px 7px);
}
.sun {
  position: absolute;
  right: 2px;
  top: 2px;
  width: 7px;
  height: 7px;
  border-radius: 50%;
  background: #ffffff;
  border: 1px solid #6b4122;
}
.metal {
  position: absolute;
  left: -4px;
  bottom: 3px;
  width: 34px;
  height: 4px;
  background: rgb(255 255 255 / 75%);
  border-block: 1px solid rgb(0 0 0 / 35%);
  transform: rotate(-38deg);
}
.pane {
  position: absolute;
  left: 2px;
  bottom: 2px;
  width: 7px;
  height: 7px;
  border: 1px solid #2a2521;
  background: rgb(255 255 255 / 80%);
}
.name {
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.n {
  margin-left: auto;
  color: var(--quiet);
  font-size: 11px;
}
</style>
