import { type Vec3, vec3Of } from '../math';
import type { VoxelGrid } from './voxel-grid';

/** Where a ray meets a cube. */
export interface CellHit {
  readonly cell: Vec3;
  /** Outward normal of the face that was met; zero when the ray began inside the cube. */
  readonly normal: Vec3;
  /** Distance in units of the direction's length. */
  readonly t: number;
}

/** The parameters at which a ray enters and leaves a box, or null when it misses. */
export function clipRay(
  origin: Vec3,
  dir: Vec3,
  lo: Vec3,
  hi: Vec3,
): { enter: number; leave: number; axis: number } | null {
  let enter = -Infinity,
    leave = Infinity,
    axis = -1;
  for (let a = 0; a < 3; a++) {
    const d = dir[a]!,
      o = origin[a]!;
    if (d === 0) {
      if (o < lo[a]! || o > hi[a]!) return null;
      continue;
    }
    const t0 = ((d > 0 ? lo[a]! : hi[a]!) - o) / d;
    const t1 = ((d > 0 ? hi[a]! : lo[a]!) - o) / d;
    if (t0 > enter) {
      enter = t0;
      axis = a;
    }
    if (t1 < leave) leave = t1;
  }
  return enter > leave || leave < 0 ? null : { enter, leave, axis };
}

/**
 * The first filled cell along a ray, in the grid's lattice space (cell x spans x to x+1).
 * Steps from cell to cell (Amanatides and Woo, 1987), jumping over empty bricks.
 *
 * @param accept – says which cells can be met; all filled ones by default
 */
export function rayWalk(
  grid: VoxelGrid,
  origin: Vec3,
  dir: Vec3,
  tMax = Infinity,
  accept: (x: number, y: number, z: number) => boolean = () => true,
): CellHit | null {
  const lo = grid.bounds.min;
  const hi: Vec3 = [lo[0] + grid.bounds.size[0], lo[1] + grid.bounds.size[1], lo[2] + grid.bounds.size[2]];
  const span = clipRay(origin, dir, lo, hi);
  if (!span || span.enter > tMax) return null;
  let t = Math.max(0, span.enter);
  let axis = span.enter > 0 ? span.axis : -1;
  const cell = [0, 0, 0];
  const step = [0, 0, 0];
  for (let a = 0; a < 3; a++) {
    step[a] = dir[a]! > 0 ? 1 : -1;
    const p = origin[a]! + dir[a]! * t;
    cell[a] = Math.min(
      hi[a]! - 1,
      Math.max(lo[a]!, a === axis ? Math.round(p) - (dir[a]! > 0 ? 0 : 1) : Math.floor(p)),
    );
  }
  const next = (a: number): number =>
    dir[a] === 0 ? Infinity : (cell[a]! + (step[a]! > 0 ? 1 : 0) - origin[a]!) / dir[a]!;
  for (;;) {
    const [x, y, z] = cell as [number, number, number];
    const brick = grid.brickAt(x >> 4, y >> 4, z >> 4);
    if (brick && grid.get(x, y, z) !== 0 && accept(x, y, z)) {
      const normal = [0, 0, 0];
      if (axis >= 0) normal[axis] = -step[axis]!;
      return { cell: [x, y, z], normal: vec3Of(normal), t };
    }
    if (brick) {
      axis = smallest(next(0), next(1), next(2));
      t = next(axis);
      cell[axis]! += step[axis]!;
    } else {
      // Leave the empty brick in one go; other coordinates only ever move in the ray's direction.
      let best = Infinity;
      for (let a = 0; a < 3; a++) {
        if (dir[a] === 0) continue;
        const edge = step[a]! > 0 ? ((cell[a]! >> 4) + 1) * 16 : (cell[a]! >> 4) * 16;
        const ta = (edge - origin[a]!) / dir[a]!;
        if (ta < best) {
          best = ta;
          axis = a;
        }
      }
      t = Math.max(t, best);
      for (let a = 0; a < 3; a++) {
        if (a === axis) cell[a] = step[a]! > 0 ? ((cell[a]! >> 4) + 1) * 16 : (cell[a]! >> 4) * 16 - 1;
        else {
          const at = Math.floor(origin[a]! + dir[a]! * t);
          const inBrick = Math.min((cell[a]! >> 4) * 16 + 15, Math.max((cell[a]! >> 4) * 16, at));
          cell[a] = step[a]! > 0 ? Math.max(cell[a]!, inBrick) : Math.min(cell[a]!, inBrick);
        }
      }
    }
    if (t > tMax || cell[axis]! < lo[axis]! || cell[axis]! >= hi[axis]!) return null;
  }
}

const smallest = (x: number, y: number, z: number): number => (x < y ? (x < z ? 0 : 2) : y < z ? 1 : 2);
