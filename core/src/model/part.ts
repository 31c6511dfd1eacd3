import { type Box, type Vec3 } from '../math';
import { VoxelGrid } from '../voxel';
import type { Id } from './ids';
import type { FaceSlots, Layer, Part } from './kinds';

const composites = new WeakMap<readonly Layer[], VoxelGrid>();

/**
 * What is seen of a part: its visible layers, topmost cube wins. Memoised by the list of layers; one
 * visible layer is given as it is.
 */
export function composite(part: Part): VoxelGrid {
  const seen = part.layers.filter((l) => !l.hidden);
  if (seen.length === 1) return seen[0]!.grid;
  let grid = composites.get(part.layers);
  if (!grid) {
    grid = compositeFromScratch(seen, part.bounds);
    composites.set(part.layers, grid);
  }
  return grid;
}

export function compositeFromScratch(layers: readonly Layer[], bounds: Box): VoxelGrid {
  return VoxelGrid.empty(bounds).edit((d) => {
    for (const l of layers) l.grid.forEach((x, y, z, v) => d.set(x, y, z, v));
  });
}

/** The pivot in cubes. */
export const pivotPoint = (part: Part): Vec3 => [part.pivot[0] / 2, part.pivot[1] / 2, part.pivot[2] / 2];

/** The part with each of its grids changed alike, as when its volume changes. */
export const mapGrids = (part: Part, change: (grid: VoxelGrid) => VoxelGrid): Part => ({
  ...part,
  layers: part.layers.map((l) => ({ ...l, grid: change(l.grid) })),
  regions: part.regions && { ...part.regions, grid: change(part.regions.grid) },
  faceSlots: part.faceSlots && {
    ...part.faceSlots,
    faces: part.faceSlots.faces.map((f) => ({ ...f, grid: change(f.grid) })),
  },
});

/** Picked faces with ids of their own, as a copy has them. */
export const withFaceIds = (slots: FaceSlots | null, idOf: (id: Id) => Id): FaceSlots | null =>
  slots && { ...slots, faces: slots.faces.map((f) => ({ ...f, id: idOf(f.id) })) };

/** Picked faces whose grids were mirrored along an axis already: what looked one way along it looks the other. */
export const facesTurned = (slots: FaceSlots | null, axis: number): FaceSlots | null =>
  slots && {
    ...slots,
    faces: slots.faces.map((f) => (f.direction >> 1 === axis ? { ...f, direction: f.direction ^ 1 } : f)),
  };

/** The part with another box, its cubes and pivot where they are. Cubes outside are dropped. */
export const withPartBounds = (part: Part, bounds: Box): Part => ({
  ...mapGrids(part, (g) => g.withBounds(bounds)),
  bounds,
});

/** The smallest box around what every layer holds, hidden ones included; null when all are empty. */
export function partContent(part: Part): Box | null {
  let lo: Vec3 | null = null,
    hi: Vec3 | null = null;
  for (const l of part.layers) {
    const b = l.grid.contentBox();
    if (!b) continue;
    const e: Vec3 = [b.min[0] + b.size[0], b.min[1] + b.size[1], b.min[2] + b.size[2]];
    lo = lo ? [Math.min(lo[0], b.min[0]), Math.min(lo[1], b.min[1]), Math.min(lo[2], b.min[2])] : b.min;
    hi = hi ? [Math.max(hi[0], e[0]), Math.max(hi[1], e[1]), Math.max(hi[2], e[2])] : e;
  }
  return lo && hi ? { min: lo, size: [hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]] } : null;
}
