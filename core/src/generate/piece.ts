import type { Vec3 } from '../math';
import { CellSet, VoxelGrid, connectedPieces, piecesSet } from '../voxel';

/** The largest of the pieces of a grid that hang together by faces, in a box that fits. */
export function largestPiece(grid: VoxelGrid): VoxelGrid {
  const pieces = connectedPieces(CellSet.filled(grid));
  if (pieces.sizes.length < 2) return fitted(grid);
  const gone = piecesSet(pieces, (piece) => piece > 0);
  return fitted(grid.edit((d) => d.fillSet(gone, 0)));
}

export const fitted = (grid: VoxelGrid): VoxelGrid => grid.withBounds(grid.contentBox() ?? grid.bounds);

/** A grid as large as its cells. */
export function gridOfCells(cells: readonly (readonly [number, number, number, number])[]): VoxelGrid {
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  for (const c of cells)
    for (let a = 0; a < 3; a++) {
      lo[a] = Math.min(lo[a]!, c[a]!);
      hi[a] = Math.max(hi[a]!, c[a]!);
    }
  const size = hi.map((v, a) => Math.min(256, v - lo[a]! + 1)) as unknown as Vec3;
  return VoxelGrid.empty({ min: lo as unknown as Vec3, size }).edit((d) => {
    for (const [x, y, z, by] of cells) d.set(x, y, z, by);
  });
}
