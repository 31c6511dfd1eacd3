import {
  IconArrowBackUp,
  IconArrowBarToUp,
  IconArrowsMaximize,
  IconBrush,
  IconCut,
  IconFlipVertical,
  IconHandMove,
  IconKeyboard,
  IconLayersSubtract,
  IconLoader,
  IconRefresh,
  IconRuler2,
  IconTarget,
} from '@tabler/icons-vue';
import { AXES } from '@sphalerite/core/math';
import { composite, usersOfParts } from '@sphalerite/core/model';
import { heightOverFloor } from '@sphalerite/core/project';
import type { Chip } from '../../shell/screen';
import { runCommand } from '../../stores/commands';
import { useInPlace } from '../../stores/in-place';
import { useSession } from '../../stores/session';
import { useWayBack } from '../../stores/way-back';
import { useBuildPose } from './build-pose';
import { useBuild } from './build-state';
import { type Ruler, rulerText } from './measure-lines';
import { useSelection } from './selection/selection-state';
import type { Guide } from './state/cutaway';
import type { StrokeControl } from './strokes/stroke-control';
import type { useTints } from './tints';
import { say } from '../../words';

const AXIS = ['X', 'Y', 'Z'] as const;

/** A guide plane runs through a layer of cubes, or halfway between two. */
function guideChip({ axis, at }: Guide): Chip {
  const build = useBuild();
  const between = at % 2 === 0;
  return {
    text: `guide plane ${AXIS[axis]} ${between ? 'between layers, at' : 'through layer'}`,
    tone: 'green',
    icon: IconLayersSubtract,
    field: {
      label: 'Depth of the guide plane',
      value: (at - 1) / 2,
      step: 0.5,
      change: (v) => build.stepGuide(Math.round(2 * v) + 1 - at),
    },
    run: () => (build.guide = null),
    does: 'end',
  };
}

/** Mirror planes, the ring, the guide plane, the cutaway and the pose that strokes keep to. */
function aidChips(): Chip[] {
  const session = useSession();
  const build = useBuild();
  const posed = useBuildPose();
  const chips: Chip[] = [];
  for (const axis of AXES) {
    const half = build.mirror[axis];
    if (half === null) continue;
    const place = half % 2 === 0 ? 'between cubes' : 'through cubes';
    chips.push({ text: `mirror ${AXIS[axis]} at ${half / 2}, ${place}`, tone: 'red', icon: IconFlipVertical });
  }
  if (posed.on) chips.push({ text: posed.text, tone: 'green', run: () => (posed.wanted = false), does: 'at rest' });
  const users = session.part ? (usersOfParts(session.project!.scenes).get(session.part.id) ?? 0) : 0;
  const inPlace = useInPlace();
  const own = inPlace.seen && inPlace.spot?.own ? { run: inPlace.own, does: 'own part' } : {};
  if (users > 1) chips.push({ text: say('linked.shows', { n: users }), tone: 'resin', ...own });
  const { radial, guide } = build;
  if (radial) chips.push({ text: `radial ${radial.count} about ${AXIS[radial.axis]}`, tone: 'red', icon: IconRefresh });
  if (guide) chips.push(guideChip(guide));
  if (build.growVolume)
    chips.push({
      text: 'strokes grow the volume',
      tone: 'green',
      icon: IconArrowsMaximize,
      run: () => (build.growVolume = false),
      does: 'end',
    });
  if (build.limit && session.part) {
    const hidden = composite(session.part).count - (build.seen?.count ?? 0);
    chips.push({
      text: say('cutaway.hidden', { n: hidden }),
      tone: 'green',
      icon: IconCut,
      run: () => build.setCut(null),
      does: 'show all',
    });
  }
  return chips;
}

/** What strokes and pieces are about to do. */
function handChips(strokes: StrokeControl, tinted: string, ruler: Ruler | null): Chip[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const floats = selection.floating;
  const chips: Chip[] = [];
  const add = (text: string, icon: Chip['icon'], does: string, run: () => void): void =>
    void chips.push({ text, tone: 'resin', icon, run, does });

  if (tinted) add(tinted, IconTarget, 'end', () => (build.tint = 'none'));
  if (floats) add(`${floats.title}: floating`, IconHandMove, 'set down', () => selection.settle());
  const volume = session.part && !build.grows ? session.part.bounds : null;
  if (strokes.outside() ?? (floats && volume && floats.grid.countOutside(volume) > 0))
    chips.push({
      text: 'reaches out of the volume',
      tone: 'red',
      run: () => (build.growOnce = true),
      does: 'grow to fit',
    });
  if (build.strokeTarget) add(build.strokeTarget.text, IconBrush, 'end', () => (build.strokeTarget = null));
  if (build.measuring)
    chips.push({
      text: ruler ? rulerText(ruler) : 'measure: drag from cube to cube',
      tone: 'green',
      icon: IconRuler2,
      run: () => (build.measuring = false),
      does: 'end',
    });
  if (build.cursor)
    chips.push({ text: 'keyboard cursor: arrows, Page Up and Down, Enter', tone: 'green', icon: IconKeyboard });
  const { asks } = strokes.output.value;
  if (asks) chips.push({ text: asks, tone: 'resin', icon: IconArrowBarToUp });
  return chips;
}

/** Work in the background, with a way to stop it, and why strokes would not be seen. */
function stateChips(): Chip[] {
  const session = useSession();
  const build = useBuild();
  const { part, layer } = session;
  const chips: Chip[] = [];
  const working = (text: string, stop: () => void): void =>
    void chips.push({ text, tone: 'resin', icon: IconLoader, run: stop, does: 'stop' });
  if (session.job) working(`${session.job.label} …`, () => session.job?.stop());
  if (build.job) working(`${build.job.label} ${Math.round(build.job.progress * 100)} %`, () => build.job?.stop());
  const height = session.project && !useInPlace().seen && heightOverFloor(session.project);
  if (height && height < -1e-6)
    chips.push({
      text: say('floor.below', { n: Math.round(-height) }),
      tone: 'green',
      icon: IconArrowBarToUp,
      run: () => runCommand('part.stand'),
      does: 'stand on the floor',
    });
  if (part?.hidden) chips.push({ text: 'this part is hidden', tone: 'resin' });
  if (layer?.hidden || layer?.locked)
    chips.push({ text: `layer “${layer.name}” is ${layer.hidden ? 'hidden' : 'locked'}`, tone: 'resin' });
  return chips;
}

/** The way back to where the part was opened from. */
function backChips(): Chip[] {
  const way = useWayBack();
  return way.from
    ? [{ text: `opened from ${way.from.title}`, tone: 'green', icon: IconArrowBackUp, run: way.back, does: 'back' }]
    : [];
}

/** What is live in Build, as chips under the line that says where one is; some are buttons that end it. */
export function buildChips(o: {
  readonly strokes: StrokeControl;
  readonly tints: ReturnType<typeof useTints>;
  readonly ruler: Ruler | null;
}): Chip[] {
  return [...backChips(), ...aidChips(), ...handChips(o.strokes, o.tints.marks.value.text, o.ruler), ...stateChips()];
}
