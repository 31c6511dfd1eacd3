<script setup lang="ts">
import { onMounted, onUnmounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import NoticeList from './shell/NoticeList.vue';
import { afterFirstPicture, later } from './components/later';
import { useArrivals } from './stores/arrivals';
import { isFull } from './storage/storage-errors';
import { useDialogs } from './stores/dialogs';
import { commandFor, runCommand } from './stores/commands';
import { addShellCommands } from './shell/shell-commands';
import { useNotices } from './stores/notices';
import { useSession } from './stores/session';
import { useView } from './stores/view';
import { isTyping } from './viewport/typing';
import { onSettingLost } from './storage/settings-store';
import { onWorkersBroken } from './workers/pool';
import { JobCancelled } from './workers/protocol';
import { say } from './words';

const dialogs = useDialogs();
const CommandSearch = later(() => import('./shell/CommandSearch.vue'));
const FileDrop = later(() => import('./shell/files/FileDrop.vue'));
const DragGhost = later(() => import('./shell/DragGhost.vue'));
const ShortcutSheet = later(() => import('./shell/shortcuts/ShortcutSheet.vue'));
const TipHost = later(() => import('./shell/TipHost.vue'));
const ContextMenu = later(() => import('./shell/ContextMenu.vue'));
const session = useSession();
const view = useView();
const notices = useNotices();
const arrivals = useArrivals();
// The demo projects beside the first come onto the shelf when there is time.
void afterFirstPicture(async () => {
  const { seedOthers } = await import('./shell/seed-demo');
  if (await seedOthers()) arrivals.shelved++;
}).catch(notices.fail);
if (import.meta.env.PROD)
  void afterFirstPicture(async () => (await import('./shell/offline/keep-offline')).keepOffline()).catch(notices.fail);
const ready = ref(true);
const off = addShellCommands(useRouter());
void afterFirstPicture(async () => (await import('./shell/automation')).installAutomation()).catch(notices.fail);

function onKey(e: KeyboardEvent): void {
  if (e.defaultPrevented || (isTyping(e.target) && !(e.ctrlKey || e.metaKey))) return;
  if (isTyping(e.target) && /^[zyaxcv]$/i.test(e.key)) return;
  // A dialog has the keys to itself.
  if (dialogs.search || (e.target instanceof Element && e.target.closest('.el-overlay-dialog:not(.is-closing)')))
    return;
  if (view.keyUser && !e.ctrlKey && !e.metaKey && !e.altKey && view.keyUser(e.key)) {
    e.preventDefault();
    return;
  }
  const c = commandFor(e);
  if (!c) return;
  e.preventDefault();
  void runCommand(c.id).catch(notices.fail);
}
/** What nobody caught is told once, so that a fault is never only in the console. */
function onUncaught(reason: unknown): void {
  if (reason instanceof JobCancelled) return;
  const text = reason instanceof Error ? reason.message : String(reason);
  console.error(reason);
  notices.say(say('app.unforeseen', { text }), { kind: 'error' });
}
const onRejection = (e: PromiseRejectionEvent): void => onUncaught(e.reason);
const onError = (e: ErrorEvent): void => {
  // The browser's own word on layouts that chase each other; nothing is wrong.
  if (!/ResizeObserver/.test(e.message)) onUncaught(e.error ?? e.message);
};
onSettingLost((e) =>
  notices.say(isFull(e) ? say('setting.noRoom') : say('setting.unkept', { why: e.message }), { kind: 'error' }),
);
onWorkersBroken((e) => notices.say(e.message, { kind: 'error', stays: true }));

/** Leaving asks while work waits to be written; what can be written at once, is. */
function onLeave(e: BeforeUnloadEvent): void {
  if (session.idle() || !session.writable) return;
  saveNow();
  if (session.saveState === 'failed' || !session.idle()) e.preventDefault();
}
const saveNow = (): void => void session.flush();
const onHide = (): void => {
  if (document.visibilityState === 'hidden') saveNow();
};
onMounted(() => {
  window.addEventListener('keydown', onKey);
  window.addEventListener('pagehide', saveNow);
  window.addEventListener('beforeunload', onLeave);
  window.addEventListener('unhandledrejection', onRejection);
  window.addEventListener('error', onError);
  document.addEventListener('visibilitychange', onHide);
  // Work in the browser should outlive a tidy-up of the disk.
  void navigator.storage?.persist?.().catch(() => false);
});
onUnmounted(() => {
  off();
  window.removeEventListener('keydown', onKey);
  window.removeEventListener('pagehide', saveNow);
  window.removeEventListener('beforeunload', onLeave);
  window.removeEventListener('unhandledrejection', onRejection);
  window.removeEventListener('error', onError);
  document.removeEventListener('visibilitychange', onHide);
});
</script>

<template>
  <router-view v-if="ready" />
  <command-search />
  <notice-list v-if="$route.name !== 'bench'" />
  <tip-host />
  <shortcut-sheet v-if="dialogs.shortcuts" />
  <drag-ghost />
  <file-drop />
  <context-menu v-if="dialogs.menu" />
</template>
