import { Refusal } from '../words';
import { type Box, type Vec3, boxContains, boxEnd, boxesEqual, intersectBoxes } from '../math';
import {
  BRICK,
  BRICK_CELLS,
  type Brick,
  cellIndex,
  countFilled,
  isUniformBrick,
  uniformBrick,
  uniformValue,
} from './brick';
import { type BrickTree, EMPTY_TREE, treeDiff, treeGet, treeSet } from './brick-tree';
import type { CellSet } from './cell-set';

/** Longest edge of a grid in cells. */
export const MAX_EDGE = 256;

export class GridError extends Refusal {
  override readonly name = 'GridError';
}

export interface BrickEntry {
  /** Brick coordinates: the lattice coordinates of its lowest cell, divided by 16. */
  readonly at: Vec3;
  readonly brick: Brick;
}

/** What an edit writes to; lives only while the edit runs. Writes outside the bounds are ignored. */
export interface GridDraft {
  readonly bounds: Box;
  get(x: number, y: number, z: number): number;
  set(x: number, y: number, z: number, value: number): void;
  /** Fills the part of `box` that lies inside the bounds. */
  fillBox(box: Box, value: number): void;
  /** Fills the cells of a set that lie inside the bounds; bricks that it covers are taken whole. */
  fillSet(set: CellSet, value: number): void;
}

/**
 * A frozen volume of cells with signed lattice coordinates. 0 is empty, 1–255 an index in a palette.
 * Cells live in copy-on-write bricks: an edited grid shares all it did not touch with the one before.
 */
export class VoxelGrid {
  private constructor(
    readonly bounds: Box,
    /** The bricks; opaque to all but this folder. */
    readonly tree: BrickTree,
    /** How many cells are not empty. */
    readonly count: number,
  ) {
    Object.freeze(this);
  }

  /** @throws GridError when a size is not a whole number from 1 to 256. */
  static empty(bounds: Box): VoxelGrid {
    checkBounds(bounds);
    return new VoxelGrid(bounds, EMPTY_TREE, 0);
  }

  /** A grid from whole bricks, as read from storage. Cells outside the bounds are cleared. */
  static fromBricks(bounds: Box, entries: Iterable<BrickEntry>): VoxelGrid {
    checkBounds(bounds);
    const owned = new Set<unknown>();
    let tree = EMPTY_TREE;
    let count = 0;
    for (const { at, brick } of entries) {
      const n = countFilled(brick);
      if (n === 0) continue;
      tree = treeSet(tree, at[0], at[1], at[2], brick, owned);
      count += n;
    }
    return new VoxelGrid(bounds, tree, count).clipped();
  }

  /**
   * This grid in `bounds` with some bricks replaced, sharing all else with it: how stored changes are read back.
   * A brick that is undefined takes away what stood there. Whole bricks are believed to lie inside the bounds.
   */
  withBricks(bounds: Box, changes: Iterable<{ readonly at: Vec3; readonly brick: Brick | undefined }>): VoxelGrid {
    const start = this.withBounds(bounds);
    const owned = new Set<unknown>();
    let { tree, count } = start;
    for (const { at, brick } of changes) {
      const before = treeGet(tree, at[0], at[1], at[2]);
      if (before === brick) continue;
      tree = treeSet(tree, at[0], at[1], at[2], brick, owned);
      count += (brick ? countFilled(brick) : 0) - (before ? countFilled(before) : 0);
    }
    return tree === start.tree ? start : new VoxelGrid(start.bounds, tree, count);
  }

  get(x: number, y: number, z: number): number {
    const b = treeGet(this.tree, x >> 4, y >> 4, z >> 4);
    if (b === undefined || !inside(this.bounds, x, y, z)) return 0;
    return b[cellIndex(x, y, z)]!;
  }

  /**
   * The grid after `change`; the same grid when nothing changed.
   *
   * @param limit – cells outside it are neither read nor written
   */
  edit(change: (draft: GridDraft) => void, limit: Box | null = null): VoxelGrid {
    const draft = new Draft(limit ? intersectBoxes(limit, this.bounds) : this.bounds, this.tree);
    change(draft);
    return draft.finish((tree, delta) =>
      delta === 0 && tree === this.tree ? this : new VoxelGrid(this.bounds, tree, this.count + delta),
    );
  }

  /** The same cells in another box; cells outside it are dropped. Coordinates do not change. */
  withBounds(bounds: Box): VoxelGrid {
    checkBounds(bounds);
    if (boxesEqual(bounds, this.bounds)) return this;
    // Bricks share slots modulo 32, so what falls outside must go before the window moves.
    const kept = intersectBoxes(this.bounds, bounds);
    const cut = boxContains(bounds, this.bounds) ? this : this.onlyInside(kept);
    return new VoxelGrid(bounds, cut.tree, cut.count);
  }

  /**
   * What lies in `box`, as a grid with that box. Cut bricks are remembered with the whole ones, so that two grids
   * that share a brick share its cut form too and only what really changed is drawn anew.
   */
  clippedTo(box: Box): VoxelGrid {
    const kept = intersectBoxes(this.bounds, box);
    if (boxesEqual(kept, this.bounds)) return this;
    if (kept.size.some((s) => s <= 0)) return VoxelGrid.empty({ min: this.bounds.min, size: [1, 1, 1] });
    const owned = new Set<unknown>();
    let tree = EMPTY_TREE;
    let count = 0;
    const [lo, hi] = brickRange(kept);
    for (let bz = lo[2]; bz <= hi[2]; bz++) {
      for (let by = lo[1]; by <= hi[1]; by++) {
        for (let bx = lo[0]; bx <= hi[0]; bx++) {
          const brick = treeGet(this.tree, bx, by, bz);
          const cut = brick && cutBrick(brick, kept, bx, by, bz);
          if (!cut) continue;
          tree = treeSet(tree, bx, by, bz, cut, owned);
          count += isUniformBrick(cut) ? BRICK_CELLS : countFilled(cut);
        }
      }
    }
    return new VoxelGrid(kept, tree, count);
  }

  /** How many cells lie outside `box`. */
  countOutside(box: Box): number {
    let n = 0;
    for (const { at, brick } of this.bricks()) {
      const ox = at[0] * BRICK,
        oy = at[1] * BRICK,
        oz = at[2] * BRICK;
      if (boxContains(box, { min: [ox, oy, oz], size: [BRICK, BRICK, BRICK] })) continue;
      for (let i = 0; i < BRICK_CELLS; i++)
        if (brick[i] !== 0 && !inside(box, ox + (i & 15), oy + ((i >> 4) & 15), oz + (i >> 8))) n++;
    }
    return n;
  }

  /** The smallest box around the filled cells, or null when all are empty. */
  contentBox(): Box | null {
    let x0 = Infinity,
      y0 = Infinity,
      z0 = Infinity,
      x1 = -Infinity,
      y1 = -Infinity,
      z1 = -Infinity;
    for (const { at, brick } of this.bricks()) {
      const ox = at[0] * BRICK,
        oy = at[1] * BRICK,
        oz = at[2] * BRICK;
      // A brick that lies inside what is known already cannot widen it.
      if (ox >= x0 && oy >= y0 && oz >= z0 && ox + 15 <= x1 && oy + 15 <= y1 && oz + 15 <= z1) continue;
      for (let i = 0; i < BRICK_CELLS; i++) {
        if (brick[i] === 0) continue;
        const x = ox + (i & 15),
          y = oy + ((i >> 4) & 15),
          z = oz + (i >> 8);
        if (x < x0) x0 = x;
        if (x > x1) x1 = x;
        if (y < y0) y0 = y;
        if (y > y1) y1 = y;
        if (z < z0) z0 = z;
        if (z > z1) z1 = z;
      }
    }
    return x0 === Infinity ? null : { min: [x0, y0, z0], size: [x1 - x0 + 1, y1 - y0 + 1, z1 - z0 + 1] };
  }

  /** Visits every filled cell, brick by brick. */
  forEach(visit: (x: number, y: number, z: number, value: number) => void): void {
    for (const { at, brick } of this.bricks()) {
      const ox = at[0] * BRICK,
        oy = at[1] * BRICK,
        oz = at[2] * BRICK;
      for (let i = 0; i < BRICK_CELLS; i++) {
        const v = brick[i]!;
        if (v !== 0) visit(ox + (i & 15), oy + ((i >> 4) & 15), oz + (i >> 8), v);
      }
    }
  }

  /** Every brick that holds something, z-major. */
  *bricks(): Generator<BrickEntry> {
    const [lo, hi] = brickRange(this.bounds);
    for (let bz = lo[2]; bz <= hi[2]; bz++) {
      for (let by = lo[1]; by <= hi[1]; by++) {
        for (let bx = lo[0]; bx <= hi[0]; bx++) {
          const brick = treeGet(this.tree, bx, by, bz);
          if (brick) yield { at: [bx, by, bz], brick };
        }
      }
    }
  }

  brickAt(bx: number, by: number, bz: number): Brick | undefined {
    return treeGet(this.tree, bx, by, bz);
  }

  /**
   * Copies the cells of `box` into `out` (x fastest, then y, then z) and returns it; cells outside the
   * bounds read 0. Hot kernels work on such a dense copy, 2–5 times faster than reads through bricks.
   */
  readBox(box: Box, out: Uint8Array = new Uint8Array(box.size[0] * box.size[1] * box.size[2])): Uint8Array {
    const [nx, ny, nz] = box.size;
    out.fill(0, 0, nx * ny * nz);
    const part = intersectBoxes(box, this.bounds);
    const end = boxEnd(part);
    for (let z = part.min[2]; z < end[2]; z++) {
      for (let y = part.min[1]; y < end[1]; y++) {
        const row = (y - box.min[1] + (z - box.min[2]) * ny) * nx - box.min[0];
        for (let x = part.min[0]; x < end[0];) {
          const stop = Math.min(end[0], (x | 15) + 1);
          const brick = treeGet(this.tree, x >> 4, y >> 4, z >> 4);
          if (brick) {
            for (let i = cellIndex(x, y, z), o = row + x; x < stop; x++) out[o++] = brick[i++]!;
          }
          x = stop;
        }
      }
    }
    return out;
  }

  /** A grid from dense cells laid out as `readBox` gives them. */
  static fromDense(box: Box, cells: Uint8Array): VoxelGrid {
    const entries: BrickEntry[] = [];
    const [lo, hi] = brickRange(box);
    const [nx, ny] = box.size;
    const end = boxEnd(box);
    const scratch = new Uint8Array(BRICK_CELLS);
    for (let bz = lo[2]; bz <= hi[2]; bz++) {
      for (let by = lo[1]; by <= hi[1]; by++) {
        for (let bx = lo[0]; bx <= hi[0]; bx++) {
          // Most bricks of a large body are of one value: they are copied to one place, and kept only if they are not.
          scratch.fill(0);
          const x0 = Math.max(box.min[0], bx * BRICK),
            x1 = Math.min(end[0], bx * BRICK + BRICK);
          for (let z = Math.max(box.min[2], bz * BRICK); z < Math.min(end[2], bz * BRICK + BRICK); z++) {
            for (let y = Math.max(box.min[1], by * BRICK); y < Math.min(end[1], by * BRICK + BRICK); y++) {
              const from = x0 - box.min[0] + (y - box.min[1] + (z - box.min[2]) * ny) * nx,
                to = cellIndex(x0, y, z);
              // A view and a copy of sixteen bytes cost more than the bytes one by one.
              for (let i = 0; i < x1 - x0; i++) scratch[to + i] = cells[from + i]!;
            }
          }
          const u = uniformValue(scratch);
          if (u !== 0) entries.push({ at: [bx, by, bz], brick: u > 0 ? uniformBrick(u) : scratch.slice() });
        }
      }
    }
    return VoxelGrid.fromBricks(box, entries);
  }

  /** Brick coordinates (inside this grid's bounds) at which the two grids hold different bricks. */
  changedBricks(before: VoxelGrid): Vec3[] {
    const [lo] = brickRange(this.bounds);
    const out: Vec3[] = [];
    treeDiff(before.tree, this.tree, (sx, sy, sz) => {
      out.push([unwrap(sx, lo[0]), unwrap(sy, lo[1]), unwrap(sz, lo[2])]);
    });
    return out;
  }

  /** Bytes that this grid holds and `before` does not. */
  bytesSince(before: VoxelGrid | undefined): number {
    let n = 0;
    treeDiff(before?.tree ?? EMPTY_TREE, this.tree, (_x, _y, _z, _b, after) => {
      if (after) n += BRICK_CELLS + 900;
    });
    return n;
  }

  /** Whether every cell and the bounds are alike. */
  equals(other: VoxelGrid): boolean {
    if (this === other) return true;
    if (this.count !== other.count || !boxesEqual(this.bounds, other.bounds)) return false;
    let same = true;
    treeDiff(this.tree, other.tree, (_x, _y, _z, a, b) => {
      if (same && (!a || !b || a.some((v, i) => v !== b[i])))
        same = (a ? countFilled(a) : 0) === 0 && (b ? countFilled(b) : 0) === 0;
    });
    return same;
  }

  private clipped(): VoxelGrid {
    const { min, size } = this.bounds;
    const aligned = min.every((v) => (v & 15) === 0) && size.every((v) => (v & 15) === 0);
    return aligned ? this : this.onlyInside(this.bounds);
  }

  private onlyInside(box: Box): VoxelGrid {
    const draft = new Draft(this.bounds, this.tree);
    for (const { at, brick } of this.bricks()) {
      const brickBox: Box = { min: [at[0] * BRICK, at[1] * BRICK, at[2] * BRICK], size: [BRICK, BRICK, BRICK] };
      if (boxContains(box, brickBox)) continue;
      for (let i = 0; i < BRICK_CELLS; i++) {
        if (brick[i] === 0) continue;
        const x = brickBox.min[0] + (i & 15),
          y = brickBox.min[1] + ((i >> 4) & 15),
          z = brickBox.min[2] + (i >> 8);
        if (!inside(box, x, y, z)) draft.setRaw(x, y, z, 0);
      }
    }
    return draft.finish((tree, delta) => (delta === 0 ? this : new VoxelGrid(this.bounds, tree, this.count + delta)));
  }
}

class Draft implements GridDraft {
  private readonly owned = new Set<unknown>();
  /** Bricks that this edit owns: where each stands and the first cell it was made for. */
  private readonly written = new Map<Brick, readonly [bx: number, by: number, bz: number, cell: number]>();
  private readonly before: BrickTree;
  private lastKey = NaN;
  private last: Brick | undefined;
  private delta = 0;

  constructor(
    readonly bounds: Box,
    private tree: BrickTree,
  ) {
    this.before = tree;
  }

  get(x: number, y: number, z: number): number {
    if (!inside(this.bounds, x, y, z)) return 0;
    return treeGet(this.tree, x >> 4, y >> 4, z >> 4)?.[cellIndex(x, y, z)] ?? 0;
  }

  set(x: number, y: number, z: number, value: number): void {
    if (inside(this.bounds, x, y, z)) this.setRaw(x, y, z, value);
  }

  setRaw(x: number, y: number, z: number, value: number): void {
    const bx = x >> 4,
      by = y >> 4,
      bz = z >> 4;
    const key = (bz * 4096 + by) * 4096 + bx;
    const i = cellIndex(x, y, z);
    let brick = key === this.lastKey ? this.last : treeGet(this.tree, bx, by, bz);
    const old = brick ? brick[i]! : 0;
    if (old === value) return;
    if (brick === undefined || !this.written.has(brick)) brick = this.own(bx, by, bz, i, brick);
    this.lastKey = key;
    this.last = brick;
    brick[i] = value;
    this.delta += (value !== 0 ? 1 : 0) - (old !== 0 ? 1 : 0);
  }

  fillBox(box: Box, value: number): void {
    const b = intersectBoxes(box, this.bounds);
    if (b.size.some((s) => s <= 0)) return;
    const end = boxEnd(b);
    const [lo, hi] = brickRange(b);
    for (let bz = lo[2]; bz <= hi[2]; bz++) {
      for (let by = lo[1]; by <= hi[1]; by++) {
        for (let bx = lo[0]; bx <= hi[0]; bx++) this.fillInBrick(bx, by, bz, b.min, end, value);
      }
    }
  }

  fillSet(set: CellSet, value: number): void {
    const box = intersectBoxes(set.box, this.bounds);
    if (box.size.some((s) => s <= 0)) return;
    const [lo, hi] = brickRange(box);
    const end = boxEnd(box);
    for (let bz = lo[2]; bz <= hi[2]; bz++) {
      for (let by = lo[1]; by <= hi[1]; by++) {
        for (let bx = lo[0]; bx <= hi[0]; bx++) this.fillSetInBrick(set, bx, by, bz, box.min, end, value);
      }
    }
  }

  private fillSetInBrick(set: CellSet, bx: number, by: number, bz: number, lo: Vec3, end: Vec3, value: number): void {
    const x0 = Math.max(lo[0], bx * BRICK),
      x1 = Math.min(end[0], bx * BRICK + BRICK);
    const y0 = Math.max(lo[1], by * BRICK),
      y1 = Math.min(end[1], by * BRICK + BRICK);
    const z0 = Math.max(lo[2], bz * BRICK),
      z1 = Math.min(end[2], bz * BRICK + BRICK);
    const mask = (1 << (x1 - x0)) - 1;
    let whole = x1 - x0 === BRICK && y1 - y0 === BRICK && z1 - z0 === BRICK;
    for (let z = z0; whole && z < z1; z++)
      for (let y = y0; whole && y < y1; y++) whole = set.bits16(x0, y, z) === 0xffff;
    if (whole) {
      this.fillInBrick(bx, by, bz, [x0, y0, z0], [x1, y1, z1], value);
      return;
    }
    this.fillRows(bx, by, bz, y0, y1, z0, z1, x0, (y, z) => set.bits16(x0, y, z) & mask, value);
  }

  /** Fills cells of rows of one brick: those of `bitsOf`, counted from `x0`. */
  private fillRows(
    bx: number,
    by: number,
    bz: number,
    y0: number,
    y1: number,
    z0: number,
    z1: number,
    x0: number,
    bitsOf: (y: number, z: number) => number,
    value: number,
  ): void {
    let brick = treeGet(this.tree, bx, by, bz);
    if (brick === undefined && value === 0) return;
    const fresh = brick === undefined;
    let mine = brick !== undefined && this.written.has(brick);
    let had = 0,
      n = 0;
    for (let z = z0; z < z1; z++) {
      for (let y = y0; y < y1; y++) {
        let bits = bitsOf(y, z);
        if (bits === 0) continue;
        let i = cellIndex(x0, y, z);
        if (!mine) {
          brick = this.own(bx, by, bz, i + 31 - Math.clz32(bits & -bits), brick);
          mine = true;
        }
        const b = brick!;
        if (fresh && (bits & (bits + 1)) === 0) {
          const width = 32 - Math.clz32(bits);
          b.fill(value, i, i + width);
          n += width;
          continue;
        }
        for (; bits !== 0; bits >>>= 1, i++) {
          if ((bits & 1) === 0) continue;
          if (!fresh && b[i] !== 0) had++;
          b[i] = value;
          n++;
        }
      }
    }
    this.delta += (value !== 0 ? n : 0) - had;
    this.lastKey = NaN;
  }

  private fillInBrick(bx: number, by: number, bz: number, lo: Vec3, end: Vec3, value: number): void {
    const x0 = Math.max(lo[0], bx * BRICK),
      x1 = Math.min(end[0], bx * BRICK + BRICK);
    const y0 = Math.max(lo[1], by * BRICK),
      y1 = Math.min(end[1], by * BRICK + BRICK);
    const z0 = Math.max(lo[2], bz * BRICK),
      z1 = Math.min(end[2], bz * BRICK + BRICK);
    const old = treeGet(this.tree, bx, by, bz);
    if (x1 - x0 === BRICK && y1 - y0 === BRICK && z1 - z0 === BRICK) {
      const next = value === 0 ? undefined : uniformBrick(value);
      if (next === old) return;
      this.delta += (value !== 0 ? BRICK_CELLS : 0) - (old ? countFilled(old) : 0);
      this.tree = treeSet(this.tree, bx, by, bz, next, this.owned);
      this.lastKey = NaN;
      return;
    }
    const bits = (1 << (x1 - x0)) - 1;
    this.fillRows(bx, by, bz, y0, y1, z0, z1, x0, () => bits, value);
  }

  private own(bx: number, by: number, bz: number, cell: number, brick: Brick | undefined): Brick {
    const copy: Brick = brick ? brick.slice() : new Uint8Array(BRICK_CELLS);
    this.written.set(copy, [bx, by, bz, cell]);
    this.tree = treeSet(this.tree, bx, by, bz, copy, this.owned);
    return copy;
  }

  /** Shares uniform bricks, gives back the old ones that ended up the same, and hands over the tree. */
  finish(make: (tree: BrickTree, delta: number) => VoxelGrid): VoxelGrid {
    let changed = this.written.size === 0 && this.tree !== this.before;
    for (const [brick, at] of this.written) {
      if (treeGet(this.tree, at[0], at[1], at[2]) !== brick) {
        changed = true;
        continue;
      }
      const old = treeGet(this.before, at[0], at[1], at[2]);
      // Its first cell tells almost always that it changed, without a look at the other 4,095.
      if (old ? old[at[3]] === brick[at[3]] && sameCells(old, brick) : uniformValue(brick) === 0) {
        this.tree = treeSet(this.tree, at[0], at[1], at[2], old, this.owned);
        continue;
      }
      changed = true;
      const u = uniformValue(brick);
      if (u >= 0)
        this.tree = treeSet(this.tree, at[0], at[1], at[2], u === 0 ? undefined : uniformBrick(u), this.owned);
    }
    return make(changed ? this.tree : this.before, this.delta);
  }
}

const cuts = new WeakMap<Brick, Map<string, Brick | undefined>>();
/** A brick with what lies outside `box` cleared; undefined when nothing is left. */
function cutBrick(brick: Brick, box: Box, bx: number, by: number, bz: number): Brick | undefined {
  const from = [bx, by, bz].map((b, i) => Math.max(0, box.min[i]! - b * BRICK)),
    to = [bx, by, bz].map((b, i) => Math.min(BRICK, box.min[i]! + box.size[i]! - b * BRICK));
  if (from.every((v) => v === 0) && to.every((v) => v === BRICK)) return brick;
  const key = `${from.join()} ${to.join()}`;
  let known = cuts.get(brick);
  if (!known) cuts.set(brick, (known = new Map()));
  if (!known.has(key)) {
    const cut: Brick = new Uint8Array(BRICK_CELLS);
    for (let z = from[2]!; z < to[2]!; z++) {
      for (let y = from[1]!; y < to[1]!; y++) {
        const o = (y << 4) | (z << 8);
        cut.set(brick.subarray(o + from[0]!, o + to[0]!), o + from[0]!);
      }
    }
    known.set(key, uniformValue(cut) === 0 ? undefined : cut);
  }
  return known.get(key);
}

/** Four cells at a time: this runs once for every brick that a stroke touched. */
const sameCells = (a: Brick, b: Brick): boolean => {
  const wa = new Int32Array(a.buffer),
    wb = new Int32Array(b.buffer);
  for (let i = 0; i < BRICK_CELLS / 4; i++) if (wa[i] !== wb[i]) return false;
  return true;
};

const inside = (b: Box, x: number, y: number, z: number): boolean => {
  const m = b.min,
    s = b.size;
  return x >= m[0] && y >= m[1] && z >= m[2] && x < m[0] + s[0] && y < m[1] + s[1] && z < m[2] + s[2];
};

/** The lowest and highest brick coordinates that `box` touches. */
export function brickRange(box: Box): readonly [Vec3, Vec3] {
  const e = boxEnd(box);
  return [
    [box.min[0] >> 4, box.min[1] >> 4, box.min[2] >> 4],
    [(e[0] - 1) >> 4, (e[1] - 1) >> 4, (e[2] - 1) >> 4],
  ];
}

const unwrap = (slot: number, low: number): number => low + ((slot - low) & 31);

function checkBounds({ min, size }: Box): void {
  for (const v of size) {
    if (!Number.isInteger(v) || v < 1 || v > MAX_EDGE) {
      throw new GridError('grid.size', { size: size.join('×'), most: MAX_EDGE });
    }
  }
  for (const v of min) {
    if (!Number.isInteger(v) || Math.abs(v) > 1e6) {
      throw new GridError('grid.begin', { list: min.join(', ') });
    }
  }
}
