import { type Steps, finish } from '../math';
import { CellSet, type VoxelGrid, connectedPieces, flood, piecesSet } from '../voxel';

/** What an artist would rather not have left in: see each field. */
export interface Untidy {
  /** Cubes of every connected piece but the largest. */
  readonly loose: CellSet;
  readonly loosePieces: number;
  /** Empty cells all six of whose neighbours are filled. */
  readonly holes: CellSet;
  /** Cubes that cannot be seen: no empty cell that the outside reaches touches them by a face. */
  readonly hidden: CellSet;
}

/** Pieces are connected by faces. */
export const untidy = (grid: VoxelGrid): Untidy => finish(untidySteps(grid));

/** {@link untidy} in pieces. */
export function* untidySteps(grid: VoxelGrid): Steps<Untidy> {
  const box = grid.contentBox();
  const none = new CellSet({ min: grid.bounds.min, size: [0, 0, 0] });
  if (!box) return { loose: none, loosePieces: 0, holes: none, hidden: none };
  const filled = CellSet.filled(grid, box);
  const pieces = connectedPieces(filled);
  yield 0.3;
  const empty = filled.inverted(box);
  const holes = connectedPieces(empty);
  yield 0.6;
  return {
    loose: piecesSet(pieces, (p) => p > 0),
    loosePieces: Math.max(0, pieces.sizes.length - 1),
    holes: piecesSet(holes, (p) => holes.sizes[p] === 1).minus(borderOf(filled)),
    hidden: filled.minus(outsideOf(grid).grown(1, false, wider(box))),
  };
}

const wider = (b: CellSet['box']): CellSet['box'] => ({
  min: [b.min[0] - 1, b.min[1] - 1, b.min[2] - 1],
  size: [b.size[0] + 2, b.size[1] + 2, b.size[2] + 2],
});
/** The cells at the sides of the set's box. */
const borderOf = (set: CellSet): CellSet =>
  CellSet.ofBox(set.box).minus(
    CellSet.ofBox({
      min: [set.box.min[0] + 1, set.box.min[1] + 1, set.box.min[2] + 1],
      size: [Math.max(0, set.box.size[0] - 2), Math.max(0, set.box.size[1] - 2), Math.max(0, set.box.size[2] - 2)],
    }),
  );

/** The empty cells around and in a body that can be reached from outside its box over faces. */
export function outsideOf(grid: VoxelGrid): CellSet {
  const box = wider(grid.contentBox() ?? grid.bounds);
  return flood(CellSet.filled(grid, box).inverted(box), [box.min]);
}

/**
 * The cubes that hollowing takes away: those that no way of `wall` steps from the outside reaches. Closed hollows count as inside.
 *
 * @param joined – steps go over edges and corners too, so that the cubes of the wall meet in faces and the wall is thicker
 * where the surface is stepped; without, the wall is as thick as asked everywhere
 */
export function innerCells(grid: VoxelGrid, wall: number, joined = false): CellSet {
  const outside = outsideOf(grid);
  const near = outside.grown(wall, joined, outside.box);
  return CellSet.filled(grid, outside.box).minus(near);
}
