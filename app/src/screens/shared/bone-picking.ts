import type { Mat4, Vec3 } from '@sphalerite/core/math';
import { type Mount, type Project, find, steeringBones } from '@sphalerite/core/model';
import { type DrawInstance, pickInstance } from '@sphalerite/core/scene';
import type { ViewPointer } from '../../viewport/view-input';
import type { Viewport } from '../../viewport/viewport';

/** How near the pointer must be to a joint, in pixels. */
const REACH = 10;
/** By how much a control is nearer than the joint that it stands on, in pixels: it is what one means there. */
const CONTROL_FIRST = 3;

export const originOf = (m: Mat4): Vec3 => [m[12]!, m[13]!, m[14]!];

/** The joints under the pointer, the nearest first; `world` holds the matrix of each bone. */
export function jointsUnder(
  v: Viewport,
  p: ViewPointer,
  world: ReadonlyMap<string, Mat4>,
  project: Project,
  reach = REACH,
): string[] {
  const steers = steeringBones(project.rig);
  return [...world]
    .map(([id, m]) => {
      const s = v.screenOf(originOf(m));
      return { id, away: Math.hypot(s.x - p.x, s.y - p.y) - (steers.has(id) ? CONTROL_FIRST : 0) };
    })
    .filter((j) => j.away < reach)
    .sort((a, c) => a.away - c.away)
    .map((j) => j.id);
}

/** The mounted part under the pointer; what hangs on no bone does not count. */
export function mountUnder(v: Viewport, p: ViewPointer, project: Project): Mount | null {
  const mountOf = (i: DrawInstance): Mount | undefined => find(project.rig.mounts, i.source.mount);
  const hit = pickInstance(v.list, p.ray.origin, p.ray.dir, (i) => (mountOf(i)?.bone ?? null) !== null);
  return (hit && mountOf(hit.instance)) ?? null;
}
