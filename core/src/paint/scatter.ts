import { hash32 } from '../math';

/** A number in [0, 1) for a place and a seed: whole-number arithmetic only, so that it is the same on every machine. */
export function scatter(x: number, y: number, z: number, seed: number): number {
  let h = hash32(seed ^ 0x5bd1e995 ^ Math.imul(x | 0, 0x9e3779b1));
  h = hash32(h ^ Math.imul(y | 0, 0x85ebca77));
  h = hash32(h ^ Math.imul(z | 0, 0xc2b2ae3d));
  return h / 4294967296;
}

/** Order of the eight cells of a 2×2×2 block in which opposite corners follow one another, by x + 2y + 4z. */
const CORNERS = [0, 6, 4, 2, 3, 5, 7, 1] as const;

/**
 * Threshold in (0, 1) of an ordered pattern of 4×4×4 cells (a Bayer matrix in three dimensions): any share of cells
 * below it is spread evenly, on the faces of a block as well as inside it.
 */
export function ordered(x: number, y: number, z: number): number {
  const fine = CORNERS[(x & 1) | ((y & 1) << 1) | ((z & 1) << 2)]!;
  const coarse = CORNERS[((x >> 1) & 1) | (((y >> 1) & 1) << 1) | (((z >> 1) & 1) << 2)]!;
  return (fine * 8 + coarse + 0.5) / 64;
}
