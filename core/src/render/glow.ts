import { FACE_DIRECTIONS } from '../math';
import type { VoxelGrid } from '../voxel';
import { type Weighed, halves } from './halves';
import type { TraceSurfaces } from './material';

/** Numbers a glowing face takes in a shape: corner (3), axes of its edges u and v, 1 or −1 for u × v outwards, radiance (3), brightness. */
export const FACE_STRIDE = 10;
/** Most faces of a cluster. */
export const TOGETHER = 8;
/** Cubes that a cluster may be wide. */
const NEAR = 8;

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

/** The exposed faces of a shape's glowing cubes, in its lattice, so that light can be aimed for instead of found by chance. */
export interface ShapeGlow {
  readonly faces: Float64Array;
  readonly clusters: readonly GlowCluster[];
}

/** How much the eye makes of linear light (Rec. 709). */
export const brightness = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** The glow of a grid; null when nothing of it glows. */
export function shapeGlow(grid: VoxelGrid, { emissive, glow }: TraceSurfaces): ShapeGlow | null {
  if (!emissive.some((e) => e > 0)) return null;
  const found: number[][] = [];
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
      found.push([...corner, (axis + 1) % 3, (axis + 2) % 3, out, r, g, b, brightness(r, g, b)]);
    }
  });
  if (found.length === 0) return null;
  const faces: number[][] = [],
    clusters: GlowCluster[] = [];
  const boxes = found.map(faceBox);
  for (let axis = 0; axis < 3; axis++)
    for (const out of [-1, 1]) {
      const alike = boxes.filter((f) => axisOf(f) === axis && f.numbers[5] === out);
      if (alike.length > 0) clustered(alike, faces, clusters);
    }
  return { faces: Float64Array.from(faces.flat()), clusters };
}

interface Face extends Weighed {
  readonly numbers: number[];
}
const axisOf = ({ numbers }: Pick<Face, 'numbers'>): number => 3 - numbers[3]! - numbers[4]!;
function faceBox(numbers: number[]): Face {
  const axis = axisOf({ numbers });
  const lo = numbers.slice(0, 3);
  return { numbers, lo, hi: lo.map((v, a) => (a === axis ? v : v + 1)), weight: numbers[9]! };
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
