import type { Steps } from '../../math';
import { type Space, spaceOf } from '../../voxel';
import { crossed } from './crossed';
import { meetings } from './columns';
import { Lid, type Share, isSmall } from './lid';
import { holesOf } from './rims';
import { turnedOutward } from './sides';
import { FINE, type Soup } from './soup';

/*
 * Which cells lie inside a body that may have holes: those whose winding number is a half at least (Jacobson, Kavan and Sorkine-Hornung,
 * "Robust inside-outside segmentation using generalized winding numbers", 2013), found in another way than by summing all triangles for
 * each cell. Every hole gets a lid, a fan from a point in its middle. Body and lids together are closed, so their winding number is a
 * whole one, which counting along rows of cells gives exactly. The number of the body alone is that less what the lids add, and that is
 * smooth: over a block of cells away from a lid it changes less than the law of Biot and Savart allows for the rim. Where that cannot
 * change the answer, the block is done; elsewhere it is halved.
 */

/** Steps through triangles and rows for a whole body that take too long. */
const MOST_WORK = 6e9;
/** With more pieces of rims than these, holes that are smaller than an opening of cubes count as closed. */
const FEW_RIMS = 400;
/** By how much each chord of a lid may be off, for large blocks, small ones and cells. */
const [COARSE, FINER, FINEST] = [4e-4, 5e-5, 5e-6];
/** With more than these left it is a mess, and closed by its lids. */
const MOST_RIMS = 20_000;

/** Whether a body is too much to be looked at at all. */
export function isTooMuch({ points, triangles }: Soup): boolean {
  let work = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const long = (a: number): number => {
      const v = [0, 1, 2].map((k) => points[triangles[t + k]! * 3 + a]!);
      return (Math.max(...v) - Math.min(...v)) / FINE + 1;
    };
    work += long(1) * long(2);
  }
  return work > MOST_WORK;
}

/**
 * 1 for every cell of a body's box whose middle lies inside it, or on its surface.
 *
 * @returns with the body as it was understood: turned outward
 */
export function* insideSteps(
  given: Soup,
): Steps<{ readonly cells: Uint8Array; readonly holes: number; readonly soup: Soup }> {
  const soup = turnedOutward(given);
  yield 0.2;
  const space = spaceOf(soup.size);
  const loops = holesOf(soup);
  const rows = new Int16Array(space.count),
    on = new Uint8Array(space.count);
  const { triangles, points } = soup;
  const corner = new Int32Array(9);
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < 9; k++) corner[k] = points[triangles[t + Math.floor(k / 3)]! * 3 + (k % 3)]!;
    countRows(corner, space, rows, on);
    markOn(corner, space, on);
    if (t % 30_000 === 0) yield 0.2 + 0.3 * (t / triangles.length);
  }
  const pieces = loops.reduce((n, l) => n + l.length / 3, 0);
  const lids: Lid[] = [];
  const capped = new Uint8Array(loops.length > 0 ? space.count : 0);
  for (const rim of loops) {
    const lid = new Lid(rim);
    const small = pieces > FEW_RIMS && isSmall(lid);
    eachTriangle(lid, (c) => {
      countRows(c, space, rows, null);
      if (!small) crossed(c, soup.size, (x, y, z) => (capped[x + y * space.strides[1] + z * space.strides[2]] = 1));
    });
    if (!small) lids.push(lid);
  }
  summed(rows, space);
  yield 0.6;
  const cells = on;
  if (lids.length === 0 || lids.reduce((n, l) => n + l.pieces, 0) > MOST_RIMS) {
    for (let i = 0; i < cells.length; i++) if (rows[i] !== 0) cells[i] = 1;
  } else yield* new Blocks(soup.size, space, rows, capped, lids, cells).steps();
  return { cells, holes: loops.length, soup };
}

/**
 * Adds how a row's winding number changes at each triangle it goes through, taken in at the first cell behind, and marks cells whose
 * middle lies on it.
 */
function countRows(corner: Int32Array, space: Space, rows: Int16Array, on: Uint8Array | null): void {
  const [nx, ny, nz] = space.size;
  meetings(corner, 0, ny, nz, (m) => {
    const row = m.u * space.strides[1] + m.v * space.strides[2];
    if (m.middle && on && m.before >= 0 && m.before < nx) on[row + m.before] = 1;
    if (m.owned && m.before < nx) rows[row + Math.max(0, m.before)]! += m.forward ? -1 : 1;
  });
}
function summed(rows: Int16Array, { size: [nx], count }: Space): void {
  for (let start = 0; start < count; start += nx) {
    let sum = 0;
    for (let i = start; i < start + nx; i++) rows[i] = sum += rows[i]!;
  }
}

/** Visits the triangles of a lid: against the body, from each piece's end to its beginning. */
function eachTriangle({ rim, apex }: Lid, visit: (corner: Int32Array) => void): void {
  const corner = new Int32Array(9);
  for (let i = 0; i < rim.length; i += 3) {
    const next = (i + 3) % rim.length;
    for (let a = 0; a < 3; a++) {
      corner[a] = apex[a]!;
      corner[3 + a] = rim[next + a]!;
      corner[6 + a] = rim[i + a]!;
    }
    visit(corner);
  }
}

/** Cells whose middle lies on a triangle, along the other two axes: what is seen from neither side is met there. */
function markOn(corner: Int32Array, space: Space, on: Uint8Array): void {
  for (const axis of [1, 2] as const) {
    const [u, v] = [(axis + 1) % 3, (axis + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
    meetings(corner, axis, space.size[u], space.size[v], (m) => {
      if (m.middle && m.before >= 0 && m.before < space.size[axis])
        on[m.before * space.strides[axis] + m.u * space.strides[u] + m.v * space.strides[v]] = 1;
    });
  }
}

/** Decides blocks of cells, halving them where that cannot be done at once. */
class Blocks {
  private readonly levels: { readonly size: readonly [number, number, number]; readonly capped: Uint8Array }[];

  constructor(
    private readonly size: readonly [number, number, number],
    private readonly space: Space,
    private readonly rows: Int16Array,
    capped: Uint8Array,
    private readonly lids: readonly Lid[],
    private readonly cells: Uint8Array,
  ) {
    // Which blocks of 2, 4, 8, … cells a lid goes through.
    this.levels = [{ size, capped }];
    for (let last = this.levels[0]!; Math.max(...last.size) > 1; this.levels.push(last)) last = halved(last);
  }

  *steps(): Steps<void> {
    const top = this.levels.length - 1;
    const all = this.lids.map((_, i) => i);
    if (top < 3) return this.block(0, 0, 0, top, all, 0, 0);
    const level = top - 3,
      { size } = this.levels[level]!;
    let done = 0;
    for (let z = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++) {
        for (let x = 0; x < size[0]; x++) this.block(x, y, z, level, all, 0, 0);
        yield 0.6 + 0.4 * (++done / (size[1] * size[2]));
      }
  }

  /**
   * @param near – lids that are looked at for each block below anew
   * @param far – what the others add, to within `slack`
   */
  private block(
    x: number,
    y: number,
    z: number,
    level: number,
    near: readonly number[],
    far: number,
    slack: number,
  ): void {
    const { size, capped } = this.levels[level]!;
    if (x >= size[0] || y >= size[1] || z >= size[2]) return;
    if (level === 0) return this.cell(x, y, z, near, far, slack);
    const edge = 2 ** level,
      touched = capped[x + size[0] * (y + size[1] * z)] === 1;
    let known = far,
      loose = slack;
    const all = { value: far, error: slack, change: 0 },
      left: number[] = [];
    const middle = [x, y, z].map((v) => (v + 0.5) * edge * FINE) as [number, number, number];
    // To the middle of the outermost cell.
    const radius = (Math.sqrt(3) / 2) * (edge - 1) * FINE + 1;
    for (const i of near) {
      const one: Share = { value: 0, error: 0, change: 0 };
      this.lids[i]!.add(one, middle, radius, level > 2 ? COARSE : FINER);
      all.value += one.value;
      all.error += one.error;
      all.change += one.change;
      if (one.change + one.error < 0.02 / this.lids.length && !touched) {
        known += one.value;
        loose += one.change + one.error;
      } else left.push(i);
    }
    // Halves decide; all between two of them are alike for a whole winding number.
    const off = Math.abs(all.value - Math.round(all.value));
    if (!touched && 0.5 - off > all.change + all.error + 1e-9) return this.fill(x, y, z, edge, all.value);
    for (let k = 0; k < 8; k++)
      this.block(x * 2 + (k & 1), y * 2 + ((k >> 1) & 1), z * 2 + (k >> 2), level - 1, left, known, loose);
  }

  private fill(x: number, y: number, z: number, edge: number, lids: number): void {
    const { space, rows, cells } = this;
    const [nx, ny, nz] = this.size;
    for (let k = z * edge; k < Math.min(nz, (z + 1) * edge); k++)
      for (let j = y * edge; j < Math.min(ny, (y + 1) * edge); j++) {
        const start = j * space.strides[1] + k * space.strides[2];
        for (let i = start + x * edge; i < start + Math.min(nx, (x + 1) * edge); i++)
          if (Math.abs(rows[i]! - lids) >= 0.5) cells[i] = 1;
      }
  }

  private cell(x: number, y: number, z: number, near: readonly number[], far: number, slack: number): void {
    const at = x + y * this.space.strides[1] + z * this.space.strides[2];
    if (this.cells[at] === 1) return;
    const middle = [x, y, z].map((v) => (v + 0.5) * FINE) as [number, number, number];
    const sum: Share = { value: far, error: slack, change: 0 };
    for (const i of near) this.lids[i]!.add(sum, middle, 0, FINEST);
    let w = Math.abs(this.rows[at]! - sum.value);
    if (sum.error > 0 && Math.abs(w - 0.5) <= sum.error) {
      const exact: Share = { value: 0, error: 0, change: 0 };
      for (const lid of this.lids) lid.add(exact, middle, 0, 0);
      w = Math.abs(this.rows[at]! - exact.value);
    }
    // A hair's breadth for sums of angles, which round.
    if (w >= 0.5 - 1e-9) this.cells[at] = 1;
  }
}

function halved(of: { readonly size: readonly [number, number, number]; readonly capped: Uint8Array }) {
  const [nx, ny, nz] = of.size;
  const size = [(nx + 1) >> 1, (ny + 1) >> 1, (nz + 1) >> 1] as const,
    capped = new Uint8Array(size[0] * size[1] * size[2]);
  for (let z = 0, i = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++, i++)
        if (of.capped[i] === 1) capped[(x >> 1) + size[0] * ((y >> 1) + size[1] * (z >> 1))] = 1;
  return { size, capped };
}
