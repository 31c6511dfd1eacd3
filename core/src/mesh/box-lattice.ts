import type { Vec3 } from '../math';
import type { Space } from '../voxel';
import type { Turn } from './slopes';
import { Sums } from './sums';

/** A box of a lattice's own cells. */
export interface Span {
  readonly lattice: BoxLattice;
  readonly lo: [number, number, number];
  readonly hi: [number, number, number];
}

/** A box anywhere: its middle and edges in cubes of the body's lattice, and how it is turned about its middle. */
export interface CoverBox {
  readonly middle: Vec3;
  readonly size: Vec3;
  readonly turn: Turn | null;
}

/** Cells that boxes grow along, straight as a body's own or turned about an axis. */
export interface BoxLattice {
  readonly size: readonly [number, number, number];
  /** The own cell in which the middle of a body's cell lies. */
  holding(at: number): [number, number, number];
  /** Nothing may stand on them. */
  readonly forbidden: Sums;
  /** The farthest point of a box of the body's cells from a span, squared. */
  farthest(span: Span, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): number;
  /** What of the body may be within `t` of a span: from `lo` to before `hi`, not clipped. */
  reach(span: Span, t: number): { readonly lo: Vec3; readonly hi: Vec3 };
  /** Calls for each of the body's cells all of whose points are within `t` of a span, with the square of the farthest. */
  eachNear(span: Span, t: number, visit: (at: number, far: number) => void): void;
  /** Calls for each of the body's cells of which a span holds some. */
  eachMet(span: Span, visit: (at: number) => void): void;
  box(span: Span): CoverBox;
}

/** The largest span around a cell that holds nothing forbidden, grown along the axes in an order, each way as far as it goes; null where nothing may stand. */
export function grown(lattice: BoxLattice, cell: readonly number[], order: readonly number[]): Span | null {
  const { forbidden, size } = lattice;
  const lo: [number, number, number] = [cell[0]!, cell[1]!, cell[2]!],
    hi: [number, number, number] = [cell[0]! + 1, cell[1]! + 1, cell[2]! + 1];
  if (forbidden.sum(lo, hi) !== 0) return null;
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
  return { lattice, lo, hi };
}

/** How far the farthest point of one stretch is from another. */
const beyond = (from: number, to: number, lo: number, hi: number): number => {
  const before = lo - from,
    after = to - hi;
  return before > 0 ? (before > after ? before : after) : after > 0 ? after : 0;
};

/** The body's own cells. */
export class StraightLattice implements BoxLattice {
  readonly size: Space['size'];
  readonly forbidden: Sums;

  /** @param forbidden – 1 where no box may stand */
  constructor(
    private readonly space: Space,
    forbidden: Uint8Array,
  ) {
    this.size = space.size;
    this.forbidden = new Sums(forbidden, space.size);
  }
  holding(at: number): [number, number, number] {
    const { size, strides } = this.space;
    return [at % size[0], Math.floor(at / strides[1]) % size[1], Math.floor(at / strides[2])];
  }
  farthest({ lo, hi }: Span, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): number {
    const dx = beyond(x0, x1, lo[0], hi[0]),
      dy = beyond(y0, y1, lo[1], hi[1]),
      dz = beyond(z0, z1, lo[2], hi[2]);
    return dx * dx + dy * dy + dz * dz;
  }
  reach({ lo, hi }: Span, t: number): { lo: Vec3; hi: Vec3 } {
    const n = Math.floor(t);
    return { lo: [lo[0] - n, lo[1] - n, lo[2] - n], hi: [hi[0] + n, hi[1] + n, hi[2] + n] };
  }
  eachNear(span: Span, t: number, visit: (at: number, far: number) => void): void {
    const { size, strides } = this.space,
      { lo, hi } = span,
      n = Math.floor(t);
    for (let z = Math.max(0, lo[2] - n); z < Math.min(size[2], hi[2] + n); z++) {
      const dz = beyond(z, z + 1, lo[2], hi[2]);
      for (let y = Math.max(0, lo[1] - n); y < Math.min(size[1], hi[1] + n); y++) {
        const dy = beyond(y, y + 1, lo[1], hi[1]),
          flat = dz * dz + dy * dy;
        if (flat > t * t) continue;
        const wide = Math.floor(Math.sqrt(t * t - flat)),
          row = y * strides[1] + z * strides[2];
        for (let x = Math.max(0, lo[0] - wide); x < Math.min(size[0], hi[0] + wide); x++)
          visit(row + x, flat + beyond(x, x + 1, lo[0], hi[0]) ** 2);
      }
    }
  }
  eachMet({ lo, hi }: Span, visit: (at: number) => void): void {
    const { strides } = this.space;
    for (let z = lo[2]; z < hi[2]; z++)
      for (let y = lo[1]; y < hi[1]; y++)
        for (let x = lo[0]; x < hi[0]; x++) visit(x + y * strides[1] + z * strides[2]);
  }
  box({ lo, hi }: Span): CoverBox {
    const mid = (a: 0 | 1 | 2): number => (lo[a] + hi[a]) / 2,
      long = (a: 0 | 1 | 2): number => hi[a] - lo[a];
    return { middle: [mid(0), mid(1), mid(2)], size: [long(0), long(1), long(2)], turn: null };
  }
}

/**
 * Cells as large as the body's, turned about one of its axes. Its own axes are `u` and `v` across that axis and `w` along it.
 * One of them is forbidden as soon as it shares any point with a cell that is.
 */
export class TurnedLattice implements BoxLattice {
  readonly size: readonly [number, number, number];
  readonly forbidden: Sums;
  private readonly cos: number;
  private readonly sin: number;
  /** The body's axes that are turned, in turn. */
  private readonly a: number;
  private readonly b: number;
  /** Where its low corner lies, in its own directions from the body's. */
  private readonly u0: number;
  private readonly v0: number;

  constructor(
    private readonly space: Space,
    forbidden: Uint8Array,
    private readonly turn: Turn,
  ) {
    const { size, strides } = space,
      { axis, angle } = turn;
    this.a = (axis + 1) % 3;
    this.b = (axis + 2) % 3;
    [this.cos, this.sin] = [Math.cos(angle), Math.sin(angle)];
    const [na, nb, nw] = [size[this.a]!, size[this.b]!, size[axis]];
    // A turn of less than a right angle: the low u is at the low corner, the low v at the far end of `a`.
    this.u0 = 0;
    this.v0 = -this.sin * na;
    const [nu, nv] = [Math.ceil(this.cos * na + this.sin * nb), Math.ceil(this.sin * na + this.cos * nb)];
    this.size = [nu, nv, nw];
    const own = new Uint8Array(nu * nv * nw).fill(1);
    for (let v = 0; v < nv; v++)
      for (let u = 0; u < nu; u++) {
        const met = this.met(u, u + 1, v, v + 1);
        if (met === null) continue;
        for (let w = 0; w < nw; w++) {
          let bad = 0;
          for (const at of met) bad |= forbidden[at + w * strides[axis]]!;
          own[u + nu * (v + nv * w)] = bad;
        }
      }
    this.forbidden = new Sums(own, this.size);
  }

  private uOf(a: number, b: number): number {
    return this.cos * a + this.sin * b - this.u0;
  }
  private vOf(a: number, b: number): number {
    return this.cos * b - this.sin * a - this.v0;
  }
  /** The square, in the body's directions, around a rectangle of its own. */
  private around(u0: number, u1: number, v0: number, v1: number): { a0: number; a1: number; b0: number; b1: number } {
    const { cos, sin } = this,
      at = (u: number, v: number): [number, number] => [
        cos * (u + this.u0) - sin * (v + this.v0),
        sin * (u + this.u0) + cos * (v + this.v0),
      ];
    // Which corner is outermost which way follows from the turn being less than a right angle.
    return { a0: at(u0, v1)[0], a1: at(u1, v0)[0], b0: at(u0, v0)[1], b1: at(u1, v1)[1] };
  }
  /** The body's cells across the axis of which a rectangle of its own holds some; null when it reaches out of the body. */
  private met(u0: number, u1: number, v0: number, v1: number): number[] | null {
    const { size, strides } = this.space,
      { a0, a1, b0, b1 } = this.around(u0, u1, v0, v1);
    const tiny = 1e-9,
      // What a square of the body is wide, seen along the turned axes.
      half = (this.cos + this.sin) / 2;
    if (a0 < -tiny || b0 < -tiny || a1 > size[this.a]! + tiny || b1 > size[this.b]! + tiny) return null;
    const out: number[] = [];
    for (let b = Math.max(0, Math.floor(b0 + tiny)); b < Math.min(size[this.b]!, b1 - tiny); b++)
      for (let a = Math.max(0, Math.floor(a0 + tiny)); a < Math.min(size[this.a]!, a1 - tiny); a++) {
        const u = this.uOf(a + 0.5, b + 0.5),
          v = this.vOf(a + 0.5, b + 0.5);
        if (u + half <= u0 + tiny || u - half >= u1 - tiny || v + half <= v0 + tiny || v - half >= v1 - tiny) continue;
        out.push(a * strides[this.a as 0 | 1 | 2] + b * strides[this.b as 0 | 1 | 2]);
      }
    return out;
  }

  holding(at: number): [number, number, number] {
    const { size, strides } = this.space;
    const p = [at % size[0], Math.floor(at / strides[1]) % size[1], Math.floor(at / strides[2])];
    const [a, b] = [p[this.a]! + 0.5, p[this.b]! + 0.5];
    return [Math.floor(this.uOf(a, b)), Math.floor(this.vOf(a, b)), p[this.turn.axis]!];
  }
  /** The farthest corner of a rectangle of the body across the axis, squared: distance from a box is convex. */
  private across({ lo, hi }: Span, a0: number, a1: number, b0: number, b1: number): number {
    const { cos, sin, u0, v0 } = this,
      [l0, h0, l1, h1] = [lo[0], hi[0], lo[1], hi[1]];
    let most = 0;
    for (let c = 0; c < 4; c++) {
      const a = c & 1 ? a1 : a0,
        b = c & 2 ? b1 : b0,
        u = cos * a + sin * b - u0,
        v = cos * b - sin * a - v0;
      const du = u < l0 ? l0 - u : u > h0 ? u - h0 : 0,
        dv = v < l1 ? l1 - v : v > h1 ? v - h1 : 0,
        far = du * du + dv * dv;
      if (far > most) most = far;
    }
    return most;
  }
  farthest(span: Span, x0: number, y0: number, z0: number, x1: number, y1: number, z1: number): number {
    const { lo, hi } = span;
    switch (this.turn.axis) {
      case 0:
        return this.across(span, y0, y1, z0, z1) + beyond(x0, x1, lo[2], hi[2]) ** 2;
      case 1:
        return this.across(span, z0, z1, x0, x1) + beyond(y0, y1, lo[2], hi[2]) ** 2;
      case 2:
        return this.across(span, x0, x1, y0, y1) + beyond(z0, z1, lo[2], hi[2]) ** 2;
    }
  }
  reach({ lo, hi }: Span, t: number): { lo: Vec3; hi: Vec3 } {
    const { a0, a1, b0, b1 } = this.around(lo[0], hi[0], lo[1], hi[1]);
    const out = { lo: [0, 0, 0] as [number, number, number], hi: [0, 0, 0] as [number, number, number] };
    [out.lo[this.a], out.hi[this.a]] = [Math.floor(a0 - t), Math.ceil(a1 + t)];
    [out.lo[this.b], out.hi[this.b]] = [Math.floor(b0 - t), Math.ceil(b1 + t)];
    [out.lo[this.turn.axis], out.hi[this.turn.axis]] = [lo[2] - Math.floor(t), hi[2] + Math.floor(t)];
    return out;
  }
  eachNear(span: Span, t: number, visit: (at: number, far: number) => void): void {
    const { size, strides } = this.space,
      { a, b } = this,
      axis = this.turn.axis,
      { lo, hi } = this.reach(span, t);
    for (let j = Math.max(0, lo[b]!); j < Math.min(size[b]!, hi[b]!); j++)
      for (let i = Math.max(0, lo[a]!); i < Math.min(size[a]!, hi[a]!); i++) {
        const flat = this.across(span, i, i + 1, j, j + 1);
        if (flat > t * t) continue;
        const wide = Math.floor(Math.sqrt(t * t - flat)),
          row = i * strides[a as 0 | 1 | 2] + j * strides[b as 0 | 1 | 2];
        for (let w = Math.max(0, span.lo[2] - wide); w < Math.min(size[axis], span.hi[2] + wide); w++)
          visit(row + w * strides[axis], flat + beyond(w, w + 1, span.lo[2], span.hi[2]) ** 2);
      }
  }
  eachMet({ lo, hi }: Span, visit: (at: number) => void): void {
    const stride = this.space.strides[this.turn.axis];
    for (const at of this.met(lo[0], hi[0], lo[1], hi[1]) ?? [])
      for (let w = lo[2]; w < hi[2]; w++) visit(at + w * stride);
  }
  box({ lo, hi }: Span): CoverBox {
    const { a0, a1, b0, b1 } = this.around(lo[0], hi[0], lo[1], hi[1]);
    const middle: [number, number, number] = [0, 0, 0],
      size: [number, number, number] = [0, 0, 0],
      axis = this.turn.axis;
    [middle[this.a], middle[this.b], middle[axis]] = [(a0 + a1) / 2, (b0 + b1) / 2, (lo[2] + hi[2]) / 2];
    [size[this.a], size[this.b], size[axis]] = [hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]];
    return { middle, size, turn: this.turn };
  }
}
