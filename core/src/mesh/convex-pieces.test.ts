import { describe, expect, it } from 'vitest';
import { type Vec3, finish, seededRandom } from '../math';
import { VoxelGrid } from '../voxel';
import { type ConvexPiece, convexPiecesSteps } from '.';

const filled = (size: Vec3, is: (x: number, y: number, z: number) => boolean): VoxelGrid =>
  VoxelGrid.empty({ min: [-3, 0, 5], size }).edit((d) => {
    for (let z = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++) for (let x = 0; x < size[0]; x++) if (is(x, y, z)) d.set(x - 3, y, z + 5, 1);
  });
const pieces = (grid: VoxelGrid, tolerance: number): readonly ConvexPiece[] =>
  finish(convexPiecesSteps(grid, tolerance)).pieces;

/** Whether a point is behind every face of a piece. */
function inside({ positions, triangles }: ConvexPiece, p: Vec3, slack: number): boolean {
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [0, 1, 2].map((k) => [...positions.slice(triangles[t + k]! * 3, triangles[t + k]! * 3 + 3)]) as [
      number[],
      number[],
      number[],
    ];
    const [u, v] = [b.map((w, i) => w - a[i]!), c.map((w, i) => w - a[i]!)];
    const n = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
    const l = Math.hypot(...n);
    if (n.reduce((s, w, i) => s + (w / l) * (p[i]! - a[i]!), 0) > slack) return false;
  }
  return true;
}

describe('convex pieces', () => {
  it('are one hull of a box, of a ball, and of stairs within a cube; two of an angle', () => {
    expect(
      pieces(
        filled([5, 3, 2], () => true),
        0,
      ),
    ).toHaveLength(1);
    expect(
      pieces(
        filled([5, 3, 2], () => true),
        0,
      )[0]!.triangles,
    ).toHaveLength(12 * 3);
    expect(
      pieces(
        filled([13, 13, 13], (x, y, z) => Math.hypot(x - 6, y - 6, z - 6) < 6.3),
        1,
      ),
    ).toHaveLength(1);
    expect(
      pieces(
        filled([8, 8, 4], (x, y) => y <= x),
        1,
      ),
    ).toHaveLength(1);
    expect(
      pieces(
        filled([8, 8, 4], (x, y) => y <= x),
        0,
      ).length,
    ).toBeGreaterThan(3);
    expect(
      pieces(
        filled([12, 12, 3], (x, y) => x < 3 || y < 3),
        1,
      ),
    ).toHaveLength(2);
    expect(pieces(VoxelGrid.empty({ min: [0, 0, 0], size: [2, 2, 2] }), 1)).toEqual([]);
  });
  it.each([0, 1, 2])('hold every cube, and of nothing that is more than %i cubes from all', (tolerance) => {
    const random = seededRandom(tolerance + 3);
    const grid = filled([9, 9, 9], (x, y, z) => (Math.hypot(x - 4, z - 4) < 3 && y < 6) || random() < 0.04);
    const made = pieces(grid, tolerance);
    const cells: Vec3[] = [];
    grid.forEach((x, y, z) => cells.push([x, y, z]));
    for (const [x, y, z] of cells)
      for (const corner of [0, 1, 2, 3, 4, 5, 6, 7].map((c): Vec3 => [
        x + (c & 1),
        y + ((c >> 1) & 1),
        z + ((c >> 2) & 1),
      ]))
        expect(made.some((p) => inside(p, corner, 1e-4))).toBe(true);
    const away = ([x, y, z]: Vec3): number =>
      Math.min(...cells.map((c) => Math.hypot(...[x, y, z].map((v, i) => Math.max(0, c[i]! - v, v - c[i]! - 1)))));
    let tried = 0;
    for (let n = 0; n < 4000; n++) {
      const p: Vec3 = [-3 + random() * 9, random() * 9, 5 + random() * 9];
      if (!made.some((m) => inside(m, p, -1e-6))) continue;
      tried++;
      expect(away(p)).toBeLessThanOrEqual(tolerance + 1e-6);
    }
    expect(tried).toBeGreaterThan(300);
    expect(finish(convexPiecesSteps(grid, tolerance)).error).toBeLessThanOrEqual(tolerance + 1e-6);
  });
  it('say how far off they are: a slope over stairs by half a cube', () => {
    const { pieces: made, error } = finish(
      convexPiecesSteps(
        filled([8, 8, 4], (x, y) => y <= x),
        1,
      ),
    );
    expect(made).toHaveLength(1);
    // The middle of the slope is as far from the tread as from the riser.
    expect(error).toBeGreaterThan(0.45);
    expect(error).toBeLessThanOrEqual(0.5);
    expect(
      finish(
        convexPiecesSteps(
          filled([5, 3, 2], () => true),
          1,
        ),
      ).error,
    ).toBe(0);
  });
});
