import { type Axis, type Box, type Vec3, boxEnd, withAxis, mapVec } from '../math';
import { CellSet, MAX_EDGE, VoxelGrid, mirrorCell } from '../voxel';
import { type Radial, forTurned, turnedBox } from './symmetry';

/** A grid of any cells with a value each, as given by `each`; the box fits them. Null when there are none. */
export function gridOf(cells: readonly (readonly [Vec3, number])[]): VoxelGrid | null {
  const box = CellSet.ofCells(cells.map(([c]) => c)).tight;
  return box && box.size.every((s) => s <= MAX_EDGE)
    ? VoxelGrid.empty(box).edit((d) => cells.forEach(([c, v]) => d.set(c[0], c[1], c[2], v)))
    : null;
}

/** The cells moved by whole cubes. */
export function movedGrid(grid: VoxelGrid, by: Vec3): VoxelGrid {
  if (by.every((v) => v === 0)) return grid;
  const box: Box = {
    min: [grid.bounds.min[0] + by[0], grid.bounds.min[1] + by[1], grid.bounds.min[2] + by[2]],
    size: grid.bounds.size,
  };
  return VoxelGrid.fromDense(box, grid.readBox(grid.bounds));
}

/** The cells mirrored across plane `h` (half cubes). */
export function mirroredGrid(grid: VoxelGrid, axis: Axis, h: number): VoxelGrid {
  const { min, size } = grid.bounds;
  const box: Box = { min: withAxis(min, axis, h - min[axis] - size[axis]), size };
  return VoxelGrid.empty(box).edit((d) =>
    grid.forEach((x, y, z, v) => {
      const c = withAxis([x, y, z], axis, mirrorCell([x, y, z][axis]!, h));
      d.set(c[0], c[1], c[2], v);
    }),
  );
}

/**
 * The cells turned by quarter turns about an axis, counter-clockwise seen from its positive end, about the middle of
 * their own box. Every cell is kept; where width and depth are not both odd or both even the middle moves by half a
 * cube, always towards the low side.
 */
export function quarterTurned(grid: VoxelGrid, axis: Axis, quarters: number): VoxelGrid {
  const n = ((quarters % 4) + 4) % 4;
  let g = grid;
  for (let i = 0; i < n; i++) g = quarterTurn(g, axis, i % 2 === 0);
  return g;
}

function quarterTurn(grid: VoxelGrid, axis: Axis, down: boolean): VoxelGrid {
  const u = ((axis + 1) % 3) as Axis,
    v = ((axis + 2) % 3) as Axis;
  const { min, size } = grid.bounds;
  const lean = (n: number): number => (down ? Math.floor(n / 2) : Math.ceil(n / 2));
  const next: [number, number, number] = [...size],
    at: [number, number, number] = [...min];
  next[u] = size[v];
  next[v] = size[u];
  at[u] = min[u] + lean(size[u] - size[v]);
  at[v] = min[v] + lean(size[v] - size[u]);
  return VoxelGrid.empty({ min: at, size: next }).edit((d) =>
    grid.forEach((x, y, z, value) => {
      const c = [x, y, z],
        to: [number, number, number] = [x, y, z];
      to[u] = at[u] + (size[v] - 1 - (c[v]! - min[v]));
      to[v] = at[v] + (c[u]! - min[u]);
      d.set(to[0], to[1], to[2], value);
    }),
  );
}

/** Copies 1 … n − 1 of a piece, each a step further; the piece itself is not among them. */
export const repeatSteps = (count: number, step: Vec3): Vec3[] =>
  Array.from({ length: Math.max(0, count - 1) }, (_, i) => mapVec(step, (s) => s * (i + 1)));

/** A piece turned about an axis as copy `k` of a radial. */
export function turnedGrid(grid: VoxelGrid, r: Radial, k: number): VoxelGrid | null {
  const cells: [Vec3, number][] = [];
  forTurned(grid.bounds, r, k, turnedBox(grid.bounds, r, k), (to, from) => {
    const v = grid.get(...from);
    if (v !== 0) cells.push([[to[0], to[1], to[2]], v]);
  });
  return gridOf(cells);
}

/** Which half stays when the other is made from it. */
export type Half = 'low' | 'high';

/**
 * One half made from the other: across plane `h` of an axis, cells of the half that does not stay become the mirror
 * image of the one that does. Limited to a selection, only what mirrors the selected cells changes.
 */
export function mirrorOver(
  grid: VoxelGrid,
  axis: Axis,
  h: number,
  keep: Half,
  within: CellSet | null = null,
): VoxelGrid {
  const stays = (c: number): boolean => (keep === 'low' ? 2 * c + 1 < h : 2 * c + 1 > h);
  return grid.edit((d) => {
    const image = (x: number, y: number, z: number): Vec3 => withAxis([x, y, z], axis, mirrorCell([x, y, z][axis]!, h));
    if (within) {
      within.forEach((x, y, z) => {
        const c = image(x, y, z);
        if (!within.has(...c) || stays([x, y, z][axis]!)) d.set(c[0], c[1], c[2], grid.get(x, y, z));
      });
      return;
    }
    grid.forEach((x, y, z) => {
      if (!stays([x, y, z][axis]!) && 2 * [x, y, z][axis]! + 1 !== h) d.set(x, y, z, 0);
    });
    grid.forEach((x, y, z, v) => {
      if (!stays([x, y, z][axis]!)) return;
      const c = image(x, y, z);
      d.set(c[0], c[1], c[2], v);
    });
  });
}

/** Every cube whose twin across plane `h` is missing or, with `colours`, differs in colour. */
export function unpairedCells(grid: VoxelGrid, axis: Axis, h: number, colours: boolean): CellSet {
  const set = new CellSet(grid.bounds);
  grid.forEach((x, y, z, v) => {
    const c = withAxis([x, y, z], axis, mirrorCell([x, y, z][axis]!, h));
    const twin = grid.get(...c);
    if (colours ? twin !== v : twin === 0) set.addRun(x, x + 1, y, z);
  });
  return set;
}

/** A copy of a set's cells with one more row (`by` 1) after, or without (`by` −1), the row at `at` of an axis. */
export function withRow(grid: VoxelGrid, axis: Axis, at: number, by: 1 | -1, bounds: Box): VoxelGrid {
  return VoxelGrid.empty(bounds).edit((d) =>
    grid.forEach((x, y, z, v) => {
      const c: [number, number, number] = [x, y, z];
      const k = c[axis];
      if (by < 0 && k === at) return;
      if (k > at) c[axis] += by;
      d.set(c[0], c[1], c[2], v);
      if (by > 0 && k === at) {
        c[axis] += 1;
        d.set(c[0], c[1], c[2], v);
      }
    }),
  );
}

/** The lattice point in the middle of a box, in half cubes. */
export const middleOf = (b: Box): Vec3 => {
  const e = boxEnd(b);
  return [b.min[0] + e[0], b.min[1] + e[1], b.min[2] + e[2]];
};
