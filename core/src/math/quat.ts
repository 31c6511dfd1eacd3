import { quat, vec3 as glVec3 } from 'gl-matrix';
import type { Axis, Vec3 } from './vec3';

/** A rotation as a unit quaternion `[x, y, z, w]`. */
export type Quat = readonly [number, number, number, number];
export const QUAT_IDENTITY: Quat = [0, 0, 0, 1];

type Mutable4 = [number, number, number, number];

/** The rotation that turns by `b` first and by `a` after it. */
export const mulQuat = (a: Quat, b: Quat): Quat =>
  quat.multiply([0, 0, 0, 1], a as Mutable4, b as Mutable4) as Mutable4;
export const invertQuat = (a: Quat): Quat => [-a[0], -a[1], -a[2], a[3]];
export const normalizeQuat = (a: Quat): Quat => quat.normalize([0, 0, 0, 1], a as Mutable4) as Mutable4;
export const rotate = (q: Quat, v: Vec3): Vec3 =>
  glVec3.transformQuat([0, 0, 0], v as [number, number, number], q as Mutable4) as [number, number, number];
/** A turn about `axis` (unit length), `angle` in radians, counter-clockwise seen against the axis. */
export const quatFromAxisAngle = (axis: Vec3, angle: number): Quat => {
  const s = Math.sin(angle / 2);
  return [axis[0] * s, axis[1] * s, axis[2] * s, Math.cos(angle / 2)];
};
/** The shortest-way spherical blend of two rotations, `t` from 0 to 1. */
export const slerp = (a: Quat, b: Quat, t: number): Quat =>
  quat.slerp([0, 0, 0, 1], a as Mutable4, b as Mutable4, t) as Mutable4;

/**
 * Euler angles in radians, order YXZ (turn about Y, then the turned X, then the turned Z), as shown
 * in the interface only; rotations are stored as quaternions.
 */
export const quatFromEuler = ([x, y, z]: Vec3): Quat =>
  mulQuat(mulQuat(quatFromAxisAngle([0, 1, 0], y), quatFromAxisAngle([1, 0, 0], x)), quatFromAxisAngle([0, 0, 1], z));

/** The YXZ Euler angles of `q` in radians; at ±90° of X the Z angle is given as 0. */
export const eulerFromQuat = ([x, y, z, w]: Quat): Vec3 => {
  const m12 = 2 * (y * z - w * x);
  const sinX = Math.max(-1, Math.min(1, -m12));
  const ex = Math.asin(sinX);
  if (Math.abs(sinX) < 0.9999999) {
    return [
      ex,
      Math.atan2(2 * (x * z + w * y), 1 - 2 * (x * x + y * y)),
      Math.atan2(2 * (x * y + w * z), 1 - 2 * (x * x + z * z)),
    ];
  }
  return [ex, Math.atan2(-2 * (x * z - w * y), 1 - 2 * (y * y + z * z)), 0];
};

/** A turn as it is in a mirror square to `axis`. */
export const mirrorQuat = (q: Quat, axis: Axis): Quat =>
  q.map((c, i) => (i === axis || i === 3 ? c : -c)) as unknown as Quat;
