import {
  type Box,
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
import { VoxelGrid, rayWalk } from '../voxel';

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

const boxes = new WeakMap<VoxelGrid, { readonly box: Box | null }>();

/** The box of a geometry's cubes in its lattice; null for a grid without any. Memoised. */
export function geometryBox(geometry: Geometry): Box | null {
  if (geometry.kind === 'grid') {
    let known = boxes.get(geometry.grid);
    if (!known) boxes.set(geometry.grid, (known = { box: geometry.grid.contentBox() }));
    return known.box;
  }
  const n = geometry.set.texels;
  return { min: [0, 0, 0], size: [n, n, n] };
}

const extents = new WeakMap<DrawInstance, { readonly extent: Extent | null }>();

/** The box in the world around what has cubes; null where there are none. Memoised. */
export function instanceExtent(instance: DrawInstance): Extent | null {
  let known = extents.get(instance);
  if (!known) {
    const box = geometryBox(instance.geometry);
    extents.set(instance, (known = { extent: box && placedExtent(instance.matrix, box) }));
  }
  return known.extent;
}

/** The box around everything in a list that has cubes; null when there are none. */
export function listExtent(list: DrawList): Extent | null {
  let all: Extent | null = null;
  for (const i of list) all = uniteExtents(all, instanceExtent(i));
  return all;
}

/** What a ray meets in a draw list. */
export interface InstanceHit {
  readonly instance: DrawInstance;
  /** How far along, in lengths of the ray's direction. */
  readonly t: number;
  /** The cell, and its face, as `rayWalk` gives them; of a terrain cube the cell is a texel. */
  readonly cell: Vec3;
  readonly normal: Vec3;
}

/**
 * What a ray meets first; null when it meets nothing. The one way in which the pointer finds things.
 *
 * @param which – takes only these; all by default
 */
export function pickInstance(
  list: DrawList,
  origin: Vec3,
  dir: Vec3,
  which: (i: DrawInstance) => boolean = () => true,
): InstanceHit | null {
  let best: InstanceHit | null = null;
  for (const instance of list) {
    const box = instanceExtent(instance);
    if (!box || !entersBefore(box, origin, dir, best?.t ?? Infinity) || !which(instance)) continue;
    const back = invertMat(instance.matrix);
    const o = transformPoint(back, origin),
      d = transformDirection(back, dir);
    const hit =
      instance.geometry.kind === 'grid'
        ? rayWalk(instance.geometry.grid, o, d)
        : rayWalk(solid(instance.geometry.set.texels), o, d);
    if (hit && (!best || hit.t < best.t)) best = { instance, t: hit.t, cell: hit.cell, normal: hit.normal };
  }
  return best;
}

const solids = new Map<number, VoxelGrid>();
function solid(texels: number): VoxelGrid {
  let grid = solids.get(texels);
  if (!grid) {
    grid = VoxelGrid.empty({ min: [0, 0, 0], size: [texels, texels, texels] }).edit((d) => d.fillBox(d.bounds, 1));
    solids.set(texels, grid);
  }
  return grid;
}

/** Whether a ray is in a box anywhere before `t`. */
function entersBefore({ lo, hi }: Extent, o: Vec3, d: Vec3, t: number): boolean {
  let near = 0,
    far = t;
  for (const a of [0, 1, 2] as const) {
    const x = (lo[a] - o[a]) / d[a],
      y = (hi[a] - o[a]) / d[a];
    // Along a face of the box neither is a number; the walk itself tells then.
    near = Math.max(near, Math.min(x, y) || 0);
    far = Math.min(far, Number.isNaN(x) || Number.isNaN(y) ? far : Math.max(x, y));
  }
  return near <= far;
}
