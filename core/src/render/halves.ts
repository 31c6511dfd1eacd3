/** Something with a box around it that counts for so much. */
export interface Weighed {
  readonly lo: ArrayLike<number>;
  readonly hi: ArrayLike<number>;
  readonly weight: number;
}

/** The diagonal of a box that grows, squared. */
class Reach {
  private readonly lo = [Infinity, Infinity, Infinity];
  private readonly hi = [-Infinity, -Infinity, -Infinity];
  weight = 0;
  add({ lo, hi, weight }: Weighed): number {
    let d = 0;
    for (let a = 0; a < 3; a++) {
      this.lo[a] = Math.min(this.lo[a]!, lo[a]!);
      this.hi[a] = Math.max(this.hi[a]!, hi[a]!);
      d += (this.hi[a]! - this.lo[a]!) ** 2;
    }
    this.weight += weight;
    return d * this.weight;
  }
}

/**
 * Two or more things as two groups that lie together: of all cuts across an axis that with the least weight times the square
 * of the diagonal, so that what lies far apart comes into groups of its own.
 */
export function halves<T extends Weighed>(things: readonly T[]): [T[], T[]] {
  let best = Infinity,
    found: [T[], T[]] | null = null;
  for (let axis = 0; axis < 3; axis++) {
    const middle = (t: T): number => t.lo[axis]! + t.hi[axis]!;
    const sorted = [...things].sort((a, b) => middle(a) - middle(b));
    const behind = new Float64Array(sorted.length);
    const right = new Reach();
    for (let i = sorted.length - 1; i > 0; i--) behind[i] = right.add(sorted[i]!);
    const left = new Reach();
    let at = 0,
      least = Infinity;
    for (let i = 1; i < sorted.length; i++) {
      const cost = left.add(sorted[i - 1]!) + behind[i]!;
      // Of what lies on one spot, half.
      if (cost < least || (cost === least && i <= sorted.length >> 1)) {
        least = cost;
        at = i;
      }
    }
    if (least < best) {
      best = least;
      found = [sorted.slice(0, at), sorted.slice(at)];
    }
  }
  return found!;
}
