import { describe, expect, it } from 'vitest';
import { type Vec3, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { coarser, coarserForms } from './coarser';

/** Block by block, as it is told. */
function plainly(grid: VoxelGrid): Map<string, number> {
  const blocks = new Map<string, number[]>();
  const cells: (readonly [Vec3, number])[] = [];
  grid.forEach((x, y, z, v) => cells.push([[x, y, z], v]));
  cells.sort(([a], [b]) => a[2] - b[2] || a[1] - b[1] || a[0] - b[0]);
  for (const [c, v] of cells) {
    const key = c.map((n) => Math.floor(n / 2)).join();
    blocks.set(key, [...(blocks.get(key) ?? []), v]);
  }
  return new Map(
    [...blocks].map(([key, vs]) => {
      const count = (v: number): number => vs.filter((o) => o === v).length;
      const most = Math.max(...vs.map(count));
      return [key, vs.findLast((v) => count(v) === most)!];
    }),
  );
}

describe('coarser', () => {
  it('is filled where anything was, in the colour of most, the last of several', () => {
    for (let seed = 1; seed <= 6; seed++) {
      const random = seededRandom(seed);
      const min: Vec3 = [-1 - seed * 7, -3, seed - 20];
      const grid = VoxelGrid.empty({ min, size: [37, 21, 44] }).edit((d) => {
        for (let n = 0; n < 900; n++)
          d.set(
            ...(min.map((m, a) => m + Math.floor(random() * [37, 21, 44][a]!)) as [number, number, number]),
            1 + Math.floor(random() * 3),
          );
        d.fillBox({ min: [min[0] + 1, min[1], min[2] + 2], size: [34, 20, 34] }, 9);
      });
      const made = coarser(grid);
      const want = plainly(grid);
      expect(made.count).toBe(want.size);
      made.forEach((x, y, z, v) => expect(v).toBe(want.get([x, y, z].join())));
    }
  });

  it('keeps a sheet and a rod of one cube, and the place of everything', () => {
    const grid = VoxelGrid.empty({ min: [-8, 0, 0], size: [16, 16, 16] }).edit((d) => {
      d.fillBox({ min: [-8, 5, 0], size: [16, 1, 16] }, 3);
      d.fillBox({ min: [1, 0, 7], size: [1, 16, 1] }, 4);
    });
    const made = coarser(grid);
    expect(made.bounds).toEqual({ min: [-4, 0, 0], size: [8, 8, 8] });
    expect(made.get(-4, 2, 0)).toBe(3);
    expect([0, 1, 3, 7].map((y) => made.get(0, y, 3))).toEqual([4, 4, 4, 4]);
    expect(made.count).toBe(64 + 7);
  });

  it('has fewer forms the smaller it is, each half as fine', () => {
    const sizes = (n: number): number[] =>
      coarserForms(
        VoxelGrid.empty({ min: [0, 0, 0], size: [n, 2, 1] }).edit((d) => d.set(0, 0, 0, 1)),
        5,
      ).map((g) => g.bounds.size[0]);
    expect(sizes(200)).toEqual([100, 50, 25, 13, 7]);
    expect(sizes(9)).toEqual([5, 3]);
    expect(sizes(3)).toEqual([]);
  });
});
