import { AXES, type Axis, type Box, type Vec3, boxEnd, transformPoint, mapVec, withAxis } from '@sphalerite/core/math';
import type { ViewLabel } from '../../shell/screen';
import { useSession } from '../../stores/session';
import type { BuildParts } from './build-parts';
import { useBuild } from './build-state';
import { useColours } from './colours/colours-state';
import { lookLabels } from './colours/side-by-side';
import { rulerText } from './measure-lines';
import { useSelection } from './selection/selection-state';

const NAMES = ['X', 'Y', 'Z'] as const;
const TONES = ['x', 'y', 'z'] as const;

/** Where the letter of a mirror plane stands: at its handle, in front at the foot of the volume. */
function mirrorPlace(axis: Axis, half: number, { min }: Box, end: Vec3): Vec3 {
  return withAxis([end[0] + 0.6, min[1], end[2] + 0.6], axis, half / 2);
}

/** The middle of the edge of the volume along an axis, nearest to the eye. */
function edgeMiddle(axis: Axis, { min }: Box, end: Vec3): Vec3 {
  const middle = (a: Axis): number => (min[a] + end[a]) / 2;
  return [axis === 0 ? middle(0) : end[0], axis === 1 ? middle(1) : min[1], axis === 2 ? middle(2) : end[2]];
}

/** What is written in the view in Build: mirror planes, sizes, distances, what floats. */
export function buildLabels({ matrix, hand, apart }: BuildParts): ViewLabel[] {
  const session = useSession();
  const build = useBuild();
  const selection = useSelection();
  const part = session.part;
  if (!part) return [];
  const at = (c: Vec3): Vec3 => transformPoint(matrix.value, c);
  const end = boxEnd(part.bounds);
  const out: ViewLabel[] = [
    ...lookLabels(session.project, useColours().looks),
    ...(apart.value?.labels(matrix.value) ?? []),
  ];
  for (const a of AXES) {
    const h = build.mirror[a];
    if (h !== null && hand.handCame.value)
      out.push({ at: at(mirrorPlace(a, h, part.bounds, end)), text: NAMES[a], tone: TONES[a], shift: true });
    const size = part.bounds.size[a];
    const text = `${NAMES[a]} ${size}${size % 2 ? ' odd' : ' even'}`;
    if (build.handles === 'volume') out.push({ at: at(edgeMiddle(a, part.bounds, end)), text, tone: TONES[a] });
  }
  const ruler = hand.ruler.value;
  if (ruler) {
    const middle = mapVec(ruler.to, (v, i) => (v + ruler.from[i]!) / 2 + 0.5);
    out.push({ at: at(middle), text: rulerText(ruler), tone: 'ink' });
  }
  const f = selection.floating;
  if (f) {
    const { min, size } = f.grid.bounds;
    const above: Vec3 = [min[0] + size[0] / 2, min[1] + size[1], min[2] + size[2] / 2];
    out.push({ at: at(above), text: `floating ${size.join('×')} · moved ${f.by.join(', ')}`, tone: 'ink' });
  }
  return out;
}
