import { placedExtent } from '@sphalerite/core/math';
import { sideSuffix } from '@sphalerite/core/model';
import { type DrawInstance, gatherRig, gridGeometry, instanceExtent } from '@sphalerite/core/scene';
import { shallowRef, watch } from 'vue';
import type { ScreenControl } from '../../shell/screen';
import type { Command } from '../../stores/commands';
import { floorUnder } from '../shared/floor';
import { useInPlace } from '../../stores/in-place';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { useSettings } from '../../stores/settings';
import { useView } from '../../stores/view';
import { useWayBack } from '../../stores/way-back';
import { buildChips } from './build-chips';
import { buildCommands } from './build-commands';
import { useBuildHand } from './build-hand';
import { buildLabels } from './build-labels';
import { buildOverlay } from './build-overlay';
import type { BuildParts } from './build-parts';
import { buildPointer } from './build-pointer';
import { useBuildPose } from './build-pose';
import { buildReadout } from './build-readout';
import { useBuild } from './build-state';
import { useColours } from './colours/colours-state';
import { handlesControl } from './handles/handles-control';
import { useHollow } from './hollow/hollow-state';
import { loosePart } from './loose-part';
import { usePartMatrix } from './picking';
import { selectionCommands } from './selection/selection-commands';
import { useSelection } from './selection/selection-state';
import { strokeControl } from './strokes/stroke-control';
import { useTints } from './tints';
import type { Box } from '@sphalerite/core/math';

/** What is left of something inside a cutaway. */
function clipped(i: DrawInstance, limit: Box): DrawInstance {
  return i.geometry.kind === 'grid' ? { ...i, geometry: gridGeometry(i.geometry.grid.clippedTo(limit)) } : i;
}

/** The pieces of the screen; finishes and taking apart come when their tabs are first opened. */
function makeParts(): BuildParts {
  const matrix = usePartMatrix();
  const strokes = strokeControl();
  return {
    matrix,
    strokes,
    handles: handlesControl(matrix),
    tints: useTints(),
    hand: useBuildHand(matrix, strokes),
    gradient: shallowRef(null),
    apart: shallowRef(null),
  };
}

async function openTab(tab: string, { gradient, apart, matrix, strokes }: BuildParts): Promise<void> {
  const build = useBuild();
  if (tab === 'finish') {
    const { gradientControl } = await import('./colours/gradient-control');
    gradient.value ??= gradientControl(matrix, () => strokes.frozen() ?? build.seen);
  }
  if (tab === 'apart') apart.value ??= (await import('./apart/apart-state')).useApart();
}

/** Lets go of whatever is in the air, one thing at a time. */
function letGo({ strokes, handles, hand }: BuildParts, cancel: () => void): void {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const hollow = useHollow();
  if (hand.anchor.value) hand.anchor.value = null;
  else if (build.job) build.job.stop();
  else if (session.job) session.job.stop();
  else if (strokes.output.value.active || handles.holding) cancel();
  else if (selection.floating || selection.repeat) selection.cancel();
  else if (hollow.on) hollow.on = false;
  else if (build.measuring) build.measuring = false;
  else if (build.cursor) build.cursor = null;
  else if (build.handles) build.handles = null;
  else if (selection.active) selection.set(null);
  else if (useInPlace().spot) void useWayBack().back();
}

/** What hangs in the air goes first; gives whether anything did. */
function interrupted(strokes: BuildParts['strokes'], cancel: () => void): boolean {
  const selection = useSelection();
  if (selection.floating || selection.repeat) selection.cancel();
  else if (strokes.output.value.active) cancel();
  else return false;
  return true;
}

function commandsOf(parts: BuildParts, cancel: () => void): Command[] {
  return [
    {
      id: 'tool.cancel',
      title: 'Cancel what is under way',
      group: 'Tools',
      keys: ['Esc'],
      run: () => letGo(parts, cancel),
    },
    // Keys that act on a selection while there is one come before the same keys elsewhere.
    ...selectionCommands(),
    ...buildCommands(parts.hand.pickColour),
  ];
}

/** Joins pointer, tools and session on the Build screen. */
export function buildControl(): ScreenControl {
  const session = useSession();
  const build = useBuild();
  const posed = useBuildPose();
  const selection = useSelection();
  const notices = useNotices();
  const colours = useColours();
  const { settings } = useSettings();
  const view = useView();
  const inPlace = useInPlace();
  const parts = makeParts();
  const { strokes, handles, tints, hand } = parts;
  const cancel = (): void => {
    strokes.cancel();
    handles.cancel();
  };
  session.onInterrupt(() => interrupted(strokes, cancel));
  const stops = [
    watch(
      () => colours.tab,
      (tab) => void openTab(tab, parts).catch(notices.fail),
      { immediate: true },
    ),
    watch(
      () => selection.preview,
      (p) => {
        if (!strokes.output.value.active) session.preview = p;
      },
    ),
    // Taking up a tool sets down what floats.
    watch([() => build.index, () => build.card.verb, () => build.card.reach], () => selection.settle()),
    watch(
      () => build.measuring,
      () => (hand.ruler.value = null),
    ),
    watch(
      strokes.output,
      (o) => {
        build.waiting = {
          box: o.waiting,
          hold: (box) => void strokes.feed({ type: 'box', box }),
          set: () => void strokes.feed({ type: 'commit' }),
        };
      },
      { immediate: true },
    ),
  ];

  return {
    scene() {
      const p = session.shown;
      if (!p) return null;
      const id = session.hand.part;
      const limit = build.limit;
      const project = posed.seen(p),
        { pose } = posed;
      const there = inPlace.seen;
      const inHand = (i: DrawInstance): boolean => (there ? i.source === there.own.source : i.source.part === id);
      // What belongs to scenes alone has no place in the rig, and is built by itself.
      const loose = there ? null : loosePart(project, id);
      const list = there?.list ?? (loose ? [loose] : gatherRig(project, { pose }));
      // Side by side one looks at the whole.
      const faint = hand.handCame.value && colours.looks.length === 0;
      return {
        project,
        pose,
        list: limit ? list.map((i) => (inHand(i) ? clipped(i, limit) : i)) : list,
        floor: there ? 0 : floorUnder(p),
        cube: session.part?.cell ?? 1,
        hurry: session.preview !== null,
        styleOf: (i) => {
          if (inHand(i)) return build.seeThrough ? 'glass' : 'plain';
          if (build.isolate || settings.neighbours === 'hidden') return null;
          return faint && settings.neighbours === 'faint' ? 'faint' : 'plain';
        },
        besides: there ? [] : colours.besides(session.inPaletteColours!, project, pose),
      };
    },
    overlay: buildOverlay(parts),
    labels: () => buildLabels(parts),
    pointer: buildPointer(parts, cancel),
    inHand() {
      const { box } = selection;
      if (box && selection.active) return placedExtent(parts.matrix.value, box);
      if (inPlace.seen) return instanceExtent(inPlace.seen.own);
      const { part } = session.view.chosen;
      return view.viewport?.extentOf((i) => part.includes(i.source.part!)) ?? null;
    },
    trail: () => {
      const part = session.part,
        p = session.project;
      if (!p) return [];
      return part
        ? [
            ...(inPlace.spot && inPlace.seen ? inPlace.spot.trail(inPlace.spot.at) : [p.name]),
            part.name + sideSuffix(part.side),
            ...(part.layers.length > 1 && session.layer ? [`layer ${session.layer.name}`] : []),
          ]
        : [p.name];
    },
    chips: () => buildChips({ strokes, tints, ruler: hand.ruler.value }),
    readout: () => buildReadout(parts),
    commands: commandsOf(parts, cancel),
    laterCommands: async () => (await import('./later-commands')).laterCommands(parts),
    menu: [
      'tool.pick',
      'mirror.x',
      'guide.toggle',
      'cut.toggle',
      'view.isolate',
      'select.all',
      'select.paste',
      'part.shrink',
      'cursor.toggle',
    ],
    tools: ['guide.toggle', 'cut.toggle', 'view.seeThrough', 'tool.measure', 'view.inset'],
    dispose() {
      selection.settle();
      stops.forEach((s) => s());
      strokes.dispose();
      build.waiting = null;
      session.onInterrupt(null);
    },
  };
}
