import { describe, expect, it } from 'vitest';
import { Sampler } from './sampler';

const s = new Sampler();
/** The first pairs of a sample, and those where it goes on at later dimensions. */
function pairs(pixel: number, sample: number): string[] {
  s.begin(pixel, sample);
  return [null, null, 3, 4, 40].map((dimension) => {
    if (dimension !== null) s.at(dimension);
    s.draw();
    return `${s.u} ${s.v}`;
  });
}

describe('the chances of samples', () => {
  it.each([0, 7, 31])('fall once into each cell of every power of two, in dimension %i', (dimension) => {
    for (const [columns, rows] of [
      [64, 1],
      [1, 64],
      [8, 8],
      [2, 32],
    ] as const) {
      const cells = new Set<number>();
      for (let sample = 64; sample < 128; sample++) {
        s.begin(12345, sample);
        s.at(dimension);
        s.draw();
        expect(Math.min(s.u, s.v)).toBeGreaterThanOrEqual(0);
        cells.add(Math.floor(s.u * columns) * rows + Math.floor(s.v * rows));
      }
      expect(cells.size).toBe(64);
    }
  });
  it('are others for every sample, however many there are, in every dimension, and for every pixel', () => {
    const numbers = [0, 1, 1 << 16, 2 << 16, 4 << 16, (4 << 16) + 1, 40 << 16];
    const all = [3, 4].flatMap((pixel) => numbers.flatMap((n) => pairs(pixel, n)));
    expect(new Set(all).size).toBe(all.length);
    expect(pairs(3, 5)).toEqual(pairs(3, 5));
  });
});
