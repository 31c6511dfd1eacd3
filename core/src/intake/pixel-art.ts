import type { Pixels } from '../codec';
import { sampled } from './framing';

/** Channels by which two pixels must differ to be told apart: less is what saving does to a picture. */
const STEP = 10;
/** Share of all changes that must lie where blocks meet, and of pixels that must look as their block. */
const ON_GRID = 0.985;
/** Share of places where blocks may meet, at most: where anything would fit, a fit says nothing. */
const MOST_PLACES = 0.62;

/** Pairs of sizes that are looked at, at most. */
const MOST_TRIES = 12;

/** Lines of a picture that are looked at, about. */
const LINES = 400;

/** How much changes before each column, from 1 on: [0] is the left rim, which is none. */
function changes({ width, height, rgba }: Pixels, along: 'x' | 'y'): Float64Array {
  const long = along === 'x' ? width : height,
    out = new Float64Array(long);
  const step = along === 'x' ? 4 : width * 4;
  // Of a large picture some lines tell as much as all.
  const every = Math.max(1, Math.floor((along === 'x' ? height : width) / LINES));
  const [downBy, acrossBy] = along === 'x' ? [every, 1] : [1, every];
  for (let y = along === 'x' ? 0 : 1; y < height; y += downBy)
    for (let x = along === 'x' ? 1 : 0; x < width; x += acrossBy) {
      const at = (y * width + x) * 4,
        before = at - step;
      const clear = rgba[at + 3] === 0 && rgba[before + 3] === 0;
      if (clear) continue;
      for (let c = 0; c < 4; c++)
        if (Math.abs(rgba[at + c]! - rgba[before + c]!) > STEP) {
          out[along === 'x' ? x : y]!++;
          break;
        }
    }
  return out;
}

/** Where blocks of a size lie: they meet at `shift` + k · `size`. */
interface Blocks {
  readonly size: number;
  readonly shift: number;
}

/** Blocks at whose meeting places nearly all changes lie, the largest first. */
function* blocksOf(found: Float64Array): Generator<Blocks> {
  const long = found.length,
    total = found.reduce((a, b) => a + b, 0);
  if (total === 0) return;
  for (let n = 2; n <= long / 1.9; n++) {
    // A picture that was cut or padded by a pixel or two is no whole number of blocks long.
    for (const off of [0, 1, -1, 2, -2]) {
      const size = (long + off) / n;
      if (size < 1.95) break;
      const near = Math.min(0.75, size * 0.2);
      if (Math.ceil(2 * near + 1e-9) / size > MOST_PLACES && size % 1 !== 0) continue;
      for (const shift of off === 0 ? [0] : [0, -off]) {
        let on = 0,
          places = 0;
        for (let x = 1; x < long; x++) {
          const k = Math.round((x - shift) / size);
          if (Math.abs(x - shift - k * size) > near) continue;
          places++;
          on += found[x]!;
        }
        if (on >= ON_GRID * total && places / (long - 1) <= MOST_PLACES) yield { size, shift };
      }
    }
  }
}

/**
 * A picture made of blocks of equal pixels, as it was before it was enlarged: one pixel a block, also when a block is not a whole number
 * of pixels wide, or the picture was cut or padded by one or two. Null for any other picture.
 */
export function unscaled(p: Pixels): Pixels | null {
  const [wide, high] = [[...blocksOf(changes(p, 'x'))], [...blocksOf(changes(p, 'y'))]];
  let tries = 0;
  // Both ways alike: stripes alone are not enough to tell, and where little changes, more than one size may fit one way.
  for (const across of wide)
    for (const down of high) {
      if (Math.abs(across.size / down.size - 1) > 0.15) continue;
      const small = byBlocks(p, across, down);
      if (small) return small;
      if (++tries === MOST_TRIES) return null;
    }
  return null;
}

/** One pixel a block, where nearly all pixels look as theirs. */
function byBlocks(p: Pixels, across: Blocks, down: Blocks): Pixels | null {
  const count = (long: number, { size, shift }: Blocks): number => Math.max(1, Math.round((long - shift) / size));
  const middle =
    ({ size, shift }: Blocks) =>
    (i: number): number =>
      Math.max(0, Math.floor(shift + (i + 0.5) * size));
  const small = sampled(p, count(p.width, across), count(p.height, down), middle(across), middle(down));
  return likeness(p, small, across, down) >= ON_GRID ? small : null;
}

/** The share of a picture's pixels that look as the block they lie in. */
function likeness(p: Pixels, small: Pixels, across: Blocks, down: Blocks): number {
  const block = (i: number, { size, shift }: Blocks, count: number): number =>
    Math.min(count - 1, Math.max(0, Math.floor((i + 0.5 - shift) / size)));
  let alike = 0;
  for (let y = 0; y < p.height; y++) {
    const row = block(y, down, small.height) * small.width;
    for (let x = 0; x < p.width; x++) {
      const at = (y * p.width + x) * 4,
        of = (row + block(x, across, small.width)) * 4;
      let same = true;
      for (let c = 0; c < 4; c++) same &&= Math.abs(p.rgba[at + c]! - small.rgba[of + c]!) <= STEP;
      if (same || (p.rgba[at + 3] === 0 && small.rgba[of + 3] === 0)) alike++;
    }
  }
  return alike / (p.width * p.height);
}
