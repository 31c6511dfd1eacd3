<script setup lang="ts">
import { combinePartsEdit, planCombineParts } from '@sphalerite/core/project';
import { computed } from 'vue';
import { useSession } from '../../stores/session';
import CombinePanel from '../shared/CombinePanel.vue';

/** The chosen parts as one with the part in hand, where they stand at rest. */
const session = useSession();
const parts = computed(() => {
  const hand = session.hand.part!;
  return [hand, ...session.view.chosen.part.filter((id) => id !== hand)];
});
</script>

<template>
  <CombinePanel
    :plan="(op) => planCombineParts(session.project!, { parts, op })"
    :job="(op, keep) => ({ edit: combinePartsEdit, args: { parts, op, keep } })"
    :chosen="parts.join()"
    @done="session.choose({ part: parts[0]!, layer: null })"
  />
</template>
