import { type Vec3, dot, sub } from '@sphalerite/core/math';
import type { Verb } from './card';
import type { Pick, Ray } from './tool';

/** The cell a verb touches at a pick: Add goes in front of the face, the others take the cube itself. */
export const targetCell = (verb: Verb, p: Pick): Vec3 | null => {
  if (verb === 'add') return [p.cell[0] + p.normal[0], p.cell[1] + p.normal[1], p.cell[2] + p.normal[2]];
  return p.floor ? null : p.cell;
};

/** How far along `axis` (unit) from `from` the pointer's ray comes nearest; null when they are parallel. */
export function alongAxis(ray: Ray, from: Vec3, axis: Vec3): number | null {
  const w = sub(from, ray.origin);
  const a = dot(ray.dir, ray.dir),
    b = dot(ray.dir, axis),
    d = dot(ray.dir, w),
    e = dot(axis, w);
  const det = a - b * b;
  return Math.abs(det) < 1e-6 * a ? null : (b * d - a * e) / det;
}

/** Where a ray meets the plane through `at` with normal `normal`; null when it runs along it or away. */
export function onPlane(ray: Ray, at: Vec3, normal: Vec3): Vec3 | null {
  const k = dot(ray.dir, normal);
  if (Math.abs(k) < 1e-9) return null;
  const t = dot(sub(at, ray.origin), normal) / k;
  return t < 0
    ? null
    : [ray.origin[0] + ray.dir[0] * t, ray.origin[1] + ray.dir[1] * t, ray.origin[2] + ray.dir[2] * t];
}
