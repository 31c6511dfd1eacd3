import { Deflate, constants } from 'pako';

/** Colour with see-through, four values a pixel. */
const RGBA = 6;
const VALUES = 4;
/** The largest prime below 65,536 (RFC 1950). */
const BASE = 65_521;
/** What stands before packed rows: packed by deflate, as well as is usual (RFC 1950). */
const ZLIB_HEAD = [0x78, 0x9c];

const CRC = Uint32Array.from({ length: 256 }, (_, n) => {
  for (let k = 0; k < 8; k++) n = n & 1 ? 0xedb88320 ^ (n >>> 1) : n >>> 1;
  return n;
});
function crc32(bytes: Uint8Array): number {
  let c = ~0;
  for (const b of bytes) c = CRC[(c ^ b) & 255]! ^ (c >>> 8);
  return ~c >>> 0;
}
function adler32(bytes: Uint8Array): number {
  let a = 1,
    b = 0;
  for (let at = 0; at < bytes.length;) {
    // So many fit before a sum has to be taken down.
    for (const end = Math.min(bytes.length, at + 3800); at < end; at++) b += a += bytes[at]!;
    a %= BASE;
    b %= BASE;
  }
  return b * 65_536 + a;
}

function chunk(kind: string, ...bodies: ArrayLike<number>[]): Uint8Array<ArrayBuffer> {
  const length = bodies.reduce((n, b) => n + b.length, 0),
    out = new Uint8Array(length + 12),
    view = new DataView(out.buffer);
  view.setUint32(0, length);
  for (let i = 0; i < 4; i++) out[4 + i] = kind.charCodeAt(i);
  let at = 8;
  for (const b of bodies) {
    out.set(b, at);
    at += b.length;
  }
  view.setUint32(at, crc32(out.subarray(4, at)));
  return out;
}

/** A strip of a PNG, and what its end has to know of it. */
export interface PngStrip {
  readonly bytes: Uint8Array<ArrayBuffer>;
  /** Sum over what was packed (Adler-32), and its bytes. */
  readonly sum: number;
  readonly length: number;
}

/** What a PNG of red, green, blue and alpha begins with. @param depth – bits a value */
export function pngHead(width: number, height: number, depth: 8 | 16): Uint8Array<ArrayBuffer> {
  const size = new Uint8Array(13),
    view = new DataView(size.buffer);
  view.setUint32(0, width);
  view.setUint32(4, height);
  size.set([depth, RGBA], 8);
  const head = chunk('IHDR', size);
  return Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, ...head]);
}

/**
 * Some rows of a PNG. Each strip is packed for itself, so that a picture that is larger than memory is written one after another,
 * or by several workers at once (as Adler's pigz does). By pako: what fflate 0.8 flushes does not always end at a byte.
 *
 * @param pixels – whole rows; bytes, or 16 bits a value
 * @param place – whether the picture begins or ends with it
 */
export function pngStrip(
  pixels: Uint8Array | Uint16Array,
  width: number,
  place: { readonly first: boolean; readonly last: boolean },
): PngStrip {
  const rows = filtered(pixels instanceof Uint16Array ? bigEndian(pixels) : pixels, pixels, width);
  const packed: Uint8Array[] = [];
  const deflate = new Deflate({ raw: true });
  deflate.onData = (part) => void packed.push(part as Uint8Array);
  deflate.push(rows, place.last ? constants.Z_FINISH : constants.Z_SYNC_FLUSH);
  return {
    bytes: chunk('IDAT', place.first ? ZLIB_HEAD : [], ...packed),
    sum: adler32(rows),
    length: rows.length,
  };
}

/** What a PNG of these strips ends with. */
export function pngEnd(strips: readonly Pick<PngStrip, 'sum' | 'length'>[]): Uint8Array<ArrayBuffer> {
  // Sums of pieces are put together as zlib's adler32_combine does.
  let a = 1,
    b = 0;
  for (const { sum, length } of strips) {
    b = (b + Math.floor(sum / 65_536) + (length % BASE) * (a + BASE - 1)) % BASE;
    a = (a + (sum % 65_536) + BASE - 1) % BASE;
  }
  const sum = new Uint8Array(4);
  new DataView(sum.buffer).setUint32(0, b * 65_536 + a);
  return Uint8Array.from([...chunk('IDAT', sum), ...chunk('IEND')]);
}

function bigEndian(values: Uint16Array): Uint8Array {
  const out = new Uint8Array(values.length * 2);
  for (let i = 0; i < values.length; i++) {
    out[i * 2] = values[i]! >> 8;
    out[i * 2 + 1] = values[i]! & 255;
  }
  return out;
}

/** What a value is told by: nothing, the one to its left, the one above, or whichever of three is nearest (PNG, 9.2). */
const FILTERS = [0, 1, 2, 4] as const;

function paeth(a: number, b: number, c: number): number {
  const p = a + b - c,
    pa = Math.abs(p - a),
    pb = Math.abs(p - b),
    pc = Math.abs(p - c);
  return pa <= pb && pa <= pc ? a : pb <= pc ? b : c;
}

/** Rows as differences, each by the filter that leaves least; the first of a strip knows no row above. */
function filtered(bytes: Uint8Array, { BYTES_PER_ELEMENT: each }: Uint8Array | Uint16Array, width: number): Uint8Array {
  const pixel = VALUES * each,
    row = width * pixel,
    rows = bytes.length / row;
  const out = new Uint8Array(rows * (row + 1)),
    tried = new Uint8Array(row);
  for (let y = 0; y < rows; y++) {
    const at = y * row;
    let least = Infinity;
    for (const filter of y === 0 ? FILTERS.slice(0, 2) : FILTERS) {
      let sum = 0;
      for (let i = 0; i < row; i++) {
        const left = i < pixel ? 0 : bytes[at + i - pixel]!,
          up = filter < 2 ? 0 : bytes[at + i - row]!,
          corner = filter < 4 || i < pixel ? 0 : bytes[at + i - row - pixel]!;
        const told = filter === 0 ? 0 : filter === 1 ? left : filter === 2 ? up : paeth(left, up, corner);
        const v = (bytes[at + i]! - told) & 255;
        tried[i] = v;
        sum += v < 128 ? v : 256 - v;
      }
      if (sum >= least) continue;
      least = sum;
      out[y * (row + 1)] = filter;
      out.set(tried, y * (row + 1) + 1);
    }
  }
  return out;
}
