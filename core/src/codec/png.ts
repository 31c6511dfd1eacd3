import { decode } from 'fast-png';
import { Inflate } from 'fflate';
import { CodecError } from './codec-error';
import { readProfile, toSrgb } from './colour-profile';
import { MOST_PIXELS, type Pixels } from './pixels';

export const isPng = (head: Uint8Array): boolean =>
  head[0] === 0x89 && head[1] === 0x50 && head[2] === 0x4e && head[3] === 0x47;

/** Bytes that packed ones may become at most, by the format. */
const RATIO = 1032;

/**
 * A PNG picture of any kind of colour and depth.
 *
 * @throws CodecError when it is none, larger than can be worked with, damaged, or packs more than it says
 */
export function decodePng(bytes: Uint8Array): Pixels {
  if (bytes.length < 33 || !isPng(bytes)) throw new CodecError('codec.notPng');
  // The size stands at a fixed place; it is read first, so that a lying header cannot make us allocate.
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  const [width, height, depth] = [view.getUint32(16), view.getUint32(20), bytes[24]!];
  if (width === 0 || height === 0) throw new CodecError('codec.damaged');
  if (width * height > MOST_PIXELS) throw new CodecError('codec.tooLarge', { width, height });
  const channels = [1, 0, 3, 1, 2, 0, 4][bytes[25]!] ?? 0;
  const expected = Math.ceil((width * channels * depth) / 8 + 8) * height * 2 + 2 ** 20;
  if (bytes.length * RATIO > 2 ** 26) bounded(bytes, view, expected);
  let image;
  try {
    image = decode(bytes);
  } catch {
    throw new CodecError('codec.damaged');
  }
  const values = unpacked(image.data, width * image.channels, height, image.depth);
  if (values.length < width * height * image.channels) throw new CodecError('codec.damaged');
  const made = image.palette
    ? byPalette(values, image.palette, width, height)
    : { width, height, rgba: plain(values, image, width * height), indexed: null };
  const profile = image.iccEmbeddedProfile && readProfile(image.iccEmbeddedProfile.profile);
  if (profile) {
    toSrgb(made.rgba, profile);
    if (made.indexed) toSrgb(made.indexed.colours, profile);
  }
  return made;
}

/** @throws CodecError when the packed pixels become more than they can be */
function bounded(bytes: Uint8Array, view: DataView, most: number): void {
  let total = 0;
  const inflate = new Inflate((part) => {
    total += part.length;
    if (total > most) throw new CodecError('codec.bomb');
  });
  for (let at = 8; at + 12 <= bytes.length;) {
    const length = view.getUint32(at);
    if (view.getUint32(at + 4) === 0x49444154) {
      // Piece by piece, so that it is noticed early.
      for (let k = 0; k < length; k += 16384)
        try {
          const from = at + 8 + k + (total === 0 && k === 0 ? 2 : 0);
          inflate.push(bytes.subarray(from, Math.min(at + 8 + length, at + 8 + k + 16384)));
        } catch (e) {
          if (e instanceof CodecError) throw e;
          throw new CodecError('codec.damaged');
        }
    }
    at += 12 + length;
  }
}

/** One value an element, however many fit a byte; those of 16 bits as their upper 8. */
function unpacked(data: ArrayLike<number>, perRow: number, rows: number, depth: number): Uint8Array {
  if (depth === 8) return data as Uint8Array;
  const out = new Uint8Array(perRow * rows);
  if (depth === 16) {
    for (let i = 0; i < out.length; i++) out[i] = data[i]! >> 8;
    return out;
  }
  const stride = Math.ceil((perRow * depth) / 8),
    mask = 2 ** depth - 1;
  for (let y = 0; y < rows; y++)
    for (let x = 0; x < perRow; x++) {
      const bit = x * depth;
      out[y * perRow + x] = (data[y * stride + (bit >> 3)]! >> (8 - depth - (bit & 7))) & mask;
    }
  return out;
}

function byPalette(bytes: Uint8Array, palette: readonly number[][], width: number, height: number): Pixels {
  const colours = new Uint8Array(palette.length * 4);
  palette.forEach(([r, g, b, a = 255], i) => colours.set([r!, g!, b!, a], i * 4));
  const whole = new Uint32Array(colours.slice().buffer),
    rgba = new Uint32Array(width * height);
  for (let i = 0; i < rgba.length; i++) {
    if (bytes[i]! >= palette.length) throw new CodecError('codec.damaged');
    rgba[i] = whole[bytes[i]!]!;
  }
  return { width, height, rgba: new Uint8Array(rgba.buffer), indexed: { bytes, colours } };
}

function plain(
  values: Uint8Array,
  { channels, depth, transparency, data }: ReturnType<typeof decode>,
  count: number,
): Uint8Array {
  const out = new Uint8Array(count * 4),
    grey = channels <= 2,
    // Greys of few bits go up to white too.
    scale = depth < 8 ? 255 / (2 ** depth - 1) : 1;
  const clear = transparency && channels % 2 === 1 ? transparency : null;
  for (let i = 0; i < count; i++) {
    const at = i * channels;
    const r = values[at]! * scale;
    out[i * 4] = r;
    out[i * 4 + 1] = grey ? r : values[at + 1]!;
    out[i * 4 + 2] = grey ? r : values[at + 2]!;
    out[i * 4 + 3] = channels % 2 === 0 ? values[at + channels - 1]! : 255;
    if (clear) {
      const own = depth < 8 ? values : data;
      let same = true;
      for (let k = 0; k < channels; k++) same &&= own[at + k] === clear[k];
      if (same) out[i * 4 + 3] = 0;
    }
  }
  return out;
}
