import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CodecError, type LightPicture, decodeRadiance, encodeRadiance, isRadiance, shrunkLight } from '.';

const picture = (width: number, height: number, of: (i: number) => number): LightPicture => ({
  width,
  height,
  light: Float32Array.from({ length: width * height * 3 }, (_, i) => of(i)),
});
const bytes = (head: string, ...rest: number[]): Uint8Array<ArrayBuffer> =>
  Uint8Array.from([...[...head].map((c) => c.charCodeAt(0)), ...rest]);

describe('Radiance pictures', () => {
  it('keep light of any strength to one part in 128 of the brightest colour', () => {
    fc.assert(
      fc.property(fc.array(fc.double({ min: 0, max: 1e6, noNaN: true }), { minLength: 3, maxLength: 3 }), (rgb) => {
        const { light } = decodeRadiance(encodeRadiance(picture(2, 1, (i) => rgb[i % 3]!)));
        const most = Math.max(...rgb);
        for (let i = 0; i < 6; i++) expect(Math.abs(light[i]! - rgb[i % 3]!)).toBeLessThanOrEqual(most / 128 + 1e-30);
      }),
    );
  });
  it('are read packed as their format says: a run, and values one by one, plane by plane', () => {
    const row = [2, 2, 0, 10, 138, 128, 138, 64, 4, 1, 2, 3, 4, 134, 9, 138, 129];
    const read = decodeRadiance(bytes('#?RADIANCE\nEXPOSURE=1.0\nFORMAT=32-bit_rle_rgbe\n\n-Y 1 +X 10\n', ...row));
    expect([read.width, read.height]).toEqual([10, 1]);
    // 128 × 2^(129−136) is 1.
    expect([...read.light.subarray(0, 6)]).toEqual([1, 0.5, 1 / 128, 1, 0.5, 2 / 128]);
    expect([...read.light.subarray(27)]).toEqual([1, 0.5, 9 / 128]);
  });
  it('that are cut short, of another kind or too large are refused with a sentence', () => {
    const good = encodeRadiance(picture(16, 8, (i) => i));
    expect(isRadiance(good)).toBe(true);
    for (const bad of [
      good.subarray(0, good.length - 1),
      bytes('P6 2 2 255\n'),
      bytes('#?RADIANCE\nFORMAT=32-bit_rle_xyze\n\n-Y 1 +X 1\n', 1, 1, 1, 128),
      bytes('#?RADIANCE\n\n-Y 90000 +X 90000\n'),
      bytes('#?RADIANCE\n\n-Y 1 +X 10\n', 2, 2, 0, 10, 139, 1),
    ])
      expect(() => decodeRadiance(bad)).toThrow(CodecError);
  });
  it('made smaller hold as much light', () => {
    const large = picture(64, 32, (i) => (i * 7919) % 101);
    const small = shrunkLight(large, 16, 8);
    const mean = (p: LightPicture): number => p.light.reduce((a, b) => a + b, 0) / p.light.length;
    expect(mean(small)).toBeCloseTo(mean(large), 2);
  });
});
