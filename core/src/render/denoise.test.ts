import { describe, expect, it } from 'vitest';
import { finish, seededRandom } from '../math';
import {
  type Area,
  type Film,
  type FilmLight,
  TILE,
  addTraced,
  bandsOf,
  denoiseSteps,
  denoised,
  filmAbout,
  lightOf,
  makeFilm,
  makeTraced,
  tileAreas,
  traceCamera,
} from '.';

const camera = traceCamera(
  { kind: 'orthographic', eye: [0, 0, 100], target: [0, 0, 0], fov: 30, height: 100 },
  100,
  80,
);
const [W, H] = [TILE + 36, TILE + 16];
/** What is looked at: a wall of stripes with light that falls off across it, a step nearer to the eye on its right half. */
const colour = (x: number): number => (Math.floor(x / 3) % 2 ? 0.8 : 0.1);
const lit = (x: number, y: number): number => (x < W / 2 ? 0.2 + y / 200 : 0.9);

/** Its film: each sample off by chance, some of them far off. */
function film(samples: number, noise: number, seed = 3, dots = 0.01): Film {
  const out = makeFilm(W, H);
  const random = seededRandom(seed);
  for (const area of tileAreas(W, H)) addTraced(out, tile(area, samples, noise, random, dots));
  return out;
}
function tile(area: Area, samples: number, noise: number, random: () => number, dots = 0.01) {
  const t = makeTraced(area, samples);
  for (let j = 0; j < area.height; j++)
    for (let i = 0; i < area.width; i++) {
      const p = j * area.width + i,
        x = area.x + i,
        y = area.y + j;
      // The uppermost rows are sky.
      if (y < 4) {
        t.light.fill(0.5 * samples, p * 3, p * 3 + 3);
        t.direct.fill(0.5 * samples, p * 3, p * 3 + 3);
        continue;
      }
      for (let s = 0; s < samples; s++) {
        const far = random() < dots ? 20 : 1;
        const v = colour(x) * lit(x, y) * (1 + noise * (random() - 0.5) * (noise > 0 ? far : 1));
        for (let c = 0; c < 3; c++) t.light[p * 3 + c]! += v;
        t.squares[p]! += v * v;
      }
      t.cover[p] = samples;
      t.albedo.fill(colour(x) * samples, p * 3, p * 3 + 3);
      t.normal[p * 3 + 2] = samples;
      t.depth[p] = (x < W / 2 ? 100 : 60) * samples;
    }
  return t;
}
const flat = (f: FilmLight): Float32Array => {
  const out = new Float32Array(W * H);
  for (const t of f.tiles)
    for (let j = 0; j < t!.height; j++)
      for (let i = 0; i < t!.width; i++)
        out[(t!.y + j) * W + t!.x + i] = t!.light[(j * t!.width + i) * 3]! / t!.samples;
  return out;
};
const meant = Float32Array.from({ length: W * H }, (_, i) => {
  const [x, y] = [i % W, Math.floor(i / W)];
  return y < 4 ? 0.5 : colour(x) * lit(x, y);
});
const error = (a: Float32Array): number =>
  a.reduce((e, v, i) => e + (v - meant[i]!) ** 2 / (meant[i]! ** 2 + 0.01), 0) / a.length;
const mean = (a: Float32Array): number => a.reduce((s, v) => s + v, 0) / a.length;

describe('taking noise out', () => {
  it('leaves a picture without noise as it is, to the last stripe', () => {
    const f = film(4, 0);
    const [raw, calm] = [flat(lightOf(f)), flat(denoised(f, camera))];
    raw.forEach((v, i) => expect(Math.abs(calm[i]! - v)).toBeLessThan(1e-4));
  });
  it('is nearer to the truth at every count of samples, keeps the mean, and stripes and edges sharp', () => {
    for (const samples of [2, 8, 32, 128]) {
      const f = film(samples, 1.2);
      const [raw, calm] = [flat(lightOf(f)), flat(denoised(f, camera))];
      expect(error(calm)).toBeLessThan(error(raw) * (samples > 64 ? 1 : 0.4));
      expect(mean(calm) / mean(raw)).toBeCloseTo(1, 4);
    }
    const calm = flat(denoised(film(32, 1.2), camera));
    // A dark stripe beside a bright one, and the step in the middle.
    for (let y = 10; y < H; y += 7) {
      for (const x of [10, 40]) expect(calm[y * W + x]! / meant[y * W + x]!).toBeCloseTo(1, 0);
      const [before, after] = [W / 2 - 4, W / 2 + 4].map((x) => calm[y * W + x]! / colour(x));
      expect(after! - before!).toBeGreaterThan(0.25);
    }
  });
  it('gives what a dot loses to all about it, though they become more than twice as bright by it', () => {
    const f = film(4, 1.2),
      t = f.tiles[0]!,
      p = 20 * t.width + 20;
    // Twice the light of a whole square of the picture, by one sample.
    const much = 2 * 24 * 24 * 0.13 * t.samples;
    for (let c = 0; c < 3; c++) t.light[p * 3 + c]! += much;
    t.squares[p]! += much * much;
    const [raw, calm] = [flat(lightOf(f)), flat(denoised(f, camera))];
    expect(calm[20 * W + 20]).toBeLessThan(raw[20 * W + 20]! / 50);
    expect(mean(calm) / mean(raw)).toBeCloseTo(1, 4);
  });
  it('part by part is the very picture that it is whole', () => {
    const [width, height] = [400, 450];
    const tall = makeFilm(width, height);
    const random = seededRandom(8);
    for (const area of tileAreas(width, height)) addTraced(tall, tile(area, 8, 1.2, random));
    const upright = traceCamera(
      { kind: 'orthographic', eye: [0, 0, 100], target: [0, 0, 0], fov: 30, height: 100 },
      width,
      height,
    );
    const whole = denoised(tall, upright);
    const bands = bandsOf(width, height, 3);
    expect(bands.map((b) => [b.y, b.height])).toEqual([
      [0, 192],
      [192, 192],
      [384, 66],
    ]);
    const corner = { x: 192, y: 128, width: 128, height: 64 };
    for (const part of [bands[0]!, bands[2]!, corner]) {
      const about = filmAbout(tall, part),
        calm = finish(denoiseSteps(about, upright, part));
      expect(about.tiles).toContain(null);
      for (const [i, t] of whole.tiles.entries()) {
        const { x, y } = t!,
          inside = x >= part.x && x < part.x + part.width && y >= part.y && y < part.y + part.height;
        expect(calm.tiles[i]?.light ?? null).toEqual(inside ? t!.light : null);
      }
    }
  });
  it('leaves little grain on what is even: pixels differ by less than a quarter of what they did', () => {
    const f = film(20, 2, 3, 0);
    const grain = (a: Float32Array): number => {
      let sum = 0,
        count = 0;
      for (let y = 8; y + 2 < H; y++)
        for (let x = 0; x < W; x++) {
          if (Math.abs(x - W / 2) < 4) continue;
          const [at, below] = [y * W + x, (y + 2) * W + x];
          sum += (a[at]! / meant[at]! - a[below]! / meant[below]!) ** 2;
          count++;
        }
      return Math.sqrt(sum / count);
    };
    expect(grain(flat(denoised(f, camera)))).toBeLessThan(grain(flat(lightOf(f))) / 4);
  });
  it('takes out dots that stand alone', () => {
    const f = film(16, 0.2);
    const t = f.tiles[0]!;
    const p = 30 * t.width + 30;
    for (let c = 0; c < 3; c++) t.light[p * 3 + c]! += 60;
    t.squares[p]! += 60 ** 2;
    const at = (t.y + 30) * W + t.x + 30;
    expect(flat(lightOf(f))[at]).toBeGreaterThan(3);
    expect(flat(denoised(f, camera))[at]).toBeLessThan(1.2);
  });
});
