import * as z from 'zod';
import type { Pixels } from '../codec';
import type { Box, Steps } from '../math';
import { MAX_SWATCHES, type Palette, type Swatch, bytesHex, isHex, makeSwatch } from '../palette';
import { VoxelGrid, distancesSquared, spaceOf } from '../voxel';
import { Refusal } from '../words';
import { DITHERS, coloursOfPixels } from './dither';
import { cropped, frameIn, resized } from './framing';
import { unscaled } from './pixel-art';
import { Nearest, fewColours, histogram, labInto, labsOf } from './reduce';

/** What was asked for cannot be made; the sentence says why and what would do. */
export class IntakeError extends Refusal {
  override readonly name = 'IntakeError';
}

/** Cubes along an edge of a part. */
export const MOST_CUBES = 256;
/** As wide a picture becomes when nobody says more. */
const WIDE = 64;

/** What becomes of a sheet of sprites. */
export const SPRITES = ['one', 'parts', 'alternates', 'frames'] as const;

const about = (title: string, description: string) => ({ title, description });
const pixels = z.int().min(0).max(65_535).default(0);

/** How a picture becomes a part. */
export const pictureOptions = z.strictObject({
  left: pixels.meta(about('Cut off left', 'pixels of the picture that are left out')),
  right: pixels.meta(about('Cut off right', 'likewise')),
  top: pixels.meta(about('Cut off at the top', 'likewise')),
  bottom: pixels.meta(about('Cut off at the bottom', 'likewise')),
  width: z
    .int()
    .min(0)
    .max(MOST_CUBES)
    .default(0)
    .meta(about('Width', 'in cubes; 0 for a cube a pixel, or 64 of a larger one')),
  blocks: z
    .enum(['found', 'ignored'])
    .default('found')
    .meta(about('Enlarged pixels', 'whether pixel art that was enlarged comes back a cube a pixel')),
  colours: z.enum(['own', 'palette']).default('own').meta(about('Colours', 'its own, or the nearest of the palette')),
  most: z.int().min(2).max(MAX_SWATCHES).default(24).meta(about('At most', 'colours of its own')),
  only: z
    .string()
    .max(2000)
    .regex(/^(\d{1,3}(,\d{1,3})*)?$/)
    .default('')
    .meta(about('Only', 'numbers of swatches of the palette with commas between; empty for all')),
  dither: z
    .enum(DITHERS)
    .default('none')
    .meta(about('Dithering', 'two colours beside each other for one between them')),
  clear: z.int().min(0).max(255).default(128).meta(about('Opaque from', 'how opaque a pixel must be to become a cube')),
  key: z
    .string()
    .regex(/^(#[0-9a-f]{6})?$/)
    .default('')
    .meta(about('Leave out', 'a colour that is no cube, as #rrggbb; empty for none')),
  reach: z.number().min(0).max(1).default(0.06).meta(about('And what is near', 'how far from it, 0 to 1')),
  sprites: z
    .enum(SPRITES)
    .default('one')
    .meta(
      about(
        'Sprites',
        'a picture of one thing, or a sheet: each sprite a part, one of a set of alternates, or a frame of a clip',
      ),
    ),
  across: z.int().min(0).max(64).default(0).meta(about('Across', 'sprites in a row of the sheet; 0 to find them')),
  down: z.int().min(0).max(64).default(0).meta(about('Down', 'rows of the sheet; 0 to find them')),
  fps: z.int().min(1).max(60).default(8).meta(about('Frames a second', 'of a clip of frames')),
  stand: z.enum(['upright', 'flat']).default('upright').meta(about('Stand', 'upright, or flat on the ground')),
  thick: z.int().min(1).max(MOST_CUBES).default(1).meta(about('Thick', 'in cubes')),
  relief: z
    .enum(['none', 'bright', 'dark', 'puffed'])
    .default('none')
    .meta(about('Relief', 'what stands out: what is bright, what is dark, or what is far from the outline')),
  raise: z.int().min(0).max(128).default(4).meta(about('Raise', 'how far it stands out, in cubes')),
  back: z.enum(['flat', 'mirrored']).default('flat').meta(about('Back', 'flat, or the same relief mirrored')),
  outline: z
    .string()
    .regex(/^(#[0-9a-f]{6})?$/)
    .default('')
    .meta(about('Outline', 'a rim of one cube of this colour, as #rrggbb; empty for none')),
});
export type PictureOptions = z.infer<typeof pictureOptions>;

/** What came of a picture. */
export interface PictureBody {
  readonly grid: VoxelGrid;
  /** Bytes of the cells are theirs. */
  readonly swatches: readonly Swatch[];
  /** Whether those are swatches of the palette that was given, by their own bytes. */
  readonly ours: boolean;
  /** Pixels that became a cube each, after cutting and resizing. */
  readonly width: number;
  readonly height: number;
  /** Whether enlarged pixels were found. */
  readonly blocks: boolean;
  /** How many colours the picture had there. */
  readonly colours: number;
}

/**
 * A picture as cubes; in pieces.
 *
 * @param palette – whose swatches are taken where that is wished
 * @throws IntakeError when nothing is left of it, or it would not fit
 */
export function* pictureSteps(picture: Pixels, options: PictureOptions, palette: Palette | null): Steps<PictureBody> {
  const { small, art } = yield* framedSteps(picture, options);
  yield 0.6;
  const counts = opaque(small, options);
  const seen = coloured(small, options, palette, counts),
    { swatches, ours, colours } = seen;
  yield 0.9;
  return {
    grid: bodyOf(small, seen, options),
    swatches: options.outline && !ours ? withOutline(swatches, options.outline) : swatches,
    ours,
    width: small.width,
    height: small.height,
    blocks: art,
    colours,
  };
}

/** A picture as many pixels large as it has cubes, and whether enlarged pixels were found in it. */
interface Framed {
  readonly small: Pixels;
  readonly art: boolean;
}
/** The last of each picture: most wishes leave it as it is, and large pictures take long to make small. */
const framed = new WeakMap<Pixels, { readonly key: string; readonly value: Framed }>();

function* framedSteps(
  picture: Pixels,
  { left, right, top, bottom, blocks, width: wished }: PictureOptions,
): Steps<Framed> {
  const key = [left, right, top, bottom, blocks, wished].join();
  const known = framed.get(picture);
  if (known?.key === key) return known.value;
  const frame = { x: left, y: top, width: picture.width - left - right, height: picture.height - top - bottom };
  const cut = cropped(picture, frameIn(picture, frame));
  yield 0.1;
  const art = blocks === 'found' ? unscaled(cut) : null;
  yield 0.3;
  const whole = art ?? cut,
    [width, height] = sizeOf(whole, wished, art !== null || whole.indexed !== null);
  const value = { small: resized(whole, width, height), art: art !== null };
  framed.set(picture, { key, value });
  return value;
}

/** @param keeps – whether a picture that fits comes a cube a pixel */
export function sizeOf({ width, height }: Pixels, wished: number, keeps: boolean): readonly [number, number] {
  const of = (w: number): readonly [number, number] => [w, Math.max(1, Math.round((height * w) / width))];
  if (wished > 0) {
    const size = of(wished);
    if (size[1] > MOST_CUBES)
      throw new IntakeError('picture.tooHigh', {
        wide: wished,
        high: size[1],
        most: Math.max(1, Math.floor((MOST_CUBES * width) / height)),
      });
    return size;
  }
  const fits = Math.min(1, MOST_CUBES / width, MOST_CUBES / height);
  if (fits === 1 && (keeps || Math.max(width, height) <= WIDE)) return [width, height];
  return of(Math.max(1, Math.floor(Math.min(keeps ? width * fits : WIDE, width, width * fits))));
}

/** Which pixels become cubes. */
export function opaque({ rgba }: Pixels, { clear, key, reach }: PictureOptions): (at: number) => boolean {
  if (!isHex(key)) return (i) => rgba[i * 4 + 3]! >= Math.max(1, clear);
  const own = new Float64Array(3),
    left = labsOf([key]);
  return (i) => {
    if (rgba[i * 4 + 3]! < Math.max(1, clear)) return false;
    labInto(own, 0, rgba[i * 4]!, rgba[i * 4 + 1]!, rgba[i * 4 + 2]!);
    return Math.hypot(own[0]! - left[0]!, own[1]! - left[1]!, own[2]! - left[2]!) > reach;
  };
}

export interface Coloured {
  /** The swatch of each pixel, 0 where no cube comes. */
  readonly bytes: Uint8Array;
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
}

/** The last histogram of each picture: how many colours are wished leaves it as it is. */
const histograms = new WeakMap<Pixels, { readonly key: string; readonly found: Map<number, number> }>();

export function coloured(
  p: Pixels,
  { colours, only, most, dither, outline, clear, key: keyed, reach }: PictureOptions,
  palette: Palette | null,
  counts: (at: number) => boolean,
): Coloured {
  const key = [clear, keyed, reach].join();
  let known = histograms.get(p);
  if (known?.key !== key) histograms.set(p, (known = { key, found: histogram(p, counts) }));
  const { found } = known;
  if (found.size === 0) throw new IntakeError('picture.nothing');
  if (colours === 'palette' && palette) {
    const wanted = new Set(only === '' ? [] : only.split(',').map(Number));
    const list = palette.swatches.filter((s) => !s.helper && (wanted.size === 0 || wanted.has(s.byte)));
    if (list.length === 0) throw new IntakeError('picture.noSwatch');
    const places = coloursOfPixels(p, labsOf(list.map((s) => s.colour)), dither, counts);
    const used = new Set(places);
    return {
      bytes: places.map((v) => (v === 0 ? 0 : list[v - 1]!.byte)),
      swatches: list.filter((_, i) => used.has(i + 1)),
      ours: true,
      colours: found.size,
    };
  }
  const room = MAX_SWATCHES - (outline ? 1 : 0);
  const exact = p.indexed && indexed(p, counts, room);
  if (exact) return { ...exact, ours: false, colours: found.size };
  const few = fewColours(found, Math.min(most, room));
  return {
    bytes: coloursOfPixels(p, labsOf(few), few.length === found.size ? 'none' : dither, counts),
    swatches: few.map((hex, i) => makeSwatch(i + 1, hex, hex)),
    ours: false,
    colours: found.size,
  };
}

/** The colours of a picture that has a palette of its own, in their order; null when there are too many. */
function indexed(
  { indexed: own }: Pixels,
  counts: (at: number) => boolean,
  room: number,
): Pick<Coloured, 'bytes' | 'swatches'> | null {
  const { bytes, colours } = own!;
  const used = new Set<number>();
  bytes.forEach((v, i) => counts(i) && used.add(v));
  // All that are opaque keep their place; where they are too many, those that nothing shows go.
  const all = Array.from({ length: colours.length / 4 }, (_, i) => i).filter(
    (i) => used.has(i) || colours[i * 4 + 3] !== 0,
  );
  const kept = all.length <= room ? all : all.filter((i) => used.has(i));
  if (kept.length > room) return null;
  const to = new Uint8Array(256);
  const swatches = kept.map((i, n) => {
    to[i] = n + 1;
    const hex = bytesHex(colours[i * 4]!, colours[i * 4 + 1]!, colours[i * 4 + 2]!);
    return makeSwatch(n + 1, hex, hex);
  });
  return { bytes: bytes.map((v, i) => (counts(i) ? to[v]! : 0)), swatches };
}

export const withOutline = (swatches: readonly Swatch[], colour: string): Swatch[] =>
  swatches.some((s) => s.colour === colour)
    ? [...swatches]
    : [...swatches, makeSwatch(Math.max(...swatches.map((s) => s.byte)) + 1, 'outline', colour)];

/** The byte of the outline: of its own swatch, or of the nearest of a palette to which none may be added. */
function outlineByte(swatches: readonly Swatch[], ours: boolean, colour: string): number {
  const same = swatches.find((s) => s.colour === colour);
  if (same) return same.byte;
  if (!ours) return Math.max(...swatches.map((s) => s.byte)) + 1;
  const [l, a, b] = labsOf([colour]) as unknown as [number, number, number];
  return swatches[new Nearest(labsOf(swatches.map((s) => s.colour))).of(l, a, b)]!.byte;
}

export function bodyOf(p: Pixels, { bytes, swatches, ours }: Coloured, options: PictureOptions): VoxelGrid {
  const rim = options.outline ? 1 : 0;
  const [w, h] = [p.width + 2 * rim, p.height + 2 * rim];
  if (Math.max(w, h) > MOST_CUBES) throw new IntakeError('picture.noRoom', { most: MOST_CUBES - 2 });
  const flat = rim ? outlined(p, bytes, outlineByte(swatches, ours, options.outline)) : bytes;
  const raised = raisedBy(p, bytes, options);
  const highest = raised.reduce((a, b) => Math.max(a, b), 0),
    mirrored = options.back === 'mirrored';
  const deep = options.thick + highest * (mirrored ? 2 : 1);
  if (deep > MOST_CUBES) throw new IntakeError('picture.tooThick', { deep });
  const back = mirrored ? highest : 0,
    upright = options.stand === 'upright';
  const bounds: Box = upright
    ? { min: [-(w >> 1), 0, -(deep >> 1)], size: [w, h, deep] }
    : { min: [-(w >> 1), 0, -(h >> 1)], size: [w, deep, h] };
  return VoxelGrid.empty(bounds).edit((d) => {
    for (let y = 0; y < h; y++)
      for (let x = 0; x < w; x++) {
        const value = flat[y * w + x]!;
        if (value === 0) continue;
        const [i, j] = [x - rim, y - rim],
          inside = i >= 0 && j >= 0 && i < p.width && j < p.height;
        const out = inside ? raised[j * p.width + i]! : 0,
          from = back - (mirrored ? out : 0),
          long = options.thick + out * (mirrored ? 2 : 1);
        const [x0, y0, z0] = bounds.min;
        if (upright) d.fillBox({ min: [x0 + x, h - 1 - y, z0 + from], size: [1, 1, long] }, value);
        else d.fillBox({ min: [x0 + x, y0 + from, z0 + y], size: [1, long, 1] }, value);
      }
  });
}

/** With a rim of one colour around everything, a pixel larger each way. */
function outlined({ width, height }: Pixels, bytes: Uint8Array, value: number): Uint8Array {
  const w = width + 2,
    out = new Uint8Array(w * (height + 2));
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      if (bytes[y * width + x] === 0) continue;
      const at = (y + 1) * w + x + 1;
      out[at] = bytes[y * width + x]!;
      for (const next of [at - 1, at + 1, at - w, at + w]) {
        const [i, j] = [(next % w) - 1, Math.floor(next / w) - 1];
        const own = i >= 0 && j >= 0 && i < width && j < height ? bytes[j * width + i]! : 0;
        if (own === 0) out[next] = value;
      }
    }
  return out;
}

/** How many cubes each pixel stands out. */
function raisedBy(p: Pixels, bytes: Uint8Array, { relief, raise }: PictureOptions): Uint8Array {
  const { width, height, rgba } = p,
    out = new Uint8Array(width * height);
  if (relief === 'none' || raise === 0) return out;
  if (relief === 'puffed') {
    // A layer of nothing around, so that the rim of the picture is an outline too.
    const space = spaceOf([width + 2, height + 2, 1]),
      outside = new Uint8Array(space.count).fill(1);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) if (bytes[y * width + x] !== 0) outside[(y + 1) * (width + 2) + x + 1] = 0;
    const away = distancesSquared(outside, space);
    let most = 0;
    for (const v of away) most = Math.max(most, v);
    const far = Math.sqrt(most);
    for (let y = 0; y < height; y++)
      for (let x = 0; x < width; x++) {
        const rest = 1 - Math.sqrt(away[(y + 1) * (width + 2) + x + 1]!) / far;
        if (bytes[y * width + x] !== 0)
          out[y * width + x] = Math.round(raise * Math.sqrt(Math.max(0, 1 - rest * rest)));
      }
    return out;
  }
  const own = new Float64Array(3);
  for (let i = 0; i < out.length; i++) {
    if (bytes[i] === 0) continue;
    labInto(own, 0, rgba[i * 4]!, rgba[i * 4 + 1]!, rgba[i * 4 + 2]!);
    out[i] = Math.round(raise * (relief === 'bright' ? own[0]! : 1 - own[0]!));
  }
  return out;
}
