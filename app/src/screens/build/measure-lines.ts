import { AXES, type Box, type Vec3, boxEnd, mapVec } from '@sphalerite/core/math';
import type { Stroke3 } from '../../viewport/overlay';

/** What is measured: between two cells. */
export interface Ruler {
  readonly from: Vec3;
  readonly to: Vec3;
}

/** From the cell that would be filled down to the floor and to two walls. */
export function drops(cell: Vec3, b: Box): { lines: Stroke3[]; text: string } {
  const e = boxEnd(b);
  const mid: Vec3 = [cell[0] + 0.5, cell[1] + 0.5, cell[2] + 0.5];
  const to = (a: 0 | 1 | 2, v: number): Vec3 => mapVec(mid, (m, i) => (i === a ? v : m));
  return {
    lines: [
      { from: mid, to: to(1, b.min[1]), tone: 'y' },
      { from: mid, to: to(0, b.min[0]), tone: 'x' },
      { from: mid, to: to(2, b.min[2]), tone: 'z' },
    ],
    text: `${cell[1] - b.min[1]} · to the walls X ${cell[0] - b.min[0]} and ${e[0] - 1 - cell[0]}, Z ${cell[2] - b.min[2]} and ${e[2] - 1 - cell[2]}`,
  };
}

/** What a ruler between two cells says. */
export function rulerText(r: Ruler): string {
  const d = r.from.map((v, i) => Math.abs(r.to[i]! - v));
  return `${d.map((v) => v + 1).join(' × ')} cubes, apart ${d.map((v) => Math.max(0, v - 1)).join(', ')}`;
}
/** The way from cell to cell along X, then Y, then Z. */
export function rulerLines(r: Ruler): Stroke3[] {
  const out: Stroke3[] = [];
  let at: Vec3 = [r.from[0] + 0.5, r.from[1] + 0.5, r.from[2] + 0.5];
  AXES.forEach((a) => {
    const next = mapVec(at, (v, i) => (i === a ? r.to[a] + 0.5 : v));
    out.push({ from: at, to: next, tone: (['x', 'y', 'z'] as const)[a] });
    at = next;
  });
  return out;
}
