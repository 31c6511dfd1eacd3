import { type Vec3, transformPoint, vec3Of } from '@sphalerite/core/math';
import type { Id } from '@sphalerite/core/model';
import { type InstanceHit, geometryBox, pickInstance } from '@sphalerite/core/scene';
import type { ViewPointer } from '../../viewport/view-input';
import type { Viewport } from '../../viewport/viewport';

export const SNAPS = ['any', 'corner', 'edge', 'face', 'cube', 'part', 'free'] as const;
/** What of a cube under the pointer a joint comes to rest on: its corners, edge and face middles, its or its part's centre, or any point. */
export type Snap = (typeof SNAPS)[number];
export const SNAP_NAMES: Record<Snap, string> = {
  any: 'the nearest',
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
export function snapUnder(view: Viewport, p: ViewPointer, snap: Snap, nameOf: (part: Id) => string): SnapPoint | null {
  const { origin, dir } = p.ray;
  const hit = pickInstance(view.list, origin, dir);
  if (!hit) return null;
  const { matrix, geometry, source } = hit.instance;
  const world = (v: readonly number[]): Vec3 => transformPoint(matrix, vec3Of(v));
  switch (snap) {
    case 'free':
      return { at: vec3Of(origin.map((o, i) => o + dir[i]! * hit.t)), what: 'surface' };
    case 'part': {
      const box = geometryBox(geometry)!;
      return { at: world(box.min.map((v, i) => v + box.size[i]! / 2)), what: `centre of ${nameOf(source.part!)}` };
    }
    case 'cube':
      return { at: world(hit.cell.map((v) => v + 0.5)), what: WORDS[0]! };
    default:
      return halfUnder(view, p, hit, snap);
  }
}

/** The nearest corner, edge or face middle of the face that is seen; how many of its halves are whole says which it is. */
function halfUnder(
  view: Viewport,
  p: ViewPointer,
  { instance, cell, normal }: InstanceHit,
  snap: 'any' | 'corner' | 'edge' | 'face',
): SnapPoint | null {
  const wanted = { any: null, face: 1, edge: 2, corner: 3 }[snap];
  let near = Infinity,
    found: SnapPoint | null = null;
  for (let n = 0; n < 27; n++) {
    const half = [n % 3, Math.floor(n / 3) % 3, Math.floor(n / 9)];
    const kind = half.filter((v) => v !== 1).length;
    if (kind === 0 || (wanted !== null && kind !== wanted)) continue;
    // Only points of the face that is seen.
    if (normal.some((v, i) => v !== 0 && half[i] !== v + 1)) continue;
    const at = transformPoint(instance.matrix, vec3Of(half.map((v, i) => cell[i]! + v / 2))),
      s = view.screenOf(at);
    const d = Math.hypot(s.x - p.x, s.y - p.y);
    if (d < near) [near, found] = [d, { at, what: WORDS[kind]! }];
  }
  return found;
}
