import type { Finish } from './finish';
import { scatter } from './scatter';

type Laid = Finish & { kind: 'bricks' | 'planks' };

/** Points on a boundary belong to what begins there, whatever the last bit says. */
const whole = (v: number): number => Math.floor(v + 1e-9);
/** Sides that look along Z, X and Y have scatters of their own. */
export const FACING = { z: 0, x: 1, y: 2 } as const;

/**
 * The tone of a brick or plank at a place of the surface, as an index into `tones` tones; −1 in a joint.
 *
 * @param u – along the courses, in project units
 * @param v – across them
 */
export function toneOfCourse(f: Laid, u: number, v: number, facing: number, tones: number): number {
  const tall = (f.kind === 'bricks' ? f.high : f.wide) + f.gap;
  const course = whole(v / tall);
  if (v - course * tall >= tall - f.gap - 1e-9) return -1;
  const salt = f.seed + facing * 977;
  if (f.kind === 'bricks') {
    const long = f.long + f.gap;
    // Shifts in whole units keep the joints one above the other where the bond says so.
    const shift = whole((course * f.bond - Math.floor(course * f.bond)) * long);
    const brick = whole((u + shift) / long);
    if (u + shift - brick * long >= f.long - 1e-9) return -1;
    return Math.min(tones - 1, whole(scatter(brick, course, 0, salt) * tones));
  }
  // Each row of planks begins somewhere else.
  const long = f.long + f.gap;
  const shift = whole(scatter(course, 1, 0, salt) * long);
  const plank = whole((u + shift) / long);
  if (u + shift - plank * long >= f.long - 1e-9) return -1;
  const tone = whole(scatter(plank, course, 2, salt) * tones);
  if (f.grain <= 0) return Math.min(tones - 1, tone);
  // Streaks a few units long, in rows of their own.
  const line = whole(v),
    streak = whole((u + scatter(line, plank, 3, salt) * 4) / 4);
  const s = scatter(streak, line, 4 + plank, salt);
  return Math.max(0, Math.min(tones - 1, s < f.grain / 2 ? tone - 1 : s < f.grain ? tone + 1 : tone));
}
