import { encode as encodeJpeg } from 'jpeg-js';
import { zlibSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../math';
import { fromLinear, toLinear } from '../palette';
import { CodecError, type Pixels, decodeJpeg, decodePng, oriented, readProfile, toSrgb } from '.';

const text = (s: string): Uint8Array => Uint8Array.from(s, (c) => c.charCodeAt(0));
const joined = (...parts: Uint8Array[]): Uint8Array<ArrayBuffer> => {
  const out = new Uint8Array(parts.reduce((n, p) => n + p.length, 0));
  let at = 0;
  for (const p of parts) {
    out.set(p, at);
    at += p.length;
  }
  return out;
};
const be32 = (v: number): Uint8Array => Uint8Array.of(v >>> 24, (v >> 16) & 255, (v >> 8) & 255, v & 255);
function crc(bytes: Uint8Array): number {
  let c = 0xffffffff;
  for (const b of bytes) {
    c ^= b;
    for (let k = 0; k < 8; k++) c = c & 1 ? (c >>> 1) ^ 0xedb88320 : c >>> 1;
  }
  return (c ^ 0xffffffff) >>> 0;
}
const chunk = (name: string, body: Uint8Array): Uint8Array => {
  const named = joined(text(name), body);
  return joined(be32(body.length), named, be32(crc(named)));
};
/** A PNG as the standard has it, each row without a filter. @param rows – packed bytes of each */
const png = (
  [width, height]: readonly [number, number],
  depth: number,
  kind: number,
  rows: Uint8Array,
  more: readonly Uint8Array[] = [],
): Uint8Array<ArrayBuffer> =>
  joined(
    Uint8Array.of(0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a),
    chunk('IHDR', joined(be32(width), be32(height), Uint8Array.of(depth, kind, 0, 0, 0))),
    ...more,
    chunk('IDAT', zlibSync(rows)),
    chunk('IEND', new Uint8Array()),
  );
const pixel = ({ width, rgba }: Pixels, x: number, y: number): number[] => [
  ...rgba.subarray((y * width + x) * 4, (y * width + x) * 4 + 4),
];

describe('PNG', () => {
  it('is read in every kind of colour and depth', () => {
    // Greys of 1, 2, 4, 8 and 16 bits: black, the brightest, the one after black.
    for (const [depth, row] of [
      [1, [0b01000000]],
      [2, [0b00110100]],
      [4, [0x0f, 0x10]],
      [8, [0, 255, 1]],
      [16, [0, 0, 255, 255, 1, 0]],
    ] as const) {
      const p = decodePng(png([3, 1], depth, 0, Uint8Array.of(0, ...row)));
      expect([p.width, p.height, p.indexed]).toEqual([3, 1, null]);
      expect(pixel(p, 0, 0)).toEqual([0, 0, 0, 255]);
      expect(pixel(p, 1, 0)).toEqual([255, 255, 255, 255]);
      const third = depth === 1 ? 0 : depth === 2 ? 85 : depth === 4 ? 17 : 1;
      expect(pixel(p, 2, 0)[0]).toBe(third);
    }
    expect(pixel(decodePng(png([1, 1], 8, 2, Uint8Array.of(0, 9, 8, 7))), 0, 0)).toEqual([9, 8, 7, 255]);
    expect(pixel(decodePng(png([1, 1], 8, 6, Uint8Array.of(0, 9, 8, 7, 6))), 0, 0)).toEqual([9, 8, 7, 6]);
    expect(pixel(decodePng(png([1, 1], 8, 4, Uint8Array.of(0, 9, 6))), 0, 0)).toEqual([9, 9, 9, 6]);
    // One colour that is said to be transparent.
    const row = Uint8Array.of(0, 1, 2, 3, 4, 5, 6, 7, 8, 9);
    const clear = decodePng(png([3, 1], 8, 2, row, [chunk('tRNS', Uint8Array.of(0, 1, 0, 2, 0, 3))]));
    expect([pixel(clear, 0, 0)[3], pixel(clear, 1, 0)[3]]).toEqual([0, 255]);
  });
  it('with a palette keeps its colours and their order, at any depth', () => {
    const colours = chunk('PLTE', Uint8Array.of(10, 20, 30, 40, 50, 60, 70, 80, 90));
    const clear = chunk('tRNS', Uint8Array.of(0));
    for (const [depth, row] of [
      [2, [0b10010001]],
      [4, [0x21, 0x01]],
      [8, [2, 1, 0, 1]],
    ] as const) {
      const p = decodePng(png([4, 1], depth, 3, Uint8Array.of(0, ...row), [colours, clear]));
      expect([...p.indexed!.bytes]).toEqual([2, 1, 0, 1]);
      expect([...p.indexed!.colours]).toEqual([10, 20, 30, 0, 40, 50, 60, 255, 70, 80, 90, 255]);
      expect(pixel(p, 0, 0)).toEqual([70, 80, 90, 255]);
      expect(pixel(p, 2, 0)[3]).toBe(0);
    }
  });
  it('that is none, absurdly large, cut short or a bomb is refused with a sentence', () => {
    const rows = Uint8Array.of(0, 9, 8, 7);
    const good = png([1, 1], 8, 2, rows);
    const refused = (bytes: Uint8Array): string => {
      try {
        decodePng(bytes);
      } catch (e) {
        expect(e).toBeInstanceOf(CodecError);
        return (e as CodecError).code;
      }
      return 'read';
    };
    expect(refused(text('GIF89a and so on and so on and so on'))).toBe('codec.notPng');
    expect(refused(png([60_000, 60_000], 8, 2, rows))).toBe('codec.tooLarge');
    expect(refused(png([0, 5], 8, 2, rows))).toBe('codec.damaged');
    expect(refused(png([50, 50], 8, 2, rows))).toBe('codec.damaged');
    for (const end of [20, 40, good.length - 14]) expect(refused(good.subarray(0, end))).toMatch(/^codec\./);
    // 70 MB of nothing behind a picture of one pixel.
    const bomb = joined(
      good.subarray(0, 33),
      chunk('IDAT', zlibSync(new Uint8Array(7e7), { level: 9, mem: 4 })),
      chunk('IEND', new Uint8Array()),
    );
    expect(refused(bomb)).toBe('codec.bomb');
  });
});

/** A JPEG with segments behind its first marker. */
const jpegWith = (p: { width: number; height: number; data: Uint8Array }, ...segments: Uint8Array[]): Uint8Array => {
  const plain = new Uint8Array(encodeJpeg(p, 100).data);
  return joined(plain.subarray(0, 2), ...segments, plain.subarray(2));
};
const segment = (marker: number, body: Uint8Array): Uint8Array =>
  joined(Uint8Array.of(0xff, marker, (body.length + 2) >> 8, (body.length + 2) & 255), body);
const exif = (orientation: number, little: boolean): Uint8Array => {
  const two = (v: number): number[] => (little ? [v & 255, v >> 8] : [v >> 8, v & 255]);
  const four = (v: number): number[] => (little ? [v, 0, 0, 0] : [0, 0, 0, v]);
  return segment(
    0xe1,
    joined(
      text('Exif\0\0'),
      text(little ? 'II' : 'MM'),
      Uint8Array.from([
        ...two(42),
        ...four(8),
        ...two(1),
        ...two(0x0112),
        ...two(3),
        ...four(1),
        ...two(orientation),
        0,
        0,
      ]),
    ),
  );
};
/** 16 × 8 pixels: red left above, green right above, blue left below, white right below. */
const quarters = (() => {
  const data = new Uint8Array(16 * 8 * 4);
  for (let y = 0; y < 8; y++)
    for (let x = 0; x < 16; x++)
      data.set(
        y < 4 ? (x < 8 ? [255, 0, 0, 255] : [0, 255, 0, 255]) : x < 8 ? [0, 0, 255, 255] : [255, 255, 255, 255],
        (y * 16 + x) * 4,
      );
  return { width: 16, height: 8, data };
})();
const named = (p: Pixels, x: number, y: number): string => {
  const [r, g, b] = pixel(p, x, y).map((v) => v > 128) as [boolean, boolean, boolean];
  return r && g && b ? 'white' : r ? 'red' : g ? 'green' : b ? 'blue' : 'black';
};
const corners = (p: Pixels): string =>
  [[1, 1], [p.width - 2, 1], [1, p.height - 2], [p.width - 2, p.height - 2]].map(([x, y]) => named(p, x!, y!)).join(' '); // prettier-ignore

describe('JPEG', () => {
  it('stands as its EXIF says', () => {
    const wanted = [
      'red green blue white',
      'green red white blue',
      'white blue green red',
      'blue white red green',
      'red blue green white',
      'blue red white green',
      'white green blue red',
      'green white red blue',
    ];
    wanted.forEach((order, i) => {
      const p = decodeJpeg(jpegWith(quarters, exif(i + 1, i % 2 === 0)));
      expect([p.width, p.height], order).toEqual(i < 4 ? [16, 8] : [8, 16]);
      expect(corners(p), `orientation ${i + 1}`).toBe(order);
    });
    expect(corners(decodeJpeg(jpegWith(quarters)))).toBe(wanted[0]);
    expect(corners(decodeJpeg(jpegWith(quarters, segment(0xe1, text('Exif\0\0II')))))).toBe(wanted[0]);
  });
  it('turned four quarters is as it was, its indexes too', () => {
    const random = seededRandom(3);
    const bytes = Uint8Array.from({ length: 15 }, () => Math.floor(random() * 4));
    const p: Pixels = {
      width: 5,
      height: 3,
      rgba: Uint8Array.from({ length: 60 }, (_, i) => bytes[i >> 2]! * 40 + (i & 3)),
      indexed: { bytes, colours: new Uint8Array(16) },
    };
    let turned = p;
    for (let n = 0; n < 4; n++) turned = oriented(turned, 6);
    expect(turned).toEqual(p);
    expect([...oriented(p, 3).indexed!.bytes]).toEqual([...bytes].reverse());
  });
  it('that is none, cut short or far too large is refused', () => {
    expect(() => decodeJpeg(text('nothing'))).toThrow(CodecError);
    const whole = jpegWith(quarters);
    expect(() => decodeJpeg(whole.subarray(0, 30))).toThrow(CodecError);
    const large = whole.slice();
    const at = large.findIndex((v, i) => v === 0xff && large[i + 1] === 0xc0);
    large.set([0xff, 0xff, 0xff, 0xff], at + 5);
    expect(() => decodeJpeg(large)).toThrow(/65,535×65,535/);
  });
});

/** A profile of three columns and one curve for all. */
function profile(columns: readonly (readonly [number, number, number])[], curve: Uint8Array): Uint8Array {
  const fixed = (v: number): Uint8Array => be32(Math.round(v * 65536) >>> 0);
  const tags = ['rXYZ', 'gXYZ', 'bXYZ', 'rTRC', 'gTRC', 'bTRC'];
  const table = 128 + 4 + tags.length * 12;
  const bodies = columns.map((c) => joined(text('XYZ '), be32(0), ...c.map(fixed)));
  const head = new Uint8Array(128);
  head.set(text('RGB XYZ '), 16);
  const places = [0, 20, 40, 60, 60, 60].map((o) => table + o);
  return joined(
    head,
    be32(tags.length),
    ...tags.map((t, i) => joined(text(t), be32(places[i]!), be32(20))),
    ...bodies,
    curve,
  );
}
/** sRGB's own primaries, adapted to D50. */
const SRGB = [
  [0.43607, 0.22249, 0.01392],
  [0.38515, 0.71687, 0.09708],
  [0.14307, 0.06061, 0.7141],
] as const;
const gamma = (g: number): Uint8Array =>
  joined(text('curv'), be32(0), be32(1), Uint8Array.of(Math.floor(g), Math.round((g % 1) * 256)));

describe('colour profiles', () => {
  const through = (p: Uint8Array, ...rgb: number[]): number[] => {
    const bytes = Uint8Array.of(...rgb, 77);
    toSrgb(bytes, readProfile(p)!);
    expect(bytes[3]).toBe(77);
    return [...bytes.subarray(0, 3)];
  };
  it('that say sRGB change nothing, ones of linear light brighten, others move colours', () => {
    const s = [2.4, 1 / 1.055, 0.055 / 1.055, 1 / 12.92, 0.04045];
    const para = joined(text('para'), be32(0), Uint8Array.of(0, 3, 0, 0), ...s.map((v) => be32(Math.round(v * 65536))));
    for (const rgb of [
      [0, 0, 0],
      [255, 255, 255],
      [200, 30, 90],
      [3, 7, 12],
    ])
      through(profile(SRGB, para), ...rgb).forEach((v, i) => expect(Math.abs(v - rgb[i]!)).toBeLessThanOrEqual(1));
    expect(through(profile(SRGB, gamma(1)), 128, 128, 128)[0]).toBe(Math.round(255 * fromLinear(128 / 255)));
    expect(through(profile(SRGB, gamma(2)), 128, 0, 0)[0]).toBe(Math.round(255 * fromLinear((128 / 255) ** 2)));
    // Red and blue exchanged: what was red is blue.
    expect(through(profile([SRGB[2], SRGB[1], SRGB[0]], gamma(1)), 255, 0, 0)).toEqual([0, 0, 255]);
    const linear = toLinear(0.5);
    expect(linear).toBeCloseTo(0.214, 3);
  });
  it('of other kinds, or cut short, are left aside', () => {
    const p = profile(SRGB, gamma(1));
    expect(readProfile(p.subarray(0, 150))).toBeNull();
    expect(readProfile(new Uint8Array(200))).toBeNull();
    expect(readProfile(profile(SRGB, text('mAB         ')))).toBeNull();
    // A picture with one of those is read without it.
    expect(
      decodeJpeg(
        jpegWith(quarters, segment(0xe2, joined(text('ICC_PROFILE\0'), Uint8Array.of(1, 1), new Uint8Array(40)))),
      ).width,
    ).toBe(16);
  });
  it('in files are honoured', () => {
    const p = profile([SRGB[2], SRGB[1], SRGB[0]], gamma(1));
    const icc = chunk('iCCP', joined(text('own\0'), Uint8Array.of(0), zlibSync(p)));
    expect(pixel(decodePng(png([1, 1], 8, 2, Uint8Array.of(0, 255, 0, 0), [icc])), 0, 0)).toEqual([0, 0, 255, 255]);
    const turned = decodeJpeg(jpegWith(quarters, segment(0xe2, joined(text('ICC_PROFILE\0'), Uint8Array.of(1, 1), p))));
    expect(named(turned, 1, 1)).toBe('blue');
  });
});
