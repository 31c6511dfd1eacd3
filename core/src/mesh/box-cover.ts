import { type Box, type Steps, type Vec3, finish, seededRandom } from '../math';
import { type BoxLattice, type CoverBox, type Span, StraightLattice, TurnedLattice, grown } from './box-lattice';
import { type Space, type VoxelGrid, distancesSquared, spaceOf, withoutCavities } from '../voxel';
import { slopesOf } from './slopes';

/*
 * Few boxes that cover a body and nothing far from it, after trials: cells farther than the tolerance from any cube are forbidden,
 * and a table of sums tells in eight reads whether a box may stand. From a few cubes that nothing covers yet, boxes grow in
 * six orders; the one that covers most is kept, until none is left. Then some that stand near each other are taken away and what they
 * covered is covered anew, many times: whenever that takes no more of them, it stays so.
 * Where much of a body slopes, boxes grow along lattices turned as it is too: a roof of stairs takes one instead of fourteen (boathouse,
 * tolerance 2: 68 boxes without, 41 with them).
 * Distances are of the farthest point of a cell, so that the tolerance holds for points, not for cells alone.
 */

/** Cubes to begin from at a time. */
const SEEDS = 5;
/** How often some are covered anew, and how many at a time. */
const ROUNDS = 24,
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

/** Boxes that stand for a body. */
export interface BoxCover {
  /** Those that cover most first. */
  readonly boxes: readonly CoverBox[];
  /** How far the farthest point of either is from the other, in cubes. */
  readonly error: number;
}
/** How many cells lattices that are turned may have together: a table of sums takes four bytes for each. */
const MOST_TURNED = 2 ** 25;

/** What boxes must keep near to. */
interface Body {
  readonly space: Space;
  /** 0 where nothing is. */
  readonly cells: Uint8Array;
  /** How far each cell is from it, its closed cavities counted in. */
  readonly away: Float32Array;
}
function bodyOf(grid: VoxelGrid, { min, size }: Box): Body & { readonly solid: Uint8Array } {
  const space = spaceOf([size[0], size[1], size[2]]),
    cells = grid.readBox({ min, size }),
    solid = withoutCavities(cells, space);
  return { space, cells, solid, away: distancesSquared(solid, space) };
}
const moved = ({ boxes, error }: BoxCover, [x, y, z]: Vec3): BoxCover => ({
  boxes: boxes.map((b) => ({ ...b, middle: [b.middle[0] + x, b.middle[1] + y, b.middle[2] + z] })),
  error,
});

/** The one box around all of a grid; none around an empty one. */
export function boxAround(grid: VoxelGrid): BoxCover {
  const content = grid.contentBox();
  if (!content) return { boxes: [], error: 0 };
  const { away, space } = bodyOf(grid, content);
  let far = 0;
  for (const v of away) if (v > far) far = v;
  const [x, y, z] = space.size;
  return moved(
    { boxes: [{ middle: [x / 2, y / 2, z / 2], size: [x, y, z], turn: null }], error: Math.sqrt(far) },
    content.min,
  );
}

/**
 * Few boxes that stand for a body: no point of the body is farther than the tolerance from a box, and no point of a box farther
 * than that from the body, its closed cavities counted in. In pieces; the same for the same grid.
 *
 * @param tolerance – in cubes, 0 or more
 * @returns no boxes for an empty grid
 */
export function* boxCoverSteps(grid: VoxelGrid, tolerance: number): Steps<BoxCover> {
  const content = grid.contentBox();
  if (!content) return { boxes: [], error: 0 };
  const body = bodyOf(grid, content),
    { space, solid } = body;
  yield 0.1;
  const forbidden = new Uint8Array(space.count);
  for (let at = 0; at < space.count; at++) if (body.away[at]! > tolerance * tolerance) forbidden[at] = 1;
  const lattices: BoxLattice[] = [new StraightLattice(space, forbidden)];
  yield 0.15;
  let room = MOST_TURNED;
  // Without tolerance a slope is its steps.
  for (const turn of tolerance < 1 ? [] : slopesOf(solid, space, 4)) {
    const [a, b] = [space.size[(turn.axis + 1) % 3]!, space.size[(turn.axis + 2) % 3]!];
    room -= (a + b) ** 2 * space.size[turn.axis];
    if (room < 0) break;
    lattices.push(new TurnedLattice(space, forbidden, turn));
    yield 0.2;
  }
  yield 0.3;
  const cover = new Cover(body, lattices, tolerance);
  let spans = yield* cover.greedy(cover.uncovered(), 0.3, 0.4);
  for (let round = 0; round < ROUNDS && spans.length > 2; round++) {
    spans = cover.anew(spans);
    yield 0.7 + (0.3 * round) / ROUNDS;
  }
  spans = cover.needed(spans);
  return moved({ boxes: spans.map((s) => s.lattice.box(s)), error: errorOf(body, spans, tolerance) }, content.min);
}

/** The farthest point of either from the other, where neither is farther than a tolerance. */
function errorOf({ space, cells, away }: Body, spans: readonly Span[], t: number): number {
  let most = 0;
  const near = new Float32Array(space.count).fill(Infinity);
  for (const s of spans) {
    s.lattice.eachMet(s, (at) => (most = Math.max(most, away[at]!)));
    s.lattice.eachNear(s, t, (at, far) => (near[at] = Math.min(near[at]!, far)));
  }
  for (let at = 0; at < space.count; at++) if (cells[at] !== 0 && near[at]! > most) most = near[at]!;
  return Math.sqrt(most);
}

/** Cubes that stand near each other, and where; their places packed by eight bits an axis. */
interface Block {
  readonly x: number;
  readonly y: number;
  readonly z: number;
  readonly cells: number[];
}

/** Cubes that wait to be covered, in blocks: of those that lie wholly within something only the number is read. */
class Waiting {
  private readonly blocks: Block[];
  count: number;

  constructor(
    list: readonly number[],
    private readonly space: Space,
  ) {
    const { size, strides } = space,
      found = new Map<number, Block>();
    for (const at of list) {
      const x = at % size[0],
        y = Math.floor(at / strides[1]) % size[1],
        z = Math.floor(at / strides[2]);
      const key = Math.floor(x / BLOCK) | (Math.floor(y / BLOCK) << 8) | (Math.floor(z / BLOCK) << 16);
      let block = found.get(key);
      if (!block) {
        block = { x: x - (x % BLOCK), y: y - (y % BLOCK), z: z - (z % BLOCK), cells: [] };
        found.set(key, block);
      }
      block.cells.push(x | (y << 8) | (z << 16));
    }
    this.blocks = [...found.values()];
    this.count = list.length;
  }

  /** How many all of whose points are within `t` of a span. */
  near(span: Span, t: number): number {
    const { lattice } = span,
      { lo, hi } = lattice.reach(span, t),
      most = t * t;
    let n = 0;
    for (const { x, y, z, cells } of this.blocks) {
      const [x1, y1, z1] = [x + BLOCK, y + BLOCK, z + BLOCK];
      if (x1 <= lo[0] || x >= hi[0] || y1 <= lo[1] || y >= hi[1] || z1 <= lo[2] || z >= hi[2]) continue;
      if (lattice.farthest(span, x, y, z, x1, y1, z1) <= most) {
        n += cells.length;
        continue;
      }
      for (const c of cells) {
        const [i, j, k] = [c & 255, (c >> 8) & 255, c >> 16];
        if (lattice.farthest(span, i, j, k, i + 1, j + 1, k + 1) <= most) n++;
      }
    }
    return n;
  }
  private cell(c: number): number {
    return (c & 255) + ((c >> 8) & 255) * this.space.strides[1] + (c >> 16) * this.space.strides[2];
  }
  /** Forgets those that are covered meanwhile. */
  drop(covers: Uint16Array): void {
    let n = 0,
      left = 0;
    for (const block of this.blocks) {
      const { cells } = block;
      let kept = 0;
      for (const c of cells) if (covers[this.cell(c)] === 0) cells[kept++] = c;
      cells.length = kept;
      n += kept;
      if (kept > 0) this.blocks[left++] = block;
    }
    this.blocks.length = left;
    this.count = n;
  }
  /** The n-th of those that are left. */
  nth(n: number): number {
    for (const { cells } of this.blocks) {
      if (n < cells.length) return this.cell(cells[n]!);
      n -= cells.length;
    }
    throw new RangeError('There are not so many.');
  }
}

/** What covers a body so far. */
class Cover {
  /** How many spans cover each cell. */
  private readonly covers: Uint16Array;
  private readonly random: () => number;
  private readonly space: Space;

  private readonly cells: Uint8Array;

  constructor(
    { cells, space }: Body,
    private readonly lattices: readonly BoxLattice[],
    private readonly t: number,
  ) {
    this.cells = cells;
    this.space = space;
    this.covers = new Uint16Array(space.count);
    this.random = seededRandom(cells.length);
  }

  uncovered(): number[] {
    const out: number[] = [];
    this.cells.forEach((v, at) => v !== 0 && this.covers[at] === 0 && out.push(at));
    return out;
  }
  private add(span: Span, by: 1 | -1): void {
    span.lattice.eachNear(span, this.t, (at) => (this.covers[at]! += by));
  }

  /** The span that covers most of what waits, of those that grow from a few of it. */
  private best(waiting: Waiting): Span | null {
    const found = new Map<string, { span: Span; room: number }>();
    for (let s = 0; s < SEEDS; s++) {
      const seed = waiting.nth(Math.floor(this.random() * waiting.count));
      for (const [i, lattice] of this.lattices.entries()) {
        const cell = lattice.holding(seed);
        for (const order of ORDERS) {
          const span = grown(lattice, cell, order);
          if (!span) break;
          const { lo, hi } = span;
          const room = [0, 1, 2].reduce((n, a) => n * (hi[a]! - lo[a]! + 2 * this.t), 1);
          found.set(`${i} ${lo.join()} ${hi.join()}`, { span, room });
        }
      }
    }
    let best: Span | null = null,
      most = 0;
    // None covers more than there is room for within its reach.
    for (const { span, room } of [...found.values()].sort((a, b) => b.room - a.room)) {
      if (room <= most) break;
      const n = waiting.near(span, this.t);
      if (n > most) [best, most] = [span, n];
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
    const middle = (s: Span): Vec3 => s.lattice.box(s).middle;
    const first = middle(spans[Math.floor(this.random() * spans.length)]!);
    const far = (s: Span): number => middle(s).reduce((n, v, i) => n + Math.abs(v - first[i]!), 0);
    const taken = [...spans].sort((a, b) => far(a) - far(b)).slice(0, ANEW);
    for (const s of taken) this.add(s, -1);
    const bare = new Set<number>();
    for (const s of taken)
      s.lattice.eachNear(s, this.t, (at) => {
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
      kept[i]!.lattice.eachNear(kept[i]!, this.t, (at) => (alone ||= this.cells[at] !== 0 && this.covers[at] === 1));
      if (alone) continue;
      this.add(kept[i]!, -1);
      kept.splice(i, 1);
    }
    return kept;
  }
}
