import { KeyTable } from './key-table';
import type { Soup } from './soup';

/** A piece of a rim: from one corner to the other, so many times. */
interface Rim {
  readonly a: number;
  readonly b: number;
  readonly times: number;
}

/**
 * Rims of the holes of a body: pieces of edges along which more triangles run one way than the other, one behind the other. Where a long
 * edge meets several short ones on the same line they cancel. What is left closes in itself.
 *
 * @returns corners of each, three numbers each; the last meets the first
 */
export function holesOf(soup: Soup): Float64Array[] {
  return loops(onLines(soup, openEdges(soup))).map((of) =>
    Float64Array.from(of.flatMap((v) => [soup.points[v * 3]!, soup.points[v * 3 + 1]!, soup.points[v * 3 + 2]!])),
  );
}

/** How long all rims are together. */
export function rimLength(soup: Soup): number {
  const { points } = soup;
  return onLines(soup, openEdges(soup)).reduce(
    (sum, { a, b, times }) =>
      sum + times * Math.hypot(...[0, 1, 2].map((k) => points[b * 3 + k]! - points[a * 3 + k]!)),
    0,
  );
}

function openEdges({ triangles, points }: Soup): Rim[] {
  const n = triangles.length,
    corners = points.length / 3,
    table = new KeyTable(n),
    edges: number[] = [],
    net = new Int32Array(n);
  for (let i = 0; i < n; i++) {
    const a = triangles[i]!,
      b = triangles[i % 3 === 2 ? i - 2 : i + 1]!;
    const before = table.size,
      at = table.place(a < b ? a * corners + b : b * corners + a);
    if (at === before) edges.push(Math.min(a, b), Math.max(a, b));
    net[at]! += a < b ? 1 : -1;
  }
  const out: Rim[] = [];
  for (let e = 0; e < table.size; e++) {
    const times = net[e]!;
    if (times > 0) out.push({ a: edges[e * 2]!, b: edges[e * 2 + 1]!, times });
    if (times < 0) out.push({ a: edges[e * 2 + 1]!, b: edges[e * 2]!, times: -times });
  }
  return out;
}

const gcd = (a: number, b: number): number => (b === 0 ? Math.abs(a) : gcd(b, a % b));

/** Pieces that lie on one line cancel where they cover each other in opposite ways. */
function onLines({ points }: Soup, rims: readonly Rim[]): Rim[] {
  const lines = new Map<string, Rim[]>();
  for (const r of rims) {
    const p = [0, 1, 2].map((k) => points[r.a * 3 + k]!),
      d = [0, 1, 2].map((k) => points[r.b * 3 + k]! - p[k]!);
    let g = gcd(gcd(d[0]!, d[1]!), d[2]!);
    if ((d.find((v) => v !== 0) ?? 1) < 0) g = -g;
    const [x, y, z] = d.map((v) => v / g) as [number, number, number];
    // A line is known by its direction and its moment about the origin.
    const moment = [p[1]! * z - p[2]! * y, p[2]! * x - p[0]! * z, p[0]! * y - p[1]! * x];
    const key = `${x} ${y} ${z} ${moment.join(' ')}`;
    let list = lines.get(key);
    if (!list) lines.set(key, (list = []));
    list.push(r);
  }
  const out: Rim[] = [];
  for (const list of lines.values()) {
    if (list.length === 1) out.push(list[0]!);
    else out.push(...swept(points, list));
  }
  return out;
}

function swept(points: Int32Array, list: readonly Rim[]): Rim[] {
  const { a, b } = list[0]!;
  // Along the axis on which the line is longest.
  let axis = 0;
  for (let k = 1; k < 3; k++)
    if (Math.abs(points[b * 3 + k]! - points[a * 3 + k]!) > Math.abs(points[b * 3 + axis]! - points[a * 3 + axis]!))
      axis = k;
  const at = (v: number): number => points[v * 3 + axis]!;
  const change = new Map<number, number>();
  for (const { a: from, b: to, times } of list) {
    change.set(from, (change.get(from) ?? 0) + times);
    change.set(to, (change.get(to) ?? 0) - times);
  }
  const order = [...change.keys()].sort((v, w) => at(v) - at(w));
  const out: Rim[] = [];
  let net = 0;
  order.forEach((v, i) => {
    // What begins here and ends higher counts up, and the other way round.
    net += change.get(v)!;
    const next = order[i + 1];
    if (next === undefined || net === 0) return;
    out.push(net > 0 ? { a: v, b: next, times: net } : { a: next, b: v, times: -net });
  });
  return out;
}

/** As many begin in each corner as end there, so that a walk along them ends where it began. */
function loops(rims: readonly Rim[]): number[][] {
  const next = new Map<number, number[]>();
  for (const { a, b, times } of rims) {
    let list = next.get(a);
    if (!list) next.set(a, (list = []));
    for (let k = 0; k < times; k++) list.push(b);
  }
  const out: number[][] = [];
  for (const [start, list] of next)
    while (list.length > 0) {
      const loop = [start];
      for (let at = list.pop()!; at !== start; at = next.get(at)!.pop()!) loop.push(at);
      out.push(loop);
    }
  return out;
}
