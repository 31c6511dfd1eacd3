<script setup lang="ts">
import { computed } from 'vue';
import EmptyState from '../../components/EmptyState.vue';
import { useSession } from '../../stores/session';
import LampProperties from './LampProperties.vue';
import PlacementProperties from './PlacementProperties.vue';

/** What can be told of the placement or the lamp in hand. */
const session = useSession();
const lamp = computed(() => session.scene?.lamps.find((l) => l.id === session.hand.lamp) ?? null);
</script>

<template>
  <PlacementProperties v-if="session.placement" :placement="session.placement" />
  <LampProperties v-else-if="lamp" :lamp="lamp" />
  <empty-state v-else text="Choose what stands in the scene, or take a piece below and put it down." />
</template>
