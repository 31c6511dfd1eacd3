import { FACE_DIRECTIONS } from '../math';
import type { VoxelGrid } from '../voxel';
import type { TraceSurfaces } from './material';

/** Numbers a glowing face takes in a shape: corner (3), axes of its edges u and v, 1 or −1 for u × v outwards, radiance (3), brightness. */
export const FACE_STRIDE = 10;
/** Most faces of a cluster. */
export const TOGETHER = 16;

/** Some glowing faces of a shape that lie together. */
export interface GlowCluster {
  /** From which face on, and how many. */
  readonly first: number;
  readonly count: number;
  /** The box around them in the shape's lattice. */
  readonly lo: readonly [number, number, number];
  readonly hi: readonly [number, number, number];
  /** Brightness of its faces along each axis. */
  readonly along: readonly [number, number, number];
}

/** The exposed faces of a shape's glowing cubes, in its lattice, so that light can be aimed for instead of found by chance. */
export interface ShapeGlow {
  readonly faces: Float64Array;
  readonly clusters: readonly GlowCluster[];
}

/** How much the eye makes of linear light (Rec. 709). */
export const brightness = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** The glow of a grid; null when nothing of it glows. */
export function shapeGlow(grid: VoxelGrid, { emissive, colour }: TraceSurfaces): ShapeGlow | null {
  if (!emissive.some((e) => e > 0)) return null;
  const found: number[][] = [];
  grid.forEach((x, y, z, value) => {
    const e = emissive[value]!;
    const [r, g, b] = [0, 1, 2].map((i) => colour[value * 3 + i]! * e) as [number, number, number];
    // A black face that is said to glow gives no light.
    if (brightness(r, g, b) === 0) return;
    for (const [direction, n] of FACE_DIRECTIONS.entries()) {
      if (grid.get(x + n[0], y + n[1], z + n[2]) !== 0) continue;
      const axis = direction >> 1,
        out = n[axis as 0 | 1 | 2]!;
      const corner = [x, y, z];
      if (out > 0) corner[axis]!++;
      found.push([...corner, (axis + 1) % 3, (axis + 2) % 3, out, r, g, b, brightness(r, g, b)]);
    }
  });
  if (found.length === 0) return null;
  const clusters = clustered(found, 0, found.length);
  return { faces: Float64Array.from(found.flat()), clusters };
}

/** Sorts faces from `from` to before `to` into groups that lie together: halved across the longest side until they are few. */
function clustered(faces: number[][], from: number, to: number): GlowCluster[] {
  const lo: [number, number, number] = [Infinity, Infinity, Infinity],
    hi: [number, number, number] = [-Infinity, -Infinity, -Infinity],
    along: [number, number, number] = [0, 0, 0];
  for (let i = from; i < to; i++) {
    const f = faces[i]!;
    const axis = 3 - f[3]! - f[4]!;
    along[axis as 0 | 1 | 2] += f[9]!;
    for (const a of [0, 1, 2] as const) {
      lo[a] = Math.min(lo[a], f[a]!);
      hi[a] = Math.max(hi[a], f[a]! + (a === axis ? 0 : 1));
    }
  }
  if (to - from <= TOGETHER) return [{ first: from, count: to - from, lo, hi, along }];
  const axis = [0, 1, 2].reduce((best, a) => (hi[a]! - lo[a]! > hi[best]! - lo[best]! ? a : best), 0);
  const part = faces.slice(from, to).sort((a, b) => a[axis]! - b[axis]!);
  part.forEach((f, i) => (faces[from + i] = f));
  const middle = (from + to) >> 1;
  return [...clustered(faces, from, middle), ...clustered(faces, middle, to)];
}
