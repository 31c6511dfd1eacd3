import { type Axis, type Box, type Vec3, boxFromCells, mapVec } from '../math';
import { CellSet } from '../voxel';
import { ellipsoidCells, revolvedCells } from './round';

export const TIPS = ['cube', 'ball', 'disc'] as const;
export type TipForm = (typeof TIPS)[number];
/** What a brush or a line is drawn with. */
export interface Tip {
  readonly form: TipForm;
  /** Width in cubes. */
  readonly size: number;
  /** The axis a disc lies across. */
  readonly axis: Axis;
}
export const POINT_TIP: Tip = { form: 'cube', size: 1, axis: 1 };

/** The box of a tip around a centre in half cubes: odd sizes sit on a cube (odd centre), even ones on a corner. */
export function tipBox(tip: Tip, centre: Vec3): Box {
  const size = [tip.size, tip.size, tip.size] as [number, number, number];
  if (tip.form === 'disc') size[tip.axis] = 1;
  // Where a centre does not suit the size, the lower of both places is taken.
  return { min: mapVec(centre, (c, i) => Math.floor((c - size[i]!) / 2)), size };
}

/** The centre, in half cubes, of a tip that covers `cell` and, for even sizes, the cells towards `lean` (0 or 1 an axis). */
export const tipCentre = (tip: Tip, cell: Vec3, lean: Vec3 = [1, 1, 1]): Vec3 =>
  mapVec(cell, (c, i) =>
    tip.size % 2 === 1 || (tip.form === 'disc' && i === tip.axis) ? 2 * c + 1 : 2 * c + 2 * lean[i]!,
  );

const tips = new Map<string, CellSet>();
/** The cells of a tip around a centre in half cubes. */
export function tipCells(tip: Tip, centre: Vec3): CellSet {
  const box = tipBox(tip, centre);
  const key = `${tip.form} ${tip.size} ${tip.axis}`;
  let set = tips.get(key);
  if (!set) {
    const at: Box = { min: [0, 0, 0], size: box.size };
    set =
      tip.form === 'cube'
        ? CellSet.ofBox(at)
        : tip.form === 'ball'
          ? ellipsoidCells(at)
          : revolvedCells({ box: at, axis: tip.axis, dir: 1, profile: 'straight', section: 'round', top: 1 });
    tips.set(key, set);
  }
  return set.moved(box.min);
}

/**
 * The cells from `a` to `b`, one a step along the longest axis (Bresenham in three dimensions, ties away from `a`,
 * so that a line is the same drawn from a mirrored place). With `joined`, cells that would meet in an edge or
 * corner only are joined by faces.
 */
export function lineCells(a: Vec3, b: Vec3, joined = false): Vec3[] {
  const d = [b[0] - a[0], b[1] - a[1], b[2] - a[2]] as const;
  const n = Math.max(...d.map(Math.abs));
  const out: Vec3[] = [];
  let last: Vec3 | null = null;
  for (let i = 0; i <= n; i++) {
    const c = mapVec(a, (v, k) => v + Math.sign(d[k]!) * Math.floor((2 * Math.abs(d[k]!) * i + n) / (2 * n || 1)));
    const at: Vec3 = n === 0 ? a : c;
    if (joined && last) {
      let step: Vec3 = last;
      for (const k of [0, 1, 2] as const) {
        if (step[k] === at[k]) continue;
        step = mapVec(step, (v, j) => (j === k ? at[k] : v));
        if (step.some((v, j) => v !== at[j])) out.push(step);
      }
    }
    out.push(at);
    last = at;
  }
  return out;
}

/**
 * Steps of a fixed rise and run from `a` towards `b` in the plane of their longest level axis and `up`: after each
 * `run` cells along, `rise` cells up (or down). The slope ends at the last whole cell before `b`'s distance.
 */
export function stepCells(a: Vec3, b: Vec3, up: Axis, rise: number, run: number): Vec3[] {
  const level = ([0, 1, 2] as Axis[])
    .filter((k) => k !== up)
    .sort((p, q) => Math.abs(b[q] - a[q]) - Math.abs(b[p] - a[p]))[0]!;
  const along = Math.sign(b[level] - a[level]),
    way = b[up] < a[up] ? -1 : 1;
  const out: Vec3[] = [];
  for (let i = 0; i <= Math.abs(b[level] - a[level]); i++) {
    const height = Math.floor(i / run) * rise;
    // A rise of several cells is filled, so that the steps hold together.
    const below = i > 0 && i % run === 0 ? height - rise + 1 : height;
    for (let h = below; h <= height; h++) {
      const c: [number, number, number] = [...a];
      c[level] += along * i;
      c[up] += way * h;
      out.push(c);
    }
  }
  return out;
}

/** The cells of a smooth curve through points: Catmull-Rom, sampled finer than a cube; joined like lines. */
export function curveCells(points: readonly Vec3[], joined = false): Vec3[] {
  if (points.length < 3) return lineCells(points[0]!, points.at(-1)!, joined);
  const out: Vec3[] = [];
  const seen = new Set<string>();
  for (let s = 0; s + 1 < points.length; s++) {
    const p = [points[Math.max(0, s - 1)]!, points[s]!, points[s + 1]!, points[Math.min(points.length - 1, s + 2)]!];
    const n = 2 * Math.max(1, ...[0, 1, 2].map((k) => Math.abs(p[2]![k]! - p[1]![k]!)));
    for (let i = 0; i <= n; i++) {
      const t = i / n;
      const at = mapVec([0, 1, 2], (k) => {
        const [a, b, c, d] = p.map((q) => q[k]!) as [number, number, number, number];
        return Math.round(
          0.5 * (2 * b + (c - a) * t + (2 * a - 5 * b + 4 * c - d) * t * t + (3 * b - a - 3 * c + d) * t * t * t),
        );
      });
      for (const c of out.length > 0 ? lineCells(out.at(-1)!, at, joined) : [at]) {
        if (seen.has(c.join())) continue;
        seen.add(c.join());
        out.push(c);
      }
    }
  }
  return out;
}

/** Cells along a path thickened by tips whose size goes evenly from the first to the last. */
export function thickened(path: readonly Vec3[], tip: Tip, endSize: number): CellSet {
  if (path.length === 0) return new CellSet({ min: [0, 0, 0], size: [0, 0, 0] });
  const size = (i: number): number =>
    Math.max(1, Math.round(path.length === 1 ? tip.size : tip.size + ((endSize - tip.size) * i) / (path.length - 1)));
  const parts = path.map((c, i) => {
    const t = { ...tip, size: size(i) };
    return tipCells(t, tipCentre(t, c));
  });
  const lo = parts.map((p) => p.box);
  const all = lo
    .slice(1)
    .reduce(
      (b, c) =>
        boxFromCells(
          [Math.min(b.min[0], c.min[0]), Math.min(b.min[1], c.min[1]), Math.min(b.min[2], c.min[2])],
          [
            Math.max(b.min[0] + b.size[0], c.min[0] + c.size[0]) - 1,
            Math.max(b.min[1] + b.size[1], c.min[1] + c.size[1]) - 1,
            Math.max(b.min[2] + b.size[2], c.min[2] + c.size[2]) - 1,
          ],
        ),
      lo[0]!,
    );
  const out = new CellSet(all);
  for (const p of parts) p.runs((x0, x1, y, z) => out.addRun(x0, x1, y, z));
  return out;
}
