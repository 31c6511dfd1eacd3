import { type Id, type Scene, placementsOf } from '../model';
import type { DrawList } from '../scene';
import type { VoxelGrid } from '../voxel';
import { countFaces } from './count-faces';

const known = new WeakMap<VoxelGrid, number>();
/** Exposed faces of a grid; counted once for as long as it lives. */
function facesOf(grid: VoxelGrid): number {
  let n = known.get(grid);
  if (n === undefined) known.set(grid, (n = countFaces(grid)));
  return n;
}

/** Exposed faces of all that hangs on each topmost placement of a scene, copies of repeats with it; the most first. */
export function facesByPlacement(scene: Scene, list: DrawList): { readonly placement: Id; readonly faces: number }[] {
  const parents = new Map(placementsOf(scene).map((p) => [p.id, p.parent]));
  const sums = new Map<Id, number>();
  for (const { geometry, source } of list) {
    let at = source.path[0];
    if (geometry.kind !== 'grid' || at === undefined) continue;
    for (let up = parents.get(at); up; up = parents.get(at)) at = up;
    sums.set(at, (sums.get(at) ?? 0) + facesOf(geometry.grid));
  }
  return [...sums].map(([placement, faces]) => ({ placement, faces })).sort((a, b) => b.faces - a.faces);
}
