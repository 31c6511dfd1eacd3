import { byteTable } from './byte-table';
import { type Box, type Vec3, boxEnd, boxHas, boxesEqual, intersectBoxes, uniteBoxes } from '../math';
import { BRICK, type Brick, isUniformBrick } from './brick';
import { type VoxelGrid, brickRange } from './voxel-grid';

/**
 * A set of cells: one bit a cell, rows along X in 32-bit words (bit 0 of a row's first word is the cell at
 * `box.min`). Rows follow one another along Y, then Z. Bits past a row's end are 0. Never changed once it has
 * been handed out, so that selections can be shared, compared and kept with the history. A full 256³ takes 2 MB.
 */
export class CellSet {
  /** Words a row. */
  readonly width: number;
  private known: { count: number; tight: Box | null } | null = null;

  constructor(
    readonly box: Box,
    readonly words: Int32Array<ArrayBuffer> = new Int32Array(
      rowWords(box) * Math.max(0, box.size[1]) * Math.max(0, box.size[2]),
    ),
  ) {
    this.width = rowWords(box);
  }

  static ofBox(box: Box): CellSet {
    const set = new CellSet(box);
    const e = boxEnd(box);
    for (let z = box.min[2]; z < e[2]; z++) for (let y = box.min[1]; y < e[1]; y++) set.addRun(box.min[0], e[0], y, z);
    return set;
  }

  /** The cells of any of the boxes. */
  static ofBoxes(boxes: readonly Box[]): CellSet {
    const set = new CellSet(boxes.reduce(uniteBoxes, NOTHING));
    for (const b of boxes) {
      const e = boxEnd(b);
      for (let z = b.min[2]; z < e[2]; z++) for (let y = b.min[1]; y < e[1]; y++) set.addRun(b.min[0], e[0], y, z);
    }
    return set;
  }

  static ofCells(cells: Iterable<Vec3>): CellSet {
    return CellSet.ofBoxes(Array.from(cells, (min): Box => ({ min, size: [1, 1, 1] })));
  }

  /** The filled cells of a grid inside `box`. Tests four cells at a time. */
  static filled(grid: VoxelGrid, box: Box = grid.bounds): CellSet {
    const set = new CellSet(box);
    const halves = new Uint16Array(set.words.buffer);
    eachBrick(grid, box, (brick, bx, by, bz) => {
      const four = new Int32Array(brick.buffer);
      const whole = isUniformBrick(brick);
      const from = bx * BRICK - box.min[0];
      // A brick that lies on half words, as all do in most volumes, is written sixteen cells at a time.
      if ((from & 15) === 0 && from >= 0 && from + BRICK <= box.size[0]) {
        const y0 = Math.max(box.min[1], by * BRICK),
          y1 = Math.min(box.min[1] + box.size[1], by * BRICK + BRICK);
        const z0 = Math.max(box.min[2], bz * BRICK),
          z1 = Math.min(box.min[2] + box.size[2], bz * BRICK + BRICK);
        for (let z = z0; z < z1; z++) {
          let o = set.rowAt(y0, z) * 2 + (from >> 4);
          for (let y = y0, i = (y0 & 15) * 4 + (z & 15) * 64; y < y1; y++, i += 4, o += set.width * 2) {
            halves[o] = whole
              ? 0xffff
              : nonZero(four[i]!) |
                (nonZero(four[i + 1]!) << 4) |
                (nonZero(four[i + 2]!) << 8) |
                (nonZero(four[i + 3]!) << 12);
          }
        }
        return;
      }
      set.eachBrickRow(bx, by, bz, (row, at, y, z) => {
        let bits = 0xffff;
        if (!whole) {
          const i = (y & 15) * 4 + (z & 15) * 64;
          bits =
            nonZero(four[i]!) |
            (nonZero(four[i + 1]!) << 4) |
            (nonZero(four[i + 2]!) << 8) |
            (nonZero(four[i + 3]!) << 12);
        }
        if (bits !== 0) set.orBits(row, at, bits);
      });
    });
    return set;
  }

  /** The cells of a grid inside `box` whose byte is marked in `table` (256 entries, 0 the empty cells). */
  static matching(grid: VoxelGrid, table: Uint8Array, box: Box = grid.bounds): CellSet {
    if (table[0]) {
      const others = CellSet.matching(
        grid,
        table.map((v) => (v ? 0 : 1)),
        box,
      );
      return CellSet.ofBox(box).minus(others);
    }
    const set = new CellSet(box);
    eachBrick(grid, box, (brick, bx, by, bz) => {
      const whole = isUniformBrick(brick);
      if (whole && !table[brick[0]!]) return;
      set.eachBrickRow(bx, by, bz, (row, at, y, z) => {
        let bits = 0xffff;
        if (!whole) {
          bits = 0;
          const i = ((y & 15) << 4) | ((z & 15) << 8);
          for (let k = 0; k < BRICK; k++) bits |= table[brick[i + k]!]! << k;
        }
        if (bits !== 0) set.orBits(row, at, bits);
      });
    });
    return set;
  }

  /** Cells of one byte. */
  static ofValue(grid: VoxelGrid, value: number, box?: Box): CellSet {
    return CellSet.matching(
      grid,
      byteTable((i) => (i === value ? 1 : 0)),
      box,
    );
  }

  has(x: number, y: number, z: number): boolean {
    if (!boxHas(this.box, [x, y, z])) return false;
    const bit = x - this.box.min[0];
    return ((this.words[this.rowAt(y, z) + (bit >> 5)]! >>> (bit & 31)) & 1) !== 0;
  }

  get count(): number {
    return this.facts().count;
  }
  get isEmpty(): boolean {
    return this.words.every((w) => w === 0);
  }
  /** The smallest box around the cells; null when there are none. */
  get tight(): Box | null {
    return this.facts().tight;
  }

  /** Visits the cells as runs along X: from `x0` up to but without `x1`. */
  runs(visit: (x0: number, x1: number, y: number, z: number) => void): void {
    const { min, size } = this.box;
    for (let z = 0, o = 0; z < size[2]; z++) {
      for (let y = 0; y < size[1]; y++, o += this.width) {
        let start = -1;
        for (let w = 0; w < this.width; w++) {
          let bits = this.words[o + w]!;
          const base = w * 32;
          if (start >= 0) {
            const gap = ~bits;
            if (gap === 0) continue;
            const end = 31 - Math.clz32(gap & -gap);
            visit(min[0] + start, min[0] + base + end, min[1] + y, min[2] + z);
            start = -1;
            bits = end === 0 ? bits : bits & (-1 << end);
          }
          while (bits !== 0) {
            const from = 31 - Math.clz32(bits & -bits);
            const gap = ~bits & (-1 << from);
            if (gap === 0) {
              start = base + from;
              break;
            }
            const to = 31 - Math.clz32(gap & -gap);
            visit(min[0] + base + from, min[0] + base + to, min[1] + y, min[2] + z);
            bits &= -1 << to;
          }
        }
        if (start >= 0) visit(min[0] + start, min[0] + size[0], min[1] + y, min[2] + z);
      }
    }
  }

  forEach(visit: (x: number, y: number, z: number) => void): void {
    this.runs((x0, x1, y, z) => {
      for (let x = x0; x < x1; x++) visit(x, y, z);
    });
  }

  /** The same cells as far as they lie in `box`, in rows of that box. */
  within(box: Box): CellSet {
    if (boxesEqual(box, this.box)) return this;
    const out = new CellSet(box);
    const both = intersectBoxes(box, this.box);
    if (both.size.some((s) => s <= 0)) return out;
    const e = boxEnd(both);
    const from = box.min[0] - this.box.min[0];
    const tail = box.size[0] & 31 ? (1 << (box.size[0] & 31)) - 1 : -1;
    for (let z = both.min[2]; z < e[2]; z++) {
      for (let y = both.min[1]; y < e[1]; y++) {
        const a = this.rowAt(y, z),
          b = out.rowAt(y, z);
        for (let w = 0; w < out.width; w++)
          out.words[b + w] = this.bits32(a, from + w * 32) & (w === out.width - 1 ? tail : -1);
      }
    }
    return out;
  }

  union(o: CellSet): CellSet {
    return this.combine(o, uniteBoxes(this.box, o.box), (a, b) => a | b);
  }
  minus(o: CellSet): CellSet {
    return this.combine(o, this.box, (a, b) => a & ~b);
  }
  intersect(o: CellSet): CellSet {
    return this.combine(o, intersectBoxes(this.box, o.box), (a, b) => a & b);
  }
  /** The cells of `box` that are not in the set. */
  inverted(box: Box): CellSet {
    const own = this.within(box);
    const out = new CellSet(box);
    const tail = box.size[0] & 31 ? (1 << (box.size[0] & 31)) - 1 : -1;
    for (let i = 0; i < out.words.length; i++) out.words[i] = ~own.words[i]!;
    if (tail !== -1) for (let i = out.width - 1; i < out.words.length; i += out.width) out.words[i]! &= tail;
    return out;
  }
  equals(o: CellSet): boolean {
    return this.count === o.count && this.minus(o).isEmpty;
  }

  /** The set moved by whole cells. */
  moved(by: Vec3): CellSet {
    return new CellSet(
      { min: [this.box.min[0] + by[0], this.box.min[1] + by[1], this.box.min[2] + by[2]], size: this.box.size },
      this.words,
    );
  }

  /** Cells within `steps` of the set, limited to `box`; corners count as near when `diagonals` is true. */
  grown(steps: number, diagonals: boolean, box: Box): CellSet {
    let set = this.within(box);
    for (let i = 0; i < steps; i++) set = set.spread(diagonals);
    return set;
  }

  /** Cells all of whose neighbours up to `steps` away are in the set; what lies outside its box is not in it. */
  shrunk(steps: number, diagonals: boolean): CellSet {
    const { min, size } = this.box;
    const frame: Box = { min: [min[0] - 1, min[1] - 1, min[2] - 1], size: [size[0] + 2, size[1] + 2, size[2] + 2] };
    return this.inverted(frame).grown(steps, diagonals, frame).inverted(this.box);
  }

  /** Sixteen cells from `x` on as bits, for whoever works brick by brick. */
  bits16(x: number, y: number, z: number): number {
    const { min, size } = this.box;
    if (y < min[1] || z < min[2] || y >= min[1] + size[1] || z >= min[2] + size[2]) return 0;
    return this.bits32(this.rowAt(y, z), x - min[0]) & 0xffff;
  }

  /** Adds cells; only for a set that has not been handed out. */
  addRun(x0: number, x1: number, y: number, z: number): void {
    const { min, size } = this.box;
    if (y < min[1] || z < min[2] || y >= min[1] + size[1] || z >= min[2] + size[2]) return;
    const from = Math.max(0, x0 - min[0]),
      to = Math.min(size[0], x1 - min[0]);
    if (from >= to) return;
    const o = this.rowAt(y, z);
    const a = from >> 5,
      b = (to - 1) >> 5;
    const first = -1 << (from & 31),
      last = -1 >>> (31 - ((to - 1) & 31));
    if (a === b) this.words[o + a]! |= first & last;
    else {
      this.words[o + a]! |= first;
      for (let w = a + 1; w < b; w++) this.words[o + w] = -1;
      this.words[o + b]! |= last;
    }
  }

  /** Index of the first word of a row. */
  rowAt(y: number, z: number): number {
    return (y - this.box.min[1] + (z - this.box.min[2]) * this.box.size[1]) * this.width;
  }

  private facts(): { count: number; tight: Box | null } {
    if (this.known) return this.known;
    let count = 0,
      x0 = Infinity,
      y0 = Infinity,
      z0 = Infinity,
      x1 = -Infinity,
      y1 = -Infinity,
      z1 = -Infinity;
    this.runs((a, b, y, z) => {
      count += b - a;
      if (a < x0) x0 = a;
      if (b > x1) x1 = b;
      if (y < y0) y0 = y;
      if (y > y1) y1 = y;
      if (z < z0) z0 = z;
      if (z > z1) z1 = z;
    });
    this.known = {
      count,
      tight: count === 0 ? null : { min: [x0, y0, z0], size: [x1 - x0, y1 - y0 + 1, z1 - z0 + 1] },
    };
    return this.known;
  }

  private combine(o: CellSet, box: Box, op: (a: number, b: number) => number): CellSet {
    const a = this.within(box),
      b = o.within(box);
    const words = new Int32Array(a.words.length);
    for (let i = 0; i < words.length; i++) words[i] = op(a.words[i]!, b.words[i]!);
    return new CellSet(box, words);
  }

  /** One step of growth inside the set's own box. */
  private spread(diagonals: boolean): CellSet {
    const along = (s: CellSet): CellSet => {
      const out = new CellSet(s.box, s.words.slice());
      const tail = s.box.size[0] & 31 ? (1 << (s.box.size[0] & 31)) - 1 : -1;
      for (let o = 0; o < s.words.length; o += s.width) {
        for (let w = 0; w < s.width; w++) {
          const v = s.words[o + w]!;
          const low = w > 0 ? s.words[o + w - 1]! >>> 31 : 0,
            high = w + 1 < s.width ? s.words[o + w + 1]! << 31 : 0;
          out.words[o + w] = (v | (v << 1) | low | (v >>> 1) | high) & (w === s.width - 1 ? tail : -1);
        }
      }
      return out;
    };
    const across = (s: CellSet, from: CellSet, stride: number, lines: number): void => {
      // `lines` rows belong together; neither the first nor the last has a neighbour outside.
      const words = from.words,
        n = words.length;
      for (let o = 0; o < n; o++) {
        const line = Math.floor(o / stride) % lines;
        if (line > 0) s.words[o]! |= words[o - stride]!;
        if (line < lines - 1) s.words[o]! |= words[o + stride]!;
      }
    };
    const out = along(this);
    const ny = this.box.size[1],
      nz = this.box.size[2];
    if (!diagonals) {
      across(out, this, this.width, ny);
      across(out, this, this.width * ny, nz);
      return out;
    }
    across(out, new CellSet(out.box, out.words.slice()), this.width, ny);
    across(out, new CellSet(out.box, out.words.slice()), this.width * ny, nz);
    return out;
  }

  /** 32 bits of the row that begins at word `row`, from bit `at` on, which may lie outside the row. */
  private bits32(row: number, at: number): number {
    const w = at >> 5,
      s = at & 31;
    const low = w >= 0 && w < this.width ? this.words[row + w]! : 0;
    if (s === 0) return low;
    const high = w + 1 >= 0 && w + 1 < this.width ? this.words[row + w + 1]! : 0;
    return (low >>> s) | (high << (32 - s));
  }

  private eachBrickRow(
    bx: number,
    by: number,
    bz: number,
    visit: (row: number, at: number, y: number, z: number) => void,
  ): void {
    const { min } = this.box;
    const e = boxEnd(this.box);
    const y1 = Math.min(e[1], by * BRICK + BRICK),
      z1 = Math.min(e[2], bz * BRICK + BRICK);
    for (let z = Math.max(min[2], bz * BRICK); z < z1; z++) {
      for (let y = Math.max(min[1], by * BRICK); y < y1; y++) visit(this.rowAt(y, z), bx * BRICK - min[0], y, z);
    }
  }

  /** Sets the bits of 16 cells of a row from bit `at` on; those outside the row are left out. */
  private orBits(row: number, at: number, bits: number): void {
    const size = this.box.size[0];
    let b = bits,
      from = at;
    if (from < 0) {
      b >>>= -from;
      from = 0;
    }
    const room = size - from;
    if (room < 16) b &= (1 << Math.max(0, room)) - 1;
    if (b === 0) return;
    const w = row + (from >> 5),
      s = from & 31;
    this.words[w]! |= b << s;
    if (s > 16 && (from >> 5) + 1 < this.width) this.words[w + 1]! |= b >>> (32 - s);
  }
}

const NOTHING: Box = { min: [0, 0, 0], size: [0, 0, 0] };
const rowWords = (box: Box): number => (box.size[0] + 31) >> 5;

/** One bit for each of four bytes that is not 0. */
const nonZero = (four: number): number =>
  Math.imul(((((four & 0x7f7f7f7f) + 0x7f7f7f7f) | four) >>> 7) & 0x01010101, 0x10204080) >>> 28;

function eachBrick(grid: VoxelGrid, box: Box, visit: (brick: Brick, bx: number, by: number, bz: number) => void): void {
  const part = intersectBoxes(box, grid.bounds);
  if (part.size.some((s) => s <= 0)) return;
  const [lo, hi] = brickRange(part);
  for (let bz = lo[2]; bz <= hi[2]; bz++) {
    for (let by = lo[1]; by <= hi[1]; by++) {
      for (let bx = lo[0]; bx <= hi[0]; bx++) {
        const brick = grid.brickAt(bx, by, bz);
        if (brick) visit(brick, bx, by, bz);
      }
    }
  }
}
