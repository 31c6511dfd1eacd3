import { describe, expect, it } from 'vitest';
import { QUAT_IDENTITY, type Vec3, add, finish, quatFromAxisAngle, rotate, seededRandom, sub } from '../math';
import { VoxelGrid } from '../voxel';
import { type BoxCover, type CoverBox, boxAround, boxCoverSteps } from '.';

const covered = (grid: VoxelGrid, tolerance = 0): BoxCover => finish(boxCoverSteps(grid, tolerance));
const cover = (grid: VoxelGrid, tolerance = 0): readonly CoverBox[] => covered(grid, tolerance).boxes;
const filled = (size: number, is: (x: number, y: number, z: number) => boolean, min: Vec3 = [0, 0, 0]): VoxelGrid =>
  VoxelGrid.empty({ min, size: [size, size, size] }).edit((d) => {
    for (let z = 0; z < size; z++)
      for (let y = 0; y < size; y++)
        for (let x = 0; x < size; x++) if (is(x, y, z)) d.set(x + min[0], y + min[1], z + min[2], 1);
  });

const AXES: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** How far a point is from a box, by its own axes. */
function fromBox({ middle, size, turn }: CoverBox, p: Vec3): number {
  const back = turn ? quatFromAxisAngle(AXES[turn.axis]!, -turn.angle) : QUAT_IDENTITY;
  return Math.hypot(...rotate(back, sub(p, middle)).map((v, a) => Math.max(0, Math.abs(v) - size[a]! / 2)));
}
/** Points of a box, no more than half a cube apart. */
function pointsOf({ middle, size, turn }: CoverBox): Vec3[] {
  const q = turn ? quatFromAxisAngle(AXES[turn.axis]!, turn.angle) : QUAT_IDENTITY,
    out: Vec3[] = [];
  const steps = (a: number): number[] => Array.from({ length: size[a]! * 2 + 1 }, (_, i) => i / 2 - size[a]! / 2);
  for (const x of steps(0))
    for (const y of steps(1)) for (const z of steps(2)) out.push(add(middle, rotate(q, [x, y, z])));
  return out;
}
const fromCube = ([x, y, z]: Vec3, p: Vec3): number =>
  Math.hypot(Math.max(0, x - p[0], p[0] - x - 1), Math.max(0, y - p[1], p[1] - y - 1), Math.max(0, z - p[2], p[2] - z - 1)); // prettier-ignore
const corners = ([x, y, z]: Vec3): Vec3[] =>
  [0, 1, 2, 3, 4, 5, 6, 7].map((c) => [x + (c & 1), y + ((c >> 1) & 1), z + (c >> 2)]);
const cubes = (grid: VoxelGrid): Vec3[] => {
  const out: Vec3[] = [];
  grid.forEach((x, y, z) => out.push([x, y, z]));
  return out;
};
/** The cubes of a grid with those of its closed cavities, found by walking in from outside. */
function withCavities(grid: VoxelGrid): Vec3[] {
  const { min, size } = grid.bounds,
    air = new Set<string>(),
    open: Vec3[] = [[min[0] - 1, min[1] - 1, min[2] - 1]];
  for (let at = open.pop(); at; at = open.pop()) {
    const inside = at.every((v, a) => v >= min[a]! - 1 && v <= min[a]! + size[a]!);
    if (!inside || air.has(at.join()) || grid.get(...(at as [number, number, number])) !== 0) continue;
    air.add(at.join());
    for (const d of AXES) open.push(add(at, d), sub(at, d));
  }
  const out: Vec3[] = [];
  for (let z = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++) {
        const at = add(min, [x, y, z]);
        if (!air.has(at.join())) out.push(at);
      }
  return out;
}
/** That nothing of either is farther from the other than is said, and that no more is said than was asked. */
function holds(grid: VoxelGrid, t: number): void {
  const { boxes, error } = covered(grid, t),
    all = withCavities(grid);
  expect(error).toBeLessThanOrEqual(t);
  let most = 0;
  for (const c of cubes(grid))
    for (const p of corners(c)) most = Math.max(most, Math.min(...boxes.map((b) => fromBox(b, p))));
  for (const b of boxes)
    for (const p of pointsOf(b)) most = Math.max(most, Math.min(...all.map((c) => fromCube(c, p))));
  expect(most).toBeLessThanOrEqual(error + 1e-6);
  expect(covered(grid, t)).toEqual({ boxes, error });
}

describe('boxes that stand for a body', () => {
  it('are as few as one would say: one of a block, wherever it is; two of an L; five of an open crate; one of a closed one', () => {
    expect(covered(filled(6, () => true, [-9, 4, 100]))).toEqual({
      boxes: [{ middle: [-6, 7, 103], size: [6, 6, 6], turn: null }],
      error: 0,
    });
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
    const inDoor: Vec3 = [6.5, 3, 6.5];
    expect(Math.min(...cover(wall, 2).map((b) => fromBox(b, inDoor)))).toBeGreaterThan(0);
    expect(cover(wall, 2).length).toBeLessThanOrEqual(3);
  });
  it('lean as roofs and ramps do, about each axis, and say how far off they are', () => {
    const gable = (axis: number): VoxelGrid =>
      filled(32, (...p) => {
        const [a, b] = [p[(axis + 1) % 3]!, p[(axis + 2) % 3]!];
        const h = Math.min(a, 31 - a);
        return b === h || b === h + 1;
      });
    for (const axis of [0, 1, 2]) {
      const { boxes, error } = covered(gable(axis), 1.5);
      expect(boxes.length).toBeLessThanOrEqual(4);
      const leaning = boxes.filter((b) => b.turn);
      expect(leaning.length).toBeGreaterThanOrEqual(2);
      for (const { turn } of leaning) expect(turn).toEqual({ axis, angle: Math.PI / 4 });
      expect(error).toBeGreaterThan(0.5);
    }
    holds(gable(0), 1.5);
    const ramp = filled(32, (x, y, z) => z < 6 && y <= x / 2 && y > x / 2 - 3);
    expect(cover(ramp, 2).length).toBeLessThanOrEqual(2);
    holds(ramp, 2);
    // As it stands, stairs and all, where nothing may be off.
    expect(cover(ramp, 0).every((b) => b.turn === null)).toBe(true);
  });
  it('say how far off the one box around a body is', () => {
    const post = filled(9, (x, y, z) => (x === 0 && z === 0) || (y === 0 && x < 4 && z < 3));
    // The far top corner: 3 cubes from the post one way, 2 the other.
    expect(boxAround(post)).toEqual({
      boxes: [{ middle: [2, 4.5, 1.5], size: [4, 9, 3], turn: null }],
      error: Math.sqrt(13),
    });
    expect(boxAround(VoxelGrid.empty({ min: [0, 0, 0], size: [3, 3, 3] }))).toEqual({ boxes: [], error: 0 });
  });
  it.each([0, 1, 1.5, 2, 3])(
    'at tolerance %f no point of either is farther from the other than that, on random heaps',
    (t) => {
      const random = seededRandom(Math.round(t * 10));
      for (let n = 0; n < 5; n++)
        holds(
          filled(9, () => random() < 0.15 + 0.1 * n, [-4, 1, 0]),
          t,
        );
    },
  );
});
