import type { Mat4, Vec3 } from '@sphalerite/core/math';
import { type Mount, type Project, composite, constraintTargets } from '@sphalerite/core/model';
import { rayWalk } from '@sphalerite/core/voxel';
import { toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import type { Viewport } from '../../viewport/viewport';

/** How near the pointer must be to a joint, in pixels. */
const REACH = 10;
/** By how much a control is nearer than the joint that it stands on, in pixels: it is what one means there. */
const CONTROL_FIRST = 3;

export const originOf = (m: Mat4): Vec3 => [m[12]!, m[13]!, m[14]!];

/** Bones that steer others: their joints are drawn and picked as controls. */
export const steeringBones = (p: Project): Set<string> => new Set(p.rig.constraints.flatMap(constraintTargets));

/** The joint under the pointer; `world` holds the matrix of each bone. */
export function jointUnder(v: Viewport, p: ViewPointer, world: Map<string, Mat4>, project: Project): string | null {
  let best = REACH,
    found: string | null = null;
  const steering = steeringBones(project);
  for (const [id, m] of world) {
    const s = v.screenOf(originOf(m));
    const d = Math.hypot(s.x - p.x, s.y - p.y) - (steering.has(id) ? CONTROL_FIRST : 0);
    if (d < best) [best, found] = [d, id];
  }
  return found;
}

/** The mounted part under the pointer; what hangs on no bone does not count. */
export function mountUnder(v: Viewport, p: ViewPointer): Mount | null {
  let best = Infinity,
    found: Mount | null = null;
  for (const { part, matrix, mount } of v.placed) {
    if (mount.bone === null) continue;
    const ray = toLattice(p.ray, matrix);
    const hit = rayWalk(composite(part), ray.origin, ray.dir);
    if (hit && hit.t < best) [best, found] = [hit.t, mount];
  }
  return found;
}
