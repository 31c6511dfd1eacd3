import { boxEnd, mapVec, type Vec3 } from '../math';
import { BRICK, BRICK_CELLS, type Brick, VoxelGrid, cellIndex, isUniformBrick } from '../voxel';

/**
 * A grid of half the fineness, to be looked at from where its cubes are smaller than a pixel: a block of 2³ is filled when
 * any of it is, so that nothing thin is lost, in the colour most of its cubes have (the last in reading order of several).
 * Cell x holds what stood in 2x and 2x + 1.
 */
export function coarser(grid: VoxelGrid): VoxelGrid {
  const lo = mapVec(grid.bounds.min, (v) => v >> 1),
    end = boxEnd(grid.bounds);
  const bounds = { min: lo, size: mapVec(lo, (v, a) => ((end[a]! + 1) >> 1) - v) };
  const made = new Map<string, { readonly at: Vec3; readonly brick: Brick }>();
  const values = new Uint8Array(8);
  for (const { at, brick } of grid.bricks()) {
    const to: Vec3 = [at[0] >> 1, at[1] >> 1, at[2] >> 1];
    const key = to.join();
    let target = made.get(key);
    if (!target) made.set(key, (target = { at: to, brick: new Uint8Array(BRICK_CELLS) }));
    const first = cellIndex((at[0] & 1) * 8, (at[1] & 1) * 8, (at[2] & 1) * 8);
    for (let z = 0; z < BRICK / 2; z++)
      for (let y = 0; y < BRICK / 2; y++) {
        const out = first + cellIndex(0, y, z);
        if (isUniformBrick(brick)) target.brick.fill(brick[0]!, out, out + BRICK / 2);
        else
          for (let x = 0; x < BRICK / 2; x++) {
            const from = cellIndex(2 * x, 2 * y, 2 * z);
            for (let k = 0; k < 8; k++) values[k] = brick[from + (k & 1) + ((k & 2) << 3) + ((k & 4) << 6)]!;
            target.brick[out + x] = mostOf(values);
          }
      }
  }
  return VoxelGrid.fromBricks(bounds, made.values());
}

/** The value other than 0 that most of some have, the last of several; 0 when all are. */
function mostOf(values: Uint8Array): number {
  let best = 0,
    most = 0;
  for (let i = 0; i < values.length; i++) {
    const v = values[i]!;
    if (v === 0) continue;
    let n = 0;
    for (let k = 0; k <= i; k++) if (values[k] === v) n++;
    // Counted up to here, so that each value reaches its full count where it comes last.
    if (n >= most) [best, most] = [v, n];
  }
  return best;
}

/** Ever coarser forms of a grid, each half as fine as the one before, until one is a few cubes across or there are `levels`. */
export function coarserForms(grid: VoxelGrid, levels: number): VoxelGrid[] {
  const out: VoxelGrid[] = [];
  for (let form = grid; out.length < levels && Math.max(...form.bounds.size) > 3; out.push(form)) form = coarser(form);
  return out;
}
