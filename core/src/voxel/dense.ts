import { type Box, boxEnd } from '../math';
import { BRICK, BRICK_CELLS, type Brick, uniformBrick, uniformValue } from './brick';
import { type BrickEntry, VoxelGrid } from './voxel-grid';

/**
 * A grid of cells that stand one behind the other, x fastest.
 *
 * @param bytes – as many as the box has cells
 * @throws GridError when an edge is not a whole number from 1 to 256
 */
export function gridOfBytes(bounds: Box, bytes: Uint8Array): VoxelGrid {
  const { min, size } = bounds,
    end = boxEnd(bounds),
    entries: BrickEntry[] = [];
  const from = min.map((v) => v >> 4),
    to = end.map((v) => (v - 1) >> 4);
  for (let z = from[2]!; z <= to[2]!; z++)
    for (let y = from[1]!; y <= to[1]!; y++)
      for (let x = from[0]!; x <= to[0]!; x++) {
        const brick: Brick = new Uint8Array(BRICK_CELLS);
        const x0 = Math.max(min[0], x * BRICK),
          x1 = Math.min(end[0], (x + 1) * BRICK);
        for (let k = Math.max(min[2], z * BRICK); k < Math.min(end[2], (z + 1) * BRICK); k++)
          for (let j = Math.max(min[1], y * BRICK); j < Math.min(end[1], (y + 1) * BRICK); j++) {
            const row = ((k - min[2]) * size[1] + j - min[1]) * size[0] - min[0];
            brick.set(bytes.subarray(row + x0, row + x1), (x0 & 15) | ((j & 15) << 4) | ((k & 15) << 8));
          }
        const u = uniformValue(brick);
        if (u !== 0) entries.push({ at: [x, y, z], brick: u > 0 ? uniformBrick(u) : brick });
      }
  return VoxelGrid.fromBricks(bounds, entries);
}
