import {
  type Mat4,
  boxHas,
  floor,
  invertMat,
  transformDirection,
  transformPoint,
  mapVec,
  vec3Of,
} from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import { type VoxelGrid, rayWalk } from '@sphalerite/core/voxel';
import type { Pick, Ray } from '../tools/tool';
import type { WorldRay } from './viewport';

/** A world ray in a part's lattice. */
export function toLattice(ray: WorldRay, matrix: Mat4): Ray {
  const inverse = invertMat(matrix);
  return { origin: transformPoint(inverse, ray.origin), dir: transformDirection(inverse, ray.dir) };
}

/** A plane to draw on, in half cubes: odd runs through a layer of cubes, even between two. */
export interface PickPlane {
  readonly axis: 0 | 1 | 2;
  readonly at: number;
}

/** The cube face a ray meets, or the guide plane where that is nearer, or the floor of the volume where there is no cube. */
export function pickPart(grid: VoxelGrid, part: Part, ray: Ray, guide: PickPlane | null = null): Pick | null {
  const hit = rayWalk(grid, ray.origin, ray.dir);
  const cube =
    hit && hit.normal.some((n) => n !== 0)
      ? { t: hit.t, pick: { cell: hit.cell, normal: hit.normal, floor: false } }
      : null;
  const plane = guide && onGuide(part, ray, guide);
  if (plane && (!cube || plane.t < cube.t)) return plane.pick;
  if (cube) return cube.pick;
  // Inside a cutaway the floor of the volume may lie out of sight.
  const bottom = part.bounds.min[1];
  if (ray.dir[1] >= 0 || ray.origin[1] <= bottom || grid.bounds.min[1] > bottom) return null;
  const t = (bottom - ray.origin[1]) / ray.dir[1];
  const c = floor([ray.origin[0] + ray.dir[0] * t, bottom, ray.origin[2] + ray.dir[2] * t]);
  return boxHas(grid.bounds, c) ? { cell: [c[0], bottom - 1, c[2]], normal: [0, 1, 0], floor: true } : null;
}

/** On a layer, new cubes go into it; between two, on the side of the eye. */
function onGuide(part: Part, ray: Ray, { axis, at }: PickPlane): { t: number; pick: Pick } | null {
  const side = ray.dir[axis] < 0 ? 1 : -1;
  const level = at / 2;
  if (ray.dir[axis] === 0) return null;
  const t = (level - ray.origin[axis]) / ray.dir[axis];
  if (t <= 0) return null;
  const point = ray.origin.map((o, i) => o + ray.dir[i]! * t);
  // New cubes go into the layer itself, or on the near side of a plane between two.
  const target = at % 2 === 0 ? (side > 0 ? level : level - 1) : (at - 1) / 2;
  const cell = mapVec(point, (v, i) => (i === axis ? target : Math.floor(v)));
  if (!boxHas(part.bounds, cell)) return null;
  const normal = [0, 0, 0] as [number, number, number];
  normal[axis] = side;
  return {
    t,
    pick: {
      cell: [cell[0] - normal[0], cell[1] - normal[1], cell[2] - normal[2]],
      normal,
      floor: true,
      point: vec3Of(point),
    },
  };
}
