import { type Vec3, transformPoint, vec3Of } from '@sphalerite/core/math';
import { composite, partContent } from '@sphalerite/core/model';
import { rayWalk } from '@sphalerite/core/voxel';
import { toLattice } from '../../viewport/pick';
import type { ViewPointer } from '../../viewport/view-input';
import type { Viewport } from '../../viewport/viewport';

export const SNAPS = ['any', 'corner', 'edge', 'face', 'cube', 'part', 'free'] as const;
/** What of a cube under the pointer a joint comes to rest on: its corners, edge and face middles, its or its part's centre, or any point. */
export type Snap = (typeof SNAPS)[number];
export const SNAP_NAMES: Record<Snap, string> = {
  any: 'corners, edges, faces',
  corner: 'cube corners',
  edge: 'edge middles',
  face: 'face centres',
  cube: 'cube centres',
  part: 'part centres',
  free: 'any point',
};

export interface SnapPoint {
  /** In the world. */
  readonly at: Vec3;
  readonly what: string;
}

const WORDS = ['cube centre', 'face centre', 'edge middle', 'corner'];

/** The point of the cubes under the pointer that a joint would take; null over empty ground. */
export function snapUnder(view: Viewport, p: ViewPointer, snap: Snap): SnapPoint | null {
  let best = Infinity,
    found: SnapPoint | null = null;
  for (const { part, matrix } of view.placed) {
    const ray = toLattice(p.ray, matrix),
      hit = rayWalk(composite(part), ray.origin, ray.dir);
    if (!hit || hit.t >= best) continue;
    best = hit.t;
    const world = (v: readonly number[]): Vec3 => transformPoint(matrix, vec3Of(v));
    if (snap === 'free') found = { at: world(ray.origin.map((o, i) => o + ray.dir[i]! * hit.t)), what: 'surface' };
    else if (snap === 'part') {
      const box = partContent(part)!;
      found = { at: world(box.min.map((v, i) => v + box.size[i]! / 2)), what: `centre of ${part.name}` };
    } else if (snap === 'cube') found = { at: world(hit.cell.map((v) => v + 0.5)), what: WORDS[0]! };
    else {
      // Halves of a cube; how many of them are whole says what kind of point it is.
      let near = Infinity;
      for (let x = 0; x <= 2; x++)
        for (let y = 0; y <= 2; y++)
          for (let z = 0; z <= 2; z++) {
            const kind = [x, y, z].filter((v) => v !== 1).length;
            if (
              kind === 0 ||
              (snap === 'corner' && kind !== 3) ||
              (snap === 'edge' && kind !== 2) ||
              (snap === 'face' && kind !== 1)
            )
              continue;
            // Only points of the face that is seen.
            if (hit.normal.some((n, i) => n !== 0 && [x, y, z][i] !== n + 1)) continue;
            const at = world([hit.cell[0] + x / 2, hit.cell[1] + y / 2, hit.cell[2] + z / 2]),
              s = view.screenOf(at);
            const d = Math.hypot(s.x - p.x, s.y - p.y);
            if (d < near) {
              near = d;
              found = { at, what: WORDS[kind]! };
            }
          }
    }
  }
  return found;
}
