/** A point, direction or size: x, y, z. Right-handed, Y up. */
export type Vec3 = readonly [number, number, number];
/** The index of an axis: 0 is X, 1 is Y, 2 is Z. */
export type Axis = 0 | 1 | 2;
export const AXES: readonly Axis[] = [0, 1, 2];
export const AXIS_NAMES = ['X', 'Y', 'Z'] as const;

export const vec3 = (x: number, y: number, z: number): Vec3 => [x, y, z];
/** The first three of a list of numbers. */
export const vec3Of = (v: ArrayLike<number>): Vec3 => [v[0]!, v[1]!, v[2]!];
/** A function of each of three numbers and its axis. */
export const mapVec = (v: ArrayLike<number>, f: (value: number, axis: Axis) => number): Vec3 => [
  f(v[0]!, 0),
  f(v[1]!, 1),
  f(v[2]!, 2),
];
export const add = (a: Vec3, b: Vec3): Vec3 => [a[0] + b[0], a[1] + b[1], a[2] + b[2]];
export const sub = (a: Vec3, b: Vec3): Vec3 => [a[0] - b[0], a[1] - b[1], a[2] - b[2]];
export const scale = (a: Vec3, k: number): Vec3 => [a[0] * k, a[1] * k, a[2] * k];
export const mul = (a: Vec3, b: Vec3): Vec3 => [a[0] * b[0], a[1] * b[1], a[2] * b[2]];
export const dot = (a: Vec3, b: Vec3): number => a[0] * b[0] + a[1] * b[1] + a[2] * b[2];
export const cross = (a: Vec3, b: Vec3): Vec3 => [
  a[1] * b[2] - a[2] * b[1],
  a[2] * b[0] - a[0] * b[2],
  a[0] * b[1] - a[1] * b[0],
];
export const length = (a: Vec3): number => Math.hypot(a[0], a[1], a[2]);
/** `a` at length 1; a zero vector stays zero. */
export const normalize = (a: Vec3): Vec3 => {
  const l = length(a);
  return l > 0 ? scale(a, 1 / l) : a;
};
export const lerp = (a: Vec3, b: Vec3, t: number): Vec3 => [
  a[0] + (b[0] - a[0]) * t,
  a[1] + (b[1] - a[1]) * t,
  a[2] + (b[2] - a[2]) * t,
];
export const min = (a: Vec3, b: Vec3): Vec3 => [Math.min(a[0], b[0]), Math.min(a[1], b[1]), Math.min(a[2], b[2])];
export const max = (a: Vec3, b: Vec3): Vec3 => [Math.max(a[0], b[0]), Math.max(a[1], b[1]), Math.max(a[2], b[2])];
export const floor = (a: Vec3): Vec3 => [Math.floor(a[0]), Math.floor(a[1]), Math.floor(a[2])];
export const equals = (a: Vec3, b: Vec3): boolean => a[0] === b[0] && a[1] === b[1] && a[2] === b[2];
/** The six ways out of a cube. */
export const FACE_DIRECTIONS: readonly Vec3[] = [
  [1, 0, 0],
  [-1, 0, 0],
  [0, 1, 0],
  [0, -1, 0],
  [0, 0, 1],
  [0, 0, -1],
];
/** A vector as it is in a mirror square to `axis`; never −0. */
export const mirrorVec = (v: Vec3, axis: Axis): Vec3 => mapVec(v, (c, i) => (i === axis && c !== 0 ? -c : c));
/** `a` with its component on `axis` replaced. */
export const withAxis = (a: Vec3, axis: Axis, value: number): Vec3 => {
  const r: [number, number, number] = [a[0], a[1], a[2]];
  r[axis] = value;
  return r;
};
