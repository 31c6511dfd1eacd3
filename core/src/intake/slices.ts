import * as z from 'zod';
import type { Pixels } from '../codec';
import { type Axis, type Box, type Steps } from '../math';
import { MAX_SWATCHES, type Palette, type Swatch, bytesHex, makeSwatch } from '../palette';
import { VoxelGrid } from '../voxel';
import { IntakeError, MOST_CUBES } from './picture';
import { Nearest, fewColours, labInto, labsOf } from './reduce';

const about = (title: string, description: string) => ({ title, description });

/** The way from slice to slice, and the axes that go right and up in each picture. */
export const SLICE_WAYS = {
  // A floor plan as one looks down on it: the front, which is +Z, at its foot.
  'bottom up': [1, 0, 2],
  'back to front': [2, 0, 1],
  'left to right': [0, 2, 1],
} as const satisfies Readonly<Record<string, readonly [Axis, Axis, Axis]>>;
export type SliceWay = keyof typeof SLICE_WAYS;
const WAYS = Object.keys(SLICE_WAYS) as [SliceWay, ...SliceWay[]];

/** How slices become a part. */
export const sliceOptions = z.strictObject({
  order: z
    .enum(['told', ...WAYS])
    .default('told')
    .meta(about('Order', 'the way from slice to slice; as the text beside them tells, or bottom up')),
  backwards: z.boolean().default(false).meta(about('Backwards', 'the last slice is the first')),
  wide: z
    .int()
    .min(0)
    .max(4096)
    .default(0)
    .meta(about('Width of a tile', 'pixels, where one picture holds all slices; 0 to find it out')),
  high: z.int().min(0).max(4096).default(0).meta(about('Height of a tile', 'likewise')),
  count: z.int().min(0).max(MOST_CUBES).default(0).meta(about('Tiles', 'how many of them; 0 for all')),
  zero: z
    .enum(['empty', 'cube'])
    .default('empty')
    .meta(about('Index 0', 'of pictures with a palette: no cube, or one like any other')),
  colours: z.enum(['own', 'palette']).default('own').meta(about('Colours', 'its own, or the nearest of the palette')),
});
export type SliceOptions = z.infer<typeof sliceOptions>;

export interface SlicesBody {
  readonly grid: VoxelGrid;
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
  readonly slices: number;
  readonly tile: readonly [number, number];
}

/** A slice: a rectangle of a picture. */
interface Slice {
  readonly of: Pixels;
  readonly left: number;
  readonly top: number;
}

/**
 * Pictures of slices as a part, a cube a pixel: several of one size, or one with all of them as tiles, row by row from the top.
 *
 * @param told – the way that a text beside them tells
 * @throws IntakeError when sizes do not fit each other, or a part would be larger than one can be
 */
export function* slicesSteps(
  pictures: readonly Pixels[],
  options: SliceOptions,
  told: SliceWay | null,
  palette: Palette | null,
): Steps<SlicesBody> {
  const [wide, high] = tileOf(pictures, options);
  const slices = slicesOf(pictures, wide, high, options);
  if (Math.max(wide, high, slices.length) > MOST_CUBES)
    throw new IntakeError('slices.tooLarge', { wide, high, count: slices.length });
  const dyed = dyeOf(pictures, options, palette);
  yield 0.3;
  const way = options.order === 'told' ? (told ?? 'bottom up') : options.order;
  const [along, right, up] = SLICE_WAYS[way];
  const size: [number, number, number] = [0, 0, 0];
  [size[along], size[right], size[up]] = [slices.length, wide, high];
  const strides = [1, size[0], size[0] * size[1]];
  const cells = new Uint8Array(size[0] * size[1] * size[2]);
  for (const [k, { of, left, top }] of slices.entries()) {
    const value = dyed.bytesOf(of);
    const place = options.backwards ? slices.length - 1 - k : k;
    for (let j = 0; j < high; j++)
      for (let i = 0; i < wide; i++) {
        const h = way === 'bottom up' ? j : high - 1 - j;
        cells[place * strides[along]! + i * strides[right]! + h * strides[up]!] = value(
          (top + j) * of.width + left + i,
        );
      }
    if (k % 16 === 15) yield 0.3 + (0.7 * k) / slices.length;
  }
  const bounds: Box = { min: [-(size[0] >> 1), 0, -(size[2] >> 1)], size };
  const grid = VoxelGrid.fromDense(bounds, cells);
  if (grid.count === 0) throw new IntakeError('slices.nothing');
  return {
    grid,
    swatches: dyed.swatches,
    ours: dyed.ours,
    colours: dyed.colours,
    slices: slices.length,
    tile: [wide, high],
  };
}

function tileOf(pictures: readonly Pixels[], { wide, high }: SliceOptions): readonly [number, number] {
  const { width, height } = pictures[0]!;
  for (const p of pictures)
    if (p.width !== width || p.height !== height)
      throw new IntakeError('slices.sizes', { one: `${width} × ${height}`, other: `${p.width} × ${p.height}` });
  if (pictures.length > 1) return [width, height];
  // A strip is made of squares.
  const square = width % height === 0 ? height : height % width === 0 ? width : 0;
  return [wide || square || width, high || (wide > 0 && height % wide === 0 ? wide : square) || height];
}

function slicesOf(pictures: readonly Pixels[], wide: number, high: number, { count }: SliceOptions): Slice[] {
  if (pictures.length > 1) return pictures.map((of) => ({ of, left: 0, top: 0 }));
  const of = pictures[0]!,
    columns = Math.floor(of.width / wide),
    rows = Math.floor(of.height / high);
  if (columns * wide !== of.width || rows * high !== of.height || columns * rows === 0)
    throw new IntakeError('slices.tiles', { wide, high, picture: `${of.width} × ${of.height}` });
  const all = columns * rows;
  return Array.from({ length: count > 0 ? Math.min(count, all) : all }, (_, k) => ({
    of,
    left: (k % columns) * wide,
    top: Math.floor(k / columns) * high,
  }));
}

interface Dye {
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
  /** Of a picture, the byte of a pixel. */
  bytesOf(of: Pixels): (pixel: number) => number;
}

function dyeOf(pictures: readonly Pixels[], { zero, colours }: SliceOptions, palette: Palette | null): Dye {
  const first = pictures[0]!.indexed;
  const matched = colours === 'palette' && palette !== null && palette.swatches.length > 0 ? palette : null;
  const alike = first && pictures.every((p) => p.indexed && sameBytes(p.indexed.colours, first.colours));
  if (alike && zero === 'empty' && !matched) return byIndex(pictures, first.colours);
  const counts = (of: Pixels, i: number): boolean =>
    of.rgba[i * 4 + 3]! >= 128 && !(zero === 'empty' && of.indexed?.bytes[i] === 0);
  const key = ({ rgba }: Pixels, i: number): number =>
    (rgba[i * 4]! << 16) | (rgba[i * 4 + 1]! << 8) | rgba[i * 4 + 2]!;
  const found = new Map<number, number>();
  for (const p of pictures)
    for (let i = 0; i < p.width * p.height; i++)
      if (counts(p, i)) found.set(key(p, i), (found.get(key(p, i)) ?? 0) + 1);
  const list = matched ? matched.swatches.map((s) => s.colour) : fewColours(found, MAX_SWATCHES);
  const nearest = new Nearest(labsOf(list)),
    own = new Float64Array(3),
    bytes = new Map<number, number>();
  for (const k of found.keys()) {
    labInto(own, 0, k >> 16, (k >> 8) & 255, k & 255);
    const n = nearest.of(own[0]!, own[1]!, own[2]!);
    bytes.set(k, matched ? matched.swatches[n]!.byte : n + 1);
  }
  return {
    swatches: matched ? matched.swatches : list.map((c, i) => makeSwatch(i + 1, c, c)),
    ours: matched !== null,
    colours: found.size,
    bytesOf: (of) => (i) => (counts(of, i) ? bytes.get(key(of, i))! : 0),
  };
}

const sameBytes = (a: Uint8Array, b: Uint8Array): boolean => a.length === b.length && a.every((v, i) => v === b[i]);

/** Indices as they are. */
function byIndex(pictures: readonly Pixels[], colours: Uint8Array): Dye {
  const used = new Set<number>();
  for (const p of pictures) for (const b of p.indexed!.bytes) if (b !== 0 && colours[b * 4 + 3] !== 0) used.add(b);
  const swatches = [...used]
    .sort((a, b) => a - b)
    .map((b) => {
      const hex = bytesHex(colours[b * 4]!, colours[b * 4 + 1]!, colours[b * 4 + 2]!);
      return makeSwatch(b, hex, hex);
    });
  return {
    ...{ swatches, ours: false, colours: used.size },
    bytesOf: (of) => (i) => (used.has(of.indexed!.bytes[i]!) ? of.indexed!.bytes[i]! : 0),
  };
}
