import { type Axis, type Box, boxEnd } from '../math';
import { CellSet } from '../voxel';

export const PROFILES = ['straight', 'taper', 'cone', 'dome', 'egg'] as const;
/** How a solid's slices change along its axis. */
export type Profile = (typeof PROFILES)[number];
export const SECTIONS = ['round', 'square'] as const;
export type Section = (typeof SECTIONS)[number];

/** A solid that stands along an axis: cylinder, cone, dome, egg, pyramid. */
export interface Standing {
  readonly box: Box;
  readonly axis: Axis;
  /** +1 when its base is at the low end of the axis. */
  readonly dir: 1 | -1;
  readonly profile: Profile;
  readonly section: Section;
  /** Width of the last slice of a taper as a share of the base, 0–1. */
  readonly top: number;
}

/**
 * How much a size of n cells would have to be left out by cells that are wholly half a cube off the middle.
 * A cell belongs to a round shape when its centre lies inside the ellipse that fills the box, Σ (d/r)² ≤ 1. In a
 * shape much longer than wide, with an even width, no centre near the tips would; there the right side is
 * raised just enough for the shape to touch all sides of its box.
 */
function rightSide(sizes: readonly number[]): number {
  const nearest = sizes.map((n) => (n % 2 === 0 ? 1 / (n * n) : 0));
  const all = nearest.reduce((a, b) => a + b, 0);
  return Math.max(1, ...sizes.map((n, i) => ((n - 1) / n) ** 2 + all - nearest[i]!)) + 1e-9;
}

/** (d/r)² of cell i of n, the same from both ends. */
const off = (i: number, n: number): number => (Math.abs(2 * i + 1 - n) / n) ** 2;

/** First cell of a row of n whose square distance leaves it inside; n when there is none. */
function firstInside(n: number, room: number): number {
  // Closed form, then put right by at most one cell either way.
  let i = Math.max(0, Math.floor((n - 1 - n * Math.sqrt(Math.max(0, room))) / 2));
  while (i > 0 && off(i - 1, n) <= room) i--;
  while (i < n / 2 && off(i, n) > room) i++;
  return i < n / 2 ? i : n;
}

/**
 * The ellipsoid that fills a box, odd or even along each axis: the cells whose centre (x, y, z), measured from the
 * middle of the box in half sizes, has x² + y² + z² ≤ 1 (a little more in thin boxes, see {@link rightSide}).
 * It is its own mirror image on all three axes, and equal sizes look alike along each of them.
 */
export function ellipsoidCells(box: Box): CellSet {
  const [nx, ny, nz] = box.size;
  const limit = rightSide(box.size);
  const set = new CellSet(box);
  for (let z = 0; z < nz; z++) {
    for (let y = 0; y < ny; y++) {
      const i = firstInside(nx, limit - off(z, nz) - off(y, ny));
      if (i < nx) set.addRun(box.min[0] + i, box.min[0] + nx - i, box.min[1] + y, box.min[2] + z);
    }
  }
  return set;
}

/**
 * Half width of slice k of `height` (from the base) as a share of the base: 1 for straight; from 1 to `top` for a
 * taper; to the tip for a cone; the upper half of an ellipsoid for a dome; two half ellipsoids that meet at two
 * fifths of the height for an egg. Measured at the middle of the slice.
 */
export function sliceWidth(profile: Profile, k: number, height: number, top: number): number {
  const t = (k + 0.5) / height;
  switch (profile) {
    case 'straight':
      return 1;
    case 'taper':
      return height === 1 ? 1 : 1 + (top - 1) * (k / (height - 1));
    case 'cone':
      return 1 - t;
    case 'dome':
      return Math.sqrt(1 - t * t);
    case 'egg': {
      const s = t < 0.4 ? (0.4 - t) / 0.4 : (t - 0.4) / 0.6;
      return Math.sqrt(1 - s * s);
    }
  }
}

/**
 * The cells of a solid of revolution. A slice keeps at least one cell (two across an even width). Slices are made of rows,
 * each found from its end; slices of one width are found once.
 */
export function revolvedCells(
  s: Standing,
  slices: { readonly from: number; readonly to: number } | null = null,
): CellSet {
  const { box, axis } = s;
  const set = new CellSet(box);
  // Rows run along X where the solid does not stand along it.
  const run: Axis = axis === 0 ? 1 : 0,
    row: Axis = axis === 2 ? 1 : 2;
  const [m, n, height] = [box.size[run], box.size[row], box.size[axis]];
  const limit = rightSide([m, n]);
  const firsts = new Int32Array(n);
  let known = NaN;
  for (let k = slices?.from ?? 0; k < Math.min(height, slices?.to ?? height); k++) {
    const w = sliceWidth(s.profile, k, height, s.top);
    if (w !== known) {
      known = w;
      const edge = w === 1 ? 1 : w - 0.5 / Math.max(m, n) + 1e-9;
      for (let j = 0; j < n; j++) {
        const b = off(j, n);
        const middle = Math.abs(2 * j + 1 - n) <= 1;
        let i =
          s.section === 'round'
            ? firstInside(m, limit * w * w - b)
            : Math.sqrt(b) <= edge
              ? firstInside(m, edge * edge)
              : m;
        if (middle) i = Math.min(i, (m - 1) >> 1);
        firsts[j] = i;
      }
    }
    const level = box.min[axis] + (s.dir > 0 ? k : height - 1 - k);
    for (let j = 0; j < n; j++) {
      const i = firsts[j]!;
      if (i >= m) continue;
      const from = box.min[run] + i,
        to = box.min[run] + m - i,
        at = box.min[row] + j;
      if (axis === 1) set.addRun(from, to, level, at);
      else if (axis === 2) set.addRun(from, to, at, level);
      else for (let y = from; y < to; y++) set.addRun(level, level + 1, y, at);
    }
  }
  return set;
}

/** A wall instead of a full body. */
export interface Hollow {
  /** Thickness in cubes. */
  readonly wall: number;
  /** Whether the cubes of the wall always meet in faces; else edges are enough, which is thinner on slants. */
  readonly faces: boolean;
  /** Ends of this axis that are left open: what lies beyond them counts as inside. */
  readonly open: { readonly axis: Axis; readonly low: boolean; readonly high: boolean } | null;
}

/**
 * The wall of a body: the cells from which the outside can be reached in `wall` steps. Steps go over faces, or over
 * corners too when the wall must be joined by faces. Either way no path over faces leads through the wall.
 */
export function wallOf(body: CellSet, hollow: Hollow): CellSet {
  const n = hollow.wall;
  const { box } = body;
  const o = hollow.open;
  let solid = body;
  if (o && (o.low || o.high)) {
    // The slice at an open end goes on beyond it, as far as the wall could see.
    const min: [number, number, number] = [...box.min],
      size: [number, number, number] = [...box.size];
    if (o.low) min[o.axis] -= n;
    size[o.axis] += (o.low ? n : 0) + (o.high ? n : 0);
    const wide = new CellSet({ min, size });
    const last = boxEnd(box)[o.axis] - 1;
    body.runs((x0, x1, y, z) => {
      wide.addRun(x0, x1, y, z);
      for (let k = 1; k <= n; k++) {
        if (o.axis === 0) {
          if (o.low && x0 === box.min[0]) wide.addRun(x0 - k, x0, y, z);
          if (o.high && x1 === box.min[0] + box.size[0]) wide.addRun(x1, x1 + k, y, z);
          continue;
        }
        const at = o.axis === 1 ? y : z;
        if (o.low && at === box.min[o.axis]) wide.addRun(x0, x1, o.axis === 1 ? y - k : y, o.axis === 2 ? z - k : z);
        if (o.high && at === last) wide.addRun(x0, x1, o.axis === 1 ? y + k : y, o.axis === 2 ? z + k : z);
      }
    });
    solid = wide;
  }
  return body.minus(solid.shrunk(n, hollow.faces));
}
