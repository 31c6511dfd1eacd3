import { type Id, type Placement, type Scene, placementsOf } from '../model';
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

/** What one piece costs a scene. */
export interface SceneCost {
  /** All that show it, in order. */
  readonly placements: readonly Id[];
  /** Exposed faces of all of them together, copies of repeats with them. */
  readonly faces: number;
}

/** What each part, figure and project costs that is shown in a scene; the dearest first. */
export function sceneCosts(scene: Scene, list: DrawList): SceneCost[] {
  const shown = new Map(placementsOf(scene).map((p) => [p.id, pieceOf(p.shows)]));
  const costs = new Map<string, { placements: Set<Id>; faces: number }>();
  for (const { geometry, source } of list) {
    const at = source.path[0];
    if (geometry.kind !== 'grid' || at === undefined) continue;
    // A repeat may stand several parts where one is placed.
    const piece = source.path.length === 1 && source.mount === null ? `part ${source.part}` : shown.get(at)!;
    let cost = costs.get(piece);
    if (!cost) costs.set(piece, (cost = { placements: new Set(), faces: 0 }));
    cost.placements.add(at);
    cost.faces += facesOf(geometry.grid);
  }
  return [...costs.values()]
    .map(({ placements, faces }) => ({ placements: [...placements], faces }))
    .sort((a, b) => b.faces - a.faces);
}
/** What is shown, whatever it is doing. */
const pieceOf = (shows: Placement['shows']): string =>
  `${shows.kind} ${'part' in shows ? shows.part : 'asset' in shows ? shows.asset : ''}`;
