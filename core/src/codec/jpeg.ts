import { decode } from 'jpeg-js';
import { CodecError } from './codec-error';
import { readProfile, toSrgb } from './colour-profile';
import { MOST_PIXELS, type Pixels, oriented } from './pixels';

export const isJpeg = (head: Uint8Array): boolean => head[0] === 0xff && head[1] === 0xd8 && head[2] === 0xff;

/**
 * A JPEG picture, turned as its EXIF says and with its colour profile honoured.
 *
 * @throws CodecError when it is none, larger than can be worked with, or damaged
 */
export function decodeJpeg(bytes: Uint8Array): Pixels {
  if (!isJpeg(bytes)) throw new CodecError('codec.notJpeg');
  const { width, height, orientation, profile } = headOf(bytes);
  if (width * height > MOST_PIXELS) throw new CodecError('codec.tooLarge', { width, height });
  let image;
  try {
    image = decode(bytes, {
      useTArray: true,
      formatAsRGBA: true,
      tolerantDecoding: true,
      maxResolutionInMP: MOST_PIXELS / 1e6 + 1,
      maxMemoryUsageInMB: 1200,
    });
  } catch {
    throw new CodecError('codec.damaged');
  }
  const rgba = image.data;
  const colours = profile && readProfile(profile);
  if (colours) toSrgb(rgba, colours);
  return oriented({ width: image.width, height: image.height, rgba, indexed: null }, orientation);
}

interface Head {
  readonly width: number;
  readonly height: number;
  readonly orientation: number;
  readonly profile: Uint8Array | null;
}

/** What stands in the segments before the pixels. */
function headOf(bytes: Uint8Array): Head {
  const view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  let [width, height, orientation] = [0, 0, 1];
  const profile: Uint8Array[] = [];
  for (let at = 2; at + 4 <= bytes.length && bytes[at] === 0xff;) {
    const marker = bytes[at + 1]!,
      length = view.getUint16(at + 2),
      body = bytes.subarray(at + 4, at + 2 + length);
    // Frames of all kinds, which are C0 to CF without three that say something else.
    if (marker >= 0xc0 && marker <= 0xcf && ![0xc4, 0xc8, 0xcc].includes(marker) && at + 9 <= bytes.length)
      [height, width] = [view.getUint16(at + 5), view.getUint16(at + 7)];
    const begins = (word: string): boolean => [...word].every((c, i) => body[i] === c.charCodeAt(0));
    if (marker === 0xe1 && begins('Exif\0\0')) orientation = orientationIn(body.subarray(6));
    // In numbered pieces, which stand in order.
    if (marker === 0xe2 && begins('ICC_PROFILE\0')) profile.push(body.subarray(14));
    if (marker === 0xda || length < 2) break;
    at += 2 + length;
  }
  if (profile.length === 0) return { width, height, orientation, profile: null };
  const whole = new Uint8Array(profile.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of profile) {
    whole.set(p, at);
    at += p.length;
  }
  return { width, height, orientation, profile: whole };
}

/** The orientation in EXIF's own little TIFF; 1 where it says none or cannot be read. */
function orientationIn(tiff: Uint8Array): number {
  try {
    const view = new DataView(tiff.buffer, tiff.byteOffset, tiff.byteLength),
      little = view.getUint16(0) === 0x4949;
    const first = view.getUint32(4, little);
    for (let i = 0; i < view.getUint16(first, little); i++) {
      const entry = first + 2 + i * 12;
      if (view.getUint16(entry, little) === 0x0112) return view.getUint16(entry + 8, little);
    }
  } catch {
    // It ends too early.
  }
  return 1;
}
