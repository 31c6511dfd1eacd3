import { type Axis, withAxis } from '../math';
import { BRICK_CELLS, type Brick, isUniformBrick } from './brick';
import { VoxelGrid } from './voxel-grid';

const bricks: Readonly<Record<Axis, WeakMap<Brick, Brick>>> = [new WeakMap(), new WeakMap(), new WeakMap()];
const grids: Readonly<Record<Axis, WeakMap<VoxelGrid, VoxelGrid>>> = [new WeakMap(), new WeakMap(), new WeakMap()];

/**
 * The mirror image of a grid across the plane through the lattice's origin: cell c goes to −1 − c along `axis`. Bricks fall
 * on bricks, and each is mirrored once: after a stroke, only what it touched is made anew. Twice gives the grid again.
 */
export function mirrorImage(grid: VoxelGrid, axis: Axis): VoxelGrid {
  let out = grids[axis].get(grid);
  if (!out) {
    const { min, size } = grid.bounds;
    out = VoxelGrid.fromBricks(
      { min: withAxis(min, axis, -min[axis] - size[axis]), size },
      Array.from(grid.bricks(), ({ at, brick }) => ({
        at: withAxis(at, axis, -1 - at[axis]),
        brick: mirroredBrick(brick, axis),
      })),
    );
    grids[axis].set(grid, out);
    grids[axis].set(out, grid);
  }
  return out;
}

function mirroredBrick(brick: Brick, axis: Axis): Brick {
  if (isUniformBrick(brick)) return brick;
  let out = bricks[axis].get(brick);
  if (!out) {
    const turned = 15 << (4 * axis);
    out = new Uint8Array(BRICK_CELLS);
    for (let i = 0; i < BRICK_CELLS; i++) out[i ^ turned] = brick[i]!;
    bricks[axis].set(brick, out);
    bricks[axis].set(out, brick);
  }
  return out;
}
