import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, finish, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { boxCoverSteps } from '.';

const cover = (grid: VoxelGrid, tolerance = 0): Box[] => finish(boxCoverSteps(grid, tolerance));
const filled = (size: number, is: (x: number, y: number, z: number) => boolean, min: Vec3 = [0, 0, 0]): VoxelGrid =>
  VoxelGrid.empty({ min, size: [size, size, size] }).edit((d) => {
    for (let z = 0; z < size; z++)
      for (let y = 0; y < size; y++)
        for (let x = 0; x < size; x++) if (is(x, y, z)) d.set(x + min[0], y + min[1], z + min[2], 1);
  });

/** How far the farthest point of a cell is from the nearest of some cells, by trying all. */
function far(cell: Vec3, from: readonly Vec3[]): number {
  let least = Infinity;
  for (const c of from) least = Math.min(least, (cell[0] - c[0]) ** 2 + (cell[1] - c[1]) ** 2 + (cell[2] - c[2]) ** 2);
  return Math.sqrt(least);
}
const cellsOf = (boxes: readonly Box[]): Vec3[] => {
  const out = new Map<string, Vec3>();
  for (const { min, size } of boxes)
    for (let z = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++)
        for (let x = 0; x < size[0]; x++) {
          const at: Vec3 = [min[0] + x, min[1] + y, min[2] + z];
          out.set(at.join(), at);
        }
  return [...out.values()];
};
const cubes = (grid: VoxelGrid): Vec3[] => {
  const out: Vec3[] = [];
  grid.forEach((x, y, z) => out.push([x, y, z]));
  return out;
};

describe('boxes that stand for a body', () => {
  it('are as few as one would say: one of a block, wherever it is; two of an L; five of an open crate; one of a closed one', () => {
    expect(cover(filled(6, () => true, [-9, 4, 100]))).toEqual([{ min: [-9, 4, 100], size: [6, 6, 6] }]);
    expect(cover(filled(6, (x, y) => x === 0 || y === 0))).toHaveLength(2);
    expect(cover(filled(6, (x, y, z) => y === 0 || x === 0 || z === 0 || x === 5 || z === 5))).toHaveLength(5);
    expect(cover(filled(6, (x, y, z) => [x, y, z].some((v) => v === 0 || v === 5)))).toHaveLength(1);
    expect(cover(VoxelGrid.empty({ min: [0, 0, 0], size: [3, 3, 3] }))).toEqual([]);
  });
  it('take stairs as slopes within the tolerance, and leave a doorway open that is wider than it', () => {
    const stairs = filled(8, (x, y) => y <= x);
    expect(cover(stairs)).toHaveLength(8);
    expect(cover(stairs, 2).length).toBeLessThan(5);
    const wall = filled(12, (x, y, z) => z === 6 && !(x >= 4 && x < 9 && y < 8));
    const inDoor = cellsOf(cover(wall, 2)).filter(([x, y]) => x === 6 && y < 5);
    expect(inDoor).toEqual([]);
    expect(cover(wall, 2).length).toBeLessThanOrEqual(3);
  });
  it.each([0, 1, 1.5, 2, 3])(
    'at tolerance %f no point of either is farther from the other than that, on random heaps',
    (t) => {
      const random = seededRandom(Math.round(t * 10));
      for (let n = 0; n < 6; n++) {
        const grid = filled(9, () => random() < 0.15 + 0.1 * n, [-4, 1, 0]);
        const boxes = cover(grid, t),
          own = cubes(grid),
          theirs = cellsOf(boxes);
        // Cavities that nothing gets to count in with the body.
        const air = new Set<string>(),
          open: Vec3[] = [[-5, 0, -1]];
        const inside = ([x, y, z]: Vec3): boolean => x >= -5 && x <= 5 && y >= 0 && y <= 10 && z >= -1 && z <= 9;
        for (let at = open.pop(); at; at = open.pop()) {
          if (air.has(at.join()) || !inside(at) || grid.get(...(at as [number, number, number])) !== 0) continue;
          air.add(at.join());
          for (const d of [
            [1, 0, 0],
            [-1, 0, 0],
            [0, 1, 0],
            [0, -1, 0],
            [0, 0, 1],
            [0, 0, -1],
          ] as const)
            open.push([at[0] + d[0], at[1] + d[1], at[2] + d[2]]);
        }
        expect(Math.max(...own.map((c) => far(c, theirs)))).toBeLessThanOrEqual(t);
        expect(Math.max(...theirs.filter((c) => air.has(c.join())).map((c) => far(c, own)), 0)).toBeLessThanOrEqual(t);
        expect(cover(grid, t)).toEqual(boxes);
      }
    },
  );
});
