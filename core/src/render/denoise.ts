import { type Steps, finish } from '../math';
import { believed } from './denoise-belief';
import { BLOCK, EIGHT, type Planes, REACH, lieOf, lumOf, planesOf, smoothed } from './denoise-planes';
import { withoutDots } from './dots';
import { type Area, type Film, type FilmLight, TILE, makeTraced, meets } from './film';
import type { TraceCamera } from './lens';

/** The binomial kernel of five. */
const KERNEL = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
/**
 * Passes over the picture; each looks twice as far as the one before. So many standard deviations of its noise a neighbour may be
 * brighter in it. Near: what is far away must be ever more alike, or the foot of a shadow goes into its middle. Far: as much
 * everywhere, which leaves no mottles on what is even. Both begin alike.
 */
const NEAR = [3, 2, 1.2, 0.8, 0.5],
  FAR = [3, 3, 3, 3, 3];

/**
 * A film without most of its noise. Light is told apart from colour, so that texels stay sharp, and evened out among pixels
 * of one plane by an edge-avoiding à-trous filter (Dammertz et al. 2010) that is held by the noise of each pixel (Schied et al.
 * 2017), once by what lies near and once from afar; the latter is kept where what was traced does not speak against it. In the
 * end each pixel keeps as much of what was traced as its noise allows for the difference: a picture without noise stays as it is.
 */
export const denoised = (film: Film, camera: TraceCamera): FilmLight => finish(denoiseSteps(film, camera));

/** A picture in bands of whole tiles, about as many as are asked for, and no lower than what has to be looked at besides. */
export function bandsOf(width: number, height: number, count: number): Area[] {
  const rows = Math.ceil(height / TILE),
    each = Math.max(Math.ceil(rows / count), Math.min(rows, Math.ceil(REACH / TILE))) * TILE;
  return Array.from({ length: Math.ceil(height / each) }, (_, i) => ({
    ...{ x: 0, y: i * each, width },
    height: Math.min(each, height - i * each),
  }));
}

/** Whether what is in a tile counts for an area of the picture. */
export const countsFor = (tile: Area, part: Area): boolean =>
  near(tile.x, tile.width, part.x, part.width) && near(tile.y, tile.height, part.y, part.height);
const near = (a: number, wide: number, b: number, long: number): boolean =>
  a < b + long + REACH + BLOCK && a + wide > b - REACH - BLOCK;

/** Of a film the tiles that count for an area. */
export const filmAbout = (film: Film, part: Area): Film => ({
  ...film,
  tiles: film.tiles.map((t) => (t && countsFor(t, part) ? t : null)),
});

/** Areas of one picture as the picture. */
export const joined = (parts: readonly FilmLight[]): FilmLight => ({
  ...parts[0]!,
  tiles: parts[0]!.tiles.map((_, i) => parts.find((p) => p.tiles[i])?.tiles[i] ?? null),
});

/** {@link denoised} in pieces. @param part – of this area alone, in whole tiles, which comes out as it does of the whole; the tiles of others are null */
export function* denoiseSteps(
  film: Film,
  camera: TraceCamera,
  part: Area = { x: 0, y: 0, width: film.width, height: film.height },
): Steps<FilmLight> {
  const { picture, dotless, near, far } = yield* evenedTwice(film, camera, part);
  return developed(film, picture, part, balanced(picture, believed(picture, dotless, near, far)));
}

interface Evened {
  readonly picture: Planes;
  /** Light without lone dots, and what it is evened to by what lies near and from afar. */
  readonly dotless: Float32Array;
  readonly near: Float32Array;
  readonly far: Float32Array;
}

/** A film evened both ways; what is needed for that alone is let go of, since memory is dear. */
function* evenedTwice(film: Film, camera: TraceCamera, part: Area): Steps<Evened> {
  const { surface, ...picture } = planesOf(film, camera, part);
  const dotless = withoutDots(picture, surface);
  const work = { picture, lie: lieOf(surface), value: new Float32Array(picture.noise.length * EIGHT) };
  yield 0.1;
  const first = roomFor(picture);
  evened(picture, work, { light: dotless, noise: picture.noise }, first, { step: 1, most: NEAR[0]! });
  yield 0.2;
  const near = yield* passes(work, first, NEAR, 0.2),
    far = yield* passes(work, first, FAR, 0.55);
  return { picture, dotless, near, far };
}

interface Noisy {
  readonly light: Float32Array;
  readonly noise: Float32Array;
}
const roomFor = ({ light, noise }: Planes): Noisy => ({
  light: new Float32Array(light.length),
  noise: new Float32Array(noise.length),
});

/** All passes after the first, which stays as it is; from a share of the work done on, a third of it. */
function* passes(
  work: { picture: Planes; lie: Float32Array; value: Float32Array },
  first: Noisy,
  most: readonly number[],
  done: number,
): Steps<Float32Array> {
  let from = first,
    into = roomFor(work.picture);
  for (let pass = 1; pass < most.length; pass++) {
    evened(work.picture, work, from, into, { step: 1 << pass, most: most[pass]! });
    [from, into] = [into, pass === 1 ? roomFor(work.picture) : from];
    yield done + (0.35 * pass) / (most.length - 1);
  }
  return from.light;
}

/** e^−x for x from 0 on, to a few hundredths: what weighs neighbours need not be exact. */
const falling = (x: number): number => {
  if (x >= 8) return 0;
  const a = 1 - x * 0.125,
    b = a * a,
    c = b * b;
  return c * c;
};

/**
 * One pass: each pixel the mean of those around it, so many apart, by how much they lie on one plane and how alike they are
 * for their noise. One long loop on purpose: it goes over every neighbour of every pixel.
 *
 * @param lie – as {@link lieOf} gives it
 * @param value – room for the light, noise and brightness of each pixel, and how much brighter a neighbour may be
 * @param step – how far they are apart
 * @param most – standard deviations by which they may be brighter
 */
function evened(
  { width, height }: Planes,
  { lie, value }: { lie: Float32Array; value: Float32Array },
  { light, noise }: Noisy,
  { light: out, noise: left }: Noisy,
  { step, most }: { step: number; most: number },
): void {
  out.set(light);
  left.set(noise);
  // One pixel alone does not know its own noise well.
  const about = smoothed(noise, width, height, 1);
  for (let y = 0, i = 0, o = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++, o += EIGHT) {
      for (let c = 0; c < 3; c++) value[o + c] = light[i * 3 + c]!;
      value[o + 3] = noise[i]!;
      value[o + 4] = lumOf(light, i);
      value[o + 5] = most * Math.sqrt(about[i]!) + 1e-6;
    }
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const a = i * EIGHT;
      if (lie[a + 6] === 0) continue;
      const nx = lie[a]!,
        ny = lie[a + 1]!,
        nz = lie[a + 2]!,
        // How far the pixel's plane lies from the origin.
        plane = nx * lie[a + 3]! + ny * lie[a + 4]! + nz * lie[a + 5]!;
      const perGrain = 0.5 / lie[a + 6]!,
        pure = lie[a + 7]!,
        own = value[a + 4]!,
        ownReach = value[a + 5]!;
      let sum = 0,
        r = 0,
        g = 0,
        b = 0,
        v = 0;
      for (let dy = -2; dy <= 2; dy++) {
        const yy = y + dy * step;
        if (yy < 0 || yy >= height) continue;
        const row = KERNEL[dy + 2]!;
        for (let dx = -2; dx <= 2; dx++) {
          const xx = x + dx * step;
          if (xx < 0 || xx >= width) continue;
          const o = (yy * width + xx) * EIGHT;
          let w = KERNEL[dx + 2]! * row;
          if (o !== a) {
            const facing = nx * lie[o]! + ny * lie[o + 1]! + nz * lie[o + 2]!;
            if (facing < 0.9 || lie[o + 6] === 0) continue;
            const f2 = facing * facing,
              f4 = f2 * f2,
              f8 = f4 * f4;
            const off = Math.abs(nx * lie[o + 3]! + ny * lie[o + 4]! + nz * lie[o + 5]! - plane);
            const lies = off * perGrain + 24 * Math.abs(pure - lie[o + 7]!);
            if (lies >= 8) continue;
            const other = value[o + 5]!,
              reach = ownReach > other ? ownReach : other;
            // Steps of one plane among others of the same direction count a little.
            w *= f8 * f8 * falling(lies + Math.abs(value[o + 4]! - own) / reach);
            if (w === 0) continue;
          }
          sum += w;
          r += w * value[o]!;
          g += w * value[o + 1]!;
          b += w * value[o + 2]!;
          v += w * w * value[o + 3]!;
        }
      }
      const k = 1 / sum;
      out[i * 3] = r * k;
      out[i * 3 + 1] = g * k;
      out[i * 3 + 2] = b * k;
      left[i] = v * k * k;
    }
}

/** How much brighter what is about a square becomes at most by what was taken from its dots, and how much darker. */
const BRIGHTER = 3,
  DARKER = 0.5;

/**
 * What the pixels of a square lose comes to all around its middle, farther ones less so that no square is seen, each by how bright it is:
 * no light goes, and none is made.
 */
function balanced({ width, height, colour, light: raw }: Planes, clean: Float32Array): Float32Array {
  const nx = Math.ceil(width / BLOCK),
    ny = Math.ceil(height / BLOCK);
  const lost = new Float64Array(nx * ny),
    about = new Float64Array(nx * ny);
  const out = new Float32Array(clean.length);
  const across = nearestSquares(width, nx),
    down = nearestSquares(height, ny);
  const lightOf = (of: Float32Array, i: number): number => {
    let sum = 0;
    for (let o = i * 3; o < i * 3 + 3; o++) sum += of[o]! * colour[o]!;
    return sum;
  };
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      const l = lightOf(clean, i);
      lost[Math.floor(y / BLOCK) * nx + Math.floor(x / BLOCK)]! += lightOf(raw, i) - l;
      for (const [row, v] of down(y)) for (const [column, u] of across(x)) about[row * nx + column]! += u * v * l;
    }
  const share = lost.map((v, k) => (about[k]! > 0 ? Math.max(-DARKER, Math.min(BRIGHTER, v / about[k]!)) : 0));
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      let k = 1;
      for (const [row, v] of down(y)) for (const [column, u] of across(x)) k += u * v * share[row * nx + column]!;
      for (let o = i * 3; o < i * 3 + 3; o++) out[o] = clean[o]! * k;
    }
  return out;
}

/** For each pixel along an edge of the picture the two squares whose middles it lies between, and how near it is to each. */
function nearestSquares(long: number, squares: number): (at: number) => readonly (readonly [number, number])[] {
  const all = Array.from({ length: long }, (_, at) => {
    const v = (at + 0.5) / BLOCK - 0.5,
      i = Math.floor(v);
    return [
      [Math.max(0, i), 1 - (v - i)],
      [Math.min(squares - 1, i + 1), v - i],
    ] as const;
  });
  return (at) => all[at]!;
}

/** Light with its colour again, in the tiles of the film, as of one sample. */
function developed(
  film: Film,
  { left, top, width, colour, direct }: Planes,
  part: Area,
  light: Float32Array,
): FilmLight {
  return {
    ...{ width: film.width, height: film.height },
    tiles: film.tiles.map((t) => {
      if (!t || !meets(t, part)) return null;
      const out = makeTraced(t, 1);
      for (let j = 0; j < t.height; j++)
        for (let i = 0; i < t.width; i++)
          for (let c = 0; c < 3; c++) {
            const from = ((t.y - top + j) * width + t.x - left + i) * 3 + c;
            out.light[(j * t.width + i) * 3 + c] = light[from]! * colour[from]! + direct[from]!;
          }
      return {
        x: t.x,
        y: t.y,
        width: t.width,
        height: t.height,
        samples: 1,
        light: out.light,
        cover: t.cover.map((v) => v / t.samples),
      };
    }),
  };
}
