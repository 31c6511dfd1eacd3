import type { TraceInstance } from './shape';

/** Instances in a leaf, at most. */
const LEAF = 2;
/** Places at which a cut is tried along an axis. */
const BINS = 12;

/**
 * Boxes around boxes around instances, so that a ray looks at a few of thousands: a bounding-volume tree, cut where the surface
 * area heuristic says (MacDonald & Booth 1990, binned after Wald 2007). Node n has its box at 6n (lowest, highest), and
 * either two children at `first[n]` and `first[n] + 1`, or `count[n]` instances from `first[n]` on in `order`.
 */
export interface InstanceTree {
  readonly boxes: Float64Array;
  readonly first: Int32Array;
  /** 0 for a node with children. */
  readonly count: Int32Array;
  readonly order: Int32Array;
}

export function instanceTree(instances: readonly TraceInstance[]): InstanceTree {
  const n = instances.length;
  const nodes = Math.max(1, 2 * n);
  const tree = {
    boxes: new Float64Array(nodes * 6),
    first: new Int32Array(nodes),
    count: new Int32Array(nodes),
    order: Int32Array.from({ length: n }, (_, i) => i),
  };
  const lows = Float64Array.from(instances.flatMap((i) => [...i.lo])),
    highs = Float64Array.from(instances.flatMap((i) => [...i.hi]));
  const builder = new Builder(tree, lows, highs);
  builder.build(n);
  return tree;
}

class Builder {
  private used = 1;
  private readonly cost = new Float64Array(BINS);

  constructor(
    private readonly tree: {
      boxes: Float64Array;
      first: Int32Array;
      count: Int32Array;
      order: Int32Array;
    },
    private readonly lows: Float64Array,
    private readonly highs: Float64Array,
  ) {}

  build(n: number): void {
    // Node, its first instance and its last: without recursion, since a bad scene may be deep.
    const open: number[][] = [[0, 0, n]];
    for (let next = open.pop(); next; next = open.pop()) {
      const [node, from, to] = next as [number, number, number];
      this.bound(node, from, to);
      const middle = to - from > LEAF ? this.cut(from, to) : from;
      if (middle === from || middle === to) {
        this.tree.first[node] = from;
        this.tree.count[node] = to - from;
        continue;
      }
      this.tree.first[node] = this.used;
      open.push([this.used, from, middle], [this.used + 1, middle, to]);
      this.used += 2;
    }
  }

  private bound(node: number, from: number, to: number): void {
    const { boxes, order } = this.tree;
    const o = node * 6;
    boxes.fill(Infinity, o, o + 3).fill(-Infinity, o + 3, o + 6);
    for (let k = from; k < to; k++) {
      const i = order[k]! * 3;
      for (let a = 0; a < 3; a++) {
        boxes[o + a] = Math.min(boxes[o + a]!, this.lows[i + a]!);
        boxes[o + 3 + a] = Math.max(boxes[o + 3 + a]!, this.highs[i + a]!);
      }
    }
  }

  private middleOf(k: number, axis: number): number {
    const i = this.tree.order[k]! * 3 + axis;
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
    const { order } = this.tree;
    let left = from,
      right = to;
    while (left < right) {
      if (this.middleOf(left, bestAxis) < bestAt) left++;
      else {
        right--;
        [order[left], order[right]] = [order[right]!, order[left]!];
      }
    }
    return left;
  }

  /** What a cut before each bin would cost: instances on either side times the area of the box around them. */
  private costs(from: number, to: number, axis: number, lo: number, hi: number): void {
    const bins = Array.from({ length: BINS }, () => new Side());
    for (let k = from; k < to; k++) {
      const bin = Math.min(BINS - 1, Math.floor(((this.middleOf(k, axis) - lo) / (hi - lo)) * BINS));
      bins[bin]!.take(this.lows, this.highs, this.tree.order[k]! * 3, 1);
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
