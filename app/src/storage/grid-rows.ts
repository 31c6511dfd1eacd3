import type { Box } from '@sphalerite/core/math';
import { type Brick, VoxelGrid, isUniformBrick, uniformBrick } from '@sphalerite/core/voxel';
import type { GridRow } from './database';

/** Deltas in a row before a full table is written, so that reading never follows long chains. */
export const FULL_EVERY = 64;

type Row = Omit<GridRow, 'id' | 'project'>;

/** Plans the row of a grid, as a delta against the grid that was stored before it where that is shorter. */
export function planGrid(
  grid: VoxelGrid,
  before: { grid: VoxelGrid; key: number; depth: number } | null,
  keyOf: (b: Brick) => number,
): Row {
  const delta = before !== null && before.depth + 1 < FULL_EVERY;
  const entries: { at: readonly number[]; brick: Brick | undefined }[] = delta
    ? grid.changedBricks(before.grid).map((at) => ({ at, brick: grid.brickAt(at[0], at[1], at[2]) }))
    : [...grid.bricks()];
  const table = new Int32Array(entries.length * 4);
  entries.forEach(({ at, brick }, i) => {
    table.set(at, i * 4);
    if (brick) table[i * 4 + 3] = isUniformBrick(brick) ? -brick[0]! : keyOf(brick);
  });
  return {
    base: delta ? before.key : null,
    depth: delta ? before.depth + 1 : 0,
    bounds: grid.bounds,
    table,
  };
}

/** Keys of the bricks that a row names. */
export function brickKeysOf(row: Pick<Row, 'table'>): number[] {
  const keys: number[] = [];
  for (let i = 3; i < row.table.length; i += 4) if (row.table[i]! > 0) keys.push(row.table[i]!);
  return keys;
}

/**
 * The grid of a row.
 *
 * @param base – the grid of the row that it is a delta of; null for a full table
 * @param like – for a full table, a grid that is likely to be nearly the same, with which it will share what is alike
 */
export function readGrid(
  row: Row,
  base: VoxelGrid | null,
  brickOf: (key: number) => Brick,
  like: VoxelGrid | null = null,
): VoxelGrid {
  const changes: { at: readonly [number, number, number]; brick: Brick | undefined }[] = [];
  const full = row.base === null;
  for (let i = 0; i < row.table.length; i += 4) {
    const at = [row.table[i]!, row.table[i + 1]!, row.table[i + 2]!] as const;
    const key = row.table[i + 3]!;
    const brick = key === 0 ? undefined : key < 0 ? uniformBrick(-key) : brickOf(key);
    changes.push({ at, brick });
  }
  const start = base ?? (full ? like : null) ?? VoxelGrid.empty(row.bounds as Box);
  if (full && like) {
    const named = new Set(changes.map((c) => c.at.join()));
    for (const { at } of like.bricks()) if (!named.has(at.join())) changes.push({ at, brick: undefined });
  }
  return start.withBricks(row.bounds as Box, changes);
}
