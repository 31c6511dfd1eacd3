import { type Vec3, dot, length, lerp, sub } from './vec3';

/** How far a point lies from the way between two others. */
function off(p: Vec3, a: Vec3, b: Vec3): number {
  const along = sub(b, a),
    long = dot(along, along);
  const t = long > 0 ? Math.max(0, Math.min(1, dot(sub(p, a), along) / long)) : 0;
  return length(sub(p, lerp(a, b, t)));
}

/**
 * The corners of a drawn line that matter: every point left out lies within `tolerance` of what is kept. The ends stay.
 *
 * Douglas and Peucker, “Algorithms for the reduction of the number of points required to represent a digitized line”, 1973.
 */
export function simplified(points: readonly Vec3[], tolerance: number): Vec3[] {
  if (points.length < 3) return [...points];
  const first = points[0]!,
    last = points.at(-1)!;
  let far = 0,
    most = 0;
  for (let i = 1; i < points.length - 1; i++) {
    const d = off(points[i]!, first, last);
    if (d > most) [far, most] = [i, d];
  }
  if (most <= tolerance) return [first, last];
  return [...simplified(points.slice(0, far + 1), tolerance).slice(0, -1), ...simplified(points.slice(far), tolerance)];
}

/** How long a line through points is. */
export const wayLength = (points: readonly Vec3[]): number =>
  points.slice(1).reduce((sum, p, i) => sum + length(sub(p, points[i]!)), 0);
