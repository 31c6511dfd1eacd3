import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { seededRandom } from '../math';
import { Atlas, type AtlasPlace, cleanMip, packSkyline } from '.';

const sizeList = fc.array(fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 })), {
  minLength: 1,
  maxLength: 80,
});

describe('packing rectangles', () => {
  it('puts each within the strip and none over another', () => {
    fc.assert(
      fc.property(sizeList, fc.integer({ min: 20, max: 70 }), (sizes, width) => {
        const { at, height } = packSkyline(Int32Array.from(sizes.flat()), width);
        const taken = new Uint8Array(width * height);
        sizes.forEach(([w, h], n) => {
          for (let y = 0; y < h; y++)
            for (let x = 0; x < w; x++) {
              expect(at[n * 2]! + x).toBeLessThan(width);
              taken[(at[n * 2 + 1]! + y) * width + at[n * 2]! + x]!++;
            }
        });
        expect(Math.max(...taken)).toBe(1);
        expect(taken.reduce((a, b) => a + b)).toBe(sizes.reduce((n, [w, h]) => n + w * h, 0));
      }),
    );
  });
  it('wastes under a twentieth on a large set', () => {
    const random = seededRandom(5);
    const sizes = Int32Array.from({ length: 8000 }, () => 1 + Math.floor(random() * random() * 24));
    let area = 0;
    for (let i = 0; i < sizes.length; i += 2) area += sizes[i]! * sizes[i + 1]!;
    const width = Math.ceil(Math.sqrt(area));
    expect(area / (width * packSkyline(sizes, width).height)).toBeGreaterThan(0.95);
  });
});

const wishes = { padding: 2, powersOfTwo: true, most: 1024 };
/** The bytes of an image as they are found in the atlas, texel by texel. */
const read = (atlas: Atlas, place: AtlasPlace, padding = 2): number[] => {
  const packed = atlas.packed({ ...wishes, padding })!;
  return Array.from({ length: place.wide * place.high }, (_, k) => {
    const [x, y] = packed.at(place, (k % place.wide) + 0.5, Math.floor(k / place.wide) + 0.5);
    return packed.texels[Math.floor(y) * packed.width + Math.floor(x)]!;
  });
};

describe('an atlas', () => {
  it('keeps one texel of what is of one colour, one row of alike rows, and one of images that are turns of each other', () => {
    const atlas = new Atlas();
    const solid = atlas.add(9, 4, new Uint8Array(36).fill(7)),
      same = atlas.add(1, 1, Uint8Array.of(7));
    expect([same.image, atlas.count]).toEqual([solid.image, 1]);
    const stripes = atlas.add(
      3,
      50,
      Uint8Array.from({ length: 150 }, (_, i) => 1 + (i % 3)),
    );
    const corner = Uint8Array.of(1, 2, 3, 4, 5, 6);
    const first = atlas.add(3, 2, corner),
      turned = atlas.add(2, 3, Uint8Array.of(4, 1, 5, 2, 6, 3)),
      mirrored = atlas.add(3, 2, Uint8Array.of(3, 2, 1, 6, 5, 4));
    expect([turned.image, mirrored.image, atlas.count]).toEqual([first.image, first.image, 3]);
    const { width, height } = atlas.packed({ ...wishes, padding: 0 })!;
    expect(width * height).toBeLessThanOrEqual(16);
    expect(read(atlas, turned)).toEqual([4, 1, 5, 2, 6, 3]);
    expect(read(atlas, stripes).slice(0, 6)).toEqual([1, 2, 3, 1, 2, 3]);
  });
  it('keeps tiles as texels, cut off at the rim or not', () => {
    const tiles =
      (x0: number, y0: number) =>
      (k: number): number =>
        1 + ((Math.floor((x0 + (k % 20)) / 4) + Math.floor((y0 + Math.floor(k / 20)) / 3)) & 1);
    const atlas = new Atlas();
    for (const [x, y] of [
      [0, 0],
      [1, 0],
      [3, 2],
      [2, 1],
      [5, 4],
    ] as const) {
      const texels = Uint8Array.from({ length: 20 * 15 }, (_, k) => tiles(x, y)(k));
      const place = atlas.add(20, 15, texels);
      expect(read(atlas, place)).toEqual([...texels]);
    }
    // Five or six tiles by five or six, whatever is cut off.
    expect(atlas.count).toBeLessThanOrEqual(4);
    const { width, height } = atlas.packed({ ...wishes, padding: 0, powersOfTwo: false })!;
    expect(width * height).toBeLessThanOrEqual(4 * 36 + 20);
  });
  it('gives back every texel of every image, whatever it was shared with; where any will do, something stands', () => {
    const image = fc.integer({ min: 1, max: 5 }).chain((wide) =>
      fc.integer({ min: 1, max: 5 }).chain((high) =>
        fc.record({
          wide: fc.constant(wide),
          high: fc.constant(high),
          texels: fc
            .array(fc.nat(3), { minLength: wide * high, maxLength: wide * high })
            .filter((t) => t.some((v) => v !== 0)),
        }),
      ),
    );
    fc.assert(
      fc.property(fc.array(image, { minLength: 1, maxLength: 30 }), fc.nat(3), (images, padding) => {
        const atlas = new Atlas();
        const places = images.map((m) => atlas.add(m.wide, m.high, Uint8Array.from(m.texels)));
        places.forEach((place, n) => {
          const found = read(atlas, place, padding);
          expect(found.every((v) => v !== 0)).toBe(true);
          expect(found.map((v, k) => (images[n]!.texels[k] === 0 ? 0 : v))).toEqual(images[n]!.texels);
        });
      }),
    );
  });
  it.each([0, 1, 2, 3, 7])('bleeds nowhere down to the mip that a padding of %i promises', (padding) => {
    const random = seededRandom(padding);
    const atlas = new Atlas();
    const places = Array.from({ length: 60 }, (_, n) => {
      const [wide, high] = [1 + Math.floor(random() * 9), 1 + Math.floor(random() * 9)];
      // Two bytes an image, that no other has.
      return atlas.add(
        wide,
        high,
        Uint8Array.from({ length: wide * high }, () => 1 + n * 4 + (random() < 0.5 ? 0 : 1)),
      );
    });
    const packed = atlas.packed({ ...wishes, padding })!;
    // Each mip averages four texels of the one before; kept here as the set of images that go into it.
    let level = Array.from(packed.texels, (v) => new Set(v === 0 ? [] : [(v - 1) >> 2])),
      width = packed.width;
    for (let mip = 0; mip <= cleanMip(padding); mip++) {
      for (const [n, place] of places.entries())
        for (let j = 0.25; j < place.high; j += 0.5)
          for (let i = 0.25; i < place.wide; i += 0.5) {
            const [x, y] = packed.at(place, i, j);
            const at = Math.floor(y / 2 ** mip) * width + Math.floor(x / 2 ** mip);
            expect([...level[at]!]).toEqual([n]);
          }
      const half = width / 2;
      level = Array.from({ length: level.length / 4 }, (_, k) => {
        const at = Math.floor(k / half) * 2 * width + (k % half) * 2;
        return new Set([at, at + 1, at + width, at + width + 1].flatMap((q) => [...level[q]!]));
      });
      width = half;
    }
  });
  it('says when it does not fit', () => {
    const atlas = new Atlas();
    atlas.add(
      20,
      1,
      Uint8Array.from({ length: 20 }, (_, i) => 1 + i),
    );
    expect(atlas.packed({ ...wishes, most: 16 })).toBeNull();
    expect(atlas.packed({ padding: 0, powersOfTwo: false, most: 32 })).toMatchObject({ width: 20, height: 1 });
  });
});
