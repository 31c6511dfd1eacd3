import { byteTable, mapBytes, type VoxelGrid } from '../voxel';

const known = new WeakMap<VoxelGrid, { transparent: Uint8Array; grid: VoxelGrid }>();

/**
 * The grid without cubes of see-through swatches: what stands behind glass has faces of its own there. The same grid when
 * it has no such cubes; memoised.
 *
 * @param transparent – 1 for each see-through byte
 */
export function withoutTransparent(grid: VoxelGrid, transparent: Uint8Array): VoxelGrid {
  if (!transparent.includes(1)) return grid;
  const old = known.get(grid);
  if (old && old.transparent.every((v, i) => v === transparent[i])) return old.grid;
  const out = mapBytes(
    grid,
    byteTable((i) => (transparent[i] === 1 ? 0 : i)),
  );
  known.set(grid, { transparent, grid: out });
  return out;
}
