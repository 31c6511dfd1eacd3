import { describe, expect, it } from 'vitest';
import { seededRandom } from '../math';
import { Fog, PAINTED_SKIES, Sky, paintedSky, skyTile } from '.';
import { evenLight, greyFloor, lookedAt, meanOf } from './testing';

const around = (random: () => number): [number, number, number] => {
  const y = random() * 2 - 1,
    r = Math.sqrt(1 - y * y),
    phi = 2 * Math.PI * random();
  return [r * Math.sin(phi), y, r * Math.cos(phi)];
};

describe('surroundings', () => {
  const sunset = new Sky([0, 0, 0], [0, 0, 0], paintedSky('sunset'), 1, 0.7);

  it.each(PAINTED_SKIES)('%s gives light from all over, is bright somewhere and the same each time', (kind) => {
    const { light, width, height } = paintedSky(kind);
    expect([width, height, light.length]).toEqual([512, 256, 512 * 256 * 3]);
    expect(light.every((v) => v >= 0 && Number.isFinite(v))).toBe(true);
    const most = light.reduce((a, b) => Math.max(a, b), 0);
    expect(most).toBeGreaterThan(0.4);
    const mean = new Sky([0, 0, 0], [0, 0, 0], paintedSky(kind)).mean;
    expect(Math.max(...mean)).toBeGreaterThan(0.03);
    expect(Math.max(...mean)).toBeLessThan(2);
    expect(skyTile(kind, 16, 8).light).toEqual(skyTile(kind, 16, 8).light);
  });

  it('directions are chosen as often as their chance says, and the chances add up to one', () => {
    const random = seededRandom(8);
    const N = 100_000;
    let all = 0,
      high = 0,
      light = 0;
    for (let i = 0; i < N; i++) {
      const d = around(random);
      const chance = sunset.chanceOf(...d);
      all += chance * 4 * Math.PI;
      if (d[1] > 0.3) high += chance * 4 * Math.PI;
      sunset.look(...d);
      light += sunset.r;
    }
    expect(all / N).toBeCloseTo(1, 1);
    let chosenHigh = 0,
      chosenLight = 0;
    for (let i = 0; i < N; i++) {
      sunset.choose(random(), random());
      expect(sunset.x ** 2 + sunset.y ** 2 + sunset.z ** 2).toBeCloseTo(1, 6);
      if (i % 100 === 0) expect(sunset.chanceOf(sunset.x, sunset.y, sunset.z) / sunset.chance).toBeCloseTo(1, 3);
      if (sunset.y > 0.3) chosenHigh++;
      chosenLight += sunset.r / sunset.chance / (4 * Math.PI);
    }
    expect(chosenHigh / N).toBeCloseTo(high / N, 1);
    // The mean of all light either way, and as the table tells it; chosen by light it is known far better.
    expect(chosenLight / N / sunset.mean[0]).toBeCloseTo(1, 1);
    expect(light / N / sunset.mean[0]).toBeCloseTo(1, 0);
  });

  it('a floor is as bright however their light is found', () => {
    const lit = evenLight(0, { sky: sunset });
    const s = lookedAt([], lit, [0, 40, 1], [0, 0, 0], { floor: greyFloor(0, 1) }, 2);
    const both = meanOf(s, 4000, { strategy: 'both' });
    expect(meanOf(s, 4000, { strategy: 'lights' }) / both).toBeCloseTo(1, 1);
    expect(meanOf(s, 40_000, { strategy: 'bounces' }) / both).toBeCloseTo(1, 1);
  });

  it('of two colours have their mean in closed form', () => {
    const sky = new Sky([0.2, 0.4, 0.9], [0.8, 0.7, 0.6]);
    const random = seededRandom(3);
    const sum = [0, 0, 0];
    for (let i = 0; i < 40_000; i++) {
      sky.look(...around(random));
      [sky.r, sky.g, sky.b].forEach((v, c) => (sum[c]! += v / 40_000));
    }
    sum.forEach((v, c) => expect(v).toBeCloseTo(sky.mean[c]!, 2));
  });
});

describe('fog', () => {
  /** The way by small steps. */
  function plainly(rate: number, floor: number, rise: number, y: number, dy: number, t: number): number {
    let sum = 0;
    const N = 20_000;
    for (let i = 0; i < N; i++)
      sum += rate * Math.exp(-Math.max(0, y + dy * t * ((i + 0.5) / N) - floor) / rise) * (t / N);
    return sum;
  }
  it('loses light by Beer and Lambert’s law, in closed form as by small steps', () => {
    const even = new Fog(0.1, 0, Infinity, [1, 1, 1]);
    expect(even.depth(3, 0.5, 7)).toBeCloseTo(0.7, 9);
    const low = new Fog(0.1, 2, 5, [1, 1, 1]);
    for (const [y, dy, t] of [
      [2, 1, 9],
      [12, -1, 8],
      [12, -1, 14],
      [0, 0.8, 20],
      [0, -0.5, 4],
      [6, 0, 11],
      [6, 1e-7, 11],
    ] as const)
      expect(low.depth(y, dy, t)).toBeCloseTo(plainly(0.1, 2, 5, y, dy, t), 5);
    // All the way up is what it thins out to.
    expect(low.depth(2, 1, Infinity)).toBeCloseTo(0.5, 9);
    expect(low.depth(2, 0.5, Infinity)).toBeCloseTo(1, 9);
  });
  it('finds where a thickness is behind', () => {
    const low = new Fog(0.1, 2, 5, [1, 1, 1]);
    for (const [y, dy, t] of [
      [3, 0.7, 30],
      [20, -0.9, 30],
      [3, 0.2, Infinity],
    ] as const) {
      const want = 0.4 * Math.min(1, low.depth(y, dy, t));
      expect(low.depth(y, dy, low.reach(y, dy, t, want))).toBeCloseTo(want, 6);
    }
  });
  it('of black fog only what comes through is left of a floor; white fog under an even sky is not seen', () => {
    const floor = greyFloor(0, 1);
    const far = lookedAt(
      [],
      evenLight(1),
      [0, 10, 0.01],
      [0, 0, 0],
      { floor, fog: new Fog(0.1, 0, Infinity, [0, 0, 0]) },
      2,
      0.1,
    );
    // Down to the floor and, for its light, up again through all fog there is: nothing of an even sky comes so far.
    expect(meanOf(far, 256)).toBeLessThan(1e-6);
    const sunny = evenLight(0, { sunDirection: [0, 1, 0], sunColour: [1, 1, 1] });
    const low = lookedAt([], sunny, [0, 10, 0.01], [0, 0, 0], { floor, fog: new Fog(0.1, 0, 2, [0, 0, 0]) }, 2, 0.1);
    // 0.1 · 2 = 0.2 of thickness each way, but for the little above the eye.
    expect(meanOf(low, 64)).toBeCloseTo(Math.exp(-0.2 - 0.2 * (1 - Math.exp(-5))), 3);
    const white = lookedAt([], evenLight(1), [0, 10, 0.01], [0, 0, 0], { fog: new Fog(0.1, 0, 5, [1, 1, 1]) }, 2, 20);
    expect(meanOf(white, 256)).toBeCloseTo(1, 4);
  });
});
