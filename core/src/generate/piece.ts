import { CellSet, type VoxelGrid, connectedPieces, piecesSet } from '../voxel';

/** The largest of the pieces of a grid that hang together by faces, in a box that fits. */
export function largestPiece(grid: VoxelGrid): VoxelGrid {
  const pieces = connectedPieces(CellSet.filled(grid));
  if (pieces.sizes.length < 2) return fitted(grid);
  const gone = piecesSet(pieces, (piece) => piece > 0);
  return fitted(grid.edit((d) => d.fillSet(gone, 0)));
}

export const fitted = (grid: VoxelGrid): VoxelGrid => grid.withBounds(grid.contentBox() ?? grid.bounds);
