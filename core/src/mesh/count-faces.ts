import type { VoxelGrid } from '../voxel';

/** How many faces of cubes look into the open. */
export function countFaces(grid: VoxelGrid): number {
  const box = grid.contentBox();
  if (!box) return 0;
  const [nx, ny, nz] = [box.size[0] + 2, box.size[1] + 2, box.size[2] + 2];
  const cells = grid.readBox({ min: [box.min[0] - 1, box.min[1] - 1, box.min[2] - 1], size: [nx, ny, nz] });
  const row = nx,
    layer = nx * ny;
  let n = 0;
  // Between a cell and the next along each axis there is a face where one of the two is filled.
  for (let at = 0; at < layer * (nz - 1); at++) {
    const filled = cells[at] !== 0;
    if (filled !== (cells[at + 1] !== 0)) n++;
    if (filled !== (cells[at + row] !== 0)) n++;
    if (filled !== (cells[at + layer] !== 0)) n++;
  }
  return n;
}
