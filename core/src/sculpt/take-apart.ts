import { type Axis, type Vec3, boxEnd } from '../math';
import { CellSet, type VoxelGrid, connectedPieces, piecesSet } from '../voxel';

/** Where two sets of cells touch face to face. */
export interface Contact {
  readonly faces: number;
  /** Middle of these faces, in half cubes. */
  readonly centre: Vec3;
}

const STEPS: readonly Vec3[] = [[1, 0, 0], [-1, 0, 0], [0, 1, 0], [0, -1, 0], [0, 0, 1], [0, 0, -1]];

/** The faces at which `a` touches `b`; null when they do not touch. */
export function contactOf(a: CellSet, b: CellSet): Contact | null {
  let faces = 0;
  const sum = [0, 0, 0];
  for (const step of STEPS) {
    // Cells of a whose neighbour in that direction belongs to b.
    a.intersect(b.moved([-step[0], -step[1], -step[2]])).forEach((x, y, z) => {
      faces++;
      sum[0]! += 2 * x + 1 + step[0];
      sum[1]! += 2 * y + 1 + step[1];
      sum[2]! += 2 * z + 1 + step[2];
    });
  }
  return faces === 0 ? null : { faces, centre: sum.map((v) => Math.round(v / faces)) as unknown as Vec3 };
}

/**
 * Which piece each hangs on, by the largest faces on the way to the root; −1 for the root and for what touches nothing.
 */
export function hangingOn(pieces: readonly CellSet[], root: number): { readonly parent: number; readonly contact: Contact | null }[] {
  const out = pieces.map(() => ({ parent: -1, contact: null as Contact | null }));
  const joined = new Set([root]);
  const contacts = new Map<string, Contact | null>();
  const between = (i: number, j: number): Contact | null => {
    const key = `${i} ${j}`;
    if (!contacts.has(key)) contacts.set(key, contactOf(pieces[i]!, pieces[j]!));
    return contacts.get(key)!;
  };
  for (;;) {
    let best: { i: number; j: number; contact: Contact } | null = null;
    for (let i = 0; i < pieces.length; i++) {
      if (joined.has(i)) continue;
      for (const j of joined) {
        const contact = between(i, j);
        if (contact && (!best || contact.faces > best.contact.faces)) best = { i, j, contact };
      }
    }
    if (!best) return out;
    joined.add(best.i);
    out[best.i] = { parent: best.j, contact: best.contact };
  }
}

/**
 * A plug: the piece goes on into the body by so many cubes from every face at which they touch, in the piece's own
 * colours, through cubes of the body that nobody sees: at rest nothing of it shows. Gives the cells to add, with their bytes.
 */
export function plugOf(grid: VoxelGrid, piece: CellSet, body: CellSet, depth: number): readonly (readonly [Vec3, number])[] {
  const found = new Map<string, readonly [Vec3, number]>();
  const buried = (x: number, y: number, z: number): boolean => STEPS.every((s) => grid.get(x + s[0], y + s[1], z + s[2]) !== 0);
  for (const step of STEPS) {
    piece.intersect(body.moved([-step[0], -step[1], -step[2]])).forEach((x, y, z) => {
      const value = grid.get(x, y, z);
      for (let k = 1; k <= depth; k++) {
        const c: Vec3 = [x + step[0] * k, y + step[1] * k, z + step[2] * k];
        if (!body.has(...c) || !buried(...c)) break;
        const key = c.join();
        if (!found.has(key)) found.set(key, [c, value]);
      }
    });
  }
  return [...found.values()];
}

/** Pieces that hang together by faces, largest first. */
export function splitByPieces(grid: VoxelGrid): CellSet[] {
  const pieces = connectedPieces(CellSet.filled(grid));
  return Array.from({ length: pieces.sizes.length }, (_, i) => piecesSet(pieces, (p) => p === i));
}

/** A set for each byte, most used first. */
export function splitByColour(grid: VoxelGrid): { readonly byte: number; readonly cells: CellSet }[] {
  const bytes = new Set<number>();
  grid.forEach((_x, _y, _z, v) => bytes.add(v));
  return [...bytes].map((byte) => ({ byte, cells: CellSet.ofValue(grid, byte) })).sort((a, b) => b.cells.count - a.cells.count || a.byte - b.byte);
}

/** Connected patches of one colour, largest first. */
export function splitByPatches(grid: VoxelGrid): { readonly byte: number; readonly cells: CellSet }[] {
  return splitByColour(grid).flatMap(({ byte, cells }) => {
    const pieces = connectedPieces(cells);
    return Array.from({ length: pieces.sizes.length }, (_, i) => ({ byte, cells: piecesSet(pieces, (p) => p === i) }));
  }).sort((a, b) => b.cells.count - a.cells.count);
}

/** What lies below a plane between two rows of cubes (at `at`, in cubes), and what lies above. */
export function splitByPlane(grid: VoxelGrid, axis: Axis, at: number): readonly [low: CellSet, high: CellSet] {
  const all = CellSet.filled(grid), { min } = grid.bounds, end = boxEnd(grid.bounds);
  const low = all.within({ min, size: min.map((m, i) => (i === axis ? Math.max(0, Math.min(end[i]!, at) - m) : end[i]! - m)) as unknown as Vec3 });
  return [low, all.minus(low)];
}

const forms = new WeakMap<VoxelGrid, string>();

/** What a grid looks like wherever it stands, as a short text: alike for grids that are the same cube for cube. Memoised. */
export function formOf(grid: VoxelGrid): string {
  let form = forms.get(grid);
  if (form === undefined) {
    const box = grid.contentBox();
    let h = 0x811c9dc5;
    if (box) for (const v of grid.readBox(box)) h = Math.imul(h ^ v, 0x01000193);
    form = box ? `${box.size.join('×')} ${grid.count} ${(h >>> 0).toString(16)}` : '';
    forms.set(grid, form);
  }
  return form;
}

/** Whether one set is about the mirror image of the other across a plane (half cubes): at least so large a share of both. */
export function mirrorShare(a: CellSet, b: CellSet, axis: Axis, half: number): number {
  let same = 0;
  a.forEach((x, y, z) => {
    const c: [number, number, number] = [x, y, z];
    c[axis] = half - 1 - c[axis]!;
    if (b.has(...c)) same++;
  });
  return same / Math.max(1, a.count, b.count);
}
