import { describe, expect, it } from 'vitest';
import { type Grade, TONE_CURVES, makeGrade } from '../model';
import { finish } from '../math';
import { toLinear } from '../palette';
import { Grading, coarse, exposed, spreadStep, spreadSteps } from '.';

const shown = (light: readonly number[], grade: Partial<Grade>): number[] => {
  const g = new Grading(makeGrade({ curve: 'none', ...grade }), 1, 1);
  const out = new Uint8Array(4);
  g.pixel(Float32Array.from(light), 0, 0, 0, 1, out);
  return [...out.slice(0, 3)];
};

describe('grading', () => {
  it('leaves light as it is where nothing is asked for, and doubles it with each stop', () => {
    for (const v of [0, 0.01, 0.18, 0.5, 1]) {
      const [r] = shown([v, v, v], {});
      expect(toLinear(r! / 255)).toBeCloseTo(v, 2);
    }
    expect(shown([0.1, 0.2, 0.05], { exposure: 2 })).toEqual(shown([0.4, 0.8, 0.2], {}));
  });
  it.each(TONE_CURVES)('the curve %s rises all the way, and ends at white', (curve) => {
    let before = -1;
    for (let k = 0; k <= 60; k++) {
      const v = 2 ** (k / 4 - 9);
      const [r] = shown([v, v, v], { curve });
      expect(r).toBeGreaterThanOrEqual(before);
      before = r!;
    }
    expect(before).toBeGreaterThan(250);
  });
  it('PBR Neutral keeps the colours of matt things, but for the 4 % that every surface mirrors', () => {
    const [r, g, b] = shown([0.54, 0.24, 0.14], { curve: 'neutral' }).map((v) => toLinear(v / 255));
    expect([r, g, b].map((v) => Math.round(v! * 100))).toEqual([50, 20, 10]);
  });
  it('keeps brightness while warming, grey while contrast rises, and takes all colour away', () => {
    const lum = ([r, g, b]: number[]): number =>
      0.2126 * toLinear(r! / 255) + 0.7152 * toLinear(g! / 255) + 0.0722 * toLinear(b! / 255);
    const warm = shown([0.3, 0.3, 0.3], { warmth: 0.6 });
    expect(warm[0]).toBeGreaterThan(warm[2]!);
    expect(lum(warm)).toBeCloseTo(0.3, 2);
    expect(shown([0.18, 0.18, 0.18], { contrast: 0.8 })).toEqual(shown([0.18, 0.18, 0.18], {}));
    const grey = shown([0.6, 0.2, 0.1], { saturation: -1 });
    expect(new Set(grey).size).toBe(1);
  });
  it('bloom spreads light and loses none', () => {
    const [w, h] = [40, 30];
    const light = new Float32Array(w * h * 3);
    const at = (15 * w + 20) * 3;
    light.fill(100, at, at + 3);
    const spread = finish(spreadSteps(coarse(light, w, h, 1), h));
    new Grading(makeGrade({ bloom: 0.4 }), w, h).bloom(light, spread);
    expect(light.reduce((a, b) => a + b, 0)).toBeCloseTo(300, 2);
    expect(light[at]!).toBeLessThan(100);
    expect(light[at]!).toBeGreaterThan(60);
    expect(light[at + 6]!).toBeGreaterThan(0);
  });
  it('bloom of a large picture, worked out coarsely, is within a twentieth at every pixel of what all of them tell', () => {
    const [w, h] = [96, 1400];
    expect([720, 1400, 8192].map(spreadStep)).toEqual([1, 2, 8]);
    const light = Float32Array.from({ length: w * h * 3 }, (_, i) => (Math.floor(i / 3) % 977 === 0 ? 40 : 0.1));
    const [fine, rough] = [1, 2].map((step) => {
      const out = light.slice();
      new Grading(makeGrade({ bloom: 1 }), w, h).bloom(out, finish(spreadSteps(coarse(light, w, h, step), h)));
      return out;
    });
    const apart = Math.max(...fine!.map((v, i) => Math.abs(v - rough![i]!) / v));
    expect(apart).toBeGreaterThan(0);
    expect(apart).toBeLessThan(0.05);
    // Rows of their own come out as they do of the whole.
    const part = light.slice(w * 3 * 700);
    new Grading(makeGrade({ bloom: 1 }), w, h).bloom(part, finish(spreadSteps(coarse(light, w, h, 2), h)), 700);
    expect(part).toEqual(rough!.slice(w * 3 * 700));
  });
  it('counts what is burnt out and what is black', () => {
    const pixels = Uint8Array.from([255, 255, 255, 255, 0, 0, 0, 255, 128, 128, 128, 255, 255, 255, 255, 0]);
    const { burnt, black, bars } = exposed(pixels);
    expect([burnt, black]).toEqual([1 / 3, 1 / 3]);
    expect([bars[0], bars[32], bars[63]]).toEqual([1, 1, 1]);
  });
});
