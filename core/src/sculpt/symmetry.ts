import { AXES, type Axis, type Box, type Vec3, boxEnd, intersectBoxes, uniteBoxes, withAxis } from '../math';
import { CellSet, mirrorCell } from '../voxel';
import { type MirrorPlanes, NO_MIRROR, mirrorBox } from './mirror';

/** Copies turned about an axis. */
export interface Radial {
  readonly axis: Axis;
  /** 3–16 copies in all. */
  readonly count: number;
  /** Where the axis runs, in half cubes, on the two axes that follow it (X: Y Z, Y: Z X, Z: X Y). */
  readonly centre: readonly [number, number];
}
/** What a stroke is repeated by. */
export interface Symmetry {
  readonly mirror: MirrorPlanes;
  readonly radial: Radial | null;
}
export const NO_SYMMETRY: Symmetry = { mirror: NO_MIRROR, radial: null };

/** The mirror image of a set across plane `h` (half cubes). */
export function mirrorSet(set: CellSet, axis: Axis, h: number): CellSet {
  const out = new CellSet(mirrorBox(set.box, axis, h));
  set.runs((x0, x1, y, z) => {
    if (axis === 0) out.addRun(h - x1, h - x0, y, z);
    else out.addRun(x0, x1, axis === 1 ? mirrorCell(y, h) : y, axis === 2 ? mirrorCell(z, h) : z);
  });
  return out;
}

/** Where the centre of a cell goes by turn `k` of a radial: quarter turns exactly, others by the nearest cell's centre. */
export function turnedBack(r: Radial, k: number): (iu: number, iv: number) => readonly [number, number] {
  const a = (2 * Math.PI * k) / r.count;
  const quarter = (4 * k) % r.count === 0;
  const c = quarter ? Math.round(Math.cos(a)) : Math.cos(a),
    s = quarter ? Math.round(Math.sin(a)) : Math.sin(a);
  const [hu, hv] = r.centre;
  return (iu, iv) => {
    const du = 2 * iu + 1 - hu,
      dv = 2 * iv + 1 - hv;
    return [Math.floor((hu + du * c + dv * s) / 2 + 1e-9), Math.floor((hv - du * s + dv * c) / 2 + 1e-9)];
  };
}

/** The box that holds `box` after turn `k`. */
export function turnedBox(box: Box, r: Radial, k: number): Box {
  const u = ((r.axis + 1) % 3) as Axis,
    v = ((r.axis + 2) % 3) as Axis;
  const a = (2 * Math.PI * k) / r.count,
    c = Math.cos(a),
    s = Math.sin(a);
  const e = boxEnd(box);
  const us: number[] = [],
    vs: number[] = [];
  for (const cu of [box.min[u], e[u]]) {
    for (const cv of [box.min[v], e[v]]) {
      const du = cu - r.centre[0] / 2,
        dv = cv - r.centre[1] / 2;
      us.push(r.centre[0] / 2 + du * c - dv * s);
      vs.push(r.centre[1] / 2 + du * s + dv * c);
    }
  }
  const lo = withAxis(withAxis(box.min, u, Math.floor(Math.min(...us)) - 1), v, Math.floor(Math.min(...vs)) - 1);
  const hi = withAxis(withAxis(e, u, Math.ceil(Math.max(...us)) + 1), v, Math.ceil(Math.max(...vs)) + 1);
  return { min: lo, size: [hi[0] - lo[0], hi[1] - lo[1], hi[2] - lo[2]] };
}

/**
 * Visits the cells of `limit` that turn `k` puts something of `box` on, with the cell each comes from. Looking back
 * from every target leaves no holes, which carrying cells forward would.
 */
export function forTurned(box: Box, r: Radial, k: number, limit: Box, visit: (to: Vec3, from: Vec3) => void): void {
  const u = ((r.axis + 1) % 3) as Axis,
    v = ((r.axis + 2) % 3) as Axis;
  const target = intersectBoxes(turnedBox(box, r, k), limit);
  const e = boxEnd(target),
    end = boxEnd(box);
  const back = turnedBack(r, k);
  const to: [number, number, number] = [0, 0, 0],
    from: [number, number, number] = [0, 0, 0];
  for (let iv = target.min[v]; iv < e[v]; iv++) {
    for (let iu = target.min[u]; iu < e[u]; iu++) {
      const [bu, bv] = back(iu, iv);
      if (bu < box.min[u] || bv < box.min[v] || bu >= end[u] || bv >= end[v]) continue;
      to[u] = iu;
      to[v] = iv;
      from[u] = bu;
      from[v] = bv;
      for (let w = target.min[r.axis]; w < e[r.axis]; w++) {
        to[r.axis] = from[r.axis] = w;
        visit(to, from);
      }
    }
  }
}

/** A set with all its mirror images and turned copies, as far as they lie in `limit`. */
export function symmetricSet(set: CellSet, s: Symmetry, limit: Box): CellSet {
  let out = set;
  for (const axis of AXES) {
    const h = s.mirror[axis];
    if (h !== null) out = out.union(mirrorSet(out, axis, h));
  }
  const r = s.radial;
  if (r) {
    const one = out;
    const all = new CellSet(
      intersectBoxes(
        limit,
        Array.from({ length: r.count }, (_, k) => turnedBox(one.box, r, k)).reduce(uniteBoxes, one.box),
      ),
    );
    one.runs((x0, x1, y, z) => all.addRun(x0, x1, y, z));
    for (let k = 1; k < r.count; k++) {
      forTurned(one.box, r, k, limit, (to, from) => {
        if (one.has(from[0], from[1], from[2])) all.addRun(to[0], to[0] + 1, to[1], to[2]);
      });
    }
    out = all;
  }
  const clipped = intersectBoxes(out.box, limit);
  return clipped.size.some((n) => n <= 0) ? new CellSet({ min: limit.min, size: [0, 0, 0] }) : out.within(clipped);
}
