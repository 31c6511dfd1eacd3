import { mat4 } from 'gl-matrix';
import { type Quat, QUAT_IDENTITY, invertQuat, mulQuat, normalizeQuat, rotate } from './quat';
import { type Box, boxCorners } from './box';
import { type Vec3, add, max, min, mul, sub } from './vec3';

/** A local transform: translate · rotate · scale, applied to column vectors (scale first). */
export interface Transform {
  readonly t: Vec3;
  readonly q: Quat;
  readonly s: Vec3;
}
export const TRANSFORM_IDENTITY: Transform = { t: [0, 0, 0], q: QUAT_IDENTITY, s: [1, 1, 1] };

/** A 4×4 matrix, column-major (16 numbers), as glTF and WebGL store it. */
export type Mat4 = readonly number[];
export const MAT4_IDENTITY: Mat4 = [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1];

type M = mat4;
const blank = (): number[] => new Array<number>(16).fill(0);

export const matrixOf = ({ t, q, s }: Transform): Mat4 =>
  mat4.fromRotationTranslationScale(blank() as M, q as never, t as never, s as never) as number[];
export const mulMat = (a: Mat4, b: Mat4): Mat4 => mat4.multiply(blank() as M, a as M, b as M) as number[];
/** The inverse; throws when the matrix has none (a zero scale). */
export function invertMat(a: Mat4): Mat4 {
  const r = mat4.invert(blank() as M, a as M);
  if (!r) throw new RangeError('invertMat: the matrix cannot be inverted, because one of its scales is zero.');
  return r as number[];
}
export const translation = (t: Vec3): Mat4 => [1, 0, 0, 0, 0, 1, 0, 0, 0, 0, 1, 0, t[0], t[1], t[2], 1];
export const transformPoint = (m: Mat4, p: Vec3): Vec3 => [
  m[0]! * p[0] + m[4]! * p[1] + m[8]! * p[2] + m[12]!,
  m[1]! * p[0] + m[5]! * p[1] + m[9]! * p[2] + m[13]!,
  m[2]! * p[0] + m[6]! * p[1] + m[10]! * p[2] + m[14]!,
];
export const transformDirection = (m: Mat4, d: Vec3): Vec3 => [
  m[0]! * d[0] + m[4]! * d[1] + m[8]! * d[2],
  m[1]! * d[0] + m[5]! * d[1] + m[9]! * d[2],
  m[2]! * d[0] + m[6]! * d[1] + m[10]! * d[2],
];
/** Splits a matrix without shear into translate, rotate, scale (all scales positive). */
export function decompose(m: Mat4): Transform {
  const s = mat4.getScaling([1, 1, 1], m as M) as [number, number, number];
  const q = mat4.getRotation([0, 0, 0, 1], m as M) as [number, number, number, number];
  return { t: [m[12]!, m[13]!, m[14]!], q: normalizeQuat(q), s };
}

/** `parent · local` for transforms without shear (exact when the parent's scale is uniform). */
export const composeTransform = (parent: Transform, local: Transform): Transform => ({
  t: add(parent.t, rotate(parent.q, mul(parent.s, local.t))),
  q: mulQuat(parent.q, local.q),
  s: mul(parent.s, local.s),
});

/** The local transform that stands at `world` under `parent` (parent⁻¹ · world; uniform parent scale). */
export const relativeTransform = (parent: Transform, world: Transform): Transform => {
  const inv: Vec3 = [1 / parent.s[0], 1 / parent.s[1], 1 / parent.s[2]];
  const back = invertQuat(parent.q);
  return {
    t: mul(inv, rotate(back, sub(world.t, parent.t))),
    q: mulQuat(back, world.q),
    s: mul(world.s, inv),
  };
};

/** From the lowest to the highest along each axis. */
export interface Extent {
  readonly lo: Vec3;
  readonly hi: Vec3;
}

/** What a box takes up once a matrix has placed it: the extent of its eight corners. */
export function placedExtent(m: Mat4, box: Box): Extent {
  const corners = boxCorners(box).map((c) => transformPoint(m, c));
  return { lo: corners.reduce(min), hi: corners.reduce(max) };
}

/** Two extents in one; either may be null for none. */
export const uniteExtents = (a: Extent | null, b: Extent | null): Extent | null =>
  a && b ? { lo: min(a.lo, b.lo), hi: max(a.hi, b.hi) } : (a ?? b);
