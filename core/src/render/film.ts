import { type Steps, finish } from '../math';
import { fromLinear } from '../palette';
import type { Strip } from './integrator';

/** The picture as it grows: sums of samples and how many each row has. */
export interface Film {
  readonly width: number;
  readonly height: number;
  readonly sum: Float32Array;
  readonly samples: Uint32Array;
}
export const makeFilm = (width: number, height: number): Film => ({
  width,
  height,
  sum: new Float32Array(width * height * 4),
  samples: new Uint32Array(height),
});

export function addStrip(film: Film, strip: Strip): void {
  const o = strip.y * film.width * 4;
  for (let i = 0; i < strip.sum.length; i++) film.sum[o + i]! += strip.sum[i]!;
  for (let r = 0; r < strip.rows; r++) film.samples[strip.y + r]! += strip.samples;
}

/** Rolls bright light off softly: straight up to 0.7, then bent so that it meets 1 only far above. */
const shoulder = (v: number): number => (v <= 0.7 ? v : 0.7 + 0.3 * (1 - Math.exp(-(v - 0.7) / 0.3)));

/**
 * The film as sRGB bytes, red, green, blue, alpha.
 *
 * @param exposure – in stops
 * @param step – takes every n-th pixel of every n-th row, for a quick look; the picture is then ⌈width / n⌉ × ⌈height / n⌉
 */
export const developFilm = (film: Film, exposure = 0, step = 1): Uint8Array<ArrayBuffer> =>
  finish(developSteps(film, exposure, step));

/** {@link developFilm} in pieces. */
export function* developSteps(film: Film, exposure = 0, step = 1): Steps<Uint8Array<ArrayBuffer>> {
  const out = new Uint8Array(Math.ceil(film.width / step) * Math.ceil(film.height / step) * 4);
  const gain = 2 ** exposure;
  let o = 0;
  for (let y = 0; y < film.height; y += step) {
    if (y % 64 === 0) yield y / film.height;
    const k = film.samples[y]! > 0 ? gain / film.samples[y]! : 0;
    for (let x = 0; x < film.width; x += step, o += 4) {
      const i = (y * film.width + x) * 4;
      for (let c = 0; c < 3; c++)
        out[o + c] = Math.round(255 * Math.min(1, fromLinear(shoulder(film.sum[i + c]! * k))));
      out[o + 3] = 255;
    }
  }
  return out;
}
