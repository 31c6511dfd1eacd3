import { type Axis, type Steps, type Vec3, boxEnd, mapVec, max, min, quatFromAxisAngle, rotate, scale } from '../math';
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
  /** Mean gap and mean overlap over the angles together: what makes one pivot worse than another. */
  readonly cost: number;
}

const UNIT: readonly Vec3[] = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
];
/** Degrees between two places at which the swept cut is looked at. */
const FINE = 2;

/** How finely a swing is measured: samples along an edge of a cube and of a face, degrees between two turns, and at most so many cubes of the limb. */
interface Fineness {
  readonly within: number;
  readonly across: number;
  readonly turn: number;
  readonly most: number;
}
const EXACT: Fineness = { within: 3, across: 4, turn: 2, most: Infinity };
/** To find out where it is worth looking closer. */
const ROUGH: Fineness = { within: 1, across: 1, turn: 12, most: 1200 };

/** Whether the cell of a point is in a set, the point being given by its place along the axis and across it. */
function hasAt(set: CellSet, axis: Axis, along: number, u: number, v: number): boolean {
  const a = Math.floor(along + 1e-9),
    b = Math.floor(u + 1e-9),
    c = Math.floor(v + 1e-9);
  return axis === 0 ? set.has(a, b, c) : axis === 1 ? set.has(c, a, b) : set.has(b, c, a);
}

/** Points as their place along an axis and across it, three numbers each. */
const flat = (points: readonly Vec3[], axis: Axis): Float64Array =>
  Float64Array.from(points.flatMap((p) => [p[axis], p[(axis + 1) % 3]!, p[(axis + 2) % 3]!]));

/** Points within the cubes of a set, so many along an edge, and the share of a cube that each stands for. */
function samplesOf(limb: CellSet, axis: Axis, { within, most }: Fineness): { at: Float64Array; share: number } {
  const every = Math.max(1, Math.ceil(limb.count / most)),
    out: Vec3[] = [];
  let n = 0;
  limb.forEach((x, y, z) => {
    if (n++ % every !== 0) return;
    for (let i = 0; i < within; i++)
      for (let j = 0; j < within; j++)
        for (let k = 0; k < within; k++)
          out.push([x + (i + 0.5) / within, y + (j + 0.5) / within, z + (k + 0.5) / within]);
  });
  return { at: flat(out, axis), share: limb.count / Math.max(1, out.length) };
}

/**
 * A meter of what a limb does when it is swung about a pivot (half cubes): the volume that gapes and that overlaps, by angle in
 * degrees. All turning is in the plane across the axis.
 */
function swingMeter(
  limb: CellSet,
  body: CellSet,
  axis: Axis,
  fineness: Fineness,
): (pivot: Vec3, degrees: number) => { readonly gap: number; readonly overlap: number } {
  const { across, turn } = fineness;
  const samples = samplesOf(limb, axis, fineness);
  const cut = cutPoints(limb, body, across),
    faces = flat(
      cut.map((c) => c.at),
      axis,
    ),
    normals = flat(
      cut.map((c) => c.normal),
      axis,
    );
  const atRest = limb.intersect(body).count;
  return (pivot, degrees) => {
    if (degrees === 0) return { gap: 0, overlap: 0 };
    const full = (degrees * Math.PI) / 180,
      ou = pivot[(axis + 1) % 3]! / 2,
      ov = pivot[(axis + 2) % 3]! / 2;
    const cosine = Math.cos(full),
      sine = Math.sin(full);
    let hits = 0;
    const { at } = samples;
    for (let i = 0; i < at.length; i += 3) {
      const u = at[i + 1]! - ou,
        v = at[i + 2]! - ov;
      if (hasAt(body, axis, at[i]!, ou + cosine * u - sine * v, ov + sine * u + cosine * v)) hits++;
    }
    const turns = Math.max(1, Math.ceil(Math.abs(degrees) / turn)),
      part = full / turns;
    let open = 0;
    for (let t = 0; t < turns; t++) {
      const out = part * (t + 0.5),
        back = out - full;
      const [co, so, cb, sb] = [Math.cos(out), Math.sin(out), Math.cos(back), Math.sin(back)] as const;
      for (let i = 0; i < faces.length; i += 3) {
        const along = faces[i]!,
          u = faces[i + 1]! - ou,
          v = faces[i + 2]! - ov;
        if (hasAt(body, axis, along, ou + co * u - so * v, ov + so * u + co * v)) continue;
        if (hasAt(limb, axis, along, ou + cb * u - sb * v, ov + sb * u + cb * v)) continue;
        // What a face sweeps over in a small turn: its area by how far it moves along its normal.
        open += Math.abs((u * normals[i + 2]! - v * normals[i + 1]!) * part) / across ** 2;
      }
    }
    return { gap: open, overlap: Math.max(0, hits * samples.share - atRest) };
  };
}

const mean = (values: readonly number[]): number => values.reduce((a, b) => a + b, 0) / Math.max(1, values.length);

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
  const meter = swingMeter(l, b, axis, EXACT);
  return pivots.map((pivot) => {
    const seen = angles.map((d) => meter(pivot, d)),
      gap = seen.map((s) => s.gap),
      overlap = seen.map((s) => s.overlap);
    return { pivot, angles, overlap, gap, cost: mean(gap) + mean(overlap) };
  });
}

/** Half cubes around the cut and the overlap in which a pivot is looked for, at most, and how many places are looked at closely. */
const AROUND = 8,
  CLOSE = 6;

/**
 * The pivots on half cubes about which a limb swings best: least mean gap and mean overlap together over the angles, to both
 * sides. Looked for roughly over the whole of the cut, the overlap of both and what is around them; then closely downhill from the
 * best places, so that no neighbour of the first one given is better. A pivot's place along the axis changes nothing.
 *
 * @returns at most `most`, the best first, with the middle of the cut along the axis; none where the two do not touch
 */
export function* bestPivots(
  limb: CellSet,
  body: CellSet,
  axis: Axis,
  angles: readonly number[],
  most = 4,
): Steps<Vec3[]> {
  const cut = cutPoints(limb, body, 2),
    both = limb.intersect(body).tight;
  const corners: Vec3[] = [...cut.map((c) => c.at), ...(both ? [both.min, boxEnd(both)] : [])];
  if (corners.length === 0) return [];
  const halves = (v: Vec3): Vec3 => mapVec(v, (x) => Math.round(2 * x));
  const lo = halves(corners.reduce((a, b) => min(a, b))),
    hi = halves(corners.reduce((a, b) => max(a, b)));
  const [u, v] = ([0, 1, 2] as Axis[]).filter((a) => a !== axis) as [Axis, Axis];
  const wide = Math.min(AROUND, Math.max(4, hi[u] - lo[u], hi[v] - lo[v]));
  const place = (pu: number, pv: number): Vec3 =>
    mapVec([0, 1, 2], (a) => (a === u ? pu : a === v ? pv : Math.round((lo[a]! + hi[a]!) / 2)));
  const rough = swingMeter(limb, body, axis, ROUGH),
    some = angles.filter((a, i) => a !== 0 && (angles.length < 8 || i % 2 === 0));
  const costBy = (meter: typeof rough, pivot: Vec3, list: readonly number[]): number =>
    mean(
      list.map((d) => {
        const s = meter(pivot, d);
        return s.gap + s.overlap;
      }),
    );
  // Every half cube where that is few, else every other.
  const step = (hi[u] - lo[u] + 2 * wide) * (hi[v] - lo[v] + 2 * wide) > 1500 ? 2 : 1;
  const seen: { readonly at: Vec3; readonly cost: number }[] = [];
  for (let pu = lo[u] - wide; pu <= hi[u] + wide; pu += step) {
    for (let pv = lo[v] - wide; pv <= hi[v] + wide; pv += step) {
      const at = place(pu, pv);
      seen.push({ at, cost: costBy(rough, at, some) });
    }
    yield (0.6 * (pu - lo[u] + wide)) / (hi[u] - lo[u] + 2 * wide + 1);
  }
  seen.sort((a, b) => a.cost - b.cost);
  const exact = swingMeter(limb, body, axis, EXACT),
    known = new Map<string, number>();
  const costOf = (p: Vec3): number => {
    let cost = known.get(p.join());
    if (cost === undefined) known.set(p.join(), (cost = costBy(exact, p, angles)));
    return cost;
  };
  const found = new Map<string, Vec3>();
  for (const [i, { at }] of seen.slice(0, CLOSE).entries()) {
    let here = at;
    for (;;) {
      const [x, y] = [here[u], here[v]];
      const around = [-1, 0, 1].flatMap((du) => [-1, 0, 1].map((dv) => place(x + du, y + dv)));
      const next = around.reduce((a, b) => (costOf(b) < costOf(a) - 1e-9 ? b : a), here);
      yield 0.6 + (0.4 * i) / CLOSE;
      if (next === here) break;
      here = next;
    }
    found.set(here.join(), here);
  }
  return [...found.values()].sort((a, b) => costOf(a) - costOf(b)).slice(0, most);
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
