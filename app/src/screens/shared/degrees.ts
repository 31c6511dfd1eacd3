import { type Quat, type Vec3, eulerFromQuat, quatFromEuler } from '@sphalerite/core/math';

const round = (v: number): number => Math.round(v * 100) / 100 + 0;
/** A rotation as degrees about X, Y and Z, as the interface shows it. */
export const toDegrees = (q: Quat): Vec3 => eulerFromQuat(q).map((r) => round((r * 180) / Math.PI)) as unknown as Vec3;
export const fromDegrees = (d: Vec3): Quat => quatFromEuler(d.map((v) => (v * Math.PI) / 180) as unknown as Vec3);
export const withComponent = (v: Vec3, axis: number, value: number): Vec3 =>
  v.map((c, i) => (i === axis ? value : c)) as unknown as Vec3;
