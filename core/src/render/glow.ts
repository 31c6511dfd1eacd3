import { FACE_DIRECTIONS } from '../math';
import type { VoxelGrid } from '../voxel';
import { type Weighed, halves } from './halves';
import type { TraceSurfaces } from './material';

/**
 * Numbers a glowing face takes in a shape: corner (3), axes of its edges u and v, 1 or −1 for u × v outwards, radiance (3),
 * brightness by its area, cubes along u and along v.
 */
export const FACE_STRIDE = 12;
/** Cubes that a face may be long. */
const LONG = 2;
/** Most faces of a cluster. */
export const TOGETHER = 8;
/** Cubes that a cluster may be wide. */
const NEAR = 12;

/** Some glowing faces of a shape that lie together. */
export interface GlowCluster {
  /** From which face on, and how many. */
  readonly first: number;
  readonly count: number;
  /** The box around them in the shape's lattice. */
  readonly lo: readonly [number, number, number];
  readonly hi: readonly [number, number, number];
  /** The axis that all of its faces look along, and which way. */
  readonly axis: number;
  readonly out: number;
  /** Brightness of its faces. */
  readonly bright: number;
}

/** The exposed faces of a shape's glowing cubes, in its lattice, those beside each other together, so that light can be aimed for instead of found by chance. */
export interface ShapeGlow {
  readonly faces: Float64Array;
  readonly clusters: readonly GlowCluster[];
}

/** How much the eye makes of linear light (Rec. 709). */
export const brightness = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** The glow of a grid; null when nothing of it glows. */
export function shapeGlow(grid: VoxelGrid, { emissive, glow }: TraceSurfaces): ShapeGlow | null {
  if (!emissive.some((e) => e > 0)) return null;
  const found = new Map<string, number[]>();
  grid.forEach((x, y, z, value) => {
    const [r, g, b] = [0, 1, 2].map((i) => glow[value * 3 + i]!) as [number, number, number];
    // A black face that is said to glow gives no light.
    if (brightness(r, g, b) === 0) return;
    for (const [direction, n] of FACE_DIRECTIONS.entries()) {
      if (grid.get(x + n[0], y + n[1], z + n[2]) !== 0) continue;
      const axis = direction >> 1,
        out = n[axis as 0 | 1 | 2]!;
      const corner = [x, y, z];
      if (out > 0) corner[axis]!++;
      const numbers = [...corner, (axis + 1) % 3, (axis + 2) % 3, out, r, g, b, brightness(r, g, b), 1, 1];
      found.set([direction, ...corner].join(), numbers);
    }
  });
  if (found.size === 0) return null;
  const faces: number[][] = [],
    clusters: GlowCluster[] = [];
  const boxes = merged(found).map(faceBox);
  for (let axis = 0; axis < 3; axis++)
    for (const out of [-1, 1]) {
      const alike = boxes.filter((f) => axisOf(f) === axis && f.numbers[5] === out);
      if (alike.length > 0) clustered(alike, faces, clusters);
    }
  return { faces: Float64Array.from(faces.flat()), clusters };
}

/**
 * Faces of one look beside each other as one, up to so long and so wide: each grows along its first edge, then as a whole along the
 * second. They are in order, so that none before it could have taken it in.
 */
function merged(found: Map<string, number[]>): number[][] {
  const out: number[][] = [];
  const left = new Map(found);
  for (const [key, face] of found) {
    if (!left.delete(key)) continue;
    const [direction] = key.split(',');
    const along = (axis: number, by: number, from: readonly number[]): string => {
      const corner = from.slice(0, 3);
      corner[axis]! += by;
      return [direction, ...corner].join();
    };
    const alike = (k: string): boolean => {
      const other = left.get(k);
      return other !== undefined && other[6] === face[6] && other[7] === face[7] && other[8] === face[8];
    };
    const [u, v] = [face[3]!, face[4]!];
    let long = 1,
      wide = 1;
    while (long < LONG && alike(along(u, long, face))) left.delete(along(u, long++, face));
    const rowAt = (by: number): string[] => {
      const start = face.slice();
      start[v]! += by;
      return Array.from({ length: long }, (_, i) => along(u, i, start));
    };
    while (wide < LONG && rowAt(wide).every(alike)) for (const k of rowAt(wide++)) left.delete(k);
    out.push([...face.slice(0, 9), face[9]! * long * wide, long, wide]);
  }
  return out;
}

interface Face extends Weighed {
  readonly numbers: number[];
}
const axisOf = ({ numbers }: Pick<Face, 'numbers'>): number => 3 - numbers[3]! - numbers[4]!;
function faceBox(numbers: number[]): Face {
  const lo = numbers.slice(0, 3);
  const hi = lo.slice();
  hi[numbers[3]!]! += numbers[10]!;
  hi[numbers[4]!]! += numbers[11]!;
  return { numbers, lo, hi, weight: numbers[9]! };
}

/** Sorts faces that look one way into groups that lie together: cut until they are few and near each other. */
function clustered(together: readonly Face[], faces: number[][], clusters: GlowCluster[]): void {
  const lo: [number, number, number] = [Infinity, Infinity, Infinity],
    hi: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  let bright = 0;
  for (const f of together) {
    bright += f.weight;
    for (const a of [0, 1, 2] as const) {
      lo[a] = Math.min(lo[a], f.lo[a]!);
      hi[a] = Math.max(hi[a], f.hi[a]!);
    }
  }
  const wide = Math.max(hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]);
  if (together.length === 1 || (together.length <= TOGETHER && wide <= NEAR)) {
    clusters.push({
      first: faces.length,
      count: together.length,
      lo,
      hi,
      axis: axisOf(together[0]!),
      out: together[0]!.numbers[5]!,
      bright,
    });
    faces.push(...together.map((f) => f.numbers));
    return;
  }
  for (const half of halves(together)) clustered(half, faces, clusters);
}
