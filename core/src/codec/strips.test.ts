import { inflateSync } from 'node:zlib';
import { decode } from 'fast-png';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../math';
import { encodeExr, exrHead, exrRows, pngEnd, pngHead, pngStrip } from '.';

const joined = (parts: readonly Uint8Array[]): Uint8Array => Uint8Array.from(parts.flatMap((p) => [...p]));

/** What is packed in a PNG, all chunks together. */
function packed(png: Uint8Array): Uint8Array {
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength),
    parts: Uint8Array[] = [];
  for (let at = 8; at < png.length; at += 12 + view.getUint32(at))
    if (view.getUint32(at + 4) === 0x49444154) parts.push(png.subarray(at + 8, at + 8 + view.getUint32(at)));
  return joined(parts);
}

describe('pictures in strips', () => {
  it.each([
    [8, [7]],
    [8, [1, 1, 5]],
    [16, [3, 4]],
    [16, [2, 2, 2, 1]],
  ] as const)('a PNG of %i bits and strips of %j rows is what it was, its sums as zlib has them', (depth, heights) => {
    const [width, height] = [300, 7],
      most = depth === 8 ? 255 : 65_535,
      random = seededRandom(depth + heights.length);
    // Slopes, rows that come again, and noise, so that every filter is of use.
    const value = (i: number): number =>
      i % 4 === 3 ? most : i % 3000 < 1200 ? (i * 37) % (most + 1) : Math.floor(random() * (most + 1));
    const plain = Array.from({ length: width * height * 4 }, (_, i) => value(i));
    const pixels = depth === 8 ? Uint8Array.from(plain) : Uint16Array.from(plain);
    let top = 0;
    const strips = heights.map((rows, i) => {
      const part = pixels.subarray(top * width * 4, (top += rows) * width * 4);
      return pngStrip(part, width, { first: i === 0, last: i === heights.length - 1 });
    });
    const file = joined([pngHead(width, height, depth), ...strips.map((s) => s.bytes), pngEnd(strips)]);
    expect(inflateSync(packed(file)).length).toBe(height * (1 + (width * depth) / 2));
    const back = decode(file, { checkCrc: true });
    expect([back.width, back.height, back.depth, back.channels]).toEqual([width, height, depth, 4]);
    expect([...back.data]).toEqual(plain);
  });
  it('an EXR in strips is the very file that it is whole', () => {
    const rgba = Float32Array.from({ length: 5 * 6 * 4 }, (_, i) => i / 7);
    const strips = [exrHead(5, 6), exrRows(5, rgba.subarray(0, 40), 0), exrRows(5, rgba.subarray(40), 2)];
    expect(joined(strips)).toEqual(encodeExr(5, 6, rgba));
  });
});
