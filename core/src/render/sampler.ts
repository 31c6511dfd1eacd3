import { hash32 } from '../math';

/** Bits of a byte from behind. */
const REVERSED = Uint8Array.from({ length: 256 }, (_, b) => {
  let r = 0;
  for (let i = 0; i < 8; i++) if (b & (1 << i)) r |= 128 >> i;
  return r;
});
const reversed = (x: number): number =>
  (REVERSED[x & 255]! << 24) |
  (REVERSED[(x >>> 8) & 255]! << 16) |
  (REVERSED[(x >>> 16) & 255]! << 8) |
  REVERSED[x >>> 24]!;

/** The second dimension of Sobol's sequence by the lower and the higher byte of the number; the first is its bits reversed. */
const SECOND = [0, 8].map((shift) =>
  Int32Array.from({ length: 256 }, (_, byte) => {
    let r = 0,
      direction = 1 << 31;
    for (let i = 0; i < 16; i++, direction ^= direction >>> 1) if ((byte << shift) & (1 << i)) r ^= direction;
    return r;
  }),
) as [Int32Array, Int32Array];

/** Owen's nested scramble of a number whose bits stand reversed (Laine & Karras 2011, constants of Vegdahl). */
function scrambled(x: number, seed: number): number {
  x ^= Math.imul(x, 0x3d20adea);
  x = (x + seed) | 0;
  x = Math.imul(x, (seed >>> 16) | 1);
  x ^= Math.imul(x, 0x05526c56);
  x ^= Math.imul(x, 0x53a22864);
  return x;
}
const SCALE = 1 / 4294967296;

/**
 * The chances of one sample of one pixel: points of Sobol's sequence that are scrambled (Owen 1995) and shuffled anew for each
 * pair of dimensions (Burley 2020), so that the samples of a pixel spread evenly over all that they choose. They follow from pixel, sample
 * and dimension alone: a picture is the same however its pixels and samples are shared.
 */
export class Sampler {
  /** The pair that {@link draw} gave last, each 0 to below 1. */
  u = 0.5;
  v = 0.5;
  private seed = 1;
  /** The number of the sample, its bits from behind. */
  private number = 0;
  private dimension = 0;

  begin(pixel: number, sample: number): void {
    // There are tables for so many numbers; those beyond begin anew with chances of their own in every dimension.
    this.seed = hash32(pixel + 0x632be5ab + Math.imul(sample >>> 16, 0x85ebca6b));
    this.number = reversed(sample & 0xffff);
    this.dimension = 0;
  }

  /** Goes on at a dimension of its own, so that samples that went other ways so far are even again from here. */
  at(dimension: number): void {
    this.dimension = dimension;
  }

  /** Leaves out dimensions that nothing asks for. */
  skip(count: number): void {
    this.dimension += count;
  }

  /** Two chances that are even together. */
  draw(): void {
    const seed = hash32(this.seed + Math.imul(++this.dimension, 0x9e3779b1));
    const index = reversed(scrambled(this.number, seed));
    this.u = (reversed(scrambled(index, seed ^ 0x68bc21eb)) >>> 0) * SCALE;
    const second = SECOND[0][index & 255]! ^ SECOND[1][(index >>> 8) & 255]!;
    this.v = (reversed(scrambled(reversed(second), seed ^ 0x02e5be93)) >>> 0) * SCALE;
  }

  /** One chance, 0 to below 1. */
  next(): number {
    const seed = hash32(this.seed + Math.imul(++this.dimension, 0x9e3779b1));
    const index = reversed(scrambled(this.number, seed));
    return (reversed(scrambled(index, seed ^ 0x68bc21eb)) >>> 0) * SCALE;
  }
}
