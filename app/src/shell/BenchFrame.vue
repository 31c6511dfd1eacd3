<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconChevronDown, IconLock, IconRefresh } from '@tabler/icons-vue';
import { Pane, Splitpanes } from 'splitpanes';
import { useWindowSize } from '@vueuse/core';
import { computed, defineAsyncComponent, nextTick, onBeforeUnmount, shallowRef, watch } from 'vue';
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRoute, useRouter } from 'vue-router';
import CommandButton from '../components/CommandButton.vue';
import type { Project } from '@sphalerite/core/model';
import { useNotices } from '../stores/notices';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import CoachCard from './CoachCard.vue';
import { addCommands, runCommand } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import GuideCard from './GuideCard.vue';
import { screenOf, screens } from './screens';
import type { Screen, ScreenControl, ScreenPieces } from './screen';
import { viewCommands } from './view-commands';
import ViewPane from './ViewPane.vue';

const dialogs = useDialogs();
// Dialogs are fetched when they are first opened.
const HistoryDialog = defineAsyncComponent(() => import('./HistoryDialog.vue'));
const RenameDialog = defineAsyncComponent(() => import('./RenameDialog.vue'));

const route = useRoute();
const router = useRouter();
const session = useSession();
const notices = useNotices();
const view = useView();
const { settings } = useSettings();
/** What the screen is made of, once it is fetched. */
const pieces = shallowRef<ScreenPieces | null>(null);
const control = shallowRef<ScreenControl | null>(null);
const screen = computed(() => screenOf(route.params['step']));
let offScreen: () => void = () => undefined;
const offView = addCommands(viewCommands());

const LOAD_AGAIN = { label: 'Load the page again', run: () => location.reload() };
async function openProject(id: string, take = false): Promise<void> {
  try {
    await session.open(id, take);
    if (session.project) document.title = `${session.project.name} · Sphalerite`;
  } catch (e) {
    const newer = (e as { code?: unknown }).code === 'newer';
    // A page that was opened long ago may be older than what wrote the project; loading it again brings the program of today.
    if (newer) notices.say((e as Error).message, { kind: 'error', stays: true, action: LOAD_AGAIN });
    else notices.fail(e);
    await router.replace('/');
  }
}
async function openScreen(s: Screen): Promise<void> {
  const next = await s.pieces();
  if (screen.value !== s) return;
  closeScreen();
  view.measure = '';
  view.cursor = '';
  session.where = s.title;
  pieces.value = next;
  control.value = next.control();
  offScreen = addCommands(control.value.commands);
}
function closeScreen(): void {
  offScreen();
  control.value?.dispose?.();
  control.value = null;
  session.preview = null;
}
watch(
  () => route.params['id'] as string | undefined,
  async (id) => {
    if (id) await openProject(id);
  },
  { immediate: true },
);
// On the way to the shelf there is no screen, and none is to be opened.
watch(
  () => route.params['step'],
  (step) => step && void openScreen(screen.value).catch(notices.fail),
  { immediate: true },
);
/** Leaving a project waits for the last save, and asks when there is no saving it. */
const mayLeave = async (): Promise<boolean> =>
  (await session.settled()) || (await import('./ask-to-leave')).askToLeave();
onBeforeRouteLeave(mayLeave);
onBeforeRouteUpdate((to, from) => to.params['id'] === from.params['id'] || mayLeave());
onBeforeUnmount(() => {
  closeScreen();
  offView();
  void session.close();
});

const perScreen = <T,>(of: (s: Screen, p: Project) => T | null): Map<Screen, T> => {
  const p = session.project;
  return new Map(screens().flatMap((s) => ((v) => (v === null ? [] : [[s, v] as const]))(p && of(s, p))));
};
const counts = computed(() => perScreen((s, p) => s.count && s.count(p)));
const wants = computed(() => perScreen((s, p) => s.wants(p)));
const saved = computed(() =>
  !session.writable
    ? 'looking only'
    : { saved: 'saved', pending: 'saving', saving: 'saving', failed: 'not saved' }[session.saveState],
);
const savedTip = computed(() => `Saved in this browser at ${new Date(session.savedAt).toLocaleTimeString('en-GB')}`);
const MENU = [
  'project.rename',
  'project.export',
  'project.bringIn',
  'project.shelf',
  'look.theme',
  'look.fold',
  'edit.history',
  'help.coach',
];
function projectMenu(e: MouseEvent): void {
  const r = (e.currentTarget as HTMLElement).getBoundingClientRect();
  dialogs.openMenu({ clientX: r.left, clientY: r.bottom + 4 }, MENU);
}
/** Sizes are kept in percent, but never so small on a small window that what stands there is cut. */
const { width, height } = useWindowSize();
const atLeast = (percent: number, pixels: number, whole: number): number =>
  Math.max(percent, Math.min(45, (100 * pixels) / whole));
const benchSize = computed(() =>
  atLeast(
    settings.bench[screen.value.id] ?? screen.value.benchSize,
    settings.bench[screen.value.id] ? 90 : 156,
    height.value - 74,
  ),
);
const traySize = computed(() => atLeast(settings.tray, 196, width.value));
const propertiesSize = computed(() => atLeast(settings.properties, 210, width.value));
const resizedSides = ({ panes }: { panes: { size: number }[] }): void => {
  if (panes.length === 3) [settings.tray, settings.properties] = [panes[0]!.size, panes[2]!.size];
};
const resizedBench = ({ panes }: { panes: { size: number }[] }): void => {
  settings.bench = { ...settings.bench, [screen.value.id]: panes[1]!.size };
};
/** The splitters say how far they stand, which their library leaves out. */
async function labelSplitters(): Promise<void> {
  await nextTick();
  for (const s of document.querySelectorAll('.splitpanes__splitter')) {
    const sizes: Record<string, [string, number]> = {
      horizontal: ['Size of the bench', benchSize.value],
      vertical: [
        'Size of a side',
        s.previousElementSibling?.querySelector('.view') ? settings.properties : settings.tray,
      ],
    };
    const [label, value] = sizes[s.getAttribute('aria-orientation') ?? 'vertical'] ?? sizes['vertical']!;
    s.setAttribute('aria-label', label);
    s.setAttribute('aria-valuenow', String(Math.round(value)));
  }
}
watch([pieces, benchSize, () => settings.sidesFolded, () => [settings.tray, settings.properties]], labelSplitters, {
  flush: 'post',
});
const readout = computed(() => control.value?.readout() ?? { left: [], right: '' });
</script>

<template>
  <div class="bench-frame">
    <nav class="job" aria-label="Steps of the work">
      <button
        type="button"
        class="logo"
        aria-label="To the shelf"
        title="To the shelf · Alt+0"
        @click="runCommand('project.shelf')"
      >
        <img src="/icon.svg" alt="" width="26" height="26" />
      </button>
      <button type="button" class="project" data-testid="project-menu" aria-haspopup="menu" @click="projectMenu">
        <b>{{ session.project?.name ?? '…' }}</b><IconChevronDown aria-hidden="true" /><small>{{
          session.project?.kind
        }}</small>
      </button>
      <ol class="steps">
        <li v-for="s in screens()" :key="s.id">
          <router-link
            :to="{ name: 'bench', params: { id: route.params['id'], step: s.id } }"
            class="step"
            :aria-label="counts.has(s) ? `${s.title} ${counts.get(s)}` : s.title"
            :class="{ on: s === screen }"
            :aria-current="s === screen ? 'step' : undefined"
          >
            <component :is="s.icon" aria-hidden="true" /><span class="name">{{ s.title }}</span
            ><span v-if="counts.has(s)" class="count figures">{{ counts.get(s) }}</span
            ><i v-if="wants.get(s)" class="dot" :title="`Still to do: ${wants.get(s)}`" />
          </router-link>
        </li>
      </ol>
      <div class="end">
        <span class="saved" :class="session.saveState" :title="savedTip" data-testid="saved">
          <IconLock v-if="!session.writable" aria-hidden="true" /><IconAlertTriangle
            v-else-if="session.saveState === 'failed'"
            aria-hidden="true"
          /><IconRefresh v-else-if="session.saveState !== 'saved'" aria-hidden="true" /><IconCheck
            v-else
            aria-hidden="true"
          />{{ saved }}
        </span>
        <CommandButton id="edit.undo" bare /><CommandButton id="edit.redo" bare /><CommandButton
          id="edit.history"
          bare
        />
        <button type="button" class="find" @click="dialogs.search = true"><span>Find</span><kbd>Ctrl K</kbd></button>
      </div>
    </nav>
    <div v-if="session.project && !session.writable" class="looking" role="alert">
      Another window is working on this project; here you can only look.
      <button type="button" class="btn" @click="openProject(session.project.id, true)">Take over</button>
    </div>
    <splitpanes
      v-if="session.project && pieces && control"
      horizontal
      class="rows"
      @resized="resizedBench"
      @ready="labelSplitters"
    >
      <pane :size="100 - benchSize" :min-size="35">
        <splitpanes @resized="resizedSides" @ready="labelSplitters" @pane-add="labelSplitters">
          <pane v-if="!settings.sidesFolded" :size="traySize" :min-size="12" :max-size="32"
            ><aside class="side" aria-label="Tray"><component :is="pieces.Tray" /></aside
          ></pane>
          <pane
            ><ViewPane :control="control"
              ><component :is="pieces.Over" v-if="pieces.Over" /><GuideCard :screen="screen" /><CoachCard
                :screen="screen" /></ViewPane
          ></pane>
          <pane v-if="!settings.sidesFolded" :size="propertiesSize" :min-size="14" :max-size="34"
            ><aside class="side" aria-label="Properties"><component :is="pieces.Properties" /></aside
          ></pane>
        </splitpanes>
      </pane>
      <pane :size="benchSize" :min-size="10" :max-size="60"
        ><section class="bench" aria-label="Bench"><component :is="pieces.Bench" /></section
      ></pane>
    </splitpanes>
    <p v-else class="opening" role="status">Opening…</p>
    <footer class="readout figures" aria-label="Readout">
      <span v-if="view.cursor"
        >cursor <b>{{ view.cursor }}</b></span
      >
      <span v-if="view.measure" class="hot" data-testid="measure">{{ view.measure }}</span>
      <span v-for="[k, v] in readout.left" :key="k"
        >{{ k }} <b>{{ v }}</b></span
      >
      <span class="gap" /><span>{{ readout.right }}</span>
    </footer>
    <HistoryDialog v-if="dialogs.history" /><RenameDialog v-if="dialogs.rename" />
  </div>
</template>

<style scoped>
.bench-frame {
  display: grid;
  grid-template-rows: 48px auto 1fr 26px;
  height: 100%;
}
.job {
  grid-row: 1;
  display: flex;
  align-items: center;
  gap: 8px;
  padding: 0 12px;
  background: var(--panel);
  border-bottom: 1px solid var(--line);
  min-width: 0;
}
.logo {
  display: grid;
  place-items: center;
}
.project {
  display: flex;
  align-items: center;
  gap: 6px;
  padding: 4px 6px;
  border-radius: var(--radius);
  max-width: 190px;
}
.project:hover {
  background: var(--honey-soft);
}
.project b {
  font-weight: 600;
  font-size: 14px;
  overflow: hidden;
  text-overflow: ellipsis;
  white-space: nowrap;
}
.project small {
  color: var(--quiet);
  font-size: 11px;
}
.project svg {
  width: 16px;
  height: 16px;
  flex: none;
}
.steps {
  display: flex;
  align-items: center;
  gap: 18px;
  list-style: none;
  margin: 0 auto 0 8px;
  padding: 0;
}
.steps li + li {
  position: relative;
}
.steps li + li::before {
  content: '';
  position: absolute;
  left: -15px;
  top: 50%;
  width: 12px;
  border-top: 1px solid var(--line-strong);
  opacity: 0.5;
}
.step {
  position: relative;
  display: inline-flex;
  align-items: center;
  gap: 7px;
  height: 32px;
  padding: 0 12px;
  border-radius: 16px;
  color: var(--quiet);
  text-decoration: none;
  font-weight: 500;
  font-size: 14px;
  transition: background var(--quick);
}
.step:hover {
  background: var(--honey-soft);
  color: var(--ink);
}
.step svg {
  width: 18px;
  height: 18px;
  stroke-width: 1.6;
}
.step.on {
  background: var(--resin);
  color: var(--resin-ink);
}
.count {
  padding: 0 6px;
  border-radius: 8px;
  background: color-mix(in srgb, var(--line) 70%, transparent);
  font-size: 11px;
  line-height: 17px;
  color: var(--ink);
}
.step.on .count {
  background: none;
  border: 1px solid currentcolor;
  line-height: 15px;
  color: var(--resin-ink);
}
.dot {
  width: 8px;
  height: 8px;
  border-radius: 50%;
  background: var(--honey);
}
.end {
  display: flex;
  align-items: center;
  gap: 4px;
  flex: none;
}
.saved {
  display: inline-flex;
  align-items: center;
  gap: 4px;
  margin-right: 6px;
  font-size: 12px;
  color: var(--ok);
}
.saved svg {
  width: 16px;
  height: 16px;
}
.saved.failed {
  color: var(--danger);
}
.find {
  display: flex;
  align-items: center;
  gap: 10px;
  height: 28px;
  padding: 0 8px;
  margin-left: 4px;
  border: 1px solid var(--line);
  border-radius: var(--radius);
  background: var(--raised);
  color: var(--quiet);
}
.looking {
  grid-row: 2;
  display: flex;
  align-items: center;
  gap: 12px;
  padding: 6px 14px;
  background: var(--honey-soft);
  border-bottom: 1px solid var(--honey);
}
.rows,
.opening {
  grid-row: 3;
  min-height: 0;
}
.opening {
  padding: 40px;
  color: var(--quiet);
}
.side {
  height: 100%;
  overflow: auto;
  background: var(--panel);
}
.bench {
  height: 100%;
  background: var(--panel);
  overflow: hidden;
}
.readout {
  grid-row: 4;
  display: flex;
  align-items: center;
  gap: 20px;
  padding: 0 14px;
  background: var(--bar);
  color: var(--bar-ink);
  overflow: hidden;
  white-space: nowrap;
}
.readout b {
  color: var(--bar-strong);
  font-weight: 500;
}
.hot {
  color: var(--bar-honey);
}
.gap {
  flex: 1;
}
@media (max-width: 1180px) {
  .step .name {
    display: none;
  }
  .step.on .name {
    display: inline;
  }
  .steps {
    gap: 10px;
  }
  .steps li + li::before {
    display: none;
  }
  .step {
    padding: 0 9px;
  }
  .project small,
  .find span {
    display: none;
  }
}
@media (max-height: 720px) {
  .bench-frame {
    grid-template-rows: 44px auto 1fr 26px;
  }
}
</style>
