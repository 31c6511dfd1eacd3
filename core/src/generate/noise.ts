import { hash32 } from '../math';

const fade = (t: number): number => t * t * t * (t * (t * 6 - 15) + 10);
const cornerValue = (x: number, y: number, z: number, seed: number): number =>
  hash32(Math.imul(x, 0x27d4eb2d) ^ Math.imul(y, 0x165667b1) ^ Math.imul(z, 0x9e3779b1) ^ hash32(seed)) / 2147483648 -
  1;

/** Smooth noise between −1 and 1 over a lattice of one: values at corners, faded between (Perlin 2002's fade). */
export function noise3(x: number, y: number, z: number, seed: number): number {
  const [x0, y0, z0] = [Math.floor(x), Math.floor(y), Math.floor(z)];
  const [u, v, w] = [fade(x - x0), fade(y - y0), fade(z - z0)];
  let sum = 0;
  for (let k = 0; k < 8; k++) {
    const [i, j, l] = [k & 1, (k >> 1) & 1, k >> 2];
    sum += (i ? u : 1 - u) * (j ? v : 1 - v) * (l ? w : 1 - w) * cornerValue(x0 + i, y0 + j, z0 + l, seed);
  }
  return sum;
}

/** Octaves of noise, each twice as fine and half as strong; about −1 to 1. */
export function fractal(x: number, y: number, z: number, seed: number, octaves: number): number {
  let sum = 0,
    strength = 1,
    all = 0;
  for (let o = 0, f = 1; o < octaves; o++, f *= 2) {
    sum += strength * noise3(x * f, y * f, z * f, seed + o * 101);
    all += strength;
    strength /= 2;
  }
  return sum / all;
}
