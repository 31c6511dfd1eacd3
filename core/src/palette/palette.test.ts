import { describe, expect, it } from 'vitest';
import {
  freeByte,
  fromLinear,
  hexToLinear,
  makeSwatch,
  paletteTable,
  ramp,
  readHex,
  toLinear,
  nearDuplicates,
  oklab,
} from '.';

describe('colours', () => {
  it('what an artist types becomes #rrggbb, or nothing', () => {
    expect(['#ABC', 'abcdef', 'teal', 'rgb(255, 0, 0)', 'redish', ''].map(readHex)).toEqual([
      '#aabbcc',
      '#abcdef',
      '#008080',
      '#ff0000',
      null,
      null,
    ]);
  });
  it('sRGB to linear and back, at the standard’s own values', () => {
    expect(toLinear(0.5)).toBeCloseTo(0.21404, 5);
    expect(toLinear(0.04045)).toBeCloseTo(0.0031308, 6);
    for (let v = 0; v <= 1; v += 0.05) expect(fromLinear(toLinear(v))).toBeCloseTo(v, 9);
    expect(hexToLinear('#ff0080')[0]).toBe(1);
  });
  it('a ramp begins and ends where it should and rises evenly in lightness', () => {
    const r = ramp('#222222', '#eeeeee', 5);
    expect([r[0], r[4]]).toEqual(['#222222', '#eeeeee']);
    expect([...r].sort()).toEqual(r);
  });
});

describe('palettes', () => {
  const palette = {
    id: 'p',
    name: 'P',
    swatches: [makeSwatch(3, 'Oak', '#7d5a38'), makeSwatch(1, 'Glass', '#ffffff', { opacity: 0.4 })],
  };
  it('find the lowest free byte, and lay out by byte whatever the order', () => {
    expect(freeByte(palette)).toBe(2);
    expect(
      freeByte({ ...palette, swatches: Array.from({ length: 255 }, (_, i) => makeSwatch(i + 1, 'x', '#000000')) }),
    ).toBe(0);
    const t = paletteTable(palette);
    expect([t.swatches[3]!.name, t.transparent[1], t.transparent[3]]).toEqual(['Oak', 1, 0]);
    expect(paletteTable(palette)).toBe(t);
  });
  it('finds swatches that can hardly be told apart, nearest first', () => {
    expect(oklab('#ffffff')[0]).toBeCloseTo(1, 5);
    expect(oklab('#ff0000').map((v) => Math.round(v * 1000) / 1000)).toEqual([0.628, 0.225, 0.126]);
    const palette = {
      id: 'p',
      name: 'Near',
      swatches: [
        makeSwatch(1, 'a', '#804020'),
        makeSwatch(2, 'b', '#814121'),
        makeSwatch(3, 'c', '#804021'),
        makeSwatch(4, 'glow', '#804020', { emissive: 2 }),
        makeSwatch(5, 'far', '#206080'),
      ],
    };
    expect(nearDuplicates(palette).map((d) => d.a.name + d.b.name)).toEqual(['ac', 'ab', 'bc']);
  });
});
