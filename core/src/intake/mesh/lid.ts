import { type Vec3 as Point, cross, dot, length, lerp, normalize, sub } from '../../math';
import { FINE } from './soup';

/** What lids add at a point. */
export interface Share {
  /** Winding numbers, all together. */
  value: number;
  /** How far that is off at most. */
  error: number;
  /** How much it can change within the radius that was asked about. */
  change: number;
}

/**
 * A hole's lid: a fan from a point in its middle to its rim. Seen from afar a piece of the rim is as good as the chord between its ends;
 * how good tells the area between them. So a lid is a tree of chords, and its solid angle costs little more for a long rim than for a
 * short one.
 */
export class Lid {
  readonly apex: Point;
  /** Ends of the piece, where it is and how long: numbers a node. */
  private readonly nodes: Float64Array;
  readonly pieces: number;

  /** @param rim – corners one behind the other, three numbers each; the last meets the first */
  constructor(readonly rim: Float64Array) {
    const n = (this.pieces = rim.length / 3);
    const sum = [0, 0, 0];
    for (let i = 0; i < rim.length; i++) sum[i % 3]! += rim[i]! / n;
    // A little off, so that its spokes go through the middle of no cell.
    this.apex = [Math.round(sum[0]!) + 37, Math.round(sum[1]!) + 11, Math.round(sum[2]!) + 23];
    this.nodes = new Float64Array((2 * n - 1) * STRIDE);
    this.build(0, 0, n);
  }

  /** How far its rim reaches from its middle. */
  get radius(): number {
    let most = 0;
    for (let i = 0; i < this.rim.length; i += 3)
      most = Math.max(most, Math.hypot(...[0, 1, 2].map((a) => this.rim[i + a]! - this.apex[a]!)));
    return most;
  }

  /** Nodes stand before those below them: the first half right behind, the second behind all of that. */
  private build(node: number, from: number, to: number): void {
    const { rim, nodes, apex } = this,
      o = node * STRIDE,
      n = rim.length / 3;
    const corner = (i: number): Point => [rim[(i % n) * 3]!, rim[(i % n) * 3 + 1]!, rim[(i % n) * 3 + 2]!];
    const [a, b] = [corner(from), corner(to)];
    nodes.set([...a, ...b], o + A);
    if (to - from === 1) {
      nodes.set([0, ...middle(a, b), dist(a, b) / 2, dist(a, b), 0, 0, 0, 0], o + AREA);
      return;
    }
    const half = (from + to) >> 1,
      second = node + 2 * (half - from);
    this.build(node + 1, from, half);
    this.build(second, half, to);
    const [p, q] = [(node + 1) * STRIDE, second * STRIDE];
    const m = corner(half);
    const area = nodes[p + AREA]! + nodes[q + AREA]! + triangle(a, m, b);
    const c = middle(center(nodes, p), center(nodes, q)),
      r = Math.max(dist(c, center(nodes, p)) + nodes[p + RADIUS]!, dist(c, center(nodes, q)) + nodes[q + RADIUS]!);
    const normal = normalize(cross(sub(b, apex), sub(a, apex)));
    let high = 0;
    for (let i = from; i <= to; i++) high = Math.max(high, Math.abs(dot(normal, sub(corner(i), apex))));
    nodes.set([area, ...c, r, nodes[p + LONG]! + nodes[q + LONG]!, ...normal, high + 1], o + AREA);
  }

  /** Adds its winding number at a point. @param radius – how far from there the change is wanted; @param within – by how much a chord may be off, 0 for none */
  add(to: Share, p: Point, radius: number, within: number): void {
    SHARE.error = SHARE.change = TURNED.imaginary = TURNED.turns = 0;
    TURNED.real = 1;
    this.node(0, this.pieces, p, radius, within * 4 * Math.PI);
    to.value += Math.atan2(TURNED.imaginary, TURNED.real) / (2 * Math.PI) + TURNED.turns;
    to.error += SHARE.error;
    to.change += (SHARE.change * radius) / (4 * Math.PI);
  }

  private node(node: number, count: number, p: Point, radius: number, within: number): void {
    const { nodes } = this,
      o = node * STRIDE;
    const x = nodes[o + CENTER]! - p[0],
      y = nodes[o + CENTER + 1]! - p[1],
      z = nodes[o + CENTER + 2]! - p[2];
    const away = Math.sqrt(x * x + y * y + z * z) - nodes[o + RADIUS]!;
    if (count > 1) {
      const area = nodes[o + AREA]!;
      const fine = within === 0 || away <= radius || area > within * away * away || this.isBetween(o, p);
      if (fine) {
        const first = count >> 1;
        this.node(node + 1, first, p, radius, within);
        this.node(node + 2 * first, count - first, p, radius, within);
        return;
      }
      SHARE.error += area / (4 * Math.PI * away * away);
    }
    this.turn(o, p);
    if (radius > 0) {
      const near = (count > 1 ? away : this.distance(o, p)) - radius;
      SHARE.change += near <= 0 ? Infinity : nodes[o + LONG]! / (near * near);
    }
  }

  /** Whether a point may lie between a chord's triangle and those of the pieces that it stands for. */
  private isBetween(o: number, p: Point): boolean {
    const { nodes, apex } = this;
    return (
      Math.abs(
        nodes[o + NORMAL]! * (p[0] - apex[0]) +
          nodes[o + NORMAL + 1]! * (p[1] - apex[1]) +
          nodes[o + NORMAL + 2]! * (p[2] - apex[2]),
      ) <= nodes[o + HIGH]!
    );
  }

  /** Adds half the solid angle of the triangle from the apex, from the end of the piece to its beginning (Van Oosterom and Strackee 1983). */
  private turn(o: number, p: Point): void {
    const { nodes, apex } = this;
    const ax = apex[0] - p[0],
      ay = apex[1] - p[1],
      az = apex[2] - p[2],
      bx = nodes[o + B]! - p[0],
      by = nodes[o + B + 1]! - p[1],
      bz = nodes[o + B + 2]! - p[2],
      cx = nodes[o + A]! - p[0],
      cy = nodes[o + A + 1]! - p[1],
      cz = nodes[o + A + 2]! - p[2];
    let det = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
    if (det === 0) det = besides(ax, ay, az, bx, by, bz, cx, cy, cz);
    const la = Math.sqrt(ax * ax + ay * ay + az * az),
      lb = Math.sqrt(bx * bx + by * by + bz * bz),
      lc = Math.sqrt(cx * cx + cy * cy + cz * cz);
    turnBy(
      la * lb * lc +
        (ax * bx + ay * by + az * bz) * lc +
        (bx * cx + by * cy + bz * cz) * la +
        (cx * ax + cy * ay + cz * az) * lb,
      det,
    );
  }

  private distance(o: number, p: Point): number {
    const { nodes } = this;
    const bx = nodes[o + A]! - p[0],
      by = nodes[o + A + 1]! - p[1],
      bz = nodes[o + A + 2]! - p[2],
      dx = nodes[o + B]! - p[0] - bx,
      dy = nodes[o + B + 1]! - p[1] - by,
      dz = nodes[o + B + 2]! - p[2] - bz;
    const long = dx * dx + dy * dy + dz * dz;
    const t = long === 0 ? 0 : Math.min(1, Math.max(0, -(bx * dx + by * dy + bz * dz) / long));
    return Math.sqrt((bx + t * dx) ** 2 + (by + t * dy) ** 2 + (bz + t * dz) ** 2);
  }
}

const SHARE = { error: 0, change: 0 };

/** A sum of angles as a number of the complex plane, which is turned by each, and how often that went round: no arc tangents are needed. */
const TURNED = { real: 1, imaginary: 0, turns: 0 };
const isBelow = (v: number): boolean => v < 0 || Object.is(v, -0);
function turnBy(x: number, y: number): void {
  const { real, imaginary } = TURNED;
  const long = Math.abs(x) + Math.abs(y);
  if (long === 0) return;
  // About as long as it was; what is lost is made up for before it is nothing.
  const size = (Math.abs(real) + Math.abs(imaginary) < 1e-100 ? 1e100 : 1) / long;
  const re = (real * x - imaginary * y) * size,
    im = (real * y + imaginary * x) * size;
  const below = isBelow(imaginary);
  if (below === isBelow(y) && below !== isBelow(im)) TURNED.turns += below ? -1 : 1;
  TURNED.real = re;
  TURNED.imaginary = im;
}

/** Where what stands in a node. */
const [A, B, AREA, CENTER, RADIUS, LONG, NORMAL, HIGH, STRIDE] = [0, 3, 6, 7, 10, 11, 12, 15, 16] as const;

/** On the plane of a triangle: the side of it a little along x, and much less along y and z. A zero with that sign. */
function besides(
  ...[ax, ay, az, bx, by, bz, cx, cy, cz]: [number, number, number, number, number, number, number, number, number]
): number {
  const n = cross([bx - ax, by - ay, bz - az], [cx - ax, cy - ay, cz - az]);
  // Farther along the normal less of the determinant is left.
  return (n.find((v) => v !== 0) ?? 0) > 0 ? -0 : 0;
}

const dist = (a: Point, b: Point): number => length(sub(a, b));
const middle = (a: Point, b: Point): Point => lerp(a, b, 0.5);
const triangle = (a: Point, b: Point, c: Point): number => length(cross(sub(b, a), sub(c, a))) / 2;
const center = (nodes: Float64Array, o: number): Point => [
  nodes[o + CENTER]!,
  nodes[o + CENTER + 1]!,
  nodes[o + CENTER + 2]!,
];

/** Whether a lid is smaller than an opening of cubes could be. */
export const isSmall = (lid: Lid): boolean => lid.radius < 1.5 * FINE;
