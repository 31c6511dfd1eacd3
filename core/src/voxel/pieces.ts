import { type Box } from '../math';
import { CellSet } from './cell-set';

/** Connected pieces of a set, largest first. Runs follow one another row by row. */
export interface Pieces {
  readonly box: Box;
  /** Cells of each piece. */
  readonly sizes: Int32Array<ArrayBuffer>;
  /** Where the runs of each row begin, and one past the last; rows are y + z · height, from the box's corner. */
  readonly first: Int32Array<ArrayBuffer>;
  /** Each run from here up to but without `to`, counted from the box's corner. */
  readonly from: Uint16Array<ArrayBuffer>;
  readonly to: Uint16Array<ArrayBuffer>;
  /** The piece of each run. */
  readonly piece: Int32Array<ArrayBuffer>;
}

/**
 * Runs along X joined by union-find with path halving (Rosenfeld and Pfaltz, 1966, on runs). A run's parent always
 * comes before it, so that one pass over the runs names the pieces.
 *
 * @param diagonals – whether cells that meet in an edge or a corner belong together
 */
export function connectedPieces(set: CellSet, diagonals = false): Pieces {
  const { box, words, width } = set;
  const ny = box.size[1],
    rows = ny * box.size[2];
  const room = countRuns(set);
  const from = new Uint16Array(room),
    to = new Uint16Array(room),
    parent = new Int32Array(room);
  const first = new Int32Array(rows + 1);
  let n = 0;
  for (let r = 0, o = 0; r < rows; r++, o += width) {
    const a0 = n;
    let open = -1;
    for (let w = 0; w < width; w++) {
      let bits = words[o + w]!;
      if (open >= 0) {
        if (bits === -1) continue;
        const end = 31 - Math.clz32(~bits & -~bits);
        from[n] = open;
        to[n] = w * 32 + end;
        parent[n] = n++;
        open = -1;
        bits &= -1 << end;
      }
      while (bits !== 0) {
        const start = 31 - Math.clz32(bits & -bits);
        const gap = ~bits & (-1 << start);
        if (gap === 0) {
          open = w * 32 + start;
          break;
        }
        const end = 31 - Math.clz32(gap & -gap);
        from[n] = w * 32 + start;
        to[n] = w * 32 + end;
        parent[n] = n++;
        bits &= -1 << end;
      }
    }
    if (open >= 0) {
      from[n] = open;
      to[n] = box.size[0];
      parent[n] = n++;
    }
    first[r + 1] = n;
    if (n === a0) continue;
    const y = r % ny;
    if (y > 0) join(from, to, parent, a0, n, first[r - 1]!, first[r]!, diagonals);
    if (r >= ny) {
      join(from, to, parent, a0, n, first[r - ny]!, first[r - ny + 1]!, diagonals);
      if (diagonals && y > 0) join(from, to, parent, a0, n, first[r - ny - 1]!, first[r - ny]!, diagonals);
      if (diagonals && y + 1 < ny) join(from, to, parent, a0, n, first[r - ny + 1]!, first[r - ny + 2]!, diagonals);
    }
  }
  const piece = new Int32Array(n),
    counted = new Int32Array(n);
  let count = 0;
  for (let i = 0; i < n; i++) {
    const p = parent[i]!;
    const label = p === i ? count++ : piece[p]!;
    piece[i] = label;
    counted[label]! += to[i]! - from[i]!;
  }
  const rank = largestFirst(counted.subarray(0, count));
  const sizes = new Int32Array(count);
  for (let i = 0; i < count; i++) sizes[rank[i]!] = counted[i]!;
  for (let i = 0; i < n; i++) piece[i] = rank[piece[i]!]!;
  return { box, sizes, first, from, to, piece };
}

/** How many runs a set has: the cells whose neighbour before them is not in it. */
function countRuns({ words, width }: CellSet): number {
  let n = 0;
  for (let o = 0; o < words.length; o += width) {
    let before = 0;
    for (let w = 0; w < width; w++) {
      const bits = words[o + w]!;
      let starts = bits & ~((bits << 1) | before);
      before = bits >>> 31;
      starts -= (starts >>> 1) & 0x55555555;
      starts = (starts & 0x33333333) + ((starts >>> 2) & 0x33333333);
      n += Math.imul((starts + (starts >>> 4)) & 0x0f0f0f0f, 0x01010101) >>> 24;
    }
  }
  return n;
}

/** Joins the runs `a0 … a1` of a row with those of an earlier one, `b0 … b1`; both go from left to right. */
function join(
  from: Uint16Array,
  to: Uint16Array,
  parent: Int32Array,
  a0: number,
  a1: number,
  b0: number,
  b1: number,
  diagonals: boolean,
): void {
  const reach = diagonals ? 1 : 0;
  for (let a = a0, b = b0; a < a1 && b < b1;) {
    const ta = to[a]!,
      tb = to[b]!;
    if (from[a]! < tb + reach && from[b]! < ta + reach) {
      let ra = a,
        rb = b;
      for (let p = parent[ra]!; p !== ra; p = parent[ra]!) ra = parent[ra] = parent[p]!;
      for (let p = parent[rb]!; p !== rb; p = parent[rb]!) rb = parent[rb] = parent[p]!;
      if (ra < rb) parent[rb] = ra;
      else parent[ra] = rb;
    }
    if (ta < tb) a++;
    else b++;
  }
}

/** Pieces of up to this many cells are counted into place; the few larger ones are sorted. */
const SMALL = 256;
/** The rank of each piece by size, larger first, of equal ones the earlier. */
function largestFirst(sizes: Int32Array): Int32Array {
  const rank = new Int32Array(sizes.length);
  const large: number[] = [];
  const places = new Int32Array(SMALL + 2);
  for (let i = 0; i < sizes.length; i++) {
    if (sizes[i]! > SMALL) large.push(i);
    else places[sizes[i]!]!++;
  }
  large.sort((a, b) => sizes[b]! - sizes[a]! || a - b).forEach((piece, r) => (rank[piece] = r));
  for (let s = SMALL, at = large.length; s >= 0; s--) {
    const many = places[s]!;
    places[s] = at;
    at += many;
  }
  for (let i = 0; i < sizes.length; i++) if (sizes[i]! <= SMALL) rank[i] = places[sizes[i]!]!++;
  return rank;
}

/** The cells of the pieces that `which` accepts. */
export function piecesSet(p: Pieces, which: (piece: number) => boolean): CellSet {
  const set = new CellSet(p.box);
  const wanted = Uint8Array.from(p.sizes, (_, i) => (which(i) ? 1 : 0));
  const [x, y, z] = p.box.min,
    ny = p.box.size[1];
  for (let r = 0; r + 1 < p.first.length; r++) {
    for (let i = p.first[r]!; i < p.first[r + 1]!; i++)
      if (wanted[p.piece[i]!]) set.addRun(x + p.from[i]!, x + p.to[i]!, y + (r % ny), z + Math.floor(r / ny));
  }
  return set;
}
