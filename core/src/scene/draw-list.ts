import {
  type Extent,
  type Mat4,
  type Vec3,
  invertMat,
  placedExtent,
  transformDirection,
  transformPoint,
  uniteExtents,
} from '../math';
import type { Id, TerrainCube, TerrainSet } from '../model';
import type { Palette } from '../palette';
import { type VoxelGrid, rayWalk } from '../voxel';

/** What is drawn: the cubes of a grid, or a cube with a picture on each face. One object for each, however often it stands. */
export type Geometry =
  | { readonly kind: 'grid'; readonly grid: VoxelGrid }
  | { readonly kind: 'cube'; readonly cube: TerrainCube; readonly set: TerrainSet };

/** Where something that is drawn comes from. */
export interface InstanceSource {
  /** Placements from the scene's own inwards, through other projects; empty for the rig by itself. */
  readonly path: readonly Id[];
  readonly part: Id | null;
  readonly mount: Id | null;
  /** Which copy of a repeat; 0 for the placement itself. */
  readonly copy: number;
}

/** A geometry where it stands. */
export interface DrawInstance {
  readonly geometry: Geometry;
  readonly palette: Palette;
  /** Takes points of the lattice to the world, in project units. */
  readonly matrix: Mat4;
  readonly source: InstanceSource;
}

/** All that stands somewhere, in order. What has not changed since the last list is the same object. */
export type DrawList = readonly DrawInstance[];

const geometries = new WeakMap<VoxelGrid, Geometry>();

/** The geometry of a grid; the same for the same grid. */
export function gridGeometry(grid: VoxelGrid): Geometry {
  let known = geometries.get(grid);
  if (!known) geometries.set(grid, (known = { kind: 'grid', grid }));
  return known;
}

const cubes = new WeakMap<TerrainSet, Map<TerrainCube, Geometry>>();

/** The geometry of a terrain cube; the same for the same cube of the same set. */
export function cubeGeometry(set: TerrainSet, cube: TerrainCube): Geometry {
  let ofSet = cubes.get(set);
  if (!ofSet) cubes.set(set, (ofSet = new Map()));
  let known = ofSet.get(cube);
  if (!known) ofSet.set(cube, (known = { kind: 'cube', cube, set }));
  return known;
}

/** The box around everything in a list that has cubes; null when there are none. */
export function listExtent(list: DrawList): Extent | null {
  let all: Extent | null = null;
  for (const { geometry, matrix } of list) {
    const box = geometry.kind === 'grid' ? geometry.grid.contentBox() : null;
    if (box) all = uniteExtents(all, placedExtent(matrix, box));
  }
  return all;
}

/** The instance that a ray meets first, and how far along; null when it meets none. */
export function pickInstance(list: DrawList, origin: Vec3, dir: Vec3): { instance: DrawInstance; t: number } | null {
  let best: { instance: DrawInstance; t: number } | null = null;
  for (const instance of list) {
    if (instance.geometry.kind !== 'grid') continue;
    const back = invertMat(instance.matrix);
    const hit = rayWalk(instance.geometry.grid, transformPoint(back, origin), transformDirection(back, dir));
    if (hit && (!best || hit.t < best.t)) best = { instance, t: hit.t };
  }
  return best;
}
