import type { Pixels } from '../codec';
import { Nearest, labsOfPixels } from './reduce';

export const DITHERS = ['none', 'ordered', 'diffused'] as const;
export type Dither = (typeof DITHERS)[number];

/** Bayer's order of 8 × 8 places, as shares from −½ to ½. */
const BAYER = Float64Array.from({ length: 64 }, (_, i) => {
  const [x, y] = [i & 7, i >> 3];
  let v = 0;
  for (let bit = 0; bit < 3; bit++)
    v |= ((((x ^ y) >> bit) & 1) << (5 - 2 * bit)) | (((y >> bit) & 1) << (4 - 2 * bit));
  return (v + 0.5) / 64 - 0.5;
});

/**
 * Which of a few colours each pixel gets: the nearest in OKLab; by a pattern, so that two make one between them; or with what is missed
 * passed on to pixels that come after (Floyd and Steinberg 1976, rows in turn from both sides).
 *
 * @param lab – of the colours, three numbers each
 * @param counts – pixels that get one at all
 * @returns a number from 1 a pixel, 0 for those that get none
 */
export function coloursOfPixels(
  p: Pixels,
  lab: Float64Array,
  dither: Dither,
  counts: (at: number) => boolean,
): Uint8Array {
  const { width, height } = p,
    out = new Uint8Array(width * height),
    near = new Nearest(lab),
    own = labsOfPixels(p);
  if (dither !== 'diffused') {
    const reach = dither === 'ordered' ? spacing(lab) : 0;
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const i = y * width + x;
        if (!counts(i)) continue;
        out[i] = 1 + near.of(own[i * 3]! + reach * BAYER[(x & 7) + 8 * (y & 7)]!, own[i * 3 + 1]!, own[i * 3 + 2]!);
      }
    return out;
  }
  // What is missed so far, of this row and the next, a pixel wider at both ends.
  let now = new Float64Array((width + 2) * 3),
    next = new Float64Array((width + 2) * 3);
  for (let y = 0; y < height; y++) {
    const way = y % 2 === 0 ? 1 : -1;
    for (let n = 0; n < width; n++) {
      const x = way > 0 ? n : width - 1 - n,
        i = y * width + x,
        at = (x + 1) * 3;
      if (!counts(i)) continue;
      const [l, a, b] = [own[i * 3]! + now[at]!, own[i * 3 + 1]! + now[at + 1]!, own[i * 3 + 2]! + now[at + 2]!];
      const k = near.of(l, a, b);
      out[i] = 1 + k;
      for (let c = 0; c < 3; c++) {
        // Not more than can be made up for: else a colour far from all of them would smear over the rest.
        const missed = Math.max(-0.6, Math.min(0.6, [l, a, b][c]! - lab[k * 3 + c]!));
        now[at + 3 * way + c]! += (missed * 7) / 16;
        next[at - 3 * way + c]! += (missed * 3) / 16;
        next[at + c]! += (missed * 5) / 16;
        next[at + 3 * way + c]! += missed / 16;
      }
    }
    [now, next] = [next, now.fill(0)];
  }
  return out;
}

/** How far colours are from the next one on the way from dark to light, on the whole. */
function spacing(lab: Float64Array): number {
  const light = Float64Array.from({ length: lab.length / 3 }, (_, i) => lab[i * 3]!).sort();
  return light.length < 2 ? 0 : (light.at(-1)! - light[0]!) / (light.length - 1);
}
