<script setup lang="ts">
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import BudgetSection from './sections/BudgetSection.vue';
import ColliderSection from './sections/ColliderSection.vue';
import FormatSections from './sections/FormatSections.vue';
import MeshSection from './sections/MeshSection.vue';
import NamesSection from './sections/NamesSection.vue';
import PrintSection from './sections/PrintSection.vue';
import SlotSection from './sections/SlotSection.vue';
import TextureSection from './sections/TextureSection.vue';
import WhereTo from './sections/WhereTo.vue';
import { useShip } from './ship-state';

/** Everything that a delivery wishes, a section for each group, so that a change draws its own again and no other. */
const session = useSession();
const ship = useShip();
const there = computed(() => session.project !== null && ship.profile !== null);
const prints = computed(() => ship.profile?.formats.some((f) => f === 'stl' || f === '3mf') ?? false);
</script>

<template>
  <div v-if="there" class="ship-sections">
    <where-to />
    <mesh-section />
    <slot-section />
    <texture-section />
    <collider-section />
    <names-section />
    <budget-section />
    <print-section v-if="prints" />
    <format-sections />
  </div>
</template>

<style scoped>
.ship-sections {
  min-width: 0;
}
.ship-sections :deep(.form-row:not(.stacked)) {
  grid-template-columns: 66px minmax(0, 1fr);
}
</style>
