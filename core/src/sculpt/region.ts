import { type Axis, type Box, type Vec3, boxEnd } from '../math';
import { CellSet, type VoxelGrid, flood, floodSteps } from '../voxel';
import { faceRegion } from './extrude';

export const REGION_KINDS = ['connected', 'colour', 'all of colour', 'face', 'space'] as const;
/**
 * What Fill and Select take from one cell: all cubes connected to it, the connected ones of its colour, all of its
 * colour, the whole flat face it belongs to, or the empty space around an empty cell, as far as the volume goes.
 */
export type RegionKind = (typeof REGION_KINDS)[number];

export interface RegionQuery {
  readonly kind: RegionKind;
  readonly cell: Vec3;
  /** Outward normal of the face that was pointed at, for `face`. */
  readonly normal: Vec3;
  /** Whether cubes that meet in an edge or a corner are connected. */
  readonly diagonals: boolean;
}

/** The cells among which a query spreads. */
function openTo(grid: VoxelGrid, q: RegionQuery, box: Box): CellSet {
  const value = grid.get(...q.cell);
  if (q.kind === 'space') return CellSet.filled(grid, box).inverted(box);
  return q.kind === 'connected' ? CellSet.filled(grid, box) : CellSet.ofValue(grid, value, box);
}

/** The cells a query means, inside the grid's bounds; none when it points at nothing that fits. */
export function regionCells(grid: VoxelGrid, q: RegionQuery): CellSet {
  const filled = grid.get(...q.cell) !== 0;
  if (filled === (q.kind === 'space')) return new CellSet({ min: grid.bounds.min, size: [0, 0, 0] });
  if (q.kind === 'face') return CellSet.ofCells(faceRegion(grid, q.cell, q.normal, 'face'));
  if (q.kind === 'colour' || q.kind === 'connected' || q.kind === 'space')
    return flood(openTo(grid, q, grid.bounds), [q.cell], q.diagonals);
  return openTo(grid, q, grid.bounds);
}

/** {@link regionCells} in steps, so that a worker can report and be stopped between them. */
export function* regionSteps(grid: VoxelGrid, q: RegionQuery): Generator<number, CellSet> {
  if (q.kind === 'face' || q.kind === 'all of colour') return regionCells(grid, q);
  const filled = grid.get(...q.cell) !== 0;
  if (filled === (q.kind === 'space')) return regionCells(grid, q);
  yield 0;
  return yield* floodSteps(openTo(grid, q, grid.bounds), [q.cell], q.diagonals);
}

/** Every cell of a box that lies before or behind a cell of the set along an axis: what a look square on means by a place. */
export function columnsOf(set: CellSet, axis: Axis, box: Box): CellSet {
  const out = new CellSet(box),
    end = boxEnd(box);
  set.runs((x0, x1, y, z) => {
    if (axis === 0) out.addRun(box.min[0], end[0], y, z);
    else for (let k = box.min[axis]; k < end[axis]; k++) out.addRun(x0, x1, axis === 1 ? k : y, axis === 2 ? k : z);
  });
  return out;
}
