import { type Quat, type Vec3, eulerFromQuat, quatFromEuler, mapVec } from '@sphalerite/core/math';

const round = (v: number): number => Math.round(v * 100) / 100 + 0;
/** A rotation as degrees about X, Y and Z, as the interface shows it. */
export const toDegrees = (q: Quat): Vec3 => mapVec(eulerFromQuat(q), (r) => round((r * 180) / Math.PI));
export const fromDegrees = (d: Vec3): Quat => quatFromEuler(mapVec(d, (v) => (v * Math.PI) / 180));
export const withComponent = (v: Vec3, axis: number, value: number): Vec3 =>
  mapVec(v, (c, i) => (i === axis ? value : c));
