<script setup lang="ts">
import { IconFileImport, IconTree } from '@tabler/icons-vue';
import type { Site } from '@sphalerite/core/project';
import { useFileDialog } from '@vueuse/core';
import { defineAsyncComponent, onMounted, onUnmounted, ref } from 'vue';
import { useRouter } from 'vue-router';
import { addCommands } from '../../stores/commands';
import { useArrivals } from '../../stores/arrivals';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { need } from '../../stores/needs';
import { useSession } from '../../stores/session';
import { isTyping } from '../../viewport/typing';
import { screens } from '../screens';

/** Files that are dropped, pasted or chosen, on the shelf and on every screen. */
const FileQuestion = defineAsyncComponent(() => import('./FileQuestion.vue'));
const arrivals = useArrivals();
const notices = useNotices();
const session = useSession();
const dialogs = useDialogs();
const router = useRouter();
arrivals.open = (id, step = screens()[0]!.id) => void router.push({ name: 'bench', params: { id, step } });
const { open: ask, onChange } = useFileDialog({ reset: true });
onChange((list) => void take([...(list ?? [])]));
const over = ref(false);
/** Fetched when the first file comes. */
const take = async (files: readonly File[], site: Site | null = null): Promise<void> => {
  if (files.length === 0) return;
  await (await import('./dispatcher')).takeFiles(files, undefined, site).catch(notices.fail);
};
const holdsFiles = (e: DragEvent): boolean => e.dataTransfer?.types.includes('Files') ?? false;
function onOver(e: DragEvent): void {
  if (!holdsFiles(e)) return;
  e.preventDefault();
  over.value = true;
}
function onLeave(e: DragEvent): void {
  if (e.relatedTarget === null) over.value = false;
}
function onDrop(e: DragEvent): void {
  over.value = false;
  if (!holdsFiles(e)) return;
  e.preventDefault();
  void take([...e.dataTransfer!.files], arrivals.siteAt(e.clientX, e.clientY));
}
function onPaste(e: ClipboardEvent): void {
  const files = [...(e.clipboardData?.files ?? [])];
  if (files.length === 0 || isTyping(e.target)) return;
  e.preventDefault();
  void take(files);
}
const off = addCommands([
  {
    id: 'project.bringIn',
    title: 'Bring in a file…',
    group: 'Project',
    keys: ['Ctrl+O'],
    icon: IconFileImport,
    run: () => ask({ accept: '*', multiple: true }),
  },
  {
    id: 'project.takeFrom',
    title: 'Take parts, bones, clips or colours from another project…',
    group: 'Project',
    enabled: need(() => session.project !== null && session.writable, 'open the project first that it is meant for'),
    run: () => (dialogs.pieces = 'any'),
  },
  {
    id: 'project.makeUp',
    title: 'Make something up: a tree, a rock, a wall…',
    group: 'Project',
    icon: IconTree,
    run: async () => (await import('./dispatcher')).makeUp(),
  },
]);
onMounted(() => {
  window.addEventListener('dragover', onOver);
  window.addEventListener('dragleave', onLeave);
  window.addEventListener('drop', onDrop);
  window.addEventListener('paste', onPaste);
});
onUnmounted(() => {
  off();
  window.removeEventListener('dragover', onOver);
  window.removeEventListener('dragleave', onLeave);
  window.removeEventListener('drop', onDrop);
  window.removeEventListener('paste', onPaste);
});
</script>

<template>
  <div v-if="over" class="over" aria-hidden="true"><p>Let go to bring it in</p></div>
  <file-question v-if="arrivals.question" />
</template>

<style scoped>
.over {
  position: fixed;
  inset: 8px;
  z-index: 50;
  display: grid;
  place-items: center;
  border: 2px dashed var(--honey);
  border-radius: 10px;
  background: color-mix(in srgb, var(--honey-soft) 50%, transparent);
  pointer-events: none;
}
.over p {
  padding: 8px 18px;
  border-radius: var(--radius);
  background: var(--bar);
  color: var(--bar-strong);
  font-size: 16px;
}
</style>
