import type { Mat4 } from '../math';
import type { Id, TerrainCube, TerrainSet } from '../model';
import type { Palette } from '../palette';
import type { VoxelGrid } from '../voxel';

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
