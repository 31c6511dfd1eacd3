import { type Box, type Steps, finish, seededRandom } from '../math';
import type { VoxelGrid } from '../voxel';
import { type Space, spaceOf, within, withoutCavities } from './cell-space';

/*
 * Few boxes that cover a body and nothing far from it, after trials: cells farther than the tolerance from any cube are forbidden,
 * and a table of sums tells in eight reads whether a box may stand. From a few cubes that nothing covers yet, boxes grow in
 * six orders; the one that covers most is kept, until none is left. Then some that stand near each other are taken away and what they
 * covered is covered anew, many times: whenever that takes no more of them, it stays so.
 * Distances are of the farthest point of a cell, so that the tolerance holds for points, not for cells alone.
 */

/** Cubes to begin from at a time. */
const SEEDS = 8;
/** How often some are covered anew, and how many at a time. */
const ROUNDS = 50,
  ANEW = 4;
/** Cubes a stretch that is counted at once is long. */
const BLOCK = 8;
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
  const cover = new Cover(cells, forbidden, space, tolerance);
  let spans = yield* cover.greedy(cover.uncovered(), 0.3, 0.4);
  for (let round = 0; round < ROUNDS && spans.length > 2; round++) {
    spans = cover.anew(spans);
    yield 0.7 + (0.3 * round) / ROUNDS;
  }
  return cover.needed(spans).map(({ lo, hi }): Box => ({
    min: [lo[0] + content.min[0], lo[1] + content.min[1], lo[2] + content.min[2]],
    size: [hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]],
  }));
}

/** Cubes that wait to be covered, in blocks: of those that lie wholly within something only the number is read. */
class Waiting {
  private readonly blocks: (number[] | undefined)[] = [];
  private readonly across: readonly [number, number, number];
  count: number;

  constructor(
    list: readonly number[],
    private readonly space: Space,
  ) {
    const { size, strides } = space;
    this.across = [Math.ceil(size[0] / BLOCK), Math.ceil(size[1] / BLOCK), Math.ceil(size[2] / BLOCK)];
    for (const at of list) {
      const i = Math.floor((at % size[0]) / BLOCK),
        j = Math.floor((Math.floor(at / strides[1]) % size[1]) / BLOCK),
        k = Math.floor(Math.floor(at / strides[2]) / BLOCK);
      (this.blocks[i + this.across[0] * (j + this.across[1] * k)] ??= []).push(at);
    }
    this.count = list.length;
  }

  /** How many all of whose points are within `t` of a span. */
  near({ lo, hi }: Span, t: number): number {
    const { across } = this,
      most = t * t,
      reach = Math.floor(t);
    const from = (a: 0 | 1 | 2): number => Math.max(0, Math.floor((lo[a] - reach) / BLOCK)),
      to = (a: 0 | 1 | 2): number => Math.min(across[a] - 1, Math.floor((hi[a] - 1 + reach) / BLOCK));
    /** How far the farthest cell of a block is away along an axis. */
    const far = (a: 0 | 1 | 2, block: number): number =>
      Math.max(0, lo[a] - block * BLOCK, (block + 1) * BLOCK - hi[a]);
    let n = 0;
    for (let k = from(2); k <= to(2); k++)
      for (let j = from(1); j <= to(1); j++)
        for (let i = from(0); i <= to(0); i++) {
          const block = this.blocks[i + across[0] * (j + across[1] * k)];
          if (!block || block.length === 0) continue;
          n +=
            far(0, i) ** 2 + far(1, j) ** 2 + far(2, k) ** 2 <= most ? block.length : this.nearIn(block, lo, hi, most);
        }
    return n;
  }
  private nearIn(block: readonly number[], lo: Span['lo'], hi: Span['hi'], most: number): number {
    const { size, strides } = this.space;
    let n = 0;
    for (const c of block) {
      const x = c % size[0],
        y = Math.floor(c / strides[1]) % size[1],
        z = Math.floor(c / strides[2]);
      const dx = x < lo[0] ? lo[0] - x : x >= hi[0] ? x - hi[0] + 1 : 0,
        dy = y < lo[1] ? lo[1] - y : y >= hi[1] ? y - hi[1] + 1 : 0,
        dz = z < lo[2] ? lo[2] - z : z >= hi[2] ? z - hi[2] + 1 : 0;
      if (dx * dx + dy * dy + dz * dz <= most) n++;
    }
    return n;
  }
  /** Forgets those that are covered meanwhile. */
  drop(covers: Uint16Array): void {
    let n = 0;
    for (const block of this.blocks) {
      if (!block) continue;
      let kept = 0;
      for (const c of block) if (covers[c] === 0) block[kept++] = c;
      block.length = kept;
      n += kept;
    }
    this.count = n;
  }
  /** The n-th of those that are left. */
  nth(n: number): number {
    for (const block of this.blocks) {
      if (!block) continue;
      if (n < block.length) return block[n]!;
      n -= block.length;
    }
    throw new RangeError('There are not so many.');
  }
}

/** What covers a body so far. */
class Cover {
  /** How many spans cover each cell. */
  private readonly covers: Uint16Array;
  private readonly random: () => number;

  constructor(
    private readonly cells: Uint8Array,
    private readonly forbidden: Sums,
    private readonly space: Space,
    private readonly t: number,
  ) {
    this.covers = new Uint16Array(space.count);
    this.random = seededRandom(cells.length);
  }

  uncovered(): number[] {
    const out: number[] = [];
    this.cells.forEach((v, at) => v !== 0 && this.covers[at] === 0 && out.push(at));
    return out;
  }
  private cellOf(at: number): number[] {
    const { size, strides } = this.space;
    return [at % size[0], Math.floor(at / strides[1]) % size[1], Math.floor(at / strides[2])];
  }
  private add(span: Span, by: 1 | -1): void {
    eachNear(span, this.t, this.space, (at) => (this.covers[at]! += by));
  }

  /** The span that covers most of what waits, of those that grow from a few of it. */
  private best(waiting: Waiting): Span | null {
    let best: Span | null = null,
      most = 0;
    const tried = new Set<string>();
    for (let s = 0; s < SEEDS; s++) {
      const cell = this.cellOf(waiting.nth(Math.floor(this.random() * waiting.count)));
      for (const order of ORDERS) {
        const span = grown(cell, order, this.forbidden, this.space.size),
          key = `${span.lo.join()} ${span.hi.join()}`;
        if (tried.has(key)) continue;
        tried.add(key);
        const n = waiting.near(span, this.t);
        if (n > most) [best, most] = [span, n];
      }
    }
    return best;
  }

  /** Covers cells, the most at a time. @param most – spans that it may take; it stops before it needs more */
  *greedy(list: readonly number[], from: number, share: number, most = Infinity): Steps<Span[]> {
    const waiting = new Waiting(list, this.space),
      out: Span[] = [];
    while (waiting.count > 0 && out.length < most) {
      const span = this.best(waiting);
      if (!span) break;
      out.push(span);
      this.add(span, 1);
      waiting.drop(this.covers);
      yield from + share * (1 - waiting.count / list.length);
    }
    return out;
  }

  /** Takes some away that stand near each other, and covers anew what they covered; the old ones where that takes more. */
  anew(spans: readonly Span[]): Span[] {
    const middle = ({ lo, hi }: Span): number[] => lo.map((v, i) => (v + hi[i]!) / 2);
    const first = middle(spans[Math.floor(this.random() * spans.length)]!);
    const far = (s: Span): number => middle(s).reduce((n, v, i) => n + Math.abs(v - first[i]!), 0);
    const taken = [...spans].sort((a, b) => far(a) - far(b)).slice(0, ANEW);
    for (const s of taken) this.add(s, -1);
    const bare = new Set<number>();
    for (const s of taken)
      eachNear(s, this.t, this.space, (at) => {
        if (this.cells[at] !== 0 && this.covers[at] === 0) bare.add(at);
      });
    const fresh = finish(this.greedy([...bare], 0, 1, taken.length));
    const whole = [...bare].every((at) => this.covers[at]! > 0);
    const rest = spans.filter((s) => !taken.includes(s));
    if (whole && fresh.length <= taken.length) return [...rest, ...fresh];
    for (const s of fresh) this.add(s, -1);
    for (const s of taken) this.add(s, 1);
    return [...spans];
  }

  /** Without spans that cover nothing which others do not; those that were kept last are looked at first. */
  needed(spans: readonly Span[]): Span[] {
    const kept = [...spans];
    for (let i = kept.length - 1; i >= 0; i--) {
      let alone = false;
      eachNear(kept[i]!, this.t, this.space, (at) => (alone ||= this.cells[at] !== 0 && this.covers[at] === 1));
      if (alone) continue;
      this.add(kept[i]!, -1);
      kept.splice(i, 1);
    }
    return kept;
  }
}
