import { encode as encodePng } from 'fast-png';
import { encode as encodeJpeg } from 'jpeg-js';
import { expect, it } from 'vitest';
import { seededRandom } from '../math';
import { CodecError, type Pixels, decodeJpeg, decodePng } from '.';

/** Bytes of a file with some of them changed, cut off, or put where they do not belong. */
function spoilt(bytes: Uint8Array, random: () => number): Uint8Array {
  const at = (n: number): number => Math.floor(random() * n);
  const out = bytes.slice();
  for (let n = 1 + at(6); n > 0; n--) out[at(out.length)] = at(256);
  if (random() < 0.2) return out.subarray(0, at(out.length));
  if (random() < 0.2) out.copyWithin(at(out.length), at(out.length), at(out.length));
  return out;
}

const [width, height] = [24, 17];
const random = seededRandom(99);
const rgba = Uint8Array.from({ length: width * height * 4 }, () => Math.floor(random() * 256));
const PNG = encodePng({ width, height, data: rgba, channels: 4, depth: 8 });
const INDEXED = encodePng({
  width,
  height,
  data: rgba.subarray(0, width * height).map((v) => v & 3),
  channels: 1,
  depth: 8,
  palette: [
    [0, 0, 0, 0],
    [9, 9, 9, 255],
    [80, 90, 9, 255],
    [9, 200, 90, 255],
  ],
});
const JPEG = new Uint8Array(encodeJpeg({ width, height, data: rgba }, 80).data);

it.each([
  ['PNG', PNG, decodePng],
  ['indexed PNG', INDEXED, decodePng],
  ['JPEG', JPEG, decodeJpeg],
] as const)('a spoilt %s is a picture as large as it says, or is refused with a sentence', (_, bytes, decode) => {
  let read = 0,
    refused = 0;
  for (let n = 0; n < 700; n++) {
    let p: Pixels;
    try {
      p = decode(spoilt(bytes, random));
    } catch (e) {
      expect(e).toBeInstanceOf(CodecError);
      refused++;
      continue;
    }
    read++;
    expect(p.rgba.length).toBe(p.width * p.height * 4);
    if (p.indexed) expect(Math.max(...p.indexed.bytes) * 4).toBeLessThan(p.indexed.colours.length);
  }
  expect(read + refused).toBe(700);
  expect(refused).toBeGreaterThan(50);
});
