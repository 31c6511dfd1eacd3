import type { Space } from '../voxel';

/** A turn about one axis: radians, counter-clockwise, between 0 and a right angle. */
export interface Turn {
  readonly axis: 0 | 1 | 2;
  readonly angle: number;
}

/** Cells across an axis that tell how a surface runs there: a disc, so that no direction weighs more. */
const DISC = 5.5;
/** How much less wide than long what stands in a disc must be, squared, to run any way: corners do not. */
const LONG = 0.45;
/** Surfaces that are looked at, at most. */
const SAMPLES = 3000;
const BINS = 90,
  RIGHT = Math.PI / 2;
/** Angles that are as good as along an axis, in degrees; what counts as one slope; and the share of a body that is worth a lattice. */
const STRAIGHT = 8,
  ONE = 3,
  WORTH = 0.08;
/** Rises by runs that builders choose: an angle so near to one is taken for it. */
const PLAIN = [1, 2, 3, 4].flatMap((p) => [1, 2, 3, 4].map((q) => Math.atan2(p, q)));
const NEAR = (1.5 * Math.PI) / 180;

/**
 * The slopes that much of a body's surface has, about one axis each: roofs, ramps, hulls. Told by how what stands
 * around a surface spreads, in a section across the axis, so that stairs count as the slope that they make, and thin ones too.
 *
 * @param solid – 1 for a filled cell
 * @returns those that most of it has first, no more than `most`
 */
export function slopesOf(solid: Uint8Array, space: Space, most: number): Turn[] {
  const { size, strides, count } = space;
  const surface: number[] = [];
  for (let at = 0; at < count; at++) if (solid[at] === 1 && !(solid[at + 1] === 1 && solid[at - 1] === 1 && solid[at + strides[1]] === 1 && solid[at - strides[1]] === 1 && solid[at + strides[2]] === 1 && solid[at - strides[2]] === 1)) surface.push(at); // prettier-ignore
  const step = Math.max(1, Math.floor(surface.length / SAMPLES));
  const bins = [0, 1, 2].map(() => new Float64Array(BINS));
  const angles: { axis: 0 | 1 | 2; angle: number }[] = [];
  let seen = 0;
  for (let i = 0; i < surface.length; i += step) {
    seen++;
    const at = surface[i]!;
    const p = [at % size[0], Math.floor(at / strides[1]) % size[1], Math.floor(at / strides[2])];
    for (const axis of [0, 1, 2] as const) {
      const angle = runs(solid, space, p, axis);
      if (angle === null) continue;
      angles.push({ axis, angle });
      bins[axis]![Math.min(BINS - 1, Math.floor((angle / RIGHT) * BINS))]!++;
    }
  }
  const found: { turn: Turn; n: number }[] = [];
  for (const axis of [0, 1, 2] as const)
    for (;;) {
      const list = bins[axis]!;
      let best = -1,
        n = 0;
      for (let b = STRAIGHT; b < BINS - STRAIGHT; b++) {
        let sum = 0;
        for (let k = b - ONE; k <= b + ONE; k++) sum += list[k] ?? 0;
        if (sum > n) [best, n] = [b, sum];
      }
      if (n < WORTH * seen || n < 20) break;
      const middle = ((best + 0.5) / BINS) * RIGHT,
        reach = ((ONE + 0.5) / BINS) * RIGHT;
      const near = angles.filter((t) => t.axis === axis && Math.abs(t.angle - middle) <= reach);
      const mean = near.reduce((s, t) => s + t.angle, 0) / near.length;
      const plain = PLAIN.find((v) => Math.abs(v - mean) < NEAR);
      found.push({ turn: { axis, angle: plain ?? mean }, n });
      list.fill(0, Math.max(0, best - 2 * ONE), best + 2 * ONE + 1);
    }
  return found
    .sort((a, b) => b.n - a.n)
    .slice(0, most)
    .map((f) => f.turn);
}

/** Which way what stands around a cell runs across an axis: the direction along which it spreads most, short of a right angle; null where it spreads as much every way. */
function runs(solid: Uint8Array, { size, strides }: Space, p: readonly number[], axis: 0 | 1 | 2): number | null {
  const a = ((axis + 1) % 3) as 0 | 1 | 2,
    b = ((axis + 2) % 3) as 0 | 1 | 2,
    reach = Math.floor(DISC);
  const [pa, pb] = [p[a]!, p[b]!],
    from = p[axis]! * strides[axis];
  let n = 0,
    sa = 0,
    sb = 0,
    aa = 0,
    ab = 0,
    bb = 0;
  for (let j = Math.max(-reach, -pb); j <= Math.min(reach, size[b] - 1 - pb); j++)
    for (let i = Math.max(-reach, -pa); i <= Math.min(reach, size[a] - 1 - pa); i++) {
      if (i * i + j * j > DISC * DISC || solid[from + (pa + i) * strides[a] + (pb + j) * strides[b]] === 0) continue;
      n++;
      sa += i;
      sb += j;
      aa += i * i;
      ab += i * j;
      bb += j * j;
    }
  if (n < DISC) return null;
  const [caa, cab, cbb] = [aa - (sa * sa) / n, ab - (sa * sb) / n, bb - (sb * sb) / n];
  const middle = (caa + cbb) / 2,
    apart = Math.hypot((caa - cbb) / 2, cab);
  if (middle - apart > LONG * (middle + apart)) return null;
  return (Math.atan2(2 * cab, caa - cbb) / 2 + 2 * Math.PI) % RIGHT;
}
