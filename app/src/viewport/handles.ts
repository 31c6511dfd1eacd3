import { type Vec3, cross, dot, normalize, sub } from '@sphalerite/core/math';
import type { Viewport, WorldRay } from './viewport';

/** Handles keep their size on screen at any zoom: world units for a number of pixels at a point. */
export const pixels = (view: Viewport, n: number): number => (view.camera.span * n) / view.size.height;

const SAMPLES = 48;
/** Within this many pixels of a handle the pointer takes hold of it. */
const GRAB = 9;

/** The ring (0–2) under a point of the page, −1 for none. */
export function ringUnder(
  view: Viewport,
  x: number,
  y: number,
  at: Vec3,
  axes: readonly Vec3[],
  radius: number,
): number {
  let best = GRAB,
    found = -1;
  axes.forEach((axis, i) => {
    const u = normalize(cross(axis, Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0])),
      v = cross(axis, u);
    for (let k = 0; k < SAMPLES; k++) {
      const a = (k / SAMPLES) * 2 * Math.PI,
        c = Math.cos(a) * radius,
        s = Math.sin(a) * radius;
      const p = view.screenOf([at[0] + u[0] * c + v[0] * s, at[1] + u[1] * c + v[1] * s, at[2] + u[2] * c + v[2] * s]);
      const d = Math.hypot(p.x - x, p.y - y);
      if (d < best) {
        best = d;
        found = i;
      }
    }
  });
  return found;
}

/** The arrow (0–2) under a point of the page, −1 for none. */
export function arrowUnder(
  view: Viewport,
  x: number,
  y: number,
  at: Vec3,
  axes: readonly Vec3[],
  length: number,
): number {
  let best = GRAB,
    found = -1;
  axes.forEach((axis, i) => {
    for (let k = 4; k <= 12; k++) {
      const d = (k / 11) * length;
      const p = view.screenOf([at[0] + axis[0] * d, at[1] + axis[1] * d, at[2] + axis[2] * d]);
      const away = Math.hypot(p.x - x, p.y - y);
      if (away < best) {
        best = away;
        found = i;
      }
    }
  });
  return found;
}

/** Angle in radians at which a ray meets a ring's plane, counter-clockwise about the axis; null when it is seen edge on. */
export function angleOnRing(ray: WorldRay, at: Vec3, axis: Vec3): number | null {
  const k = dot(ray.dir, axis);
  if (Math.abs(k) < 0.02) return null;
  const t = dot(sub(at, ray.origin), axis) / k;
  const p: Vec3 = [
    ray.origin[0] + ray.dir[0] * t - at[0],
    ray.origin[1] + ray.dir[1] * t - at[1],
    ray.origin[2] + ray.dir[2] * t - at[2],
  ];
  const u = normalize(cross(axis, Math.abs(axis[1]) > 0.9 ? [1, 0, 0] : [0, 1, 0])),
    v = cross(axis, u);
  return Math.atan2(dot(p, v), dot(p, u));
}
