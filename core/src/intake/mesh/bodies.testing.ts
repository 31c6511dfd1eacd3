import type { Vec3 } from '../../math';
import { FINE, type Soup, soupOf } from './soup';

/** Triangles of a test body, nine numbers each, in cubes. */
export type Triangles = number[];

/** A surface over a square of two parameters, `n` × `m` quads, facing along du × dv. */
export function surface(n: number, m: number, at: (u: number, v: number) => Vec3): Triangles {
  const out: number[] = [];
  for (let i = 0; i < n; i++)
    for (let j = 0; j < m; j++) {
      const [a, b, c, d] = [
        at(i / n, j / m),
        at((i + 1) / n, j / m),
        at((i + 1) / n, (j + 1) / m),
        at(i / n, (j + 1) / m),
      ];
      out.push(...a, ...b, ...c, ...a, ...c, ...d);
    }
  return out;
}

const TURN = 2 * Math.PI;
const around = (share: number): readonly [number, number] =>
  share === 1 ? [1, 0] : [Math.cos(TURN * share), Math.sin(TURN * share)];

export const ball = ([x, y, z]: Vec3, r: number, n = 48): Triangles =>
  surface(n, n / 2, (u, v) => {
    const [c, s] = around(u),
      ring = v === 0 || v === 1 ? 0 : Math.sin(Math.PI * v);
    return [x + r * ring * c, y + r * Math.cos(Math.PI * v), z + r * ring * s];
  });

export const torus = ([x, y, z]: Vec3, R: number, r: number, n = 64): Triangles =>
  surface(n, n / 2, (u, v) => {
    const [c, s] = around(u),
      [c2, s2] = around(v);
    return [x + (R + r * c2) * c, y - r * s2, z + (R + r * c2) * s];
  });

/** @param sides – which of the six it has: −x, +x, −y, +y, −z, +z */
export function box([x, y, z]: Vec3, [w, h, d]: Vec3, sides: readonly number[] = [0, 1, 2, 3, 4, 5]): Triangles {
  const p = (c: number): Vec3 => [x + (c & 1) * w, y + ((c >> 1) & 1) * h, z + (c >> 2) * d];
  const quads = [
    [0, 4, 6, 2],
    [1, 3, 7, 5],
    [0, 1, 5, 4],
    [2, 6, 7, 3],
    [0, 2, 3, 1],
    [4, 5, 7, 6],
  ];
  return sides.flatMap((s) => {
    const [a, b, c, e] = quads[s]!.map(p) as [Vec3, Vec3, Vec3, Vec3];
    return [...a, ...b, ...c, ...a, ...c, ...e];
  });
}

/** A profile turned about the y axis, open at both ends. */
export const lathe = ([x, y, z]: Vec3, profile: readonly (readonly [r: number, h: number])[], n = 32): Triangles =>
  surface(n, profile.length - 1, (u, v) => {
    const [r, h] = profile[Math.round(v * (profile.length - 1))]!,
      [c, s] = around(u);
    return [x + r * c, y + h, z + r * s];
  });

/** The same with the faces that `is` says turned. */
export const turnedWhere = (t: Triangles, is: (triangle: number) => boolean): Triangles => {
  const out = [...t];
  for (let i = 0; i < t.length; i += 9)
    if (is(i / 9)) for (let k = 0; k < 3; k++) [out[i + 3 + k], out[i + 6 + k]] = [t[i + 6 + k]!, t[i + 3 + k]!];
  return out;
};

export const soup = (triangles: Triangles, size: readonly [number, number, number]): Soup =>
  soupOf(
    Int32Array.from(triangles, (v) => Math.round(v * FINE)),
    size,
  );
