import type { Pixels } from '../codec';
import type { Steps } from '../math';
import type { Palette } from '../palette';
import type { VoxelGrid } from '../voxel';
import { type Frame, cropped, frameIn, resized } from './framing';
import {
  IntakeError,
  MOST_CUBES,
  type PictureBody,
  type PictureOptions,
  bodyOf,
  coloured,
  opaque,
  sizeOf,
  withOutline,
} from './picture';
import { unscaled } from './pixel-art';

/** Sprites that one sheet may hold. */
const MOST_SPRITES = 1024;

/** Cubes of each sprite of a sheet, in reading order; all of them lie in their frame as they did on the sheet. */
export interface SheetBody extends Omit<PictureBody, 'grid'> {
  readonly sprites: readonly VoxelGrid[];
  readonly across: number;
  readonly down: number;
}

/**
 * A sheet of sprites as cubes, their colours made few together; in pieces.
 *
 * @throws IntakeError when nothing is left of it, or a sprite would not fit
 */
export function* sheetSteps(picture: Pixels, options: PictureOptions, palette: Palette | null): Steps<SheetBody> {
  const { left, right, top, bottom } = options;
  const frame = { x: left, y: top, width: picture.width - left - right, height: picture.height - top - bottom };
  const cut = cropped(picture, frameIn(picture, frame));
  const art = options.blocks === 'found' ? unscaled(cut) : null;
  const whole = art ?? cut;
  yield 0.3;
  const { frames, across, down } = framesOf(whole, options);
  if (frames.length > MOST_SPRITES) throw new IntakeError('sprites.many', { count: frames.length, most: MOST_SPRITES });
  const wide = Math.max(...frames.map((f) => f.width)),
    high = Math.max(...frames.map((f) => f.height));
  // All by one measure: that of the largest.
  const [width] = sizeOf(
    { ...whole, width: wide, height: high },
    options.width,
    art !== null || whole.indexed !== null,
  );
  const small = frames.map((f) => {
    const [w, h] = [f.width, f.height].map((v) => Math.max(1, Math.round((v * width) / wide))) as [number, number];
    return resized(cropped(whole, f), w, Math.min(MOST_CUBES, h));
  });
  yield 0.6;
  // One above the other they get their colours together.
  const stack = stacked(small);
  const seen = coloured(stack, options, palette, opaque(stack, options));
  yield 0.9;
  let row = 0;
  const sprites = small.flatMap((p) => {
    const bytes = new Uint8Array(p.width * p.height);
    for (let y = 0; y < p.height; y++) {
      const from = (row + y) * stack.width;
      bytes.set(seen.bytes.subarray(from, from + p.width), y * p.width);
    }
    row += p.height;
    return bytes.some((v) => v > 0) ? [bodyOf(p, { ...seen, bytes }, options)] : [];
  });
  const { outline } = options;
  return {
    ...{ sprites, across, down, width, height: Math.max(...small.map((p) => p.height)), blocks: art !== null },
    swatches: outline && !seen.ours ? withOutline(seen.swatches, outline) : seen.swatches,
    ...{ ours: seen.ours, colours: seen.colours },
  };
}

interface Sheet {
  readonly frames: readonly Frame[];
  readonly across: number;
  readonly down: number;
}

/** Where sprites are: in a grid as it is told, or else as the clear lines between them say. */
function framesOf(p: Pixels, options: PictureOptions): Sheet {
  const seen = opaque(p, options);
  const found = options.across > 0 && options.down > 0 ? null : bands(p, seen);
  const across = options.across || found!.across,
    down = options.down || found!.down;
  // Most sheets are grids; where the picture does not divide, what stands between clear lines is taken as it is.
  if (found?.whole && (p.width % across !== 0 || p.height % down !== 0) && options.across + options.down === 0)
    return { frames: found.frames, across, down };
  const at = (i: number, of: number, long: number): number => Math.round((i * long) / of);
  const frames = Array.from({ length: across * down }, (_, i): Frame => {
    const [c, r] = [i % across, Math.floor(i / across)],
      [x, y] = [at(c, across, p.width), at(r, down, p.height)];
    return { x, y, width: at(c + 1, across, p.width) - x, height: at(r + 1, down, p.height) - y };
  });
  return { frames: frames.filter((f) => f.width > 0 && f.height > 0), across, down };
}

/** Rows between lines that are clear from side to side, and sprites in them between lines that are clear from top to bottom of the row. */
function bands(p: Pixels, seen: (at: number) => boolean) {
  const rows = runs(p.height, (y) => {
    for (let x = 0; x < p.width; x++) if (seen(y * p.width + x)) return true;
    return false;
  });
  const lines = rows.map(([y, end]) => ({
    y,
    end,
    columns: runs(p.width, (x) => {
      for (let j = y; j < end; j++) if (seen(j * p.width + x)) return true;
      return false;
    }),
  }));
  const across = Math.max(1, ...lines.map((l) => l.columns.length));
  const frames = lines.flatMap(({ y, end, columns }) =>
    columns.map(([x, to]): Frame => ({ x, y, width: to - x, height: end - y })),
  );
  return { frames, across, down: Math.max(1, rows.length), whole: frames.length > 0 };
}

/** From where to before where something is so. */
function runs(length: number, is: (at: number) => boolean): (readonly [number, number])[] {
  const out: (readonly [number, number])[] = [];
  for (let at = 0; at < length; at++) {
    if (!is(at)) continue;
    const from = at;
    while (at < length && is(at)) at++;
    out.push([from, at]);
  }
  return out;
}

function stacked(list: readonly Pixels[]): Pixels {
  const width = Math.max(...list.map((p) => p.width)),
    height = list.reduce((n, p) => n + p.height, 0);
  const rgba = new Uint8Array(width * height * 4),
    own = list[0]!.indexed,
    bytes = own && list.every((p) => p.indexed) ? new Uint8Array(width * height) : null;
  let row = 0;
  for (const p of list) {
    for (let y = 0; y < p.height; y++, row++) {
      rgba.set(p.rgba.subarray(y * p.width * 4, (y + 1) * p.width * 4), row * width * 4);
      bytes?.set(p.indexed!.bytes.subarray(y * p.width, (y + 1) * p.width), row * width);
    }
  }
  return { width, height, rgba, indexed: bytes && { bytes, colours: own!.colours } };
}
