import type { Axis, Vec3 } from '../math';
import { CellSet, type VoxelGrid } from '../voxel';

/** A flat outline to compare with: one byte a cell, not 0 where there is something, from lower left, row by row upwards. */
export interface Outline {
  /** The axis one looks along: 2 from the front, 0 from the side, 1 from above. */
  readonly axis: Axis;
  readonly at: readonly [number, number];
  readonly size: readonly [number, number];
  readonly filled: Uint8Array;
}

/** The two axes that an outline lies on: x y from the front, z y from the side, x z from above. */
export const outlineAxes = (axis: Axis): readonly [Axis, Axis] => (axis === 2 ? [0, 1] : axis === 0 ? [2, 1] : [0, 2]);

export interface OutlineDifference {
  /** Cubes that stick out of the outline. */
  readonly extra: CellSet;
  /** Places of the outline that no cube covers, in one layer at `depth`. */
  readonly missing: CellSet;
  /** How many places differ, seen flat. */
  readonly count: number;
}

/** Where the shadow of a body along an axis differs from an outline. */
export function compareOutline(grid: VoxelGrid, o: Outline, depth: number): OutlineDifference {
  const [u, v] = outlineAxes(o.axis);
  const covered = new Set<string>();
  const extra: Vec3[] = [];
  const wanted = (cu: number, cv: number): boolean => {
    const iu = cu - o.at[0],
      iv = cv - o.at[1];
    return iu >= 0 && iv >= 0 && iu < o.size[0] && iv < o.size[1] && o.filled[iu + iv * o.size[0]] !== 0;
  };
  const out = new Set<string>();
  grid.forEach((x, y, z) => {
    const c = [x, y, z];
    const key = `${c[u]} ${c[v]}`;
    covered.add(key);
    if (wanted(c[u]!, c[v]!)) return;
    extra.push([x, y, z]);
    out.add(key);
  });
  const missing: Vec3[] = [];
  for (let iv = 0; iv < o.size[1]; iv++) {
    for (let iu = 0; iu < o.size[0]; iu++) {
      if (o.filled[iu + iv * o.size[0]] === 0 || covered.has(`${iu + o.at[0]} ${iv + o.at[1]}`)) continue;
      const c: [number, number, number] = [depth, depth, depth];
      c[u] = iu + o.at[0];
      c[v] = iv + o.at[1];
      missing.push(c);
    }
  }
  return { extra: CellSet.ofCells(extra), missing: CellSet.ofCells(missing), count: out.size + missing.length };
}
