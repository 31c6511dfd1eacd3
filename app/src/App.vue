<script setup lang="ts">
import { defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import CommandSearch from './shell/CommandSearch.vue';
import NoticeList from './shell/NoticeList.vue';
import { installAutomation } from './shell/automation';
import { menu } from './shell/dialogs';
import { commandFor, runCommand } from './stores/commands';
import { addShellCommands } from './shell/shell-commands';
import { useNotices } from './stores/notices';
import { useSession } from './stores/session';
import { isTyping } from './viewport/typing';

// Fetched when it is first asked for.
const ContextMenu = defineAsyncComponent(() => import('./shell/ContextMenu.vue'));
const session = useSession();
const notices = useNotices();
const ready = ref(true);
const off = addShellCommands(useRouter());
installAutomation();

function onKey(e: KeyboardEvent): void {
  if (e.defaultPrevented || (isTyping(e.target) && !(e.ctrlKey || e.metaKey))) return;
  if (isTyping(e.target) && /^[zyaxcv]$/i.test(e.key)) return;
  const c = commandFor(e);
  if (!c) return;
  e.preventDefault();
  void runCommand(c.id).catch(notices.fail);
}
const saveNow = (): void => void session.flush();
const onHide = (): void => {
  if (document.visibilityState === 'hidden') saveNow();
};
onMounted(() => {
  window.addEventListener('keydown', onKey);
  window.addEventListener('pagehide', saveNow);
  document.addEventListener('visibilitychange', onHide);
  // Work in the browser should outlive a tidy-up of the disk.
  void navigator.storage?.persist?.().catch(() => false);
});
onUnmounted(() => {
  off();
  window.removeEventListener('keydown', onKey);
  window.removeEventListener('pagehide', saveNow);
  document.removeEventListener('visibilitychange', onHide);
});
</script>

<template>
  <router-view v-if="ready" />
  <command-search />
  <notice-list />
  <context-menu v-if="menu" />
</template>
