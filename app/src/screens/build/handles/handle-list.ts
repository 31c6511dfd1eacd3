import { AXES, type Axis, type Box, type Vec3, boxEnd, mapVec, withAxis } from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import { resizePartEdit } from '@sphalerite/core/project';
import { useSession } from '../../../stores/session';
import type { Tone } from '../../../viewport/overlay';
import { useBuild } from '../build-state';
import { resizePart } from '../volume-actions';

/** Something in the view that can be taken hold of and moved along one axis. */
export interface Handle {
  readonly at: Vec3;
  readonly axis: Axis;
  readonly tone: Tone;
  /** Half cubes are enough. */
  readonly fine: boolean;
  readonly text: (by: number) => string;
  drag(by: number, both: boolean, done: boolean): void;
}
const TONE: readonly Tone[] = ['x', 'y', 'z'];
export const AXIS_NAME = ['X', 'Y', 'Z'] as const;
/** Cubes between the volume and the handles of its mirror planes. */
const ASIDE = 0.6;

const faceMiddle = (b: Box, axis: Axis, high: boolean): Vec3 =>
  mapVec(b.min, (m, i) => (i !== axis ? m + b.size[i]! / 2 : high ? m + b.size[i]! : m));

/** A box with one face moved, or both alike. */
function stretched(b: Box, axis: Axis, high: boolean, by: number, both: boolean): Box {
  const grow = high ? by : -by;
  const low = both ? -grow : high ? 0 : by;
  const size = Math.max(1, b.size[axis] + (both ? 2 * grow : grow));
  return {
    min: withAxis(b.min, axis, Math.min(b.min[axis] + low, boxEnd(b)[axis] - 1)),
    size: withAxis(b.size, axis, size),
  };
}

/** The handles that stand in the view now: faces of the volume or of the cutaway, mirror planes, the guide plane. */
export function useHandleList(): () => Handle[] {
  const session = useSession();
  const build = useBuild();

  function faces(b: Box, tone: Tone | null, name: string, drag: (to: Box, done: boolean) => void): Handle[] {
    return AXES.flatMap((axis) =>
      [false, true].map((high): Handle => ({
        at: faceMiddle(b, axis, high),
        axis,
        tone: tone ?? TONE[axis]!,
        fine: false,
        text: (by) => `${name} ${AXIS_NAME[axis]} ${b.size[axis] + (high ? by : -by)}`,
        drag: (by, both, done) => drag(stretched(b, axis, high, by, both), done),
      })),
    );
  }
  function boxFaces(part: Part): Handle[] {
    if (build.handles === 'cutaway')
      return faces(build.limit ?? part.bounds, 'verdigris', 'cutaway', (to) => build.setCut(to));
    if (build.handles !== 'volume') return [];
    return faces(part.bounds, null, 'volume', (to, done) => {
      if (done) resizePart(part.id, to);
      else session.preview = session.tryEdit(resizePartEdit, { part: part.id, bounds: to, cut: true }, true);
    });
  }
  function mirrorPlanes(part: Part): Handle[] {
    // In front, at the foot of the volume: at its head they would lie under the chips.
    const end = boxEnd(part.bounds),
      beside: Vec3 = [end[0] + ASIDE, part.bounds.min[1], end[2] + ASIDE];
    return AXES.flatMap((axis): Handle[] => {
      const half = build.mirror[axis];
      if (half === null) return [];
      return [
        {
          at: withAxis(beside, axis, half / 2),
          axis,
          tone: TONE[axis]!,
          fine: true,
          text: (by) => `mirror ${AXIS_NAME[axis]} at ${(half + by) / 2}`,
          drag: (by) => build.movePlane(axis, half + by),
        },
      ];
    });
  }
  function guidePlane(part: Part): Handle[] {
    const g = build.guide;
    if (!g) return [];
    return [
      {
        at: withAxis(part.bounds.min, g.axis, g.at / 2),
        axis: g.axis,
        tone: 'verdigris',
        fine: true,
        text: (by) => `guide plane ${AXIS_NAME[g.axis]} ${(g.at + by) / 2}`,
        drag: (by) => (build.guide = { axis: g.axis, at: g.at + by }),
      },
    ];
  }
  return () => {
    const part = session.part;
    return part ? [...boxFaces(part), ...mirrorPlanes(part), ...guidePlane(part)] : [];
  };
}
