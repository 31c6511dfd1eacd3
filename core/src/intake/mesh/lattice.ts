import type { MeshShape } from '../../codec';
import type { Vec3 } from '../../math';

/** A lattice of cubes that all faces of a node lie on: cells begin at `from` plus whole multiples of `cell`. */
export interface Lattice {
  readonly cell: number;
  readonly from: Vec3;
  /** Gaps between places of its faces, and how many of them are one cell wide. */
  readonly gaps: number;
  readonly single: number;
}

/** Whether lattices are what cubes leave behind: blocks have lengths in common too, but few of their gaps are one cell. */
export function areCubes(lattices: readonly Lattice[]): boolean {
  const gaps = lattices.reduce((n, l) => n + l.gaps, 0),
    single = lattices.reduce((n, l) => n + l.single, 0);
  return gaps >= 12 && single >= 0.4 * gaps;
}

/** How far a corner may be off the lattice, in cells. */
const OFF = 0.02;
/** Cells along an edge of what can come back. */
const MOST = 1024;

/**
 * Where planes with triangles on them are along each axis; null where a triangle faces along none. Corners within a plane tell nothing:
 * a mesh may be cut up as it likes.
 */
function planes(shapes: readonly MeshShape[]): [number[], number[], number[]] | null {
  const all: [number[], number[], number[]] = [[], [], []];
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  for (const { positions: p, triangles } of shapes)
    for (let i = 0; i < triangles.length; i += 3) {
      const [a, b, c] = [triangles[i]! * 3, triangles[i + 1]! * 3, triangles[i + 2]! * 3];
      const spread: number[] = [];
      for (let k = 0; k < 3; k++) {
        const least = Math.min(p[a + k]!, p[b + k]!, p[c + k]!),
          most = Math.max(p[a + k]!, p[b + k]!, p[c + k]!);
        spread.push(most - least);
        if (least < lo[k]!) lo[k] = least;
        if (most > hi[k]!) hi[k] = most;
      }
      const long = Math.max(...spread),
        flat = spread.map((s) => s <= long * 1e-3);
      const count = flat.filter(Boolean).length;
      if (count === 0) return null;
      // A sliver, flat along two axes, is no face.
      if (count === 1) {
        const k = flat.indexOf(true);
        all[k]!.push((p[a + k]! + p[b + k]! + p[c + k]!) / 3);
      }
    }
  return all.map((list, k) => {
    list.sort((v, w) => v - w);
    const tiny = (hi[k]! - lo[k]!) / 1e5;
    return list.filter((v, i) => i === 0 || v - list[i - 1]! > tiny);
  }) as [number[], number[], number[]];
}

/** The largest length of which all gaps are whole multiples, nearly. */
export function common(gaps: readonly number[], tiny: number): number {
  let g = 0;
  for (const gap of gaps) {
    let [a, b] = [Math.max(g, gap), Math.min(g, gap)];
    while (b > tiny) {
      const rest = a - Math.round(a / b) * b;
      [a, b] = [b, Math.abs(rest)];
    }
    g = a;
  }
  return g;
}

/**
 * The lattice of cubes that a node's faces lie on; null when they lie on none.
 *
 * @param told – the length of a cell where it is known
 */
export function latticeOf(shapes: readonly MeshShape[], told: number | null): Lattice | null {
  const along = planes(shapes);
  if (!along || along.some((p) => p.length < 2)) return null;
  const long = Math.max(...along.map((p) => p.at(-1)! - p[0]!));
  if (!(long > 0) || !Number.isFinite(long)) return null;
  const gaps = along.flatMap((p) => p.slice(1).map((v, i) => v - p[i]!));
  const rough = told ?? common(gaps, long / (MOST * 8));
  if (!(rough > 0) || long / rough > MOST) return null;
  // Better known over the whole length than from one gap.
  const cell = told ?? long / Math.round(long / rough);
  for (const p of along)
    for (const v of p) {
      const n = (v - p[0]!) / cell;
      if (Math.abs(n - Math.round(n)) > OFF) return null;
    }
  const single = gaps.filter((g) => Math.round(g / cell) === 1).length;
  return { cell, from: along.map((p) => p[0]!) as unknown as Vec3, gaps: gaps.length, single };
}

/** Triangles that hang together by their corners, each as a shape of its own; all corners are kept. */
export function apart(shapes: readonly MeshShape[]): MeshShape[] {
  return shapes.flatMap((shape) => {
    const { positions: p, triangles } = shape;
    const table = new Map<string, number>(),
      up: number[] = [];
    const top = (i: number): number => {
      let at = i;
      while (up[at] !== at) at = up[at] = up[up[at]!]!;
      return at;
    };
    // A corner that triangles share is asked for by each of them: its place is looked up once.
    const known = new Int32Array(p.length / 3).fill(-1);
    const corner = (v: number): number => {
      if (known[v]! >= 0) return known[v]!;
      const key = `${p[v * 3]} ${p[v * 3 + 1]} ${p[v * 3 + 2]}`;
      let at = table.get(key);
      if (at === undefined) table.set(key, (at = up.push(up.length) - 1));
      return (known[v] = at);
    };
    const corners = Int32Array.from(triangles, corner);
    for (let i = 0; i < corners.length; i += 3) {
      const a = top(corners[i]!);
      up[top(corners[i + 1]!)] = a;
      up[top(corners[i + 2]!)] = a;
    }
    const pieces = new Map<number, number[]>();
    for (let i = 0; i < corners.length; i += 3) {
      const a = top(corners[i]!);
      let list = pieces.get(a);
      if (!list) pieces.set(a, (list = []));
      list.push(triangles[i]!, triangles[i + 1]!, triangles[i + 2]!);
    }
    return [...pieces.values()].map((of) => ({ ...shape, triangles: Uint32Array.from(of) }));
  });
}

/** Pieces by the lattice that they lie on; null when one of them lies on none. At most a few lattices are many bodies, more are none. */
export function byLattice(
  shapes: readonly MeshShape[],
): { readonly shapes: MeshShape[]; readonly lattice: Lattice }[] | null {
  // One face that looks along no axis is enough; most meshes have one early.
  if (!planes(shapes)) return null;
  const pieces = apart(shapes);
  if (pieces.length < 2 || pieces.length > 20_000) return null;
  const own = pieces.map((s) => latticeOf([s], null));
  // Small pieces tell less than all of a cell: those that tell most do.
  const cells = own.flatMap((l) => (l && l.single >= 0.4 * l.gaps && l.gaps >= 6 ? [l.cell] : []));
  const cell = Math.min(...cells);
  if (!Number.isFinite(cell)) return null;
  const groups: { shapes: MeshShape[]; from: Vec3 }[] = [];
  const off = (v: number): number => Math.abs(v / cell - Math.round(v / cell));
  for (const piece of pieces) {
    const l = latticeOf([piece], cell);
    if (!l) return null;
    const group = groups.find((g) => g.from.every((v, a) => off(v - l.from[a]!) < OFF));
    if (group) group.shapes.push(piece);
    else if (groups.push({ shapes: [piece], from: l.from }) > 8) return null;
  }
  return groups
    .map((g) => ({ shapes: g.shapes, lattice: latticeOf(g.shapes, cell)! }))
    .filter((g) => g.lattice !== null);
}
