import { BYTE_VALUES } from './byte-table';
import { BRICK, BRICK_CELLS, type Brick, isUniformBrick, uniformBrick, uniformValue } from './brick';
import type { CellSet } from './cell-set';
import { type BrickEntry, VoxelGrid } from './voxel-grid';

const counted = new WeakMap<Brick, Uint16Array>();
const scratch = new Uint16Array(BYTE_VALUES);

/** How often each value stands in a brick, as pairs of value and count; remembered for as long as the brick lives. */
function countsOf(brick: Brick): Uint16Array {
  let pairs = counted.get(brick);
  if (!pairs) {
    scratch.fill(0);
    for (let i = 0; i < BRICK_CELLS; i++) scratch[brick[i]!]!++;
    const list: number[] = [];
    for (let v = 1; v < BYTE_VALUES; v++) if (scratch[v]! > 0) list.push(v, scratch[v]!);
    counted.set(brick, (pairs = Uint16Array.from(list)));
  }
  return pairs;
}

/** How many cells hold each value; entry 0 stays 0. After an edit only the bricks it touched are counted anew. */
export function byteCounts(grid: VoxelGrid, out: Uint32Array = new Uint32Array(BYTE_VALUES)): Uint32Array {
  for (const { brick } of grid.bricks()) {
    if (isUniformBrick(brick)) {
      out[brick[0]!]! += BRICK_CELLS;
      continue;
    }
    const pairs = countsOf(brick);
    for (let i = 0; i < pairs.length; i += 2) out[pairs[i]!]! += pairs[i + 1]!;
  }
  return out;
}

/**
 * The grid with every value replaced by what `table` (256 entries) says; 0 clears. Bricks in which nothing changes stay
 * the same, and the same grid comes back when none do.
 *
 * @param within – only these cells
 */
export function mapBytes(grid: VoxelGrid, table: Uint8Array, within: CellSet | null = null): VoxelGrid {
  const entries: BrickEntry[] = [];
  let changed = false;
  for (const { at, brick } of grid.bricks()) {
    const next = within
      ? mapInside(brick, table, within, at[0] * BRICK, at[1] * BRICK, at[2] * BRICK)
      : mapWhole(brick, table);
    if (next !== brick) changed = true;
    if (next) entries.push({ at, brick: next });
  }
  return changed ? VoxelGrid.fromBricks(grid.bounds, entries) : grid;
}

function mapWhole(brick: Brick, table: Uint8Array): Brick | null {
  if (isUniformBrick(brick)) {
    const v = table[brick[0]!]!;
    return v === brick[0] ? brick : v === 0 ? null : uniformBrick(v);
  }
  const pairs = countsOf(brick);
  let touched = false;
  for (let i = 0; i < pairs.length && !touched; i += 2) touched = table[pairs[i]!] !== pairs[i];
  if (!touched) return brick;
  const out = new Uint8Array(BRICK_CELLS);
  for (let i = 0; i < BRICK_CELLS; i++) out[i] = brick[i] === 0 ? 0 : table[brick[i]!]!;
  return compact(out);
}

function mapInside(brick: Brick, table: Uint8Array, within: CellSet, x0: number, y0: number, z0: number): Brick | null {
  let out: Brick | null = null;
  for (let z = 0; z < BRICK; z++) {
    for (let y = 0; y < BRICK; y++) {
      const bits = within.bits16(x0, y0 + y, z0 + z);
      if (bits === 0) continue;
      for (let x = 0, i = (z * BRICK + y) * BRICK; x < BRICK; x++, i++) {
        const v = brick[i]!;
        if (v === 0 || (bits & (1 << x)) === 0 || table[v] === v) continue;
        out ??= brick.slice();
        out[i] = table[v]!;
      }
    }
  }
  return out ? compact(out) : brick;
}

function compact(brick: Brick): Brick | null {
  const u = uniformValue(brick);
  return u < 0 ? brick : u === 0 ? null : uniformBrick(u);
}
