import { KeyTable } from './key-table';
import { holesOf, rimLength } from './rims';
import type { Soup } from './soup';

/*
 * Which side of each triangle is outside. Files disagree: some faces are turned, whole bodies are inside out, every face may be there
 * twice, once for each side. Where faces do not close, those that share an edge of exactly two are turned alike, if less stays open
 * then. After that, if the largest body is inside out, all are; another one that is closed and inside out is turned too, unless it lies
 * within one: there it is the wall of a hollow.
 */

/** Turns triangles of a soup in place where they face the wrong way, and leaves out those that are there for both sides. */
export function turnedOutward(soup: Soup): Soup {
  const single = withoutBacks(soup);
  const whole = holesOf(single).length === 0;
  const { sheet, sheets } = whole ? connected(single) : turnedAlike(single);
  turnSheets(single, sheet, sheets);
  return single;
}

/** Of a sheet whose triangles are all there once for each side, one side is enough. */
function withoutBacks(soup: Soup): Soup {
  const { triangles } = soup,
    n = triangles.length / 3,
    count = soup.points.length / 3;
  // Same corners in either order.
  const low = new KeyTable(n),
    key = (t: number): number => {
      const [a, b, c] = [triangles[t * 3]!, triangles[t * 3 + 1]!, triangles[t * 3 + 2]!].sort((x, y) => x - y) as [
        number,
        number,
        number,
      ];
      return low.place(a * count + b) * count + c;
    };
  const keys = Float64Array.from({ length: n }, (_, t) => key(t)),
    table = new KeyTable(n);
  const places = Int32Array.from(keys, (k) => table.place(k));
  if (table.size === n) return soup;
  const first = new Int32Array(table.size).fill(-1),
    both = new Uint8Array(table.size);
  places.forEach((p, t) => {
    if (first[p] === -1) first[p] = t;
    else if (even(triangles, first[p]!) !== even(triangles, t)) both[p] = 1;
  });
  // Only where all that hangs together is doubled: between two bodies that touch, both walls are meant.
  const { sheet, sheets } = connected(soup);
  const doubled = new Uint8Array(sheets).fill(1);
  places.forEach((p, t) => {
    if (both[p] === 0) doubled[sheet[t]!] = 0;
  });
  const kept: number[] = [];
  places.forEach((p, t) => {
    if (doubled[sheet[t]!] === 0 || first[p] === t) kept.push(t);
  });
  return {
    ...soup,
    triangles: Uint32Array.from(kept.flatMap((t) => [triangles[t * 3]!, triangles[t * 3 + 1]!, triangles[t * 3 + 2]!])),
    from: Uint32Array.from(kept, (t) => soup.from[t]!),
    turned: new Uint8Array(kept.length),
  };
}
/** Whether corners stand in the order in which their numbers rise, or turned from it. */
const even = (triangles: Uint32Array, t: number): boolean => {
  const [a, b, c] = [triangles[t * 3]!, triangles[t * 3 + 1]!, triangles[t * 3 + 2]!];
  return (a < b && b < c) || (b < c && c < a) || (c < a && a < b);
};

/** Triangles that share a corner, as one. */
function connected({ triangles, points }: Soup): { sheet: Int32Array; sheets: number } {
  const up = Int32Array.from({ length: points.length / 3 }, (_, i) => i);
  const top = (i: number): number => {
    let at = i;
    while (up[at] !== at) at = up[at] = up[up[at]!]!;
    return at;
  };
  for (let i = 0; i < triangles.length; i += 3) {
    const a = top(triangles[i]!);
    up[top(triangles[i + 1]!)] = a;
    up[top(triangles[i + 2]!)] = a;
  }
  const names = new Int32Array(up.length).fill(-1);
  let sheets = 0;
  const sheet = Int32Array.from({ length: triangles.length / 3 }, (_, t) => {
    const at = top(triangles[t * 3]!);
    if (names[at] === -1) names[at] = sheets++;
    return names[at]!;
  });
  return { sheet, sheets };
}

/** {@link alike}, or as it was where that would leave more of it open: faces that meet by chance say nothing about each other. */
function turnedAlike(soup: Soup): { sheet: Int32Array; sheets: number } {
  const was = soup.triangles.slice(),
    open = rimLength(soup);
  const found = alike(soup);
  if (!soup.turned.includes(1) || rimLength(soup) <= open) return found;
  soup.triangles.set(was);
  soup.turned.fill(0);
  return found;
}

/**
 * Turns triangles to agree with their neighbours, as most of each sheet stands; tells which sheet each is of. Those that agree as they are
 * hold together first; then lots that are against each other are turned, the longer their common edge the sooner. So where two faces meet
 * by chance at an edge of a third, as water does at a bank, what agrees all around stays as it is.
 */
function alike(soup: Soup): { sheet: Int32Array; sheets: number } {
  const n = soup.triangles.length / 3;
  const lots = new Turns(n),
    against: number[] = [];
  for (const [a, b, agree] of pairs(soup))
    if (agree) lots.join(a, b, 0);
    else against.push(a, b);
  const common = new Map<number, number>();
  for (let i = 0; i < against.length; i += 2) {
    const [a, b] = [lots.top(against[i]!), lots.top(against[i + 1]!)];
    if (a === b) continue;
    const key = Math.min(a, b) * n + Math.max(a, b);
    common.set(key, (common.get(key) ?? 0) + 1);
  }
  for (const [key] of [...common].sort((x, y) => y[1] - x[1] || x[0] - y[0]))
    lots.join(Math.floor(key / n), key % n, 1);
  const names = new Int32Array(n).fill(-1),
    members: number[] = [],
    turned: number[] = [];
  const sheet = Int32Array.from({ length: n }, (_, t) => {
    const top = lots.top(t);
    if (names[top] === -1) {
      names[top] = members.length;
      members.push(0);
      turned.push(0);
    }
    const at = names[top]!;
    members[at]!++;
    turned[at]! += lots.parity(t);
    return at;
  });
  for (let t = 0; t < n; t++) {
    const at = sheet[t]!;
    if (lots.parity(t) !== (turned[at]! * 2 > members[at]! ? 1 : 0)) turn(soup, t);
  }
  return { sheet, sheets: members.length };
}

/** Things that stand one way or the other to each other, in lots. */
class Turns {
  private readonly up: Int32Array;
  /** Whether it stands the other way than what is above it. */
  private readonly against: Uint8Array;
  constructor(n: number) {
    this.up = Int32Array.from({ length: n }, (_, i) => i);
    this.against = new Uint8Array(n);
  }
  top(i: number): number {
    const { up, against } = this;
    let at = i;
    for (let above = up[at]!; above !== at; at = above, above = up[at]!) {
      against[at]! ^= against[above]!;
      up[at] = up[above]!;
    }
    return at;
  }
  /** 1 where it stands the other way than the top of its lot. */
  parity(i: number): number {
    let sum = 0;
    for (let at = i; this.up[at] !== at; at = this.up[at]!) sum ^= this.against[at]!;
    return sum;
  }
  join(a: number, b: number, against: number): void {
    const [p, q] = [this.top(a), this.top(b)];
    if (p === q) return;
    this.against[q] = this.parity(a) ^ this.parity(b) ^ against;
    this.up[q] = p;
  }
}

/** Triangles that share an edge which no other has, and whether they run along it in opposite ways, as neighbours of one side do. */
function* pairs({ triangles, points }: Soup): Generator<readonly [number, number, boolean]> {
  const count = triangles.length,
    corners = points.length / 3;
  const table = new KeyTable((count / 3) * 2);
  const edge = Int32Array.from({ length: count }, (_, i) => {
    const [a, b] = ends(triangles, i);
    return table.place(a < b ? a * corners + b : b * corners + a);
  });
  // The two halves of an edge of exactly two triangles; −1 where it has none, −2 where it has more.
  const one = new Int32Array(table.size).fill(-1),
    two = new Int32Array(table.size).fill(-1);
  for (let i = 0; i < count; i++) {
    const e = edge[i]!;
    if (one[e] === -1) one[e] = i;
    else two[e] = two[e] === -1 ? i : -2;
  }
  for (const [e, i] of one.entries()) {
    const j = two[e]!;
    if (j >= 0) yield [Math.floor(i / 3), Math.floor(j / 3), ends(triangles, i)[0] !== ends(triangles, j)[0]];
  }
}

function ends(triangles: Uint32Array, i: number): readonly [number, number] {
  return [triangles[i]!, triangles[i % 3 === 2 ? i - 2 : i + 1]!];
}
function turn({ triangles, turned }: Soup, t: number): void {
  turned[t]! ^= 1;
  const kept = triangles[t * 3 + 1]!;
  triangles[t * 3 + 1] = triangles[t * 3 + 2]!;
  triangles[t * 3 + 2] = kept;
}

interface Sheet {
  readonly of: number[];
  /** Whether every edge has as many triangles one way as the other. */
  closed: boolean;
  volume: number;
  readonly lo: [number, number, number];
  readonly hi: [number, number, number];
}

/** Sheets that are looked into for lying within others, and triangles for each; many more are no hollows of anything. */
const MOST_LOOKS = 2e8;

function turnSheets(soup: Soup, sheet: Int32Array, sheets: number): void {
  const { points, triangles } = soup;
  const all = Array.from({ length: sheets }, (): Sheet => ({
    ...{ of: [], closed: true, volume: 0, lo: [Infinity, Infinity, Infinity], hi: [-Infinity, -Infinity, -Infinity] },
  }));
  sheet.forEach((s, t) => all[s]!.of.push(t));
  for (const t of atOpenEdges(soup)) all[sheet[t]!]!.closed = false;
  for (const s of all) {
    // From a point of its own, so that a sheet with a hole counts as closed from there.
    const middle = [0, 0, 0];
    for (const t of s.of)
      for (let k = 0; k < 3; k++)
        for (let a = 0; a < 3; a++) {
          const v = points[triangles[t * 3 + k]! * 3 + a]!;
          middle[a]! += v / (s.of.length * 3);
          if (v < s.lo[a]!) s.lo[a] = v;
          if (v > s.hi[a]!) s.hi[a] = v;
        }
    for (const t of s.of) s.volume += volumeFrom(soup, t, middle);
  }
  const by = all.toSorted((a, b) => Math.abs(b.volume) - Math.abs(a.volume));
  // The largest is outside in: all are.
  if (by[0] && by[0].volume < 0)
    for (const s of all) {
      for (const t of s.of) turn(soup, t);
      s.volume = -s.volume;
    }
  let looks = 0;
  by.forEach((s, i) => {
    if (s.volume >= 0 || !s.closed) return;
    const around = by
      .slice(0, i)
      .filter((o) => o.volume > 0 && [0, 1, 2].every((a) => o.lo[a]! <= s.lo[a]! && o.hi[a]! >= s.hi[a]!));
    const at = points.subarray(triangles[s.of[0]! * 3]! * 3, triangles[s.of[0]! * 3]! * 3 + 3);
    let inside = 0;
    for (const o of around) {
      looks += o.of.length;
      if (looks > MOST_LOOKS) break;
      for (const t of o.of) inside += solidAngle(soup, t, at);
    }
    if (Math.abs(inside) > 2 * Math.PI) return;
    for (const t of s.of) turn(soup, t);
    s.volume = -s.volume;
  });
}

/** Triangles at edges that have more triangles one way than the other. */
function atOpenEdges({ triangles, points }: Soup): number[] {
  const n = triangles.length,
    corners = points.length / 3,
    table = new KeyTable(n / 2),
    net = new Int32Array(n);
  const edge = Int32Array.from({ length: n }, (_, i) => {
    const [a, b] = ends(triangles, i);
    const at = table.place(a < b ? a * corners + b : b * corners + a);
    net[at]! += a < b ? 1 : -1;
    return at;
  });
  const out: number[] = [];
  edge.forEach((e, i) => net[e] !== 0 && out.push(Math.floor(i / 3)));
  return out;
}

function volumeFrom({ points, triangles }: Soup, t: number, from: readonly number[]): number {
  const at = (k: number, a: number): number => points[triangles[t * 3 + k]! * 3 + a]! - from[a]!;
  return (
    (at(0, 0) * (at(1, 1) * at(2, 2) - at(1, 2) * at(2, 1)) +
      at(0, 1) * (at(1, 2) * at(2, 0) - at(1, 0) * at(2, 2)) +
      at(0, 2) * (at(1, 0) * at(2, 1) - at(1, 1) * at(2, 0))) /
    6
  );
}

/** How much of the view from a point a triangle covers, 4π being all of it; negative seen from behind its face (Van Oosterom and Strackee 1983). */
export function solidAngle({ points, triangles }: Soup, t: number, from: ArrayLike<number>): number {
  const a = triangles[t * 3]! * 3,
    b = triangles[t * 3 + 1]! * 3,
    c = triangles[t * 3 + 2]! * 3;
  const [px, py, pz] = [from[0]!, from[1]!, from[2]!];
  const ax = points[a]! - px,
    ay = points[a + 1]! - py,
    az = points[a + 2]! - pz,
    bx = points[b]! - px,
    by = points[b + 1]! - py,
    bz = points[b + 2]! - pz,
    cx = points[c]! - px,
    cy = points[c + 1]! - py,
    cz = points[c + 2]! - pz;
  const det = ax * (by * cz - bz * cy) + ay * (bz * cx - bx * cz) + az * (bx * cy - by * cx);
  const la = Math.sqrt(ax * ax + ay * ay + az * az),
    lb = Math.sqrt(bx * bx + by * by + bz * bz),
    lc = Math.sqrt(cx * cx + cy * cy + cz * cz);
  const rest =
    la * lb * lc +
    (ax * bx + ay * by + az * bz) * lc +
    (bx * cx + by * cy + bz * cz) * la +
    (cx * ax + cy * ay + cz * az) * lb;
  return 2 * Math.atan2(det, rest);
}
