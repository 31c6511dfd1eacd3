import {
  IconArrowBarToUp,
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
import { composite } from '@sphalerite/core/model';
import type { Chip } from '../../shell/screen';
import { useSession } from '../../stores/session';
import { useBuildPose } from './build-pose';
import { useBuild } from './build-state';
import { type Ruler, rulerText } from './measure-lines';
import { useSelection } from './selection/selection-state';
import type { StrokeControl } from './strokes/stroke-control';
import type { useTints } from './tints';

const AXIS = ['X', 'Y', 'Z'] as const;

/** What is live in Build, as chips under the line that says where one is; some are buttons that end it. */
export function buildChips({
  strokes,
  tints,
  ruler,
}: {
  strokes: StrokeControl;
  tints: ReturnType<typeof useTints>;
  ruler: Ruler | null;
}): Chip[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const posed = useBuildPose();
  const part = session.part;
  const box = part && build.limit;
  const spills =
    strokes.outside() ??
    (selection.floating &&
      session.part &&
      !build.growVolume &&
      selection.floating.grid.countOutside(session.part.bounds) > 0);
  const floats = selection.floating,
    layer = session.layer;
  return [
    ...build.mirror.flatMap((h, a): Chip[] =>
      h === null
        ? []
        : [
            {
              text: `mirror ${AXIS[a]!} at ${h / 2}, ${h % 2 === 0 ? 'between cubes' : 'through cubes'}`,
              tone: 'red',
              icon: IconFlipVertical,
            },
          ],
    ),
    ...(posed.on
      ? [{ text: posed.text, tone: 'green', run: () => (posed.wanted = false), does: 'at rest' } satisfies Chip]
      : []),
    ...(build.radial
      ? [
          {
            text: `radial ${build.radial.count} about ${AXIS[build.radial.axis]}`,
            tone: 'red',
            icon: IconRefresh,
          } satisfies Chip,
        ]
      : []),
    ...(build.guide
      ? [
          {
            text: `guide plane ${AXIS[build.guide.axis]} ${build.guide.at % 2 === 0 ? `between ${build.guide.at / 2 - 1} and ${build.guide.at / 2}` : (build.guide.at - 1) / 2}`,
            tone: 'green',
            icon: IconLayersSubtract,
          } satisfies Chip,
        ]
      : []),
    ...(box && part
      ? [
          {
            text: `cutaway: ${(composite(part).count - (build.seen?.count ?? 0)).toLocaleString('en')} cubes hidden`,
            tone: 'green',
            icon: IconCut,
            run: () => build.setCut(null),
            does: 'show all',
          } satisfies Chip,
        ]
      : []),
    ...(tints.marks.value.text
      ? [
          {
            text: tints.marks.value.text,
            tone: 'resin',
            icon: IconTarget,
            run: () => (build.tint = 'none'),
            does: 'end',
          } satisfies Chip,
        ]
      : []),
    ...(floats
      ? [
          {
            text: `${floats.title}: floating`,
            tone: 'resin',
            icon: IconHandMove,
            run: () => selection.settle(),
            does: 'set down',
          } satisfies Chip,
        ]
      : []),
    ...(spills
      ? [
          {
            text: 'reaches out of the volume',
            tone: 'red',
            run: () => (build.growVolume = true),
            does: 'grow to fit',
          } satisfies Chip,
        ]
      : []),
    ...(build.strokeTarget
      ? [
          {
            text: build.strokeTarget.text,
            tone: 'resin',
            icon: IconBrush,
            run: () => (build.strokeTarget = null),
            does: 'end',
          } satisfies Chip,
        ]
      : []),
    ...(build.measuring
      ? [
          {
            text: ruler ? rulerText(ruler) : 'measure: drag from cube to cube',
            tone: 'green',
            icon: IconRuler2,
            run: () => (build.measuring = false),
            does: 'end',
          } satisfies Chip,
        ]
      : []),
    ...(build.cursor
      ? [{ text: 'keyboard cursor: arrows, Page Up and Down, Enter', tone: 'green', icon: IconKeyboard } satisfies Chip]
      : []),
    ...(strokes.output.value.asks
      ? [{ text: strokes.output.value.asks, tone: 'resin', icon: IconArrowBarToUp } satisfies Chip]
      : []),
    ...(session.job
      ? [
          {
            text: `${session.job.label} …`,
            tone: 'resin',
            icon: IconLoader,
            run: () => session.job?.stop(),
            does: 'stop',
          } satisfies Chip,
        ]
      : []),
    ...(build.job
      ? [
          {
            text: `${build.job.label} ${Math.round(build.job.progress * 100)} %`,
            tone: 'resin',
            icon: IconLoader,
            run: () => build.job?.stop(),
            does: 'stop',
          } satisfies Chip,
        ]
      : []),
    ...(part?.hidden ? [{ text: 'this part is hidden', tone: 'resin' } satisfies Chip] : []),
    ...(layer?.hidden || layer?.locked
      ? [{ text: `layer “${layer.name}” is ${layer.hidden ? 'hidden' : 'locked'}`, tone: 'resin' } satisfies Chip]
      : []),
  ];
}
