import { type Box, type Steps, seededRandom } from '../math';
import type { VoxelGrid } from '../voxel';
import { type Space, spaceOf, within, withoutCavities } from './cell-space';

/*
 * Few boxes that cover a body and nothing far from it, after a trial: cells farther than the tolerance from any cube are forbidden,
 * and a table of sums tells in eight reads whether a box may stand. From a few cubes that nothing covers yet, boxes grow in
 * six orders; the one that covers most is kept, until none is left. What others cover as well goes in the end.
 * Distances are of the farthest point of a cell, so that the tolerance holds for points, not for cells alone.
 */

/** Cubes to begin from at a time. */
const SEEDS = 16;
const ORDERS = [
  [0, 1, 2],
  [0, 2, 1],
  [1, 0, 2],
  [1, 2, 0],
  [2, 0, 1],
  [2, 1, 0],
] as const;

/** Sums over all boxes from the low corner, one longer along each axis. */
class Sums {
  private readonly table: Int32Array;
  private readonly sy: number;
  private readonly sz: number;

  constructor(cells: Uint8Array, { size: [nx, ny, nz] }: Space) {
    this.sy = nx + 1;
    this.sz = (nx + 1) * (ny + 1);
    this.table = new Int32Array(this.sz * (nz + 1));
    let from = 0;
    for (let z = 1; z <= nz; z++)
      for (let y = 1; y <= ny; y++) {
        let row = 0;
        for (let x = 1; x <= nx; x++) {
          const at = x + y * this.sy + z * this.sz;
          row += cells[from++]!;
          this.table[at] =
            row + this.table[at - this.sy]! + this.table[at - this.sz]! - this.table[at - this.sy - this.sz]!;
        }
      }
  }

  /** From `lo` to before `hi`. */
  sum(lo: readonly number[], hi: readonly number[]): number {
    const t = this.table,
      [y0, y1, z0, z1] = [lo[1]! * this.sy, hi[1]! * this.sy, lo[2]! * this.sz, hi[2]! * this.sz];
    const plane = (y: number, z: number): number => t[hi[0]! + y + z]! - t[lo[0]! + y + z]!;
    return plane(y1, z1) - plane(y0, z1) - plane(y1, z0) + plane(y0, z0);
  }
}

interface Span {
  readonly lo: [number, number, number];
  readonly hi: [number, number, number];
}

/** The largest box around a cell that holds nothing forbidden, grown along the axes in an order, each way as far as it goes. */
function grown(cell: readonly number[], order: readonly number[], forbidden: Sums, size: readonly number[]): Span {
  const lo: [number, number, number] = [cell[0]!, cell[1]!, cell[2]!],
    hi: [number, number, number] = [cell[0]! + 1, cell[1]! + 1, cell[2]! + 1];
  for (const axis of order) {
    // Once a box holds something forbidden so do all larger ones: the end is found by halving.
    const least = (end: [number, number, number], most: number, way: 1 | -1): void => {
      let good = end[axis]!,
        bad = most + way;
      while (Math.abs(bad - good) > 1) {
        const middle = (good + bad) >> 1;
        end[axis] = middle;
        if (forbidden.sum(lo, hi) === 0) good = middle;
        else bad = middle;
      }
      end[axis] = good;
    };
    least(hi, size[axis]!, 1);
    least(lo, 0, -1);
  }
  return { lo, hi };
}

/** Calls for each cell whose points are all within `t` of a span. */
function eachNear({ lo, hi }: Span, t: number, { size, strides }: Space, visit: (at: number) => void): void {
  const reach = Math.floor(t);
  const beyond = (v: number, axis: number): number =>
    v < lo[axis]! ? lo[axis]! - v : v >= hi[axis]! ? v - hi[axis]! + 1 : 0;
  for (let z = Math.max(0, lo[2] - reach); z < Math.min(size[2], hi[2] + reach); z++) {
    const dz = beyond(z, 2);
    for (let y = Math.max(0, lo[1] - reach); y < Math.min(size[1], hi[1] + reach); y++) {
      const dy = beyond(y, 1),
        left = t * t - dz * dz - dy * dy;
      if (left < 0) continue;
      const wide = Math.floor(Math.sqrt(left));
      const row = y * strides[1] + z * strides[2];
      for (let x = Math.max(0, lo[0] - wide); x < Math.min(size[0], hi[0] + wide); x++) visit(row + x);
    }
  }
}

/**
 * Few boxes that stand for a body: no point of the body is farther than the tolerance from a box, and no point of a box farther
 * than that from the body, its closed cavities counted in. In pieces; the same for the same grid.
 *
 * @param tolerance – in cubes, 0 or more
 * @returns boxes of cells, those that cover most first; none for an empty grid
 */
export function* boxCoverSteps(grid: VoxelGrid, tolerance: number): Steps<Box[]> {
  const content = grid.contentBox();
  if (!content) return [];
  const space = spaceOf([content.size[0], content.size[1], content.size[2]]);
  const cells = grid.readBox(content);
  const solid = withoutCavities(cells, space);
  yield 0.1;
  const forbidden = new Sums(
    within(solid, space, tolerance).map((v) => 1 - v),
    space,
  );
  yield 0.3;
  const covers = new Uint16Array(space.count);
  const open: number[] = [];
  cells.forEach((v, at) => v !== 0 && open.push(at));
  const all = open.length,
    random = seededRandom(all);
  const spans: Span[] = [];
  const cellOf = (at: number): number[] => [
    at % space.size[0],
    Math.floor(at / space.strides[1]) % space.size[1],
    Math.floor(at / space.strides[2]),
  ];
  const gain = (span: Span): number => {
    let n = 0;
    eachNear(span, tolerance, space, (at) => (n += cells[at] !== 0 && covers[at] === 0 ? 1 : 0));
    return n;
  };
  while (open.length > 0) {
    let best: Span | null = null,
      most = 0;
    const tried = new Set<string>();
    for (let s = 0; s < SEEDS && open.length > 0; s++) {
      const k = Math.floor(random() * open.length);
      // Covered meanwhile: it is dropped, and another is drawn.
      if (covers[open[k]!]! > 0) {
        open[k] = open.at(-1)!;
        open.pop();
        s--;
        continue;
      }
      const cell = cellOf(open[k]!);
      for (const order of ORDERS) {
        const span = grown(cell, order, forbidden, space.size),
          key = `${span.lo.join()} ${span.hi.join()}`;
        if (tried.has(key)) continue;
        tried.add(key);
        const n = gain(span);
        if (n > most) [best, most] = [span, n];
      }
    }
    if (!best) break;
    spans.push(best);
    eachNear(best, tolerance, space, (at) => covers[at]!++);
    yield 0.3 + 0.7 * (1 - open.length / all);
  }
  return needed(spans, cells, covers, space, tolerance).map(({ lo, hi }): Box => ({
    min: [lo[0] + content.min[0], lo[1] + content.min[1], lo[2] + content.min[2]],
    size: [hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]],
  }));
}

/** Without spans that cover nothing which others do not; those that were kept last are looked at first. */
function needed(spans: readonly Span[], cells: Uint8Array, covers: Uint16Array, space: Space, t: number): Span[] {
  const kept = [...spans];
  for (let i = kept.length - 1; i >= 0; i--) {
    let alone = false;
    eachNear(kept[i]!, t, space, (at) => (alone ||= cells[at] !== 0 && covers[at] === 1));
    if (alone) continue;
    eachNear(kept[i]!, t, space, (at) => covers[at]!--);
    kept.splice(i, 1);
  }
  return kept;
}
