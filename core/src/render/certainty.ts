import { brightness } from './glow';
import type { Traced } from './film';

/** Samples that are taken of a part of the picture before it is asked how certain it is. */
export const LEAST_SAMPLES = 8;
/** Light that counts as none when noise is set against it: in the dark it is not seen. */
const DARK = 0.04;
/** Halves of the samples tell the noise of so many pixels together, along each edge. */
const SQUARE = 8;

/**
 * How certain a tile is, as its samples come: by how much its pixels may be off, as a share of their light, in the mean of
 * squares. Noise follows from the difference of both halves of the samples, since those that are spread evenly have come further than
 * their spread alone tells.
 *
 * A tile that ends once it is certain is asked after whole passes and for all its pixels together, so that what it ends by
 * has next to nothing to do with the light of one of them: its mean stays within a hundredth of the noise that was allowed.
 */
export class Certainty {
  private readonly sum: Float64Array;
  private readonly odd: Float64Array;
  private readonly whole: Float64Array;
  private samples = 0;

  constructor(
    private readonly width: number,
    private readonly height: number,
  ) {
    const n = width * height;
    this.sum = new Float64Array(n);
    this.odd = new Float64Array(n);
    this.whole = new Float64Array(n);
  }

  /** Takes samples in. Those of even and of odd number have to be as many. */
  add({ light, direct, odd, samples }: Pick<Traced, 'samples' | 'light' | 'direct' | 'odd'>): void {
    this.samples += samples;
    for (let i = 0, o = 0; i < this.sum.length; i++, o += 3) {
      const all = brightness(light[o]!, light[o + 1]!, light[o + 2]!);
      this.whole[i]! += all;
      this.sum[i]! += all - brightness(direct[o]!, direct[o + 1]!, direct[o + 2]!);
      this.odd[i]! += odd[i]!;
    }
  }

  /** By what share of its light it may be off; Infinity before anything is known. */
  get noise(): number {
    const { samples, width, height } = this;
    const odd = samples >> 1,
      even = samples - odd;
    if (odd === 0) return Infinity;
    let total = 0;
    for (let y = 0; y < height; y += SQUARE)
      for (let x = 0; x < width; x += SQUARE) {
        let apart = 0,
          light = 0,
          n = 0;
        for (let j = y; j < Math.min(height, y + SQUARE); j++)
          for (let i = x; i < Math.min(width, x + SQUARE); i++) {
            const p = j * width + i;
            const gap = this.odd[p]! / odd - (this.sum[p]! - this.odd[p]!) / even;
            apart += gap * gap;
            light += this.whole[p]! / samples;
            n++;
          }
        // The mean of both halves is half as far off as they are apart.
        total += apart / 4 / ((light / n + DARK) * (light / n + DARK));
      }
    return Math.sqrt(total / (width * height));
  }

  /** How many samples it is likely to need in all for so much noise. */
  needs(noise: number): number {
    const now = this.noise;
    return now <= noise ? this.samples : Math.ceil(this.samples * (now / noise) ** 2);
  }
}
