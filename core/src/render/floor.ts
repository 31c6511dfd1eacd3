import type { Vec3 } from '../math';
import type { GroundKind, ShotStage } from '../model';
import { type Rgb, hexToLinear } from '../palette';

/** What everything stands on: an endless plane, or one that bends up into a wall behind. */
export interface TraceFloor {
  readonly kind: Exclude<GroundKind, 'none'>;
  readonly y: number;
  readonly colour: Rgb;
  /** Distances between which it melts into the sky. */
  readonly fade: readonly [number, number];
  /** Of a backdrop: the way it rises, level and of length 1, how far along it the bend begins, and the bend's radius. */
  readonly back: Vec3;
  readonly from: number;
  readonly bend: number;
  /** Project units in a metre, which ripples of water are measured by. */
  readonly metre: number;
}

export function traceFloor(
  { ground }: Pick<ShotStage, 'ground'>,
  y: number,
  more: Partial<Omit<TraceFloor, 'kind' | 'y' | 'colour'>> = {},
): TraceFloor | null {
  if (ground.kind === 'none') return null;
  return {
    ...{ kind: ground.kind, y, colour: hexToLinear(ground.colour) },
    ...{ fade: [Infinity, Infinity], back: [0, 0, -1], from: 0, bend: 1, metre: 1, ...more },
  };
}

/**
 * How far along a ray a floor is met, between `tMin` and `tMax`; Infinity where it is not. The normal of a backdrop goes to
 * `normal`, that of all others is straight up.
 */
export function meetFloor(
  f: TraceFloor,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  tMin: number,
  tMax: number,
  normal: Float64Array,
): number {
  normal[0] = normal[2] = 0;
  normal[1] = 1;
  if (f.kind !== 'backdrop') {
    if (dy >= 0) return Infinity;
    const t = (f.y - oy) / dy;
    return t > tMin && t < tMax ? t : Infinity;
  }
  // In the plane of the bend: how far along, and how high.
  const [bx, , bz] = f.back;
  const o = ox * bx + oz * bz - f.from,
    h = oy - f.y,
    d = dx * bx + dz * bz;
  let best = tMax;
  if (dy < 0) {
    const t = -h / dy;
    if (t > tMin && t < best && o + d * t <= 0) best = t;
  }
  if (d > 0) {
    const t = (f.bend - o) / d;
    if (t > tMin && t < best && h + dy * t >= f.bend) {
      best = t;
      normal[0] = -bx;
      normal[1] = 0;
      normal[2] = -bz;
    }
  }
  // The inside of a cylinder about (0, bend): only its lower far quarter is there.
  const q = h - f.bend,
    a = d * d + dy * dy,
    b = o * d + q * dy,
    c = o * o + q * q - f.bend * f.bend;
  const root = b * b - a * c;
  if (a > 0 && root >= 0) {
    const t = (-b + Math.sqrt(root)) / a;
    const along = o + d * t,
      high = q + dy * t;
    if (t > tMin && t < best && along >= 0 && high <= 0) {
      best = t;
      normal[0] = (-along / f.bend) * bx;
      normal[1] = -high / f.bend;
      normal[2] = (-along / f.bend) * bz;
    }
  }
  return best < tMax ? best : Infinity;
}

/** Waves of ripples by their lengths in metres, directions in radians, and slopes. */
const WAVES: readonly (readonly [number, number, number])[] = [
  [1.9, 0.4, 0.02],
  [1.13, 1.9, 0.018],
  [0.67, 3.3, 0.016],
  [0.41, 5.1, 0.012],
  [0.23, 0.9, 0.008],
];

/** The slope of water at a place goes to `normal`, of length 1: the sum of a few waves, which stand still. */
export function ripple({ metre }: TraceFloor, x: number, z: number, normal: Float64Array): void {
  let sx = 0,
    sz = 0;
  for (const [length, turn, slope] of WAVES) {
    const [c, s] = [Math.cos(turn), Math.sin(turn)];
    const phase = (2 * Math.PI * (x * c + z * s)) / (length * metre) + 7 * turn;
    const k = slope * Math.cos(phase);
    sx += k * c;
    sz += k * s;
  }
  const l = 1 / Math.hypot(sx, 1, sz);
  normal[0] = -sx * l;
  normal[1] = l;
  normal[2] = -sz * l;
}
