import { describe, expect, it } from 'vitest';
import type { Pixels } from '../codec';
import { finish, seededRandom } from '../math';
import { makeSwatch } from '../palette';
import { byteCounts } from '../voxel';
import { type FieldBodies, type HeightOptions, IntakeError, heightOptions, heightSteps } from '.';

const grey = (width: number, height: number, at: (x: number, y: number) => number): Pixels => ({
  width,
  height,
  rgba: Uint8Array.from({ length: width * height * 4 }, (_, k) => {
    const i = k >> 2;
    return (k & 3) === 3 ? 255 : at(i % width, Math.floor(i / width));
  }),
  indexed: null,
});
const made = (
  p: Pixels,
  options: Partial<HeightOptions> = {},
  seen: Pixels | null = null,
  palette: Parameters<typeof heightSteps>[3] = null,
): FieldBodies => finish(heightSteps(p, seen, heightOptions.parse(options), palette));
/** How high the column over a place is, whichever body it is in. */
const high = ({ bodies }: FieldBodies, x: number, z: number): number => {
  for (const { grid } of bodies) for (let y = 255; y >= 0; y--) if (grid.get(x, y, z) !== 0) return y + 1;
  return 0;
};
const total = ({ bodies }: FieldBodies): number => bodies.reduce((n, b) => n + b.grid.count, 0);

describe('a height map', () => {
  it('is as high as it is bright, in levels, on a base; inverted the other way; dark is nothing where it is wished', () => {
    const steps = grey(4, 1, (x) => x * 85);
    const heights = (options: Partial<HeightOptions>): number[] =>
      [-2, -1, 0, 1].map((x) => high(made(steps, options), x, 0));
    expect(heights({ height: 30, base: 2, levels: 256 })).toEqual([2, 12, 22, 32]);
    expect(heights({ height: 30, base: 2, levels: 2 })).toEqual([2, 2, 32, 32]);
    expect(heights({ height: 30, base: 2, levels: 256, invert: true })).toEqual([32, 22, 12, 2]);
    expect(heights({ height: 30, base: 2, levels: 256, empty: 0 })).toEqual([0, 12, 22, 32]);
    expect(heights({ height: 30, base: 0, levels: 256, empty: 100 })).toEqual([0, 0, 20, 30]);
    expect(total(made(steps, { height: 30, base: 2, levels: 256 }))).toBe(2 + 12 + 22 + 32);
    expect(() => made(steps, { height: 250, base: 7 })).toThrow(/257 cubes high/);
    expect(() =>
      made(
        grey(4, 4, () => 0),
        { empty: 10 },
      ),
    ).toThrow(IntakeError);
  });
  it('made smaller is the mean of bytes, since heights are no light', () => {
    const checks = grey(8, 8, (x, y) => ((x + y) % 2 ? 254 : 0));
    expect(high(made(checks, { width: 4, height: 254, base: 0, levels: 256 }), 0, 0)).toBe(127);
    expect(() =>
      made(
        grey(10, 100, () => 9),
        { width: 100 },
      ),
    ).toThrow(/at most 25 wide/i);
  });
  it('smoothed, loses its noise and keeps its edges', () => {
    const random = seededRandom(4);
    const cliff = grey(32, 32, (x) => (x < 16 ? 60 : 200) + Math.round((random() - 0.5) * 16));
    const spread = (f: FieldBodies, from: number): number => {
      const all: number[] = [];
      for (let z = -14; z < 14; z++) for (let x = from; x < from + 12; x++) all.push(high(f, x, z));
      const mean = all.reduce((a, b) => a + b) / all.length;
      return Math.sqrt(all.reduce((s, v) => s + (v - mean) ** 2, 0) / all.length);
    };
    const [rough, even] = [0, 3].map((smooth) => made(cliff, { height: 200, base: 0, levels: 256, smooth }));
    expect(spread(even!, -15)).toBeLessThan(spread(rough!, -15) / 2.5);
    // The cliff is as steep as it was.
    expect(high(even!, 0, 0) - high(even!, -1, 0)).toBeGreaterThan(90);
  });
  const spots = grey(30, 10, (x, y) => {
    const inside = (x0: number, w: number): boolean => x >= x0 && x < x0 + w && y >= 2 && y < 8;
    return inside(1, 6) ? 255 : inside(9, 6) ? 128 : inside(20, 3) ? 255 : x === 28 && y === 9 ? 255 : 0;
  });
  it('comes apart into its connected pieces, shrunk to fit, where they lie; small ones are dropped, others kept together', () => {
    const whole = made(spots, { empty: 0, base: 0, height: 10 });
    const f = made(spots, { empty: 0, base: 0, height: 10, split: 'pieces', drop: 11 });
    expect([f.bodies.map((b) => b.name), f.pieces]).toEqual([['1', '2', '3'], 4]);
    expect(f.bodies.map((b) => b.grid.bounds.size)).toEqual([
      [6, 10, 6],
      [6, 5, 6],
      [3, 10, 6],
    ]);
    // What is left stands where it stood, and nothing twice; one column was dropped.
    expect(total(f)).toBe(total(whole) - 10);
    for (const { grid } of f.bodies) grid.forEach((x, y, z, v) => expect(whole.bodies[0]!.grid.get(x, y, z)).toBe(v));
    const joined = made(spots, { empty: 0, base: 0, height: 10, split: 'pieces', drop: 11, join: '1+3' });
    expect(joined.bodies.map((b) => b.grid.count)).toEqual([360 + 180, 180]);
    expect(() => made(spots, { empty: 0, split: 'pieces', join: '1+9' })).toThrow(/There are/);
    expect(() => made(spots, { empty: 0, split: 'pieces', drop: 99_999 })).toThrow(/Every piece/);
  });
  it('pieces take a swatch each, all the colours of a picture of any size, or tones by height', () => {
    const palette = { id: 'p', name: 'P', swatches: [makeSwatch(4, 'A', '#112233'), makeSwatch(9, 'B', '#445566')] };
    const each = made(spots, { empty: 0, split: 'pieces', drop: 20, colours: 'each' }, null, palette);
    const used = each.bodies.map((b) => [...byteCounts(b.grid)].flatMap((n, v) => (n > 0 ? [v] : [])));
    expect([used, each.ours]).toEqual([[[4], [9], [4]], true]);
    const seen: Pixels = {
      ...grey(60, 20, () => 0),
      rgba: Uint8Array.from({ length: 4800 }, (_, k) => [(k >> 2) % 60 < 16 ? 200 : 20, 40, 60, 255][k & 3]!),
    };
    const coloured = made(spots, { empty: 0, most: 5 }, seen);
    expect(coloured.swatches.map((s) => s.colour).sort()).toEqual(['#14283c', '#c8283c']);
    const { grid } = coloured.bodies[0]!;
    expect(coloured.swatches.find((s) => s.byte === grid.get(-14, 0, 0))!.colour).toBe('#c8283c');
    const tones = made(spots, { empty: 0, base: 0 }).bodies[0]!.grid;
    expect(tones.get(-14, 0, 0)).toBeGreaterThan(tones.get(-5, 0, 0));
  });
  it('larger than a part is cut into tiles that meet without a seam', () => {
    const hills = grey(300, 270, (x, y) => Math.round(120 + 60 * Math.sin(x / 20) + 60 * Math.cos(y / 17)));
    const f = made(hills, { width: 300, split: 'tiles', height: 20, base: 1, levels: 256 });
    expect(f.bodies.map((b) => [b.name, b.grid.bounds.size[0], b.grid.bounds.size[2]])).toEqual([
      ['1.1', 256, 256],
      ['1.2', 44, 256],
      ['2.1', 256, 14],
      ['2.2', 44, 14],
    ]);
    for (const [x, z] of [
      [105, 3],
      [106, 3],
      [-150, 120],
      [-150, 121],
      [149, 134],
    ] as const) {
      const v = Math.round(120 + 60 * Math.sin((x + 150) / 20) + 60 * Math.cos((z + 135) / 17)) / 255;
      expect(high(f, x, z)).toBe(1 + Math.round((Math.round(v * 255) / 255) * 20));
    }
    expect(() => made(hills, { width: 300 })).toThrow(/split it into pieces or tiles/);
  });
  it('a piece larger than a part is cut into tiles too, and is joined as one', () => {
    const long = grey(340, 20, (x, y) => (y < 6 ? 255 : y > 12 && x > 300 ? 200 : 0));
    const split = { width: 340, split: 'pieces', height: 4, base: 0, drop: 0 } as const;
    const f = made(long, split);
    expect(f.bodies.map((b) => [b.name, b.piece, b.grid.count])).toEqual([
      ['1.1.1', 1, 256 * 6 * 4],
      ['1.1.2', 1, 84 * 6 * 4],
      ['2', 2, 39 * 7 * 3],
    ]);
    expect(made(long, { ...split, join: '1+2' }).bodies.map((b) => [b.name, b.piece])).toEqual([
      ['1.1.1', 1],
      ['1.1.2', 1],
    ]);
  });
});
