<script setup lang="ts">
import { ElSplitterPanel } from 'element-plus';
import { useWindowSize } from '@vueuse/core';
import { computed, defineAsyncComponent, onBeforeUnmount, shallowRef, watch } from 'vue';
import { onBeforeRouteLeave, onBeforeRouteUpdate, useRoute, useRouter } from 'vue-router';
import { useNotices } from '../stores/notices';
import { useSession } from '../stores/session';
import { useSettings } from '../stores/settings';
import { useView } from '../stores/view';
import { addCommands } from '../stores/commands';
import { useDialogs } from '../stores/dialogs';
import JobLine from './JobLine.vue';
import NoticeList from './NoticeList.vue';
import { screenOf } from './screens';
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
    <JobLine :screen="screen" />
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
@media (max-height: 720px) {
  .bench-frame {
    grid-template-rows: 44px auto 1fr 26px;
  }
}
</style>
