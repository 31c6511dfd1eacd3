import { type Mat4, type Vec3, floor, invertMat, transformDirection, transformPoint } from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import { type VoxelGrid, rayWalk } from '@sphalerite/core/voxel';
import type { Pick, Ray } from '../tools/tool';
import type { WorldRay } from './viewport';

/** A world ray in a part's lattice. */
export function toLattice(ray: WorldRay, matrix: Mat4): Ray {
  const inverse = invertMat(matrix);
  return { origin: transformPoint(inverse, ray.origin), dir: transformDirection(inverse, ray.dir) };
}

/** The cube face a ray meets, or the floor of the volume where there is no cube. */
export function pickPart(grid: VoxelGrid, part: Part, ray: Ray): Pick | null {
  const hit = rayWalk(grid, ray.origin, ray.dir);
  if (hit && hit.normal.some((n) => n !== 0)) return { cell: hit.cell, normal: hit.normal, floor: false };
  const bottom = part.bounds.min[1];
  if (ray.dir[1] >= 0 || ray.origin[1] <= bottom) return null;
  const t = (bottom - ray.origin[1]) / ray.dir[1];
  const c = floor([ray.origin[0] + ray.dir[0] * t, bottom, ray.origin[2] + ray.dir[2] * t]);
  const cell: Vec3 = [c[0], bottom - 1, c[2]];
  const { min, size } = part.bounds;
  const inside = cell[0] >= min[0] && cell[0] < min[0] + size[0] && cell[2] >= min[2] && cell[2] < min[2] + size[2];
  return inside ? { cell, normal: [0, 1, 0], floor: true } : null;
}
