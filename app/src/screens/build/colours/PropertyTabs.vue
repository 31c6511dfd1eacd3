<script setup lang="ts">
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
  <div class="tabs-side">
    <div class="tabs" role="tablist" aria-label="What is shown here">
      <button
        v-for="(t, i) in TABS"
        :key="t"
        type="button"
        role="tab"
        :aria-selected="colours.tab === t"
        :title="`${NAMES[t]} · Shift+${i + 1}`"
        @click="colours.tab = t"
      >
        {{ NAMES[t] }}
      </button>
    </div>
    <PartProperties v-if="colours.tab === 'part'" />
    <ColoursPanel v-else-if="colours.tab === 'colours' && session.palette" />
    <FinishPanel v-else-if="colours.tab === 'finish' && session.part" />
    <ApartPanel v-else-if="session.part" />
  </div>
</template>

<style scoped>
.tabs {
  position: sticky;
  top: 0;
  z-index: 4;
  display: flex;
  gap: 2px;
  padding: 6px 10px 0;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
}
.tabs button {
  flex: 1;
  padding: 4px 0 6px;
  border-bottom: 2px solid transparent;
  color: var(--quiet);
  font-weight: 500;
}
.tabs button:hover {
  color: var(--ink);
}
.tabs button[aria-selected='true'] {
  border-color: var(--honey);
  color: var(--ink);
  font-weight: 600;
}
</style>
