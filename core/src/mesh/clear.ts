import { type VoxelGrid, mapBytes } from '../voxel';

const known = new WeakMap<VoxelGrid, { clear: Uint8Array; grid: VoxelGrid }>();

/**
 * The grid without cubes of see-through swatches: what stands behind glass has faces of its own there. The same grid when
 * it has no such cubes; memoised.
 *
 * @param clear – 1 for each see-through byte
 */
export function withoutClear(grid: VoxelGrid, clear: Uint8Array): VoxelGrid {
  if (!clear.includes(1)) return grid;
  const old = known.get(grid);
  if (old && old.clear.every((v, i) => v === clear[i])) return old.grid;
  const out = mapBytes(
    grid,
    Uint8Array.from({ length: 256 }, (_, i) => (clear[i] === 1 ? 0 : i)),
  );
  known.set(grid, { clear, grid: out });
  return out;
}
