import type { Finish } from './finish';
import { scatter } from './scatter';

type Laid = Finish & { kind: 'bricks' | 'planks' };

/** Points on a boundary belong to what begins there, whatever the last bit says. */
const whole = (v: number): number => Math.floor(v + 1e-9);
/** Sides that look along Z, X and Y have scatters of their own. */
export const FACING = { z: 0, x: 1, y: 2 } as const;

/** How many bricks or planks go once around, and how long that is: a whole number, so that none is cut where it closes. */
export function girthOf(f: Laid, radius: number): { readonly count: number; readonly length: number } {
  const across = f.kind === 'bricks' ? f.high : f.wide;
  const one = (f.upright ? across : f.long) + f.gap;
  const count = Math.max(1, Math.round((2 * Math.PI * radius) / one));
  return { count, length: count * one };
}

/**
 * The tone of a brick or plank at a place of the surface, as an index into `tones` tones; −1 in a joint.
 *
 * @param u – along the courses, in project units
 * @param v – across them
 * @param girth – how many bricks (or, upright, courses) there are before the first comes again; none by default
 */
export function toneOfCourse(
  f: Laid,
  u: number,
  v: number,
  facing: number,
  tones: number,
  girth: number | null = null,
): number {
  const wrapped = (i: number, does: boolean): number => (girth !== null && does ? ((i % girth) + girth) % girth : i);
  const tall = (f.kind === 'bricks' ? f.high : f.wide) + f.gap;
  const row = whole(v / tall),
    course = wrapped(row, f.upright);
  if (v - row * tall >= tall - f.gap - 1e-9) return -1;
  const salt = f.seed + facing * 977;
  if (f.kind === 'bricks') {
    const long = f.long + f.gap;
    // Shifts in whole units keep the joints one above the other where the bond says so.
    const shift = whole((course * f.bond - Math.floor(course * f.bond)) * long);
    const at = whole((u + shift) / long),
      brick = wrapped(at, !f.upright);
    if (u + shift - at * long >= f.long - 1e-9) return -1;
    return Math.min(tones - 1, whole(scatter(brick, course, 0, salt) * tones));
  }
  // Each row of planks begins somewhere else.
  const long = f.long + f.gap;
  const shift = whole(scatter(course, 1, 0, salt) * long);
  const at = whole((u + shift) / long),
    plank = wrapped(at, !f.upright);
  if (u + shift - at * long >= f.long - 1e-9) return -1;
  const tone = whole(scatter(plank, course, 2, salt) * tones);
  if (f.grain <= 0) return Math.min(tones - 1, tone);
  // Streaks a few units long, in rows of their own.
  const line = whole(v),
    streak = whole((u + scatter(line, plank, 3, salt) * 4) / 4);
  const s = scatter(streak, line, 4 + plank, salt);
  return Math.max(0, Math.min(tones - 1, s < f.grain / 2 ? tone - 1 : s < f.grain ? tone + 1 : tone));
}
