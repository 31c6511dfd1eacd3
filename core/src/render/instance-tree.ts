import type { RayGrid } from './ray-grid';
import type { TraceInstance } from './shape';

/** Places at which a cut is tried along an axis. */
const BINS = 12;

/**
 * Boxes around boxes around instances, so that a ray looks at a few of thousands: a bounding-volume tree, cut where the surface
 * area heuristic says (MacDonald & Booth 1990, binned after Wald 2007), then two levels of it put together in one, so that a
 * node has four children (Dammertz, Hanika & Keller 2008): half the steps down, each waiting for memory once. A ray
 * through 5,000 placements looks at 8 nodes where it looked at 18 of pairs. Mispredicted branches cost most: the two ways across the
 * ground are asked first.
 *
 * Node n has the boxes of its children at 24n: four lowest x, four lowest y, four lowest z, then the highest likewise, a little
 * wider than exact. (Single precision is half the memory, but every number of it has to be made double again: slower.) Its children are `links[4n + k]`: a node, or for a leaf −1 − its place among the
 * leaves. Where there is none the box is turned inside out, which no ray meets.
 */
export interface InstanceTree {
  readonly boxes: Float64Array;
  readonly links: Int32Array;
  /** The instance of each leaf; leaves that are near stand near each other. */
  readonly order: Int32Array;
  /** The cells of each leaf's instance. */
  readonly grids: readonly RayGrid[];
  /** World → lattice of the instance of each leaf: three columns of the turn and the shift, 12 numbers. */
  readonly toLocal: Float64Array;
}

/** Children of a node. */
export const WIDE = 4;

export function instanceTree(instances: readonly TraceInstance[]): InstanceTree {
  const n = instances.length;
  const pairs = { boxes: new Float64Array(Math.max(1, 2 * n) * 6), links: new Int32Array(Math.max(1, 2 * n)) };
  const lows = Float64Array.from(instances.flatMap((i) => [...i.lo])),
    highs = Float64Array.from(instances.flatMap((i) => [...i.hi]));
  if (n > 0) new Builder(pairs, lows, highs).build(n);
  return widened(pairs, instances);
}

/** A tree of pairs as one of four children a node, its leaves numbered as they are come to. */
function widened(pairs: Pick<InstanceTree, 'boxes' | 'links'>, instances: readonly TraceInstance[]): InstanceTree {
  const n = instances.length;
  const boxes: number[] = [],
    links: number[] = [];
  const order = new Int32Array(n),
    toLocal = new Float64Array(n * 12);
  const grids: RayGrid[] = [];
  let leaves = 0;
  const area = (node: number): number => {
    const [x, y, z] = [0, 1, 2].map((a) => pairs.boxes[node * 6 + 3 + a]! - pairs.boxes[node * 6 + a]!) as [
      number,
      number,
      number,
    ];
    return x * y + y * z + z * x;
  };
  const leaf = (instance: number): number => {
    const m = instances[instance]!.toLocal;
    for (let column = 0; column < 4; column++)
      toLocal.set(m.subarray(column * 4, column * 4 + 3), leaves * 12 + column * 3);
    order[leaves] = instance;
    grids.push(instances[instance]!.shape.grid);
    return -1 - leaves++;
  };
  const newNode = (): number => {
    for (let i = 0; i < 12; i++) boxes.push(Infinity);
    for (let i = 0; i < 12; i++) boxes.push(-Infinity);
    return links.push(0, 0, 0, 0) / WIDE - 1;
  };
  const root = newNode();
  // Without recursion, since a bad scene may be deep.
  const open: [pair: number, node: number][] = n > 0 ? [[0, root]] : [];
  for (let next = open.pop(); next; next = open.pop()) {
    const [pair, node] = next;
    const children = [pair];
    // The widest child gives way to its own two, until there are four.
    for (;;) {
      const inner = children.filter((c) => pairs.links[c]! >= 0);
      if (inner.length === 0 || children.length === WIDE) break;
      const widest = inner.reduce((a, b) => (area(b) > area(a) ? b : a));
      children.splice(children.indexOf(widest), 1, pairs.links[widest]!, pairs.links[widest]! + 1);
    }
    children.forEach((c, k) => {
      for (let a = 0; a < 6; a++) boxes[node * 24 + a * WIDE + k] = pairs.boxes[c * 6 + a]!;
      const link = pairs.links[c]!;
      if (link < 0) links[node * WIDE + k] = leaf(-1 - link);
      else {
        const below = newNode();
        links[node * WIDE + k] = below;
        open.push([c, below]);
      }
    });
  }
  return { boxes: Float64Array.from(boxes), links: Int32Array.from(links), order, grids, toLocal };
}

/** How much wider than exact a box is, so that rounding never cuts anything off. */
const SLACK = 2 ** -23;

class Builder {
  private used = 1;
  private readonly cost = new Float64Array(BINS);
  private readonly order: Int32Array;

  constructor(
    private readonly tree: Pick<InstanceTree, 'boxes' | 'links'>,
    private readonly lows: Float64Array,
    private readonly highs: Float64Array,
  ) {
    this.order = Int32Array.from({ length: lows.length / 3 }, (_, i) => i);
  }

  build(n: number): void {
    // Node, its first instance and its last: without recursion, since a bad scene may be deep.
    const open: [node: number, from: number, to: number][] = [[0, 0, n]];
    for (let next = open.pop(); next; next = open.pop()) {
      const [node, from, to] = next;
      this.bound(node, from, to);
      if (to - from === 1) {
        this.tree.links[node] = -1 - this.order[from]!;
        continue;
      }
      const middle = this.cut(from, to);
      this.tree.links[node] = this.used;
      open.push([this.used, from, middle], [this.used + 1, middle, to]);
      this.used += 2;
    }
  }

  private bound(node: number, from: number, to: number): void {
    const { boxes } = this.tree;
    for (let a = 0; a < 3; a++) {
      let lo = Infinity,
        hi = -Infinity;
      for (let k = from; k < to; k++) {
        const i = this.order[k]! * 3 + a;
        lo = Math.min(lo, this.lows[i]!);
        hi = Math.max(hi, this.highs[i]!);
      }
      boxes[node * 6 + a] = lo - Math.abs(lo) * SLACK;
      boxes[node * 6 + 3 + a] = hi + Math.abs(hi) * SLACK;
    }
  }

  private middleOf(k: number, axis: number): number {
    const i = this.order[k]! * 3 + axis;
    return this.lows[i]! + this.highs[i]!;
  }

  /** Puts the instances of a node on two sides of its best cut; gives where the second begins. */
  private cut(from: number, to: number): number {
    let best = Infinity,
      bestAxis = 0,
      bestAt = 0;
    for (let axis = 0; axis < 3; axis++) {
      let lo = Infinity,
        hi = -Infinity;
      for (let k = from; k < to; k++) {
        lo = Math.min(lo, this.middleOf(k, axis));
        hi = Math.max(hi, this.middleOf(k, axis));
      }
      if (!(hi > lo)) continue;
      this.costs(from, to, axis, lo, hi);
      for (let b = 1; b < BINS; b++) {
        if (this.cost[b]! >= best) continue;
        best = this.cost[b]!;
        bestAxis = axis;
        bestAt = lo + ((hi - lo) * b) / BINS;
      }
    }
    // All stand on one spot.
    if (best === Infinity) return (from + to) >> 1;
    const { order } = this;
    let left = from,
      right = to;
    while (left < right) {
      if (this.middleOf(left, bestAxis) < bestAt) left++;
      else {
        right--;
        [order[left], order[right]] = [order[right]!, order[left]!];
      }
    }
    return left === from || left === to ? (from + to) >> 1 : left;
  }

  /** What a cut before each bin would cost: instances on either side times the area of the box around them. */
  private costs(from: number, to: number, axis: number, lo: number, hi: number): void {
    const bins = Array.from({ length: BINS }, () => new Side());
    for (let k = from; k < to; k++) {
      const bin = Math.min(BINS - 1, Math.floor(((this.middleOf(k, axis) - lo) / (hi - lo)) * BINS));
      bins[bin]!.take(this.lows, this.highs, this.order[k]! * 3, 1);
    }
    this.cost.fill(0);
    const left = new Side(),
      right = new Side();
    for (let b = 1; b < BINS; b++) {
      left.join(bins[b - 1]!);
      this.cost[b]! += left.cost;
    }
    for (let b = BINS - 1; b > 0; b--) {
      right.join(bins[b]!);
      this.cost[b]! += right.cost;
    }
  }
}

/** Some instances and the box around them. */
class Side {
  private n = 0;
  private readonly lo = [Infinity, Infinity, Infinity];
  private readonly hi = [-Infinity, -Infinity, -Infinity];

  take(lows: ArrayLike<number>, highs: ArrayLike<number>, o: number, n: number): void {
    this.n += n;
    for (let a = 0; a < 3; a++) {
      this.lo[a] = Math.min(this.lo[a]!, lows[o + a]!);
      this.hi[a] = Math.max(this.hi[a]!, highs[o + a]!);
    }
  }
  join(other: Side): void {
    this.take(other.lo, other.hi, 0, other.n);
  }
  /** Infinite for nothing: such a cut is none. */
  get cost(): number {
    if (this.n === 0) return Infinity;
    const [x, y, z] = [0, 1, 2].map((a) => this.hi[a]! - this.lo[a]!) as [number, number, number];
    return this.n * (x * y + y * z + z * x);
  }
}
