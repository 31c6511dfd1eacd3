import type { Vec3 } from '@sphalerite/core/math';
import type { Clip } from '@sphalerite/core/model';
import { floorAt } from '@sphalerite/core/scene';
import type { Stroke3 } from '../../viewport/overlay';

/** Project units to each side of the figure that its ground is drawn for, and between two lines of it. */
const REACH = 24,
  APART = 6;

/** The ground of a clip as lines in the view: along the way that it goes and across it. Level ground at zero has the grid. */
export function floorLines({ floor }: Clip, gone: number): Stroke3[] {
  if (!floor) return [];
  const tone = 'verdigris' as const;
  const profile = profileOf(floor, gone);
  const along = (x: number): Stroke3[] =>
    profile.slice(1).map(([z, y], i) => ({ from: [x, profile[i]![1], profile[i]![0]], to: [x, y, z], tone }));
  const across = profile.map(([z, y]): Stroke3 => ({
    from: [-REACH / 2, y, z] as Vec3,
    to: [REACH / 2, y, z] as Vec3,
    tone,
  }));
  const lanes = Array.from({ length: REACH / APART + 1 }, (_, i) => -REACH / 2 + i * APART);
  return [...lanes.flatMap(along), ...across];
}

/** Points of the ground from behind to before the figure, as z and y: two at every edge of a step. */
function profileOf(floor: NonNullable<Clip['floor']>, gone: number): [number, number][] {
  const { run } = floor;
  if (run === 0)
    return Array.from({ length: (2 * REACH) / APART + 1 }, (_, i) => -REACH + i * APART).map((z) => [
      z,
      floorAt(floor, z),
    ]);
  const first = Math.ceil((-REACH - gone) / run),
    last = Math.floor((REACH - gone) / run);
  const edges = Array.from({ length: Math.min(200, last - first + 1) }, (_, i) => (first + i) * run + gone);
  const side = (z: number, by: number): [number, number] => [z, floorAt(floor, z + by, gone)];
  return edges.flatMap((z) => [side(z, -run / 2), side(z, run / 2)]);
}
