import { type Box, FACE_DIRECTIONS, type Vec3 } from '../math';
import { type VoxelGrid, brickRange, isUniformBrick } from '../voxel';

/** Edge of a chunk in cells. */
export const CHUNK = 32;

/** Directions of faces in the order in which quads are stored. */
export { FACE_DIRECTIONS };

/** The merged faces of one chunk, sorted by direction. */
export interface ChunkMesh {
  /** The chunk's lowest cell. */
  readonly origin: Vec3;
  /** How many quads face each of the six directions. */
  readonly counts: readonly number[];
  /**
   * One word a quad: lowest cell x, y, z in the chunk (5 bits each), then width − 1 and height − 1.
   * Width and height run along: ±X faces y and z, ±Y faces x and z, ±Z faces x and y.
   */
  readonly quads: Int32Array;
  /** Palette byte of each quad. */
  readonly colours: Uint8Array;
}

export const quadX = (q: number): number => q & 31;
export const quadY = (q: number): number => (q >> 5) & 31;
export const quadZ = (q: number): number => (q >> 10) & 31;
export const quadW = (q: number): number => ((q >> 15) & 31) + 1;
export const quadH = (q: number): number => ((q >> 20) & 31) + 1;

/*
 * How it works, after trials against the textbook greedy mesher (a mask of colours a slice):
 * one 32-bit word holds a row of 32 cubes along X. Faces towards ±Y and ±Z are ANDs of neighbouring
 * rows; ±X faces need a shift and a 32×32 bit transpose, left out where there are none. No plane for each
 * colour: masks of "same as the next cube" along each axis bound the runs, made only for rows with faces.
 * Scratch lives at module level: a chunk allocates its result only.
 */
const N = CHUNK;
const P = N + 2;
const cells = new Uint8Array(N * N * N);
const words = new Int32Array(cells.buffer);
const occ = new Int32Array(P * P); // [z + 1][y + 1] → bits over x
const beyondLow = new Int32Array(N * N); // [z][y] → 1 when the cube at x = −1 is filled
const beyondHigh = new Int32Array(N * N); // likewise at x = 32
const face = new Int32Array(N);
const along = new Int32Array(N);
const across = new Int32Array(N);
const xFaces = new Int32Array(N * N); // [z][y] → bits over x
const xTurned = new Int32Array(N * N); // [x][z] → bits over y
const eqYTurned = new Int32Array(N * N);
const eqZTurned = new Int32Array(N * N);
const block = new Int32Array(N);
let out = new Int32Array(4096);
let outColours = new Uint8Array(4096);
let outCount = 0;

/** Four bytes as four bits: 1 where the byte is not 0. */
const filledBits = (v: number): number =>
  Math.imul(((((v & 0x7f7f7f7f) + 0x7f7f7f7f) | v) & 0x80808080) >>> 7, 0x10204080) >>> 28;

/** The merged faces of a chunk, by its place among {@link chunksOf} the grid; null when it shows none. */
export function meshChunk(grid: VoxelGrid, cx: number, cy: number, cz: number): ChunkMesh | null {
  const shift = chunkShift(grid.bounds);
  const first: Vec3 = [cx * 2 - shift[0], cy * 2 - shift[1], cz * 2 - shift[2]];
  const state = load(grid, ...first);
  if (state === 'empty') return null;
  outCount = 0;
  const counts = [0, 0, 0, 0, 0, 0];
  const mark = (direction: number, from: number): void => {
    counts[direction] = outCount - from;
  };
  let from = 0;
  const anyX = findXFaces();
  for (const positive of [true, false]) {
    const d = positive ? 0 : 1;
    from = outCount;
    if (anyX) meshX(positive);
    mark(d, from);
  }
  for (const positive of [true, false]) {
    from = outCount;
    meshY(positive);
    mark(positive ? 2 : 3, from);
  }
  for (const positive of [true, false]) {
    from = outCount;
    meshZ(positive);
    mark(positive ? 4 : 5, from);
  }
  if (outCount === 0) return null;
  const origin: Vec3 = [first[0] * 16, first[1] * 16, first[2] * 16];
  return { origin, counts, quads: out.slice(0, outCount), colours: outColours.slice(0, outCount) };
}

/** @param fx – the lowest of the chunk's bricks, as fy and fz */
function load(grid: VoxelGrid, fx: number, fy: number, fz: number): 'empty' | 'some' {
  let any = false;
  occ.fill(0);
  for (let bz = 0; bz < 2; bz++) {
    for (let by = 0; by < 2; by++) {
      for (let bx = 0; bx < 2; bx++) {
        const brick = grid.brickAt(fx + bx, fy + by, fz + bz);
        const shift = bx * 16;
        const value = brick && isUniformBrick(brick) ? Math.imul(brick[0]!, 0x01010101) : 0;
        const src = brick && !value ? new Int32Array(brick.buffer) : null;
        if (brick) any = true;
        for (let z = 0; z < 16; z++) {
          for (let y = 0; y < 16; y++) {
            const row = (bz * 16 + z) * N + by * 16 + y;
            const w = row * 8 + bx * 4;
            if (src) {
              const i = (z * 16 + y) * 4;
              const a = src[i]!,
                b = src[i + 1]!,
                c = src[i + 2]!,
                d = src[i + 3]!;
              words[w] = a;
              words[w + 1] = b;
              words[w + 2] = c;
              words[w + 3] = d;
              if (a | b | c | d) {
                const bits = filledBits(a) | (filledBits(b) << 4) | (filledBits(c) << 8) | (filledBits(d) << 12);
                occ[(bz * 16 + z + 1) * P + by * 16 + y + 1]! |= bits << shift;
              }
            } else {
              words[w] = value;
              words[w + 1] = value;
              words[w + 2] = value;
              words[w + 3] = value;
              if (value) occ[(bz * 16 + z + 1) * P + by * 16 + y + 1]! |= 0xffff << shift;
            }
          }
        }
      }
    }
  }
  if (!any) return 'empty';
  // The cubes just outside: rows above, below, before and behind, and single bits left and right.
  for (let i = 0; i < 2; i++) {
    for (let j = 0; j < 2; j++) {
      for (let end = 0; end < 2; end++) {
        const outside = end ? 2 : -1;
        const near = end ? 0 : 15;
        const pad = end ? P - 1 : 0;
        const inY = grid.brickAt(fx + i, fy + outside, fz + j);
        if (inY) {
          const w = new Int32Array(inY.buffer);
          for (let z = 0; z < 16; z++) occ[(j * 16 + z + 1) * P + pad]! |= row16(w, (z * 16 + near) * 4) << (i * 16);
        }
        const inZ = grid.brickAt(fx + i, fy + j, fz + outside);
        if (inZ) {
          const w = new Int32Array(inZ.buffer);
          for (let y = 0; y < 16; y++) occ[pad * P + j * 16 + y + 1]! |= row16(w, (near * 16 + y) * 4) << (i * 16);
        }
        const inX = grid.brickAt(fx + outside, fy + i, fz + j);
        const beyond = end ? beyondHigh : beyondLow;
        for (let z = 0; z < 16; z++) {
          for (let y = 0; y < 16; y++) {
            beyond[(j * 16 + z) * N + i * 16 + y] = inX && inX[(z * 16 + y) * 16 + near] !== 0 ? 1 : 0;
          }
        }
      }
    }
  }
  return 'some';
}

const row16 = (w: Int32Array, i: number): number =>
  filledBits(w[i]!) | (filledBits(w[i + 1]!) << 4) | (filledBits(w[i + 2]!) << 8) | (filledBits(w[i + 3]!) << 12);

/** Bits over x: the cube equals the next one along X (bit 31 is never set). */
function sameAlongX(row: number): number {
  const w = row * 8;
  let m = 0;
  for (let k = 0; k < 8; k++) {
    const v = words[w + k]!;
    const next = (v >>> 8) | (k < 7 ? words[w + k + 1]! << 24 : 0);
    m |= filledBits(v ^ next) << (k * 4);
  }
  return ~m & 0x7fffffff;
}

/** Bits over x: the cubes of two rows are equal. */
function sameRows(a: number, b: number): number {
  const wa = a * 8,
    wb = b * 8;
  let m = 0;
  for (let k = 0; k < 8; k++) {
    const d = words[wa + k]! ^ words[wb + k]!;
    if (d !== 0) m |= filledBits(d) << (k * 4);
  }
  return ~m;
}

function meshY(positive: boolean): void {
  const side = positive ? 1 : -1;
  for (let y = 0; y < N; y++) {
    let any = 0;
    for (let z = 0; z < N; z++) {
      const o = (z + 1) * P + y + 1;
      const f = occ[o]! & ~occ[o + side]!;
      face[z] = f;
      any |= f;
    }
    if (any === 0) continue;
    for (let z = 0; z < N; z++) {
      if (face[z] === 0) continue;
      along[z] = sameAlongX(z * N + y);
      across[z] = z < N - 1 && face[z + 1] !== 0 ? sameRows(z * N + y, (z + 1) * N + y) : 0;
    }
    sweep((i, r, w, h) => emit(i, y, r, w, h));
  }
}

function meshZ(positive: boolean): void {
  const side = positive ? P : -P;
  for (let z = 0; z < N; z++) {
    let any = 0;
    for (let y = 0; y < N; y++) {
      const o = (z + 1) * P + y + 1;
      const f = occ[o]! & ~occ[o + side]!;
      face[y] = f;
      any |= f;
    }
    if (any === 0) continue;
    for (let y = 0; y < N; y++) {
      if (face[y] === 0) continue;
      along[y] = sameAlongX(z * N + y);
      across[y] = y < N - 1 && face[y + 1] !== 0 ? sameRows(z * N + y, z * N + y + 1) : 0;
    }
    sweep((i, r, w, h) => emit(i, r, z, w, h));
  }
}

/** Whether any face looks along X; prepares the equality masks turned so that bits run over y. */
function findXFaces(): boolean {
  let any = 0;
  for (let z = 0; z < N; z++) {
    let some = 0;
    for (let y = 0; y < N; y++) {
      const o = occ[(z + 1) * P + y + 1]!;
      const up = (o >>> 1) | (beyondHigh[z * N + y]! << 31);
      const down = (o << 1) | beyondLow[z * N + y]!;
      const f = (o & ~up) | (o & ~down);
      xFaces[z * N + y] = f;
      some |= f;
    }
    any |= some;
  }
  if (any === 0) return false;
  for (let z = 0; z < N; z++) {
    for (let y = 0; y < N; y++)
      block[y] = y < N - 1 && xFaces[z * N + y] !== 0 ? sameRows(z * N + y, z * N + y + 1) : 0;
    turn(block);
    for (let x = 0; x < N; x++) eqYTurned[x * N + z] = block[x]!;
    for (let y = 0; y < N; y++)
      block[y] = z < N - 1 && xFaces[z * N + y] !== 0 ? sameRows(z * N + y, (z + 1) * N + y) : 0;
    turn(block);
    for (let x = 0; x < N; x++) eqZTurned[x * N + z] = block[x]!;
  }
  return true;
}

function meshX(positive: boolean): void {
  for (let z = 0; z < N; z++) {
    let some = 0;
    for (let y = 0; y < N; y++) {
      const o = occ[(z + 1) * P + y + 1]!;
      const f = positive ? o & ~((o >>> 1) | (beyondHigh[z * N + y]! << 31)) : o & ~((o << 1) | beyondLow[z * N + y]!);
      block[y] = f;
      some |= f;
    }
    if (some !== 0) turn(block);
    for (let x = 0; x < N; x++) xTurned[x * N + z] = some === 0 ? 0 : block[x]!;
  }
  for (let x = 0; x < N; x++) {
    let any = 0;
    for (let z = 0; z < N; z++) {
      face[z] = xTurned[x * N + z]!;
      any |= face[z]!;
      along[z] = eqYTurned[x * N + z]!;
      across[z] = eqZTurned[x * N + z]!;
    }
    if (any !== 0) sweep((i, r, w, h) => emit(x, i, r, w, h));
  }
}

/** Transposes a 32×32 block of bits in place (Warren, Hacker's Delight, 7–3, low bit first). */
function turn(a: Int32Array): void {
  let m = 0x0000ffff;
  for (let j = 16; j !== 0; j >>= 1, m ^= m << j) {
    for (let k = 0; k < 32; k = (k + j + 1) & ~j) {
      const t = ((a[k]! >>> j) ^ a[k + j]!) & m;
      a[k + j]! ^= t;
      a[k]! ^= t << j;
    }
  }
}

/** Takes rectangles off the 32 rows of `face`: the longest run of one colour, then as many rows as allow it. */
function sweep(give: (bit: number, row: number, width: number, height: number) => void): void {
  for (let r = 0; r < N; r++) {
    let f = face[r]!;
    while (f !== 0) {
      const i = 31 - Math.clz32(f & -f);
      const more = i === 31 ? 0 : (f >>> (i + 1)) & (along[r]! >>> i);
      const stop = ~more;
      const w = 32 - Math.clz32(stop & -stop);
      const mask = w === 32 ? -1 : ((1 << w) - 1) << i;
      f &= ~mask;
      let h = 1;
      while (r + h < N && (face[r + h]! & mask) === mask && (across[r + h - 1]! & mask) === mask) {
        face[r + h]! &= ~mask;
        h++;
      }
      give(i, r, w, h);
    }
  }
}

function emit(x: number, y: number, z: number, w: number, h: number): void {
  if (outCount === out.length) {
    const more = new Int32Array(out.length * 2);
    more.set(out);
    out = more;
    const moreColours = new Uint8Array(outColours.length * 2);
    moreColours.set(outColours);
    outColours = moreColours;
  }
  out[outCount] = x | (y << 5) | (z << 10) | ((w - 1) << 15) | ((h - 1) << 20);
  outColours[outCount++] = cells[(z * N + y) * N + x]!;
}

/**
 * Along each axis, by how many bricks chunks begin before lattice 0: one where fewer of them cover the bounds then. A part
 * that stands centred on 0 would otherwise be cut there for nothing.
 */
function chunkShift(bounds: Box): Vec3 {
  const [lo, hi] = brickRange(bounds);
  const shift = (a: 0 | 1 | 2): number =>
    ((hi[a] + 1) >> 1) - ((lo[a] + 1) >> 1) < (hi[a] >> 1) - (lo[a] >> 1) ? 1 : 0;
  return [shift(0), shift(1), shift(2)];
}

/** The chunks that a grid's bounds touch, z-major, counted from the one that begins at or just before lattice 0. */
export function chunksOf(grid: VoxelGrid): Vec3[] {
  const [lo, hi] = brickRange(grid.bounds);
  const [sx, sy, sz] = chunkShift(grid.bounds);
  const list: Vec3[] = [];
  for (let z = (lo[2] + sz) >> 1; z <= (hi[2] + sz) >> 1; z++)
    for (let y = (lo[1] + sy) >> 1; y <= (hi[1] + sy) >> 1; y++)
      for (let x = (lo[0] + sx) >> 1; x <= (hi[0] + sx) >> 1; x++) list.push([x, y, z]);
  return list;
}

/**
 * Chunks whose mesh may differ between two grids of the same bounds: those of changed bricks and their neighbours across a
 * border.
 */
export function changedChunks(before: VoxelGrid, after: VoxelGrid): Vec3[] {
  const found = new Map<string, Vec3>();
  const [sx, sy, sz] = chunkShift(after.bounds);
  const add = (x: number, y: number, z: number): void => {
    found.set(`${x},${y},${z}`, [x, y, z]);
  };
  for (const brick of after.changedBricks(before)) {
    const x = brick[0] + sx,
      y = brick[1] + sy,
      z = brick[2] + sz;
    add(x >> 1, y >> 1, z >> 1);
    add((x + (x & 1 ? 1 : -1)) >> 1, y >> 1, z >> 1);
    add(x >> 1, (y + (y & 1 ? 1 : -1)) >> 1, z >> 1);
    add(x >> 1, y >> 1, (z + (z & 1 ? 1 : -1)) >> 1);
  }
  return [...found.values()];
}
