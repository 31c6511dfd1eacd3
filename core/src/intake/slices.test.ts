import { describe, expect, it } from 'vitest';
import type { Pixels } from '../codec';
import { finish, seededRandom } from '../math';
import { type SliceOptions, SLICE_WAYS, sliceOptions, slicesSteps } from './slices';

const make = (pictures: readonly Pixels[], options: Partial<SliceOptions> = {}) =>
  finish(slicesSteps(pictures, { ...sliceOptions.parse({}), ...options }, null, null));

const COLOURS = Uint8Array.from([9, 9, 9, 255, 200, 0, 0, 255, 0, 200, 0, 255, 0, 0, 200, 255]);
const picture = (width: number, height: number, at: (x: number, y: number) => number, indexed = true): Pixels => {
  const bytes = new Uint8Array(width * height),
    rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const b = at(x, y);
      bytes[y * width + x] = b;
      rgba.set(COLOURS.subarray(b * 4, b * 4 + 3), (y * width + x) * 4);
      rgba[(y * width + x) * 4 + 3] = b === 0 && !indexed ? 0 : 255;
    }
  return { width, height, rgba, indexed: indexed ? { bytes, colours: COLOURS } : null };
};

describe('slices', () => {
  it.each(Object.keys(SLICE_WAYS) as (keyof typeof SLICE_WAYS)[])('lie one behind the other: %s', (order) => {
    const random = seededRandom(5);
    const value = Array.from({ length: 5 * 4 * 3 }, () => Math.floor(random() * 4));
    const slices = [0, 1, 2].map((k) => picture(5, 4, (x, y) => value[(k * 4 + y) * 5 + x]!));
    for (const backwards of [false, true]) {
      const { grid } = make(slices, { order, backwards });
      const { min } = grid.bounds;
      for (let k = 0; k < 3; k++)
        for (let y = 0; y < 4; y++)
          for (let x = 0; x < 5; x++) {
            const n = backwards ? 2 - k : k;
            const at = { 'bottom up': [x, n, y], 'back to front': [x, 3 - y, n], 'left to right': [n, 3 - y, x] }[
              order
            ];
            expect(grid.get(min[0] + at[0]!, min[1] + at[1]!, min[2] + at[2]!)).toBe(value[(k * 4 + y) * 5 + x]);
          }
    }
  });

  it('come out of tiles row by row; a strip is made of squares', () => {
    const sheet = picture(8, 4, (x, y) => (x === 5 && y === 3 ? 2 : 1));
    expect(make([sheet]).tile).toEqual([4, 4]);
    const tiles = make([sheet], { wide: 4, high: 2 });
    expect([tiles.slices, tiles.grid.bounds.size]).toEqual([4, [4, 4, 2]]);
    // The fourth tile, its second pixel of the second row.
    expect(tiles.grid.get(-1, 3, 0)).toBe(2);
    expect(make([sheet], { wide: 4, high: 2, count: 3 }).slices).toBe(3);
    expect(() => make([sheet], { wide: 3, high: 2 })).toThrow(/do not fill its 8 × 4 pixels/);
  });

  it('keep indices; pictures without any give a swatch a colour, and what is clear is empty', () => {
    const slices = [0, 1, 2].map((k) => picture(3, 3, (x, y) => (x + y + k) % 4));
    expect(make(slices).swatches.map((s) => [s.byte, s.colour])).toEqual([
      [1, '#c80000'],
      [2, '#00c800'],
      [3, '#0000c8'],
    ]);
    const plain = make([0, 1, 2].map((k) => picture(3, 3, (x, y) => (x + y + k) % 4, false)));
    expect([...plain.swatches.map((s) => s.colour)].sort()).toEqual(['#0000c8', '#00c800', '#c80000']);
    expect(plain.grid.count).toBe(make(slices).grid.count);
    expect(make(slices, { zero: 'cube' }).grid.count).toBe(27);
  });

  it('says when they do not belong together', () => {
    expect(() => make([picture(3, 3, () => 1), picture(3, 4, () => 1)])).toThrow(/not of one size: 3 × 3 and 3 × 4/);
    expect(() => make([picture(300, 300, () => 1)])).toThrow(/300 × 300 × 1 cubes/);
    expect(() => make([picture(3, 3, () => 0)])).toThrow(/all are empty/);
  });
});
