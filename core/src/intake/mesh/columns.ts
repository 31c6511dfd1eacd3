import type { Axis } from '../../math';
import { FINE } from './soup';

/** Where the line through the middles of a column of cells meets a triangle. */
export interface Meeting {
  /** Place of the column along the two other axes, in order. */
  u: number;
  v: number;
  /** The cell it meets it in; on the rim between two the one behind the triangle, away from where its normal points. */
  cell: number;
  /** Cells of the column whose middles are before it. */
  before: number;
  /** Whether it meets it exactly in a middle. */
  middle: boolean;
  /** Whether the triangle's normal points along the axis. */
  forward: boolean;
  /** How much of the first and the second corner is in it; the rest is of the third. */
  a: number;
  b: number;
  /** Whether it is in the triangle as half-open ones tile the plane: of triangles that share a rim one has it. */
  owned: boolean;
}

const HALF = FINE / 2;

/**
 * Visits every column of cells along an axis whose middle line meets a triangle, its rim included.
 *
 * @param p – nine whole numbers, the triangle's corners on the lattice
 * @param wide – columns along the first of the other axes, likewise `high`
 */
export function meetings(
  p: ArrayLike<number>,
  axis: Axis,
  wide: number,
  high: number,
  visit: (m: Meeting) => void,
): void {
  const [U, V] = axis === 0 ? [1, 2] : axis === 1 ? [2, 0] : [0, 1];
  const [au, av, aw, bu, bv, bw, cu, cv, cw] = [
    ...[p[U]!, p[V]!, p[axis]!],
    ...[p[3 + U]!, p[3 + V]!, p[3 + axis]!],
    ...[p[6 + U]!, p[6 + V]!, p[6 + axis]!],
  ] as [number, number, number, number, number, number, number, number, number];
  // The normal's share along the axis is twice the area seen from there.
  const nw = (bu - au) * (cv - av) - (bv - av) * (cu - au);
  if (nw === 0) return;
  const nu = (bv - av) * (cw - aw) - (bw - aw) * (cv - av),
    nv = (bw - aw) * (cu - au) - (bu - au) * (cw - aw);
  const sign = nw > 0 ? 1 : -1,
    area = sign * nw;
  const u0 = Math.max(0, Math.ceil((Math.min(au, bu, cu) - HALF) / FINE)),
    u1 = Math.min(wide - 1, Math.floor((Math.max(au, bu, cu) - HALF) / FINE)),
    v0 = Math.max(0, Math.ceil((Math.min(av, bv, cv) - HALF) / FINE)),
    v1 = Math.min(high - 1, Math.floor((Math.max(av, bv, cv) - HALF) / FINE));
  // Signed so that inside is positive for triangles seen from either side.
  const [e0u, e0v, e1u, e1v, e2u, e2v] = [
    ...[sign * (bu - au), sign * (bv - av)],
    ...[sign * (cu - bu), sign * (cv - bv)],
    ...[sign * (au - cu), sign * (av - cv)],
  ] as [number, number, number, number, number, number];
  const open0 = opens(e0u, e0v),
    open1 = opens(e1u, e1v),
    open2 = opens(e2u, e2v);
  for (let v = v0; v <= v1; v++) {
    const pv = v * FINE + HALF;
    for (let u = u0; u <= u1; u++) {
      const pu = u * FINE + HALF;
      const e0 = e0u * (pv - av) - e0v * (pu - au);
      if (e0 < 0) continue;
      const e1 = e1u * (pv - bv) - e1v * (pu - bu);
      if (e1 < 0) continue;
      const e2 = e2u * (pv - cv) - e2v * (pu - cu);
      if (e2 < 0) continue;
      // It stands at `sum / nw`; every comparison with a whole number is exact.
      const sum = aw * nw - (nu * (pu - au) + nv * (pv - av));
      let cell = Math.floor(sum / nw / FINE);
      while (sign * (sum - cell * FINE * nw) < 0) cell--;
      while (sign * (sum - (cell + 1) * FINE * nw) >= 0) cell++;
      const middle = sign * (sum - (cell * FINE + HALF) * nw);
      MEETING.u = u;
      MEETING.v = v;
      MEETING.before = middle > 0 ? cell + 1 : cell;
      MEETING.middle = middle === 0;
      MEETING.forward = sign > 0;
      MEETING.a = e1 / area;
      MEETING.b = e2 / area;
      MEETING.owned = (e0 > 0 || open0) && (e1 > 0 || open1) && (e2 > 0 || open2);
      MEETING.cell = sign > 0 && sum === cell * FINE * nw ? cell - 1 : cell;
      visit(MEETING);
    }
  }
}
/** One for all: it is read before the next is found. */
const MEETING: Meeting = { u: 0, v: 0, cell: 0, before: 0, middle: false, forward: false, a: 0, b: 0, owned: false };

/** Whether a point on an edge counts as inside: as if it stood a little to the right, and much less up (Edelsbrunner and Mücke 1990). */
const opens = (du: number, dv: number): boolean => dv < 0 || (dv === 0 && du > 0);
