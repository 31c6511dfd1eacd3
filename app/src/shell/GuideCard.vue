<script setup lang="ts">
import { IconX } from '@tabler/icons-vue';
import { computed } from 'vue';
import { useSettings } from '../stores/settings';
import { useDialogs } from '../stores/dialogs';
import type { Screen } from './screen';
import IconButton from '../components/IconButton.vue';

const dialogs = useDialogs();
const props = defineProps<{ screen: Screen }>();
const { settings } = useSettings();
const open = computed(() => !settings.closedCards.includes(props.screen.id) && settings.coachDone && !dialogs.coach);
const close = (): void => {
  settings.closedCards = [...settings.closedCards, props.screen.id];
};
</script>

<template>
  <aside v-if="open" class="guide" aria-label="How this step goes">
    <header>
      <h2>{{ screen.help.title }}</h2>
      <icon-button :icon="IconX" label="Close this card for good" tip="Close for good" @click="close" />
    </header>
    <ol>
      <li v-for="s in screen.help.steps" :key="s">{{ s }}</li>
    </ol>
  </aside>
</template>

<style scoped>
.guide {
  position: absolute;
  left: 14px;
  bottom: 14px;
  width: 250px;
  padding: 10px 12px 12px;
  background: color-mix(in srgb, var(--panel) 95%, transparent);
  border: 1px solid var(--line);
  border-radius: 8px;
  box-shadow: var(--shadow);
}
header {
  display: flex;
  justify-content: space-between;
  align-items: center;
}
ol {
  margin: 4px 0 0;
  padding-left: 18px;
  display: grid;
  gap: 4px;
  color: var(--quiet);
  font-size: 12px;
}
@media (max-width: 1100px) {
  .guide {
    width: 196px;
  }
}
</style>
