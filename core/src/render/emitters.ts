import { FACE_DIRECTIONS, cross, length, vec3Of } from '../math';
import type { VoxelGrid } from '../voxel';
import type { TraceSurfaces } from './material';
import type { TraceInstance } from './shape';

/** Numbers a glowing face takes in a shape: corner (3), axes of its edges u and v, 1 or −1 for u × v outwards, radiance (3). */
const STRIDE = 9;

/** The exposed faces of a shape's glowing cubes, in its lattice, so that light can be aimed for instead of found by chance. */
export interface ShapeGlow {
  readonly faces: Float64Array;
  /** Running sums of the faces' brightness, for choosing one by it. */
  readonly upTo: Float64Array;
  /** Brightness of all faces along each axis. */
  readonly along: readonly [number, number, number];
}

/** How much the eye makes of linear light (Rec. 709). */
const brightness = (r: number, g: number, b: number): number => 0.2126 * r + 0.7152 * g + 0.0722 * b;

/** The glow of a grid; null when nothing of it glows. */
export function shapeGlow(grid: VoxelGrid, { emissive, colour }: TraceSurfaces): ShapeGlow | null {
  if (!emissive.some((e) => e > 0)) return null;
  const faces: number[] = [],
    upTo: number[] = [];
  const along: [number, number, number] = [0, 0, 0];
  let sum = 0;
  grid.forEach((x, y, z, value) => {
    const e = emissive[value]!;
    if (e === 0) return;
    const [r, g, b] = [0, 1, 2].map((i) => colour[value * 3 + i]! * e) as [number, number, number];
    for (const [direction, n] of FACE_DIRECTIONS.entries()) {
      if (grid.get(x + n[0], y + n[1], z + n[2]) !== 0) continue;
      const axis = direction >> 1,
        out = n[axis as 0 | 1 | 2]!;
      const corner = [x, y, z];
      if (out > 0) corner[axis]!++;
      faces.push(...corner, (axis + 1) % 3, (axis + 2) % 3, out, r, g, b);
      // A black face that is said to glow must not be chosen, but must not make a sum of nothing either.
      const bright = brightness(r, g, b);
      upTo.push((sum += bright));
      along[axis as 0 | 1 | 2] += bright;
    }
  });
  return sum > 0 ? { faces: Float64Array.from(faces), upTo: Float64Array.from(upTo), along } : null;
}

/**
 * The glowing faces of a whole scene, chosen by their power: brightness times area. A few strong lamps among thousands of weak
 * ones are found at once, and a thousand copies of a lamp hold its faces once.
 */
export class EmitterTable {
  /** Instances that glow, and the running sums of their power. */
  private readonly instances: readonly TraceInstance[];
  private readonly upTo: Float64Array;
  private readonly total: number;

  /** Of what {@link choose} found last: a corner, edges whose product points outwards, radiance, and how likely it was. */
  readonly corner = new Float64Array(3);
  readonly u = new Float64Array(3);
  readonly v = new Float64Array(3);
  readonly radiance = new Float64Array(3);
  chance = 1;

  constructor(all: readonly TraceInstance[]) {
    this.instances = all.filter((i) => i.shape.glow);
    let sum = 0;
    this.upTo = Float64Array.from(this.instances, (i) => (sum += powerOf(i)));
    this.total = sum;
  }

  get isEmpty(): boolean {
    return this.total === 0;
  }

  /** Chooses a face by two chances of 0 to below 1. */
  choose(a: number, b: number): void {
    const k = firstAbove(this.upTo, a * this.total);
    const { shape, toWorld: m } = this.instances[k]!;
    const { faces, upTo } = shape.glow!;
    const whole = upTo[upTo.length - 1]!;
    const f = firstAbove(upTo, b * whole);
    const o = f * STRIDE;
    const x = faces[o]!,
      y = faces[o + 1]!,
      z = faces[o + 2]!;
    const out = faces[o + 5]!;
    // Facing the other way: swap the edges.
    const eu = faces[o + (out > 0 ? 3 : 4)]! * 4,
      ev = faces[o + (out > 0 ? 4 : 3)]! * 4;
    for (let i = 0; i < 3; i++) {
      this.corner[i] = m[i]! * x + m[4 + i]! * y + m[8 + i]! * z + m[12 + i]!;
      this.u[i] = m[eu + i]!;
      this.v[i] = m[ev + i]!;
      this.radiance[i] = faces[o + 6 + i]!;
    }
    this.chance = (widthAt(this.upTo, k) / this.total) * (widthAt(upTo, f) / whole);
  }
}

/** Light that an instance gives off: brightness along each axis times the area of a face across it. */
function powerOf({ shape, toWorld: m }: TraceInstance): number {
  const edges = [0, 4, 8].map((o) => vec3Of(m.subarray(o, o + 3)));
  return shape.glow!.along.reduce(
    (sum, bright, axis) => sum + bright * length(cross(edges[(axis + 1) % 3]!, edges[(axis + 2) % 3]!)),
    0,
  );
}

const widthAt = (upTo: Float64Array, i: number): number => upTo[i]! - (i > 0 ? upTo[i - 1]! : 0);

/** The first whose running sum is above `value`, by halving. */
function firstAbove(upTo: Float64Array, value: number): number {
  let lo = 0,
    hi = upTo.length - 1;
  while (lo < hi) {
    const mid = (lo + hi) >> 1;
    if (upTo[mid]! > value) hi = mid;
    else lo = mid + 1;
  }
  return lo;
}
