import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Pixels } from '../codec';
import { finish, seededRandom } from '../math';
import { bytesHex, makeSwatch, toLinear } from '../palette';
import {
  IntakeError,
  Nearest,
  type PictureBody,
  type PictureOptions,
  coloursOfPixels,
  cropped,
  fewColours,
  histogram,
  labsOf,
  pictureOptions,
  pictureSteps,
  resized,
  unscaled,
} from '.';

type Rgba = readonly [number, number, number, number?];
const pixels = (width: number, height: number, at: (x: number, y: number) => Rgba): Pixels => {
  const rgba = new Uint8Array(width * height * 4);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const [r, g, b, a = 255] = at(x, y);
      rgba.set([r, g, b, a], (y * width + x) * 4);
    }
  return { width, height, rgba, indexed: null };
};
const all = (): boolean => true;
const light = ({ rgba }: Pixels): number => {
  let sum = 0;
  for (let i = 0; i < rgba.length; i += 4) sum += toLinear(rgba[i]! / 255) * (rgba[i + 3]! / 255);
  return sum;
};

describe('framing', () => {
  it('smaller pictures are means in linear light, and keep all light there was', () => {
    const checks = pixels(8, 8, (x, y) => ((x + y) % 2 ? [255, 255, 255] : [0, 0, 0]));
    // Half the light of white is 188, not 128.
    expect([...resized(checks, 4, 4).rgba.subarray(0, 4)]).toEqual([188, 188, 188, 255]);
    const random = seededRandom(1);
    const noise = pixels(
      37,
      23,
      () => [random() * 256, random() * 256, random() * 256].map(Math.floor) as unknown as Rgba,
    );
    for (const [w, h] of [
      [12, 7],
      [9, 23],
      [1, 1],
    ] as const)
      expect(light(resized(noise, w, h)) / (w * h)).toBeCloseTo(light(noise) / (37 * 23), 2);
    expect(resized(noise, 37, 23)).toBe(noise);
  });
  it('what is transparent lends no colour', () => {
    const half = pixels(2, 1, (x) => (x === 0 ? [200, 100, 50] : [0, 255, 0, 0]));
    expect([...resized(half, 1, 1).rgba]).toEqual([200, 100, 50, 128]);
  });
  it('cut ones keep their indexes', () => {
    const p: Pixels = {
      ...pixels(3, 2, (x) => [x, 0, 0]),
      indexed: { bytes: Uint8Array.of(0, 1, 2, 3, 4, 5), colours: new Uint8Array(24) },
    };
    const c = cropped(p, { x: 1, y: 0, width: 2, height: 2 });
    expect([...c.indexed!.bytes]).toEqual([1, 2, 4, 5]);
    expect([c.rgba[0], c.rgba[4]]).toEqual([1, 2]);
  });
});

describe('enlarged pixel art', () => {
  const COLOURS: readonly Rgba[] = [
    [0, 0, 0, 0],
    [30, 40, 80],
    [220, 180, 90],
    [160, 60, 40],
  ];
  const sprite = (w: number, h: number, seed: number): Pixels => {
    const random = seededRandom(seed);
    const list = Array.from({ length: w * h }, () => COLOURS[Math.floor(random() * 4)]!);
    return pixels(w, h, (x, y) => list[y * w + x]!);
  };
  const enlarged = (p: Pixels, w: number, h: number, dx = 0, dy = 0, width = w, height = h): Pixels =>
    pixels(width, height, (x, y) => {
      const i = Math.min(p.width - 1, Math.max(0, Math.floor(((x + dx + 0.5) * p.width) / w))),
        j = Math.min(p.height - 1, Math.max(0, Math.floor(((y + dy + 0.5) * p.height) / h)));
      return [...p.rgba.subarray((j * p.width + i) * 4, (j * p.width + i) * 4 + 4)] as unknown as Rgba;
    });
  it('comes back a pixel a block, at whole scales and at others', () => {
    for (const [w, h, scale] of [
      [16, 16, 2],
      [16, 24, 8],
      [13, 9, 7.4],
      [24, 24, 5.6],
      [32, 20, 3.3],
    ] as const) {
      const own = sprite(w, h, w * h);
      const back = unscaled(enlarged(own, Math.round(w * scale), Math.round(h * scale)))!;
      expect([back?.width, back?.height], `${w} × ${h} by ${scale}`).toEqual([w, h]);
      expect(back.rgba).toEqual(own.rgba);
    }
  });
  it('comes back also when a pixel or two were cut off or put to it', () => {
    const own = sprite(16, 16, 5);
    for (const [dx, more] of [
      [0, -1],
      [0, -2],
      [0, 1],
      [0, 2],
      [1, -1],
    ] as const) {
      const back = unscaled(enlarged(own, 128, 128, dx, dx, 128 + more, 128 + more))!;
      expect([back?.width, back?.height], `${dx} ${more}`).toEqual([16, 16]);
      expect(back.rgba).toEqual(own.rgba);
    }
  });
  it('is seen in a drawing with few edges too, where other sizes would fit one way', () => {
    // A frame with a square in it: four edges across, four down.
    const own = pixels(20, 12, (x, y) =>
      x === 0 || y === 0 || x === 19 || y === 11
        ? COLOURS[1]!
        : x > 6 && x < 13 && y > 3 && y < 9
          ? COLOURS[2]!
          : COLOURS[3]!,
    );
    for (const scale of [2, 3, 5, 9]) {
      const back = unscaled(enlarged(own, 20 * scale, 12 * scale));
      expect(back?.rgba, `by ${scale}`).toEqual(own.rgba);
    }
  });
  it('is not seen in photographs, gradients, noise, one colour, or in what was never enlarged', () => {
    const random = seededRandom(9);
    const wavy = pixels(90, 70, (x, y) => [
      128 + 90 * Math.sin(x / 9),
      128 + 90 * Math.sin(y / 7),
      100 + random() * 30,
    ]);
    for (const p of [
      wavy,
      pixels(64, 64, (x) => [x * 4, x * 4, x * 4]),
      pixels(64, 64, () => [random() * 256, random() * 256, random() * 256]),
      pixels(40, 40, () => [1, 2, 3]),
      sprite(40, 40, 2),
    ])
      expect(unscaled(p)).toBeNull();
  });
});

/** The least error of `k` colours for a few, by trying every way of putting them into heaps. */
function leastError(lab: Float64Array, weight: readonly number[], k: number): number {
  const n = weight.length,
    heap = new Array<number>(n).fill(0);
  let best = Infinity;
  const errorNow = (): number => {
    let sum = 0;
    for (let h = 0; h < k; h++) {
      const mine = heap.flatMap((v, i) => (v === h ? [i] : [])),
        w = mine.reduce((a, i) => a + weight[i]!, 0);
      for (let c = 0; c < 3; c++) {
        const mean = mine.reduce((a, i) => a + weight[i]! * lab[i * 3 + c]!, 0) / (w || 1);
        sum += mine.reduce((a, i) => a + weight[i]! * (lab[i * 3 + c]! - mean) ** 2, 0);
      }
    }
    return sum;
  };
  const place = (i: number): void => {
    if (i === n) best = Math.min(best, errorNow());
    else
      for (let h = 0; h < k; h++) {
        heap[i] = h;
        place(i + 1);
      }
  };
  place(0);
  return best;
}

describe('few colours', () => {
  const random = seededRandom(21);
  const some = (n: number): Map<number, number> =>
    new Map(Array.from({ length: n }, () => [Math.floor(random() * 0xffffff), 1 + Math.floor(random() * 9)]));
  const hexes = (m: Map<number, number>): string[] =>
    [...m.keys()].map((k) => bytesHex(k >> 16, (k >> 8) & 255, k & 255));
  const error = (m: Map<number, number>, colours: readonly string[]): number => {
    const lab = labsOf(hexes(m)),
      to = labsOf(colours);
    return [...m.values()].reduce((sum, w, i) => {
      let least = Infinity;
      for (let k = 0; k < colours.length; k++)
        least = Math.min(
          least,
          [0, 1, 2].reduce((d, c) => d + (lab[i * 3 + c]! - to[k * 3 + c]!) ** 2, 0),
        );
      return sum + w * least;
    }, 0);
  };
  it('are those themselves where they are no more', () => {
    const m = some(7);
    expect(fewColours(m, 7)).toEqual(hexes(m));
  });
  it('are near the best there is, tried against every way there is', () => {
    let ours = 0,
      best = 0;
    for (let n = 0; n < 12; n++) {
      const m = some(8);
      for (const k of [2, 3]) {
        const made = error(m, fewColours(m, k)),
          least = leastError(labsOf(hexes(m)), [...m.values()], k);
        expect(made).toBeLessThan(least * 1.6 + 1e-3);
        ours += made;
        best += least;
      }
    }
    expect(ours / best).toBeLessThan(1.12);
  });
  it('more of them are never worse, and no more than asked', () => {
    const m = some(400);
    let last = Infinity;
    for (const k of [2, 4, 8, 16, 32, 64]) {
      const list = fewColours(m, k),
        e = error(m, list);
      expect(list.length).toBeLessThanOrEqual(k);
      expect(e).toBeLessThan(last);
      last = e;
    }
  });
  it('the nearest is found as by looking at all', () => {
    const number = fc.double({ min: -0.5, max: 1, noNaN: true });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(number, number, number), { minLength: 1, maxLength: 40 }),
        fc.tuple(number, number, number),
        (list, p) => {
          const away = list.map((c) => c.reduce((d, v, i) => d + (v - p[i]!) ** 2, 0));
          expect(away[new Nearest(Float64Array.from(list.flat())).of(...p)]).toBe(Math.min(...away));
        },
      ),
    );
  });
  it('dithered, make the light between them; not dithered, none of it', () => {
    const grey = pixels(64, 64, () => [120, 120, 120]),
      ends = labsOf(['#000000', '#ffffff']),
      wanted = labsOf(['#787878'])[0]!;
    const share = (d: 'none' | 'ordered' | 'diffused'): number =>
      coloursOfPixels(grey, ends, d, all).reduce((n, v) => n + (v === 2 ? 1 : 0), 0) / 4096;
    expect(share('none')).toBe(1);
    expect(share('ordered')).toBeCloseTo(wanted, 1);
    expect(share('diffused')).toBeCloseTo(wanted, 2);
  });
  it('count only what is wanted', () => {
    const p = pixels(4, 1, (x) => [x, 0, 0]);
    expect([...histogram(p, (i) => i > 1).keys()]).toEqual([2 << 16, 3 << 16]);
    expect([...coloursOfPixels(p, labsOf(['#000000']), 'none', (i) => i > 1)]).toEqual([0, 0, 1, 1]);
  });
});

describe('a picture as a part', () => {
  const made = (
    p: Pixels,
    options: Partial<PictureOptions> = {},
    palette: Parameters<typeof pictureSteps>[2] = null,
  ): PictureBody => finish(pictureSteps(p, pictureOptions.parse(options), palette));
  const disc = pixels(21, 21, (x, y) => [200, 80, 40, Math.hypot(x - 10, y - 10) < 9.5 ? 255 : 0]);
  const ring = pixels(12, 8, (x, y) => (x === 0 || y === 0 || x === 11 || y === 7 ? [20, 30, 40] : [230, 230, 90]));
  it('stands upright with its top above, or lies flat with its foot in front', () => {
    const flag = pixels(3, 2, (x, y) => (y === 0 ? [255, 0, 0] : [x * 60, 0, 255]));
    const { grid, swatches } = made(flag);
    const colour = (g: typeof grid, x: number, y: number, z: number): string =>
      swatches.find((s) => s.byte === g.get(x, y, z))?.colour ?? '';
    expect([grid.count, colour(grid, -1, 1, 0), colour(grid, 1, 0, 0)]).toEqual([6, '#ff0000', '#7800ff']);
    const flat = made(flag, { stand: 'flat' }).grid;
    expect([flat.contentBox()!.size, colour(flat, -1, 0, -1), colour(flat, 1, 0, 0)]).toEqual([
      [3, 1, 2],
      '#ff0000',
      '#7800ff',
    ]);
  });
  it('an indexed picture keeps its colours and their order; what is transparent is no cube', () => {
    const bytes = Uint8Array.of(3, 1, 0, 2, 2, 1);
    const colours = Uint8Array.of(0, 0, 0, 0, 200, 10, 10, 255, 10, 200, 10, 255, 10, 10, 200, 255, 9, 9, 9, 255);
    const rgba = Uint8Array.from([...bytes].flatMap((v) => [...colours.subarray(v * 4, v * 4 + 4)]));
    const { grid, swatches } = made({ width: 3, height: 2, rgba, indexed: { bytes, colours } }, { most: 2 });
    expect(swatches.map((s) => s.colour)).toEqual(['#c80a0a', '#0ac80a', '#0a0ac8', '#090909']);
    expect([grid.get(-1, 1, 0), grid.get(0, 1, 0), grid.get(1, 1, 0), grid.get(-1, 0, 0)]).toEqual([3, 1, 0, 2]);
  });
  it('comes as wide as one wants, or 64, or a cube a pixel; what would be too high says what would do', () => {
    const photo = pixels(300, 150, (x, y) => [x % 256, y, (x * y) % 256]);
    expect([made(photo).width, made(photo).height]).toEqual([64, 32]);
    expect([made(photo, { width: 100 }).width, made(photo, { width: 100 }).height]).toEqual([100, 50]);
    expect(made(disc).width).toBe(21);
    const tower = pixels(10, 100, (x, y) => [x, y, 0]);
    expect(() => made(tower, { width: 40 })).toThrow(IntakeError);
    expect(() => made(tower, { width: 40 })).toThrow(/at most 25 wide/);
    expect(made(tower, { width: 25 }).height).toBe(250);
  });
  it('takes the swatches of a palette by their bytes, all or some', () => {
    const palette = {
      id: 'p',
      name: 'P',
      swatches: [
        makeSwatch(9, 'Ink', '#182028'),
        makeSwatch(200, 'Straw', '#e0dc60'),
        makeSwatch(3, 'Rust', '#a04020'),
      ],
    };
    const body = made(ring, { colours: 'palette' }, palette);
    expect([body.ours, body.grid.get(-6, 0, 0), body.grid.get(0, 3, 0)]).toEqual([true, 9, 200]);
    expect(made(ring, { colours: 'palette', only: '3,9' }, palette).grid.get(0, 3, 0)).toBe(3);
    expect(() => made(ring, { colours: 'palette', only: '77' }, palette)).toThrow(/None of the swatches/);
  });
  it('leaves a colour out, cuts off, draws an outline', () => {
    const inner = made(ring, { key: '#141e28' });
    expect(inner.grid.count).toBe(10 * 6);
    expect(made(ring, { left: 1, right: 1, top: 1, bottom: 1 }).grid.contentBox()!.size).toEqual([10, 6, 1]);
    const rimmed = made(ring, { key: '#141e28', outline: '#ff00ff' });
    // A rim of one around 10 × 6, without its corners.
    expect(rimmed.grid.count).toBe(60 + 2 * (10 + 6));
    const rim = rimmed.swatches.find((s) => s.colour === '#ff00ff')!;
    let n = 0;
    rimmed.grid.forEach((_x, _y, _z, v) => void (n += v === rim.byte ? 1 : 0));
    expect(n).toBe(32);
    expect(() => made(ring, { clear: 255, key: '#e6e65a', reach: 1 })).toThrow(/Nothing of the picture is left/);
  });
  it('stands out by brightness, or more the farther from its outline; mirrored, the back is as the front', () => {
    const bright = made(ring, { relief: 'bright', raise: 10, thick: 2 });
    const deep = (g: typeof bright.grid, x: number, y: number): number => {
      const { min, size } = g.bounds;
      let count = 0;
      for (let z = min[2]; z < min[2] + size[2]; z++) if (g.get(x, y, z) !== 0) count++;
      return count;
    };
    expect(deep(bright.grid, 0, 3)).toBeGreaterThan(deep(bright.grid, -6, 0));
    expect(deep(made(ring, { relief: 'dark', raise: 10 }).grid, 0, 3)).toBeLessThan(6);
    const puffed = made(disc, { relief: 'puffed', raise: 8 }).grid;
    const middle = deep(puffed, 0, 10);
    expect(middle).toBe(9);
    for (let d = 1; d < 9; d++) {
      expect(deep(puffed, d, 10)).toBe(deep(puffed, -d, 10));
      expect(deep(puffed, d, 10)).toBe(deep(puffed, 0, 10 + d));
      expect(deep(puffed, d, 10)).toBeLessThanOrEqual(deep(puffed, d - 1, 10));
    }
    const both = made(disc, { relief: 'puffed', raise: 8, back: 'mirrored' }).grid;
    expect(deep(both, 0, 10)).toBe(17);
    const { min, size } = both.bounds;
    both.forEach((x, y, z) => expect(both.get(x, y, 2 * min[2] + size[2] - 1 - z)).not.toBe(0));
    expect(() => made(disc, { relief: 'puffed', raise: 128, thick: 200 })).toThrow(/328 cubes thick/);
  });
});
