import type { Curve } from '../model';

/** A curve that begins and ends slowly, to draw one's own from. */
export const EVEN_CURVE: Curve = [0.4, 0, 0.6, 1];

const at = (a: number, b: number, s: number): number => ((1 + 3 * a - 3 * b) * s + (3 * b - 6 * a)) * s * s + 3 * a * s;
const slope = (a: number, b: number, s: number): number =>
  3 * (1 + 3 * a - 3 * b) * s * s + 2 * (3 * b - 6 * a) * s + 3 * a;

/**
 * The height of a cubic Bézier from (0, 0) to (1, 1) over `t`, solved to 1e-9: Newton's method, kept inside a bracket that halves
 * where the curve is too flat for it. Both handles stand between 0 and 1 in time, so there is one solution.
 */
export function curveAt([x1, y1, x2, y2]: Curve, t: number): number {
  if (t <= 0) return 0;
  if (t >= 1) return 1;
  let lo = 0,
    hi = 1,
    s = t;
  for (let i = 0; i < 60; i++) {
    const off = at(x1, x2, s) - t;
    if (Math.abs(off) < 1e-13 * Math.min(1, t)) break;
    if (off > 0) hi = s;
    else lo = s;
    const step = s - off / slope(x1, x2, s);
    s = step > lo && step < hi ? step : (lo + hi) / 2;
  }
  return at(y1, y2, s);
}
