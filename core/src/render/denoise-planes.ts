import { type Area, type Film, type Traced } from './film';
import { brightness } from './glow';
import type { TraceCamera } from './lens';

/** Edge of the squares in which as much light stays as came. */
export const BLOCK = 24;
/** How far away what counts for a pixel lies at most: all passes, and the squares in which light is balanced. */
export const REACH = 144;
/** Pixels to each side by which noise is told, and what is another colour. */
export const ABOUT = 2;
/** Darkest colour that light is divided by. */
const DARKEST = 0.02;

/** The film as one picture: light divided by colour, how noisy its brightness is, and where each pixel's surface lies. */
export interface Planes {
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
export interface Surface {
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

/** What of a film counts for an area of its picture, and where what is seen there lies; nothing where no tile was traced. */
export function planesOf(film: Film, camera: TraceCamera, part: Area): Planes & { surface: Surface } {
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
export function smoothed(field: Float32Array, width: number, height: number, about: number): Float32Array {
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

/** Brightness of a pixel. */
export const lumOf = (light: Float32Array, i: number): number =>
  brightness(light[i * 3]!, light[i * 3 + 1]!, light[i * 3 + 2]!);

/** Numbers of a pixel that stand together: neighbours far apart are looked at, and each place in memory costs. */
export const EIGHT = 8;

/** Of each pixel its normal, place, grain and purity. */
export function lieOf({ normal, place, grain, purity }: Surface): Float32Array {
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
