import type { Box } from '@sphalerite/core/math';
import { type Brick, type BrickEntry, VoxelGrid, isUniformBrick, uniformBrick } from '@sphalerite/core/voxel';
import type { GridRow } from './database';

/** Deltas in a row before a full table is written, so that reading never follows long chains. */
export const FULL_EVERY = 64;

/** What a grid is stored as: its table, and the bricks that have no key yet. */
export interface GridPlan {
  readonly row: Omit<GridRow, 'id' | 'project'>;
  /** Places in the table (index of the brick's number) still waiting for a key. */
  readonly missing: readonly { readonly at: number; readonly brick: Brick }[];
}

/** Plans the row of a grid, as a delta against the grid that was stored before it where that is shorter. */
export function planGrid(
  grid: VoxelGrid,
  before: { grid: VoxelGrid; key: number; depth: number } | null,
  keyOf: (b: Brick) => number | undefined,
): GridPlan {
  const delta = before !== null && before.depth + 1 < FULL_EVERY;
  const entries: { at: readonly number[]; brick: Brick | undefined }[] = delta
    ? grid.changedBricks(before.grid).map((at) => ({ at, brick: grid.brickAt(at[0], at[1], at[2]) }))
    : [...grid.bricks()];
  const table = new Int32Array(entries.length * 4);
  const missing: { at: number; brick: Brick }[] = [];
  entries.forEach(({ at, brick }, i) => {
    table.set(at, i * 4);
    if (!brick) return;
    if (isUniformBrick(brick)) table[i * 4 + 3] = -brick[0]!;
    else {
      const key = keyOf(brick);
      if (key === undefined) missing.push({ at: i * 4 + 3, brick });
      else table[i * 4 + 3] = key;
    }
  });
  return {
    row: { base: delta ? before.key : null, depth: delta ? before.depth + 1 : 0, bounds: grid.bounds, table },
    missing,
  };
}

/** The grid of a row, on its base. */
export function readGrid(
  row: Omit<GridRow, 'project'>,
  base: VoxelGrid | null,
  brickOf: (key: number) => Brick,
): VoxelGrid {
  const bricks = new Map<string, BrickEntry>();
  if (base) for (const e of base.bricks()) bricks.set(e.at.join(), e);
  for (let i = 0; i < row.table.length; i += 4) {
    const at = [row.table[i]!, row.table[i + 1]!, row.table[i + 2]!] as const;
    const key = row.table[i + 3]!;
    if (key === 0) bricks.delete(at.join());
    else bricks.set(at.join(), { at, brick: key < 0 ? uniformBrick(-key) : brickOf(key) });
  }
  return VoxelGrid.fromBricks(row.bounds as Box, bricks.values());
}
