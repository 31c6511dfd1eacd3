import { type Box } from '../math';
import { CellSet } from './cell-set';

/** Connected pieces of a set, largest first. */
export interface Pieces {
  readonly box: Box;
  /** Cells of each piece. */
  readonly sizes: Int32Array<ArrayBuffer>;
  /** Four numbers a run: x from, x up to but without, row (y + z · height, from the box's corner), piece. */
  readonly runs: Int32Array<ArrayBuffer>;
}

/**
 * Runs along X joined by union-find with path halving (Rosenfeld and Pfaltz, 1966, on runs). Trials on 256³:
 * 40 ms on solid terrain, 350 ms on random 30 %, where a stack of cells takes 10 and 1.3 times as long.
 *
 * @param diagonals – whether cells that meet in an edge or a corner belong together
 */
export function connectedPieces(set: CellSet, diagonals = false): Pieces {
  const { box } = set;
  const ny = box.size[1], nz = box.size[2];
  let room = 1024, n = 0;
  let from = new Int32Array(room), to = new Int32Array(room), parent = new Int32Array(room);
  const first = new Int32Array(ny * nz + 1);
  let row = -1;
  const wider = (a: Int32Array<ArrayBuffer>): Int32Array<ArrayBuffer> => {
    const b = new Int32Array(room);
    b.set(a);
    return b;
  };
  const find = (i: number): number => {
    let r = i;
    while (parent[r] !== r) {
      parent[r] = parent[parent[r]!]!;
      r = parent[r]!;
    }
    return r;
  };
  const reach = diagonals ? 1 : 0;
  /** Joins the runs of a finished row with those of an earlier one; both go from left to right. */
  const join = (row0: number, a0: number, a1: number): void => {
    let b = first[row0]!;
    const b1 = first[row0 + 1]!;
    for (let a = a0; a < a1 && b < b1;) {
      if (from[a]! < to[b]! + reach && from[b]! < to[a]! + reach) {
        const ra = find(a), rb = find(b);
        if (ra !== rb) parent[Math.max(ra, rb)] = Math.min(ra, rb);
      }
      if (to[a]! < to[b]!) a++;
      else b++;
    }
  };
  const finish = (r: number): void => {
    const a0 = first[r]!, a1 = n;
    first[r + 1] = n;
    if (a0 === a1) return;
    const y = r % ny, z = (r - y) / ny;
    if (y > 0) join(r - 1, a0, a1);
    if (z > 0) {
      join(r - ny, a0, a1);
      if (diagonals && y > 0) join(r - ny - 1, a0, a1);
      if (diagonals && y + 1 < ny) join(r - ny + 1, a0, a1);
    }
  };
  set.runs((x0, x1, y, z) => {
    const r = y - box.min[1] + (z - box.min[2]) * ny;
    while (row < r) {
      if (row >= 0) finish(row);
      first[++row] = n;
    }
    if (n === room) {
      room *= 2;
      [from, to, parent] = [wider(from), wider(to), wider(parent)];
    }
    from[n] = x0;
    to[n] = x1;
    parent[n] = n;
    n++;
  });
  while (row < ny * nz) {
    if (row >= 0) finish(row);
    row++;
    if (row < ny * nz) first[row] = n;
  }
  const label = new Int32Array(n).fill(-1);
  const sizes: number[] = [];
  for (let i = 0; i < n; i++) {
    const r = find(i);
    if (label[r]! < 0) {
      label[r] = sizes.length;
      sizes.push(0);
    }
    label[i] = label[r]!;
    sizes[label[i]!]! += to[i]! - from[i]!;
  }
  const order = sizes.map((_, i) => i).sort((a, b) => sizes[b]! - sizes[a]!);
  const rank = new Int32Array(sizes.length);
  order.forEach((old, i) => (rank[old] = i));
  const runs = new Int32Array(n * 4);
  for (let r = 0, i = 0; r < ny * nz; r++) {
    for (; i < first[r + 1]!; i++) {
      runs[i * 4] = from[i]!;
      runs[i * 4 + 1] = to[i]!;
      runs[i * 4 + 2] = r;
      runs[i * 4 + 3] = rank[label[i]!]!;
    }
  }
  return { box, sizes: Int32Array.from(order, (i) => sizes[i]!), runs };
}

/** The cells of the pieces that `which` accepts. */
export function piecesSet(p: Pieces, which: (piece: number) => boolean): CellSet {
  const set = new CellSet(p.box);
  for (let i = 0; i < p.runs.length; i += 4) {
    if (!which(p.runs[i + 3]!)) continue;
    const r = p.runs[i + 2]!, y = r % p.box.size[1];
    set.addRun(p.runs[i]!, p.runs[i + 1]!, p.box.min[1] + y, p.box.min[2] + (r - y) / p.box.size[1]);
  }
  return set;
}
