<script setup lang="ts">
import { IconAlertTriangle, IconCheck, IconChevronDown, IconLock, IconRefresh } from '@tabler/icons-vue';
import { ElSplitterPanel } from 'element-plus';
import { useWindowSize } from '@vueuse/core';
import { computed, defineAsyncComponent, onBeforeUnmount, shallowRef, watch } from 'vue';
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRoute, useRouter } from 'vue-router';
import CommandButton from '../components/CommandButton.vue';
import type { Project } from '@sphalerite/core/model';
import { useNotices } from '../stores/notices';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import { addCommands, runCommand } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import NoticeList from './NoticeList.vue';
import { screenOf, screens } from './screens';
import type { Screen, ScreenControl, ScreenPieces } from './screen';
import { viewCommands } from './view-commands';
import ViewPane from './ViewPane.vue';
import ActionButton from '../components/ActionButton.vue';
import { afterFirstPicture, later } from '../components/later';
import SplitView from '../components/SplitView.vue';

const dialogs = useDialogs();
// What tells a new user what to do has time until there is something to see.
const CoachCard = later(() => import('./CoachCard.vue'));
const GuideCard = later(() => import('./GuideCard.vue'));
// Dialogs are fetched when they are first opened.
const HistoryDialog = defineAsyncComponent(() => import('./HistoryDialog.vue'));
const RenameDialog = defineAsyncComponent(() => import('./RenameDialog.vue'));
const RenameManyDialog = defineAsyncComponent(() => import('./RenameManyDialog.vue'));
const PiecesDialog = defineAsyncComponent(() => import('./pieces/PiecesDialog.vue'));
const TargetDialog = defineAsyncComponent(() => import('./target/TargetDialog.vue'));
const TakesChip = later(() => import('./takes/TakesChip.vue'));
const TargetMeter = later(() => import('./target/TargetMeter.vue'));

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
    const newer = (e as { code?: unknown }).code === 'format.newer';
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
  // A step made beside the line is found again on the screen that it was opened from.
  session.where = s.beside === undefined ? s.title : screenOf(s.beside).title;
  view.screen = s.id;
  pieces.value = next;
  control.value = next.control();
  view.inHand = () => control.value?.inHand() ?? null;
  const offs = [addCommands(control.value.commands, s.id)];
  offScreen = () => offs.forEach((off) => off());
  const opened = control.value;
  void afterFirstPicture(async () => {
    const more = (await opened.laterCommands?.()) ?? [];
    if (control.value === opened) offs.push(addCommands(more, s.id));
  }).catch(notices.fail);
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
  'project.takeFrom',
  'project.shelf',
  'look.theme',
  'look.fold',
  'edit.history',
  'help.shortcuts',
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
const within = (percent: number, least: number, most: number): number => Math.min(most, Math.max(least, percent));
function resizeSides(percent: number[]): void {
  if (percent.length === 3) [settings.tray, settings.properties] = [percent[0]!, percent[2]!];
}
function nudgeSide(bar: number, by: number): void {
  if (bar === 0) settings.tray = within(traySize.value + by, 12, 32);
  else settings.properties = within(propertiesSize.value - by, 14, 34);
}
function resizeBench(percent: number): void {
  settings.bench = { ...settings.bench, [screen.value.id]: within(percent, 10, 60) };
}
const sideBars = computed(() =>
  settings.sidesFolded
    ? []
    : [
        { label: 'Size of the tray', percent: traySize.value },
        { label: 'Size of the properties', percent: propertiesSize.value },
      ],
);
const readout = computed(() => control.value?.readout() ?? { left: [], right: '' });
</script>

<template>
  <div class="bench-frame">
    <nav class="job" aria-label="Steps of the work">
      <action-button
        look="bare"
        class="logo"
        aria-label="To the shelf"
        tip="To the shelf"
        keys="Alt+0"
        @click="runCommand('project.shelf')"
        ><img src="/icon.svg" alt="" width="26" height="26"
      /></action-button>
      <action-button look="bare" class="project" data-testid="project-menu" aria-haspopup="menu" @click="projectMenu">
        <b>{{ session.project?.name ?? '…' }}</b><IconChevronDown aria-hidden="true" /><small>{{
          session.project?.kind
        }}</small>
      </action-button>
      <ol class="steps">
        <li v-for="s in screens()" :key="s.id">
          <router-link
            :to="{ name: 'bench', params: { id: route.params['id'], step: s.id } }"
            class="step"
            :aria-label="counts.has(s) ? `${s.title} ${counts.get(s)}` : s.title"
            :class="{ on: s === screen || s.id === screen.beside }"
            :aria-current="s === screen ? 'step' : undefined"
          >
            <component :is="s.icon" aria-hidden="true" /><span class="name">{{ s.title }}</span
            ><span v-if="counts.has(s)" class="count figures">{{ counts.get(s) }}</span
            ><i v-if="wants.get(s)" class="dot" :data-tip="`Still to do: ${wants.get(s)}`" />
          </router-link>
        </li>
      </ol>
      <div class="end">
        <TakesChip />
        <span class="saved" :class="session.saveState" :data-tip="savedTip" data-testid="saved">
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
        <action-button class="find" tip="Find a command" @click="dialogs.search = true"
          ><span>Find</span><kbd>Ctrl K</kbd></action-button
        >
      </div>
    </nav>
    <div v-if="session.project && !session.writable" class="looking" role="alert">
      Another window is working on this project; here you can only look.
      <action-button @click="openProject(session.project.id, true)">Take over</action-button>
    </div>
    <split-view
      v-if="session.project && pieces && control"
      upright
      class="rows"
      :bars="[{ label: 'Size of the bench', percent: benchSize }]"
      @resized="([, bench]) => resizeBench(bench!)"
      @nudge="(_bar, by) => resizeBench(benchSize - by)"
    >
      <el-splitter-panel min="35%">
        <split-view :bars="sideBars" @resized="resizeSides" @nudge="nudgeSide">
          <el-splitter-panel v-if="!settings.sidesFolded" :size="`${traySize}%`" min="12%" max="32%"
            ><aside :key="screen.id" class="side" aria-label="Tray"><component :is="pieces.Tray" /></aside
          ></el-splitter-panel>
          <el-splitter-panel
            ><ViewPane :control="control"
              ><component :is="pieces.Over" v-if="pieces.Over" /><GuideCard :screen="screen" /><CoachCard
                :screen="screen" /></ViewPane
          ></el-splitter-panel>
          <el-splitter-panel v-if="!settings.sidesFolded" :size="`${propertiesSize}%`" min="14%" max="34%"
            ><aside :key="screen.id" class="side" aria-label="Properties"><component :is="pieces.Properties" /></aside
          ></el-splitter-panel>
        </split-view>
      </el-splitter-panel>
      <el-splitter-panel :size="`${benchSize}%`" min="10%" max="60%"
        ><section class="bench" aria-label="Bench"><component :is="pieces.Bench" /></section
      ></el-splitter-panel>
    </split-view>
    <p v-else class="opening" role="status">Opening…</p>
    <footer class="readout figures" aria-label="Readout">
      <div class="figures-here">
        <span v-if="view.cursor"
          >cursor <b>{{ view.cursor }}</b></span
        >
        <span v-if="view.measure" class="hot" data-testid="measure">{{ view.measure }}</span>
        <span v-for="[k, v] in readout.left" :key="k"
          >{{ k }} <b>{{ v }}</b></span
        >
      </div>
      <span class="gap" /><notice-list class="here" /><template v-if="notices.list.length === 0"
        ><span v-if="readout.right">{{ readout.right }}</span
        ><TargetMeter
      /></template>
    </footer>
    <HistoryDialog v-if="dialogs.history" /><RenameDialog v-if="dialogs.rename" /><RenameManyDialog
      v-if="dialogs.renameMany"
    /><TargetDialog v-if="dialogs.target" /><PiecesDialog v-if="dialogs.pieces" />
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
.logo.el-button {
  padding: 0 2px;
}
.project.el-button {
  --el-button-text-color: var(--ink);
  padding: 2px 6px;
  max-width: 190px;
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
.find.el-button {
  --el-button-text-color: var(--quiet);
  margin-left: 4px;
  padding: 0 8px;
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
  white-space: nowrap;
  min-width: 0;
}
/* What is told stands in the line of figures, where it covers nothing; figures give way to it. */
.figures-here {
  display: flex;
  /* One that does not fit goes whole. */
  flex-wrap: wrap;
  height: 20px;
  line-height: 20px;
  gap: 0 20px;
  min-width: 0;
  overflow: hidden;
}
.figures-here > span,
.readout > span {
  flex: none;
}
.readout b {
  color: var(--bar-strong);
  font-weight: 500;
}
.hot {
  color: var(--bar-honey);
}
.readout > .gap {
  flex: 1;
}
/* What is being made is told in the line: the rest of it draws together. */
@media (max-width: 1400px) {
  .job:has(.take) .project small,
  .job:has(.take) .find span {
    display: none;
  }
  .job:has(.take) .steps {
    gap: 12px;
  }
  .job:has(.take) .steps li + li::before {
    left: -11px;
    width: 10px;
  }
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
