import { CodecError } from './codec-error';

/** Linear light, three a pixel, row by row from the top. */
export interface LightPicture {
  readonly width: number;
  readonly height: number;
  readonly light: Float32Array<ArrayBuffer>;
}

/** Pixels that a picture of light may have: 8,192 × 4,096. */
const MOST_PIXELS = 1 << 25;
/** Rows of fewer or more pixels are not packed. */
const LEAST_ROW = 8,
  MOST_ROW = 0x7fff;
const HEAD = /^#\?(?:RADIANCE|RGBE)\n(?:[^\n]*\n)*?\n-Y (\d+) \+X (\d+)\n/;

/** Whether bytes begin like a Radiance picture. */
export const isRadiance = (data: Uint8Array): boolean =>
  /^#\?(RADIANCE|RGBE)/.test(String.fromCharCode(...data.subarray(0, 10)));

/**
 * A Radiance picture (.hdr): a byte for each colour and a common exponent (Ward 1991), rows packed or not.
 *
 * @throws CodecError when it is none, is cut short, or is too large
 */
export function decodeRadiance(data: Uint8Array): LightPicture {
  const text = String.fromCharCode(...data.subarray(0, 4096)).replace(/\r/g, '');
  const head = HEAD.exec(text);
  if (!head || /FORMAT=32-bit_rle_xyze/.test(head[0])) throw new CodecError('codec.notRadiance');
  const height = Number(head[1]),
    width = Number(head[2]);
  if (width * height === 0 || width * height > MOST_PIXELS)
    throw new CodecError('codec.tooLarge', { width: String(width), height: String(height) });
  const light = new Float32Array(width * height * 3),
    row = new Uint8Array(width * 4);
  let at = head[0].length;
  for (let y = 0; y < height; y++) {
    at = readRow(data, at, row, width);
    for (let x = 0; x < width; x++) {
      const e = row[width * 3 + x]!;
      const k = e === 0 ? 0 : 2 ** (e - 136);
      for (let c = 0; c < 3; c++) light[(y * width + x) * 3 + c] = row[width * c + x]! * k;
    }
  }
  return { width, height, light };
}

/** One row, by planes of red, green, blue and exponent; gives where the next begins. */
function readRow(data: Uint8Array, at: number, row: Uint8Array, width: number): number {
  const packed =
    width >= LEAST_ROW &&
    width <= MOST_ROW &&
    data[at] === 2 &&
    data[at + 1] === 2 &&
    data[at + 2]! * 256 + data[at + 3]! === width;
  if (!packed) {
    if (at + width * 4 > data.length) throw new CodecError('codec.damaged');
    for (let x = 0; x < width; x++) for (let c = 0; c < 4; c++) row[width * c + x] = data[at++]!;
    return at;
  }
  at += 4;
  for (let c = 0; c < 4; c++)
    for (let x = 0; x < width;) {
      const run = data[at++];
      const count = run === undefined ? 0 : run > 128 ? run - 128 : run;
      if (count === 0 || x + count > width || at + (run! > 128 ? 1 : count) > data.length)
        throw new CodecError('codec.damaged');
      if (run! > 128) row.fill(data[at++]!, width * c + x, width * c + x + count);
      else {
        row.set(data.subarray(at, at + count), width * c + x);
        at += count;
      }
      x += count;
    }
  return at;
}

/** The same as bytes, rows not packed. Each pixel keeps eight bits of its brightest colour. */
export function encodeRadiance({ width, height, light }: LightPicture): Uint8Array<ArrayBuffer> {
  const text = `#?RADIANCE\nFORMAT=32-bit_rle_rgbe\n\n-Y ${height} +X ${width}\n`,
    head = Uint8Array.from(text, (c) => c.charCodeAt(0));
  const out = new Uint8Array(head.length + width * height * 4);
  out.set(head);
  for (let i = 0, o = head.length; i < width * height; i++, o += 4) {
    const most = Math.max(light[i * 3]!, light[i * 3 + 1]!, light[i * 3 + 2]!);
    if (!(most > 1e-32)) continue;
    const e = Math.max(-128, Math.min(127, Math.floor(Math.log2(most)) + 1));
    const k = 256 / 2 ** e;
    for (let c = 0; c < 3; c++) out[o + c] = Math.min(255, Math.floor(light[i * 3 + c]! * k));
    out[o + 3] = e + 128;
  }
  return out;
}

/** A smaller picture with as much light: each pixel the mean of what it stands for. */
export function shrunkLight({ width, height, light }: LightPicture, wide: number, high: number): LightPicture {
  if (wide >= width && high >= height) return { width, height, light };
  const out = new Float32Array(wide * high * 3);
  for (let y = 0; y < high; y++) {
    const y0 = Math.floor((y * height) / high),
      y1 = Math.max(y0 + 1, Math.floor(((y + 1) * height) / high));
    for (let x = 0; x < wide; x++) {
      const x0 = Math.floor((x * width) / wide),
        x1 = Math.max(x0 + 1, Math.floor(((x + 1) * width) / wide));
      const share = 1 / ((y1 - y0) * (x1 - x0));
      for (let j = y0; j < y1; j++)
        for (let i = x0; i < x1; i++)
          for (let c = 0; c < 3; c++) out[(y * wide + x) * 3 + c]! += light[(j * width + i) * 3 + c]! * share;
    }
  }
  return { width: wide, height: high, light: out };
}
