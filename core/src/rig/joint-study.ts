import { type Axis, type Vec3, cross, dot, quatFromAxisAngle, rotate, scale, mapVec, vec3Of } from '../math';
import { cutPoints } from '../sculpt';
import { CellSet, type VoxelGrid } from '../voxel';

/** What a joint does over its swing, at one pivot. Volumes in cubes. */
export interface JointStudy {
  readonly pivot: Vec3;
  /** Degrees. */
  readonly angles: readonly number[];
  /** Volume in which limb and body stand in one another, beyond what they do at rest. */
  readonly overlap: readonly number[];
  /** Volume that the cut sweeps over and nothing covers. */
  readonly gap: readonly number[];
  /** Worst overlap and gap together: what makes one pivot worse than another. */
  readonly cost: number;
}

const UNIT: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Samples along an edge of a cube, and along an edge of a face of the cut. */
const WITHIN = 3,
  ACROSS = 4;
/** Degrees between two places at which the swept cut is looked at. */
const FINE = 2;

/**
 * Swings a limb about pivots and measures, angle by angle, how far it stands in the body and how much of the joint gapes.
 * Overlap is counted on 27 points a cube of the limb; the gap is the volume that the cut's faces sweep over, where neither the body
 * nor the swung limb is.
 *
 * @param limb, body – cells in one lattice
 * @param pivots – in half cubes
 * @param angles – degrees, turned about `axis` through the pivot
 */
export function studyJoint(
  limb: VoxelGrid | CellSet,
  body: VoxelGrid | CellSet,
  pivots: readonly Vec3[],
  axis: Axis,
  angles: readonly number[],
): JointStudy[] {
  const l = limb instanceof CellSet ? limb : CellSet.filled(limb),
    b = body instanceof CellSet ? body : CellSet.filled(body);
  const cut = cutPoints(l, b, ACROSS),
    way = UNIT[axis]!;
  const atRest = l.intersect(b).count;
  const samples: Vec3[] = [];
  l.forEach((x, y, z) => {
    for (let i = 0; i < WITHIN; i++)
      for (let j = 0; j < WITHIN; j++)
        for (let k = 0; k < WITHIN; k++)
          samples.push([x + (i + 0.5) / WITHIN, y + (j + 0.5) / WITHIN, z + (k + 0.5) / WITHIN]);
  });
  const inside = (set: CellSet, p: Vec3, o: Vec3): boolean =>
    set.has(Math.floor(p[0] + o[0] + 1e-9), Math.floor(p[1] + o[1] + 1e-9), Math.floor(p[2] + o[2] + 1e-9));
  return pivots.map((pivot) => {
    const o = scale(pivot, 0.5);
    const from = (p: Vec3): Vec3 => [p[0] - o[0], p[1] - o[1], p[2] - o[2]];
    const local = samples.map(from),
      faces = cut.map((c) => ({ at: from(c.at), normal: c.normal }));
    const overlap: number[] = [],
      gap: number[] = [];
    for (const degrees of angles) {
      const full = (degrees * Math.PI) / 180,
        q = quatFromAxisAngle(way, full);
      let hits = 0;
      if (degrees !== 0) for (const p of local) if (inside(b, rotate(q, p), o)) hits++;
      overlap.push(degrees === 0 ? 0 : Math.max(0, hits / WITHIN ** 3 - atRest));
      const turns = Math.max(1, Math.ceil(Math.abs(degrees) / FINE)),
        part = full / turns;
      let open = 0;
      for (let t = 0; t < turns && degrees !== 0; t++) {
        const out = quatFromAxisAngle(way, part * (t + 0.5)),
          back = quatFromAxisAngle(way, part * (t + 0.5) - full);
        for (const f of faces) {
          if (inside(b, rotate(out, f.at), o) || inside(l, rotate(back, f.at), o)) continue;
          // What a face sweeps over in a small turn: its area by how far it moves along its normal.
          open += Math.abs(dot(cross(way, f.at), f.normal) * part) / ACROSS ** 2;
        }
      }
      gap.push(open);
    }
    return { pivot, angles, overlap, gap, cost: Math.max(...overlap) + Math.max(...gap) };
  });
}

/**
 * Where light comes through a swung joint: points of the swept cut that neither the body nor the limb covers.
 *
 * @param pivot – in half cubes
 * @returns points in the lattice, thinned out to at most `most`
 */
export function openPoints(limb: CellSet, body: CellSet, pivot: Vec3, axis: Axis, degrees: number, most = 160): Vec3[] {
  const way = UNIT[axis]!,
    o = scale(pivot, 0.5),
    full = (degrees * Math.PI) / 180;
  const turns = Math.max(1, Math.ceil(Math.abs(degrees) / (FINE * 3))),
    out: Vec3[] = [];
  const inside = (set: CellSet, p: Vec3): boolean =>
    set.has(Math.floor(p[0] + o[0] + 1e-9), Math.floor(p[1] + o[1] + 1e-9), Math.floor(p[2] + o[2] + 1e-9));
  for (const c of cutPoints(limb, body, 2)) {
    const local: Vec3 = [c.at[0] - o[0], c.at[1] - o[1], c.at[2] - o[2]];
    for (let t = 0; t < turns && degrees !== 0; t++) {
      const at = rotate(quatFromAxisAngle(way, (full * (t + 0.5)) / turns), local),
        back = rotate(quatFromAxisAngle(way, (full * (t + 0.5)) / turns - full), local);
      if (!inside(body, at) && !inside(limb, back)) out.push([at[0] + o[0], at[1] + o[1], at[2] + o[2]]);
    }
  }
  const every = Math.ceil(out.length / most);
  return every > 1 ? out.filter((_p, i) => i % every === 0) : out;
}

/** Places worth trying as a pivot: the middle of the cut, its edges, and the same half a limb's width to both sides of it; half cubes. */
export function pivotChoices(limb: CellSet, body: CellSet, now: Vec3, axis: Axis): Vec3[] {
  const cut = cutPoints(limb, body, ACROSS);
  if (cut.length === 0) return [now];
  const lo = [0, 1, 2].map((i) => Math.min(...cut.map((c) => c.at[i]!))),
    hi = [0, 1, 2].map((i) => Math.max(...cut.map((c) => c.at[i]!)));
  const middle = mapVec(lo, (v, i) => Math.round(v + hi[i]!));
  const out: Vec3[] = [now];
  const wide = lo.map((v, i) => Math.round(hi[i]! - v));
  const add = (p: readonly number[]): void => {
    if (!out.some((o) => o.every((v, i) => v === p[i]))) out.push(vec3Of(p));
  };
  add(middle);
  for (const i of [0, 1, 2]) {
    if (i === axis) continue;
    const by = Math.max(1, wide[i]! > 0 ? wide[i]! : Math.round(Math.max(...wide) / 2));
    for (const s of [-1, 1]) add(middle.map((v, k) => (k === i ? v + s * by : v)));
  }
  return out;
}
