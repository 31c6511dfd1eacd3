import { type Steps, finish } from '../math';
import { brightness } from './glow';
import { type Area, type Film, type FilmLight, TILE, type Traced, makeTraced, meets } from './film';
import type { TraceCamera } from './lens';

/** The binomial kernel of five. */
const KERNEL = [1 / 16, 1 / 4, 3 / 8, 1 / 4, 1 / 16];
/**
 * Passes over the picture; each looks twice as far as the one before. So many standard deviations of its noise a neighbour may be
 * brighter in it: what is far away must be ever more alike, or the foot of a shadow goes into its middle.
 */
const PASSES = [3, 1.3, 0.7, 0.45, 0.3];
/** Edge of the squares in which as much light stays as came. */
const BLOCK = 24;
/** Pixels to each side by which noise is told, and what is another colour. */
const ABOUT = 2;
/** Share of its noise that a pixel is believed to have, where what was traced is weighed against what was evened. */
const BELIEVED = 0.5;
/** How much another colour counts as a fault, against another brightness. */
const COLOURED = 2;
/** Darkest colour that light is divided by. */
const DARKEST = 0.02;

/**
 * A film without most of its noise. Light is told apart from colour, so that texels stay sharp, and evened out among pixels of one
 * plane by an edge-avoiding à-trous filter (Dammertz et al. 2010) that is held by the noise of each pixel (Schied et al. 2017). In the end each pixel keeps
 * as much of what was traced as its noise allows for the difference: a picture without noise stays as it is.
 */
export const denoised = (film: Film, camera: TraceCamera): FilmLight => finish(denoiseSteps(film, camera));

/** How far away what counts for a pixel lies at most: all passes, and the squares in which light is balanced. */
const REACH = 144;

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
  const { picture, lie, dotless } = begun(film, camera, part);
  yield 0.1;
  let from: Noisy = { light: dotless, noise: picture.noise },
    into: Noisy = { light: new Float32Array(dotless.length), noise: new Float32Array(picture.noise.length) };
  const value = new Float32Array(picture.noise.length * EIGHT);
  for (const [pass, most] of PASSES.entries()) {
    evened(picture, { lie, value }, from, into, { step: 1 << pass, most });
    // What was there first is still needed.
    [from, into] = [into, pass === 0 ? { light: dotless.slice(), noise: picture.noise.slice() } : from];
    yield 0.1 + (0.8 * (pass + 1)) / PASSES.length;
  }
  return developed(film, picture, part, balanced(picture, blended(picture, dotless, from.light)));
}

/** What a film is evened by, and its light without lone dots; what is needed for that alone is let go of, since memory is dear. */
function begun(
  film: Film,
  camera: TraceCamera,
  part: Area,
): { picture: Planes; lie: Float32Array; dotless: Float32Array } {
  const { surface, ...picture } = planesOf(film, camera, part);
  return { picture, lie: lieOf(surface), dotless: withoutDots(picture, surface) };
}

/** The film as one picture: light divided by colour, how noisy its brightness is, and where each pixel's surface lies. */
interface Planes {
  /** The column and the row of the picture with which it begins; whole numbers of squares. */
  readonly left: number;
  readonly top: number;
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array;
  /** Variance of the mean brightness. */
  readonly noise: Float32Array;
  /** What came without a bounce, which has no noise. */
  readonly direct: Float32Array;
  readonly colour: Float32Array;
}
/** Where what is seen in it lies. */
interface Surface {
  readonly normal: Float32Array;
  /** Place in the world. */
  readonly place: Float32Array;
  /** How much of one thing a pixel shows: 1 where all samples met one plane. */
  readonly purity: Float32Array;
  /** How far both halves of the samples are apart, squared, over 4; −1 where there are no halves. */
  readonly apart: Float32Array;
  /** How large a pixel is there; 0 where nothing was met, or nothing traced. */
  readonly grain: Float32Array;
}

/** From where to where an edge of the picture is looked at for a part of it. */
const lookedAt = (from: number, long: number, all: number): [number, number] => [
  Math.max(0, Math.floor((from - REACH) / BLOCK) * BLOCK),
  Math.min(all, Math.ceil((from + long + REACH) / BLOCK) * BLOCK),
];

function planesOf(film: Film, camera: TraceCamera, part: Area): Planes & { surface: Surface } {
  const [left, right] = lookedAt(part.x, part.width, film.width),
    [top, bottom] = lookedAt(part.y, part.height, film.height);
  const width = right - left,
    height = bottom - top,
    n = width * height;
  const three = (): Float32Array => new Float32Array(n * 3);
  const p: Planes = {
    ...{ left, top, width, height, light: three(), noise: new Float32Array(n), direct: three(), colour: three() },
  };
  const surface: Surface = {
    ...{ normal: three(), place: three(), grain: new Float32Array(n), purity: new Float32Array(n) },
    apart: new Float32Array(n),
  };
  const wide = (2 * Math.hypot(...camera.up)) / film.height;
  for (const t of film.tiles) {
    if (!t) continue;
    for (let j = Math.max(0, top - t.y); j < Math.min(t.height, bottom - t.y); j++)
      for (let i = Math.max(0, left - t.x); i < Math.min(t.width, right - t.x); i++) {
        const from = j * t.width + i,
          to = (t.y - top + j) * width + t.x - left + i;
        takePixel(p, surface, t, from, to);
        if (t.cover[from] === 0) continue;
        const u = ((t.x + i + 0.5) / film.width) * 2 - 1 + camera.shift[0],
          v = 1 - ((t.y + j + 0.5) / film.height) * 2 + camera.shift[1];
        const d = t.depth[from]! / t.cover[from]!;
        placePixel(surface, camera, to, u, v, d);
        surface.grain[to] = camera.perspective ? wide * d : wide;
      }
  }
  scaleNoise(p, surface.apart);
  return { ...p, surface };
}

/** Each pixel the mean of those about it, nearer ones more; within the picture alone. */
function smoothed(field: Float32Array, width: number, height: number, about: number): Float32Array {
  const across = new Float32Array(field.length),
    out = new Float32Array(field.length);
  const run = (from: Float32Array, to: Float32Array, i: number, at: number, long: number, step: number): void => {
    let sum = 0,
      weight = 0;
    for (let d = Math.max(-about, -at); d <= Math.min(about, long - 1 - at); d++) {
      const w = about + 1 - Math.abs(d);
      sum += w * from[i + d * step]!;
      weight += w;
    }
    to[i] = sum / weight;
  };
  for (let y = 0, i = 0; y < height; y++) for (let x = 0; x < width; x++, i++) run(field, across, i, x, width, 1);
  for (let y = 0, i = 0; y < height; y++) for (let x = 0; x < width; x++, i++) run(across, out, i, y, height, width);
  return out;
}

/**
 * Samples that are spread evenly have come further than their spread alone tells. How much further is told by the squared
 * difference of both halves of them, of a few pixels together.
 */
function scaleNoise({ width, height, noise }: Planes, apart: Float32Array): void {
  const told = smoothed(noise, width, height, ABOUT),
    found = smoothed(
      apart.map((v, i) => (v < 0 ? noise[i]! : v)),
      width,
      height,
      ABOUT,
    );
  for (let i = 0; i < noise.length; i++)
    if (told[i]! > 0) noise[i]! *= Math.max(0.003, Math.min(1, found[i]! / told[i]!));
}

function takePixel(p: Planes, { purity, normal, apart }: Surface, t: Traced, from: number, to: number): void {
  const k = 1 / t.samples;
  let length = 0;
  for (let c = 0; c < 3; c++) {
    p.direct[to * 3 + c] = t.direct[from * 3 + c]! * k;
    p.colour[to * 3 + c] = Math.max(DARKEST, t.albedo[from * 3 + c]! * k);
    p.light[to * 3 + c] = (t.light[from * 3 + c]! * k - p.direct[to * 3 + c]!) / p.colour[to * 3 + c]!;
    length += t.normal[from * 3 + c]! ** 2;
  }
  length = Math.sqrt(length) || 1;
  purity[to] = length * k;
  for (let c = 0; c < 3; c++) normal[to * 3 + c] = t.normal[from * 3 + c]! / length;
  const grey = brightness(p.colour[to * 3]!, p.colour[to * 3 + 1]!, p.colour[to * 3 + 2]!);
  const rest = (c: number): number => (t.light[from * 3 + c]! - t.direct[from * 3 + c]!) * k;
  const mean = brightness(rest(0), rest(1), rest(2));
  const variance = Math.max(0, t.squares[from]! * k - mean * mean);
  // Of one sample nothing is known of its noise: as if it were all of it.
  p.noise[to] = (t.samples > 1 ? variance / (t.samples - 1) : mean * mean) / (grey * grey);
  const odd = t.samples >> 1;
  const gap = odd < 2 ? 0 : t.odd[from]! / odd - (mean * t.samples - t.odd[from]!) / (t.samples - odd);
  apart[to] = odd < 2 ? -1 : (gap * gap) / 4 / (grey * grey);
}

function placePixel(p: Surface, c: TraceCamera, to: number, u: number, v: number, d: number): void {
  const across = [0, 1, 2].map((a) => c.right[a]! * u + c.up[a]! * v);
  if (!c.perspective) {
    for (let a = 0; a < 3; a++) p.place[to * 3 + a] = c.eye[a]! + across[a]! + c.ahead[a]! * d;
    return;
  }
  const ray = across.map((x, a) => x + c.ahead[a]!);
  const l = d / Math.hypot(ray[0]!, ray[1]!, ray[2]!);
  for (let a = 0; a < 3; a++) p.place[to * 3 + a] = c.eye[a]! + ray[a]! * l;
}

const lumOf = (light: Float32Array, i: number): number =>
  brightness(light[i * 3]!, light[i * 3 + 1]!, light[i * 3 + 2]!);

interface Noisy {
  readonly light: Float32Array;
  readonly noise: Float32Array;
}

/** e^−x for x from 0 on, to a few hundredths: what weighs neighbours need not be exact. */
const falling = (x: number): number => {
  if (x >= 8) return 0;
  const a = 1 - x * 0.125,
    b = a * a,
    c = b * b;
  return c * c;
};

/** Numbers of a pixel that stand together: neighbours far apart are looked at, and each place in memory costs. */
const EIGHT = 8;

/** Of each pixel its normal, place, grain and purity. */
function lieOf({ normal, place, grain, purity }: Surface): Float32Array {
  const out = new Float32Array(grain.length * EIGHT);
  for (let i = 0, a = 0, o = 0; i < grain.length; i++, a += 3, o += EIGHT) {
    for (let c = 0; c < 3; c++) {
      out[o + c] = normal[a + c]!;
      out[o + 3 + c] = place[a + c]!;
    }
    out[o + 6] = grain[i]!;
    out[o + 7] = purity[i]!;
  }
  return out;
}

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

/** How many standard deviations of its neighbours a pixel may be brighter than them. */
const DOT = 3;
/** How much more or less of one thing neighbours may show by which a pixel is held. */
const MIXED = 0.25;

/** What is told of neighbours: how many, and sums of their brightness and of its square. */
class Neighbours {
  private n = 0;
  private sum = 0;
  private squares = 0;
  clear(): void {
    this.n = this.sum = this.squares = 0;
  }
  add(l: number): void {
    this.n++;
    this.sum += l;
    this.squares += l * l;
  }
  get enough(): boolean {
    return this.n >= 6;
  }
  /** The brightest that is believed among them. */
  get most(): number {
    const mean = this.sum / this.n;
    return mean + DOT * Math.sqrt(Math.max(0, this.squares / this.n - mean * mean)) + 0.02 * mean;
  }
}

/**
 * The light with pixels that stand out alone held to what their neighbours on their plane are, or, where a pixel shows edges and has none,
 * to what all of them are; what they lose comes to all about them later.
 */
function withoutDots(
  { width, height, light, noise, colour }: Planes,
  { normal, grain, purity, apart }: Surface,
): Float32Array {
  const out = light.slice(),
    alike = new Neighbours(),
    all = new Neighbours();
  const greyOf = (i: number): number => lumOf(colour, i);
  for (let y = 0, i = 0; y < height; y++)
    for (let x = 0; x < width; x++, i++) {
      if (grain[i] === 0 || noise[i] === 0) continue;
      alike.clear();
      all.clear();
      for (let dy = -2; dy <= 2; dy++)
        for (let dx = -2; dx <= 2; dx++) {
          const xx = x + dx,
            yy = y + dy;
          if ((dx === 0 && dy === 0) || xx < 0 || yy < 0 || xx >= width || yy >= height) continue;
          const j = yy * width + xx;
          if (grain[j] === 0) continue;
          const l = lumOf(light, j);
          all.add(l * greyOf(j));
          if (Math.abs(purity[j]! - purity[i]!) > MIXED) continue;
          const facing =
            normal[i * 3]! * normal[j * 3]! +
            normal[i * 3 + 1]! * normal[j * 3 + 1]! +
            normal[i * 3 + 2]! * normal[j * 3 + 2]!;
          if (facing >= 0.98) alike.add(l);
        }
      if (!alike.enough && !all.enough) continue;
      const most = alike.enough ? alike.most : all.most / greyOf(i),
        own = lumOf(light, i);
      // What is bright without noise is so in truth: both halves of the samples say so.
      if (own <= most || (own - most) ** 2 > 16 * Math.max(noise[i]!, apart[i]!)) continue;
      for (let c = 0; c < 3; c++) out[i * 3 + c] = (light[i * 3 + c]! * most) / own;
    }
  return out;
}

/**
 * Of each pixel as much of what was traced as its noise allows for: the filtered one differs by its fault and by the noise
 * of the traced one, so that what is more than noise is fault (after James & Stein 1961). Noise is known of brightness alone; a
 * colour that differs one way all about is a fault besides.
 */
function blended({ width, height, noise }: Planes, raw: Float32Array, clean: Float32Array): Float32Array {
  const fault = new Float32Array(width * height),
    other = new Float32Array(width * height);
  for (let i = 0; i < fault.length; i++) fault[i] = (lumOf(raw, i) - lumOf(clean, i)) ** 2;
  const own = smoothed(noise, width, height, 1),
    gap = smoothed(fault, width, height, 1);
  for (let i = 0; i < fault.length; i++) fault[i] = Math.max(0, gap[i]! - own[i]!);
  for (let c = 0; c < 3; c++) {
    for (let i = 0; i < other.length; i++)
      other[i] = raw[i * 3 + c]! - clean[i * 3 + c]! * (lumOf(raw, i) / (lumOf(clean, i) + 1e-9));
    const about = smoothed(other, width, height, ABOUT);
    for (let i = 0; i < fault.length; i++) fault[i]! += COLOURED * about[i]! ** 2;
  }
  const out = new Float32Array(raw.length);
  for (let i = 0; i < fault.length; i++) {
    const noisy = BELIEVED * own[i]!,
      keep = noisy + fault[i]! === 0 ? 0 : noisy / (noisy + fault[i]!);
    for (let o = i * 3; o < i * 3 + 3; o++) out[o] = raw[o]! + (clean[o]! - raw[o]!) * keep;
  }
  return out;
}

/** What pixels that no neighbour believes lose comes to all around them: no light goes, and none is made. */
function balanced({ width, height, colour, light: raw }: Planes, clean: Float32Array): Float32Array {
  const nx = Math.ceil(width / BLOCK),
    ny = Math.ceil(height / BLOCK);
  const came = new Float32Array(nx * ny),
    left = new Float32Array(nx * ny);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const i = (y * width + x) * 3,
        to = Math.floor(y / BLOCK) * nx + Math.floor(x / BLOCK);
      for (let c = 0; c < 3; c++) {
        came[to]! += raw[i + c]! * colour[i + c]!;
        left[to]! += clean[i + c]! * colour[i + c]!;
      }
    }
  const share = came.map((v, k) => (left[k]! > 0 ? Math.min(2, v / left[k]!) : 1));
  const at = (x: number, y: number): number =>
    share[Math.max(0, Math.min(ny - 1, y)) * nx + Math.max(0, Math.min(nx - 1, x))]!;
  const out = new Float32Array(clean.length);
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      // Between the middles of the squares, so that none of them is seen.
      const u = (x + 0.5) / BLOCK - 0.5,
        v = (y + 0.5) / BLOCK - 0.5;
      const [i, j] = [Math.floor(u), Math.floor(v)],
        [s, t] = [u - i, v - j];
      const k = (at(i, j) * (1 - s) + at(i + 1, j) * s) * (1 - t) + (at(i, j + 1) * (1 - s) + at(i + 1, j + 1) * s) * t;
      for (let c = 0, o = (y * width + x) * 3; c < 3; c++, o++) out[o] = clean[o]! * k;
    }
  return out;
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
