import { BRICK_CELLS, BYTE_VALUES, type VoxelGrid } from '@sphalerite/core/voxel';

/** Bricks that are looked at, and the step between the cells in them: enough for a dot in a list, however large the part. */
const BRICKS = 48,
  STRIDE = 61;
const known = new WeakMap<VoxelGrid, number>();

/** The byte that most cubes of a grid seem to have, from a sample; 0 when it is empty. */
export function commonByte(grid: VoxelGrid): number {
  const before = known.get(grid);
  if (before !== undefined) return before;
  const counts = new Uint32Array(BYTE_VALUES);
  let bricks = 0;
  for (const { brick } of grid.bricks()) {
    for (let i = 0; i < BRICK_CELLS; i += STRIDE) counts[brick[i]!]!++;
    if (++bricks >= BRICKS) break;
  }
  counts[0] = 0;
  let most = counts.indexOf(Math.max(...counts));
  // A few cubes may slip through the sample; then any of them will do.
  if (counts[most] === 0 && grid.count > 0)
    for (const { brick } of grid.bricks()) if ((most = brick.find((v) => v !== 0) ?? 0) !== 0) break;
  known.set(grid, most);
  return most;
}
