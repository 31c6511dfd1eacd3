import * as z from 'zod';
import type { Pixels } from '../codec';
import type { Box, Steps, Vec3 } from '../math';
import { MAX_SWATCHES, type Palette, type Swatch, makeSwatch, ramp } from '../palette';
import { VoxelGrid } from '../voxel';
import { coloursOfPixels } from './dither';
import { resized } from './framing';
import { fewColours, histogram, labsOf } from './reduce';
import { IntakeError, MOST_CUBES } from './picture';

/** Cubes along an edge of a field that is cut into pieces or tiles. */
const MOST_FIELD = 4096;

const about = (title: string, description: string) => ({ title, description });

/** How a height map becomes parts. */
export const heightOptions = z.strictObject({
  width: z
    .int()
    .min(0)
    .max(MOST_FIELD)
    .default(0)
    .meta(about('Width', 'of the field in cubes; 0 for a cube a pixel, or 256 of a larger one')),
  height: z
    .int()
    .min(1)
    .max(MOST_CUBES)
    .default(12)
    .meta(about('Height', 'of what is brightest, in cubes, without the base')),
  levels: z.int().min(2).max(256).default(16).meta(about('Levels', 'steps that heights have')),
  smooth: z.int().min(0).max(8).default(0).meta(about('Smooth', 'cubes around that even it out; edges stay')),
  base: z.int().min(0).max(MOST_CUBES).default(1).meta(about('Base', 'cubes below everything')),
  invert: z.boolean().default(false).meta(about('Invert', 'what is dark is high')),
  empty: z
    .int()
    .min(-1)
    .max(254)
    .default(-1)
    .meta(
      about(
        'Empty up to',
        'as bright as this is nothing, 0 to 254; −1 for nowhere, and 0 where it is split into pieces',
      ),
    ),
  colours: z
    .enum(['own', 'palette', 'each'])
    .default('own')
    .meta(
      about(
        'Colours',
        'of the picture of colours, by height where there is none; the nearest of the palette; or a swatch of it for each piece',
      ),
    ),
  most: z.int().min(2).max(MAX_SWATCHES).default(24).meta(about('At most', 'colours of its own')),
  split: z
    .enum(['one', 'pieces', 'tiles'])
    .default('one')
    .meta(about('Split', 'one part, one for each connected piece, or tiles of 256')),
  drop: z.int().min(0).max(1e6).default(8).meta(about('Drop below', 'pieces of fewer cubes are left out')),
  join: z
    .string()
    .max(4000)
    .regex(/^(\d+\+\d+(,\d+\+\d+)*)?$/)
    .default('')
    .meta(about('Join', 'pieces that stay together, by their numbers, as in 3+5,7+9')),
});
export type HeightOptions = z.infer<typeof heightOptions>;

/** A part of a field. */
export interface FieldBody {
  readonly name: string;
  readonly grid: VoxelGrid;
  /** The lowest number that its piece had before any were joined; 0 where it is none. */
  readonly piece: number;
}
export interface FieldBodies {
  /** Their cells lie where they lie in the field. */
  readonly bodies: readonly FieldBody[];
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly width: number;
  readonly depth: number;
  /** Connected pieces, those that were left out included. */
  readonly pieces: number;
  /** Colours that the picture of colours has there. */
  readonly colours: number;
}

/** Heights of a field in cubes, rows from the far side. */
interface Field {
  readonly width: number;
  readonly depth: number;
  /** 0 where nothing is. */
  readonly high: Uint8Array;
}

/**
 * A grey picture as a relief that lies on the ground, its top on the far side; in pieces.
 *
 * @param seen – a picture of the same framing with its colours, of any size; null where there is none
 * @param palette – whose swatches are taken where that is wished
 * @throws IntakeError when nothing is left, or it would not fit
 */
export function* heightSteps(
  picture: Pixels,
  seen: Pixels | null,
  options: HeightOptions,
  palette: Palette | null,
): Steps<FieldBodies> {
  const field = yield* fieldSteps(picture, options);
  if (!field.high.some((v) => v > 0)) throw new IntakeError('heights.nothing');
  const labels = options.split === 'pieces' ? piecesOf(field, options) : null;
  yield 0.6;
  const paint = painted(field, seen && shown(seen, picture, emptyUpTo(options)), labels, options, palette);
  yield 0.8;
  const bodies = labels ? pieceBodies(field, labels, paint.value) : tileBodies(field, paint.value);
  if (bodies.length === 0) throw new IntakeError('heights.allDropped', { least: options.drop });
  return {
    bodies,
    swatches: paint.swatches,
    ours: paint.ours,
    width: field.width,
    depth: field.depth,
    pieces: labels ? labels.found : 1,
    colours: paint.colours,
  };
}

/** How bright a place may be and still be nothing: pieces need something between them. */
const emptyUpTo = ({ empty, split }: HeightOptions): number => (split === 'pieces' ? Math.max(0, empty) : empty);

/** The last field of each picture: colours and splitting leave it as it is. */
const fields = new WeakMap<Pixels, { readonly key: string; readonly field: Field }>();

function* fieldSteps(picture: Pixels, options: HeightOptions): Steps<Field> {
  const { width: wished, height, levels, smooth, base, invert, split } = options,
    empty = emptyUpTo(options);
  const key = [wished, height, levels, smooth, base, invert, empty, split === 'one'].join();
  const known = fields.get(picture);
  if (known?.key === key) return known.field;
  const most = split === 'one' ? MOST_CUBES : MOST_FIELD;
  const width = wished > 0 ? wished : Math.min(picture.width, MOST_CUBES);
  const depth = Math.max(1, Math.round((picture.height * width) / picture.width));
  if (Math.max(width, depth) > most)
    throw new IntakeError(split === 'one' ? 'heights.tooLarge' : 'heights.fieldTooLarge', {
      width,
      depth,
      most: Math.max(1, Math.floor(Math.min(most, (most * picture.width) / picture.height))),
    });
  if (height + base > MOST_CUBES) throw new IntakeError('heights.tooHigh', { high: height + base });
  const small = means(picture, width, depth);
  yield 0.3;
  const even = smooth > 0 ? yield* evenedSteps(small, width, depth, smooth) : small;
  const high = new Uint8Array(width * depth);
  for (let i = 0; i < high.length; i++) {
    if (small[i]! * 255 <= empty + 0.5 && empty >= 0) continue;
    const v = invert ? 1 - even[i]! : even[i]!;
    high[i] = base + Math.round((Math.round(v * (levels - 1)) / (levels - 1)) * height);
  }
  const field = { width, depth, high };
  fields.set(picture, { key, field });
  return field;
}

/** How bright each place of the field is on the whole, 0–1: heights are figures, not light, so bytes are averaged as they are. */
function means({ width, height, rgba }: Pixels, w: number, h: number): Float32Array {
  const grey = new Float32Array(width * height);
  for (let i = 0; i < grey.length; i++)
    grey[i] =
      ((0.2126 * rgba[i * 4]! + 0.7152 * rgba[i * 4 + 1]! + 0.0722 * rgba[i * 4 + 2]!) * rgba[i * 4 + 3]!) / 65025;
  if (w === width && h === height) return grey;
  const across = new Float32Array(w * height);
  shrink(grey, across, width, w, height, 1, width, 1, w);
  const out = new Float32Array(w * h);
  shrink(across, out, height, h, w, w, 1, w, 1);
  return out;
}
/** Means along one axis. @param step, line – from a place to the next along it, and to the next line */
function shrink(
  from: Float32Array,
  to: Float32Array,
  long: number,
  short: number,
  lines: number,
  step: number,
  line: number,
  toStep: number,
  toLine: number,
): void {
  const scale = long / short;
  for (let i = 0; i < short; i++) {
    const lo = i * scale,
      hi = (i + 1) * scale,
      first = Math.floor(lo + 1e-9),
      last = Math.min(long, Math.max(first + 1, Math.ceil(hi - 1e-9)));
    for (let l = 0; l < lines; l++) {
      let sum = 0;
      for (let k = first; k < last; k++) sum += from[l * line + k * step]! * (Math.min(hi, k + 1) - Math.max(lo, k));
      to[l * toLine + i * toStep] = sum / scale;
    }
  }
}

/** Differences of height that count as an edge: as far as they are apart, places do not even each other out. */
const EDGE = 0.08;

/** Evened out among places near by of like height (Tomasi and Manduchi 1998): noise goes, edges stay. */
function* evenedSteps(v: Float32Array, width: number, depth: number, reach: number): Steps<Float32Array> {
  const out = new Float32Array(v.length);
  const near = Float32Array.from({ length: 2 * reach + 1 }, (_, i) =>
    Math.exp(-((i - reach) ** 2) / (2 * (reach / 1.5) ** 2)),
  );
  const like = Float32Array.from({ length: 257 }, (_, i) => Math.exp(-((i / 256) ** 2) / (2 * EDGE * EDGE)));
  for (let y = 0; y < depth; y++) {
    for (let x = 0; x < width; x++) {
      const own = v[y * width + x]!;
      let [sum, weight] = [0, 0];
      for (let j = Math.max(-reach, -y); j <= Math.min(reach, depth - 1 - y); j++)
        for (let i = Math.max(-reach, -x); i <= Math.min(reach, width - 1 - x); i++) {
          const other = v[(y + j) * width + x + i]!,
            w = near[j + reach]! * near[i + reach]! * like[Math.round(Math.abs(other - own) * 256)]!;
          sum += w * other;
          weight += w;
        }
      out[y * width + x] = sum / weight;
    }
    yield 0.3 + (0.3 * y) / depth;
  }
  return out;
}

/** Which piece each place is of, from 1 on, in the order in which they are met; 0 where nothing is or what was dropped. */
interface Pieces {
  readonly of: Int32Array;
  readonly count: number;
  /** Of each piece the lowest number that it had before any were joined. */
  readonly numbers: readonly number[];
  /** Those that were dropped included. */
  readonly found: number;
}

/** Places that meet along an edge are of one piece: their columns touch. */
function piecesOf({ width, depth, high }: Field, { drop, join }: HeightOptions): Pieces {
  const of = new Int32Array(high.length);
  const open: number[] = [],
    cubes: number[] = [0];
  for (let seed = 0; seed < high.length; seed++) {
    if (high[seed] === 0 || of[seed] !== 0) continue;
    const n = cubes.length;
    let sum = 0;
    of[seed] = n;
    open.push(seed);
    for (let at = open.pop(); at !== undefined; at = open.pop()) {
      sum += high[at]!;
      const x = at % width;
      const take = (next: number): void => {
        if (high[next] === 0 || of[next] !== 0) return;
        of[next] = n;
        open.push(next);
      };
      if (x > 0) take(at - 1);
      if (x < width - 1) take(at + 1);
      if (at >= width) take(at - width);
      if (at < width * (depth - 1)) take(at + width);
    }
    cubes.push(sum);
  }
  // Numbers that people see: of those that are left, in the order in which they are met.
  const shown = new Int32Array(cubes.length);
  let kept = 0;
  for (let n = 1; n < cubes.length; n++) if (cubes[n]! >= drop) shown[n] = ++kept;
  const one = Int32Array.from({ length: kept + 1 }, (_, i) => i);
  const root = (n: number): number => (one[n] === n ? n : root(one[n]!));
  for (const pair of join === '' ? [] : join.split(',')) {
    const [a, b] = pair.split('+').map(Number) as [number, number];
    if (a < 1 || b < 1 || a > kept || b > kept) throw new IntakeError('heights.noPiece', { pair, most: kept });
    const [p, q] = [root(a), root(b)];
    one[Math.max(p, q)] = Math.min(p, q);
  }
  const dense = new Int32Array(kept + 1);
  let count = 0;
  const numbers: number[] = [];
  for (let n = 1; n <= kept; n++)
    if (root(n) === n) {
      dense[n] = ++count;
      numbers.push(n);
    }
  for (let i = 0; i < of.length; i++) {
    const n = shown[of[i]!]!;
    of[i] = n === 0 ? 0 : dense[root(n)]!;
  }
  return { of, count, numbers, found: cubes.length - 1 };
}

interface Paint {
  /** The byte of each place of the field. */
  readonly value: (place: number) => number;
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
}

/** A picture of colours without what lies where nothing is: it would run into the rims when it is made smaller. */
function shown(seen: Pixels, heights: Pixels, empty: number): Pixels {
  if (empty < 0) return seen;
  const rgba = seen.rgba.slice();
  for (let y = 0; y < seen.height; y++) {
    const row = Math.floor(((y + 0.5) * heights.height) / seen.height) * heights.width;
    for (let x = 0; x < seen.width; x++) {
      const i = (row + Math.floor(((x + 0.5) * heights.width) / seen.width)) * 4;
      const { rgba: h } = heights;
      const grey = ((0.2126 * h[i]! + 0.7152 * h[i + 1]! + 0.0722 * h[i + 2]!) * h[i + 3]!) / 255;
      if (grey <= empty + 0.5) rgba[(y * seen.width + x) * 4 + 3] = 0;
    }
  }
  return { ...seen, rgba, indexed: null };
}

function painted(
  field: Field,
  seen: Pixels | null,
  pieces: Pieces | null,
  { colours, most, base, height }: HeightOptions,
  palette: Palette | null,
): Paint {
  const { width, depth, high } = field;
  const ours = palette?.swatches.filter((s) => !s.helper) ?? [];
  if (colours === 'each' && ours.length > 0)
    return {
      value: (i) => ours[Math.max(0, (pieces?.of[i] ?? 1) - 1) % ours.length]!.byte,
      swatches: ours,
      ours: true,
      colours: 0,
    };
  if (seen) {
    const small = resized(seen, width, depth),
      counts = (i: number): boolean => high[i]! > 0,
      found = histogram(small, counts);
    const list = colours === 'palette' && ours.length > 0 ? ours : null;
    const few = list ? list.map((s) => s.colour) : fewColours(found, most);
    const bytes = coloursOfPixels(small, labsOf(few), 'none', counts);
    return {
      value: (i) => (list ? list[bytes[i]! - 1]!.byte : bytes[i]!),
      swatches: list ?? few.map((hex, i) => makeSwatch(i + 1, hex, hex)),
      ours: list !== null,
      colours: found.size,
    };
  }
  const steps = Math.min(most, 12);
  const tones = ramp('#3a2c22', '#e8d9b0', steps);
  return {
    value: (i) => 1 + Math.min(steps - 1, Math.floor(((high[i]! - base) / Math.max(1, height)) * steps)),
    swatches: tones.map((hex, i) => makeSwatch(i + 1, `height ${i + 1}`, hex)),
    ours: false,
    colours: 0,
  };
}

/** Columns of a stretch of the field as a grid that lies where it lies in the field, its middle over zero. */
function columns(
  { width, depth, high }: Field,
  x0: number,
  z0: number,
  w: number,
  d: number,
  value: (place: number) => number,
  counts: (place: number) => boolean,
): VoxelGrid | null {
  let top = 0;
  for (let z = z0; z < z0 + d; z++)
    for (let x = x0; x < x0 + w; x++) if (counts(z * width + x)) top = Math.max(top, high[z * width + x]!);
  if (top === 0) return null;
  const cells = new Uint8Array(w * top * d);
  for (let z = 0; z < d; z++)
    for (let x = 0; x < w; x++) {
      const i = (z0 + z) * width + x0 + x;
      if (!counts(i)) continue;
      const byte = value(i);
      for (let y = 0, at = x + w * top * z; y < high[i]!; y++, at += w) cells[at] = byte;
    }
  const min: Vec3 = [x0 - (width >> 1), 0, z0 - (depth >> 1)];
  const box: Box = { min, size: [w, top, d] };
  return VoxelGrid.fromDense(box, cells);
}

function pieceBodies(field: Field, pieces: Pieces, value: (place: number) => number): FieldBody[] {
  const { width } = field;
  const ends = Array.from({ length: pieces.count + 1 }, () => [Infinity, Infinity, -1, -1]);
  pieces.of.forEach((n, i) => {
    if (n === 0) return;
    const e = ends[n]!,
      x = i % width,
      z = Math.floor(i / width);
    e[0] = Math.min(e[0]!, x);
    e[1] = Math.min(e[1]!, z);
    e[2] = Math.max(e[2]!, x);
    e[3] = Math.max(e[3]!, z);
  });
  return ends.slice(1).flatMap(([x0, z0, x1, z1], i) =>
    tiles([x0!, z0!, x1! - x0! + 1, z1! - z0! + 1], field, value, (place) => pieces.of[place] === i + 1).map((t) => ({
      ...t,
      name: [i + 1, t.name].filter(Boolean).join('.'),
      piece: pieces.numbers[i]!,
    })),
  );
}

/** The whole as one part, or as tiles that meet without a seam. */
const tileBodies = (field: Field, value: (place: number) => number): FieldBody[] =>
  tiles([0, 0, field.width, field.depth], field, value, (i) => field.high[i]! > 0);

/** A stretch of a field as one part, or in tiles where it is larger than one can be: from the far left corner on, by row and column. */
function tiles(
  [x0, z0, w, d]: readonly [x: number, z: number, w: number, d: number],
  field: Field,
  value: (place: number) => number,
  counts: (place: number) => boolean,
): FieldBody[] {
  const several = Math.max(w, d) > MOST_CUBES,
    out: FieldBody[] = [];
  for (let z = 0; z < d; z += MOST_CUBES)
    for (let x = 0; x < w; x += MOST_CUBES) {
      const [wide, deep] = [Math.min(MOST_CUBES, w - x), Math.min(MOST_CUBES, d - z)];
      const grid = columns(field, x0 + x, z0 + z, wide, deep, value, counts);
      const tile = several ? `${1 + z / MOST_CUBES}.${1 + x / MOST_CUBES}` : '';
      if (grid) out.push({ name: tile, grid, piece: 0 });
    }
  return out;
}
