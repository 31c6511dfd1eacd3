import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  type Colourway,
  READY_PALETTES,
  VISIONS,
  VISION_MATRIX,
  appended,
  colourDistance,
  confused,
  recoloured,
  fromHsv,
  fromOklch,
  harmonies,
  hexBytes,
  makeSwatch,
  nearDuplicates,
  nearestBytes,
  ramp,
  sameSwatch,
  seenAs,
  sortedBytes,
  toHsv,
  toOklch,
  tones,
  withLook,
} from '.';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const swatches = (max: number) =>
  fc
    .array(fc.tuple(hex, fc.constantFrom(0, 0, 0, 3), fc.constantFrom(1, 1, 1, 0.5)), { minLength: 1, maxLength: max })
    .map((l) => l.map(([c, emissive, opacity], i) => makeSwatch(i + 1, `s${i}`, c, { emissive, opacity })));
const palette = (list: readonly ReturnType<typeof makeSwatch>[]) => ({ id: 'p', name: 'P', swatches: list });

describe('ways to give a colour', () => {
  it('HSV and OKLCH and back are the same colour, for all', () => {
    fc.assert(
      fc.property(hex, (c) => {
        expect(fromHsv(toHsv(c))).toBe(c);
        expect(
          Math.max(...hexBytes(fromOklch(toOklch(c))).map((v, i) => Math.abs(v - hexBytes(c)[i]!))),
        ).toBeLessThanOrEqual(1);
      }),
    );
  });
  it('known values, and colours no screen can show lose chroma, not hue', () => {
    expect(toHsv('#ff8000')).toEqual({ h: expect.closeTo(30.118, 2) as number, s: 1, v: 1 });
    expect(toOklch('#ff0000')).toEqual({
      l: expect.closeTo(0.62796, 4) as number,
      c: expect.closeTo(0.25768, 4) as number,
      h: expect.closeTo(29.234, 2) as number,
    });
    expect(toOklch('#808080')).toMatchObject({ c: 0, h: 0 });
    const fitted = toOklch(fromOklch({ l: 0.6, c: 0.4, h: 150 }));
    expect([Math.abs(fitted.h - 150) < 3, fitted.c < 0.3, Math.abs(fitted.l - 0.6) < 0.02]).toEqual([true, true, true]);
  });
  it('a hue shift bends a ramp aside and leaves its ends', () => {
    const plain = ramp('#552211', '#f0d0a0', 5),
      bent = ramp('#552211', '#f0d0a0', 5, 40);
    expect([bent[0], bent[4]]).toEqual([plain[0], plain[4]]);
    const turn = (toOklch(bent[2]!).h - toOklch(plain[2]!).h + 360) % 360;
    expect(turn).toBeGreaterThan(30);
    expect(turn).toBeLessThan(50);
  });
  it('tones rise in lightness through the colour itself', () => {
    const t = tones('#2a7a70', 7, 20);
    expect(t[3]).toBe('#2a7a70');
    const light = t.map((c) => toOklch(c).l);
    expect(light.every((v, i) => i === 0 || v > light[i - 1]!)).toBe(true);
  });
  it('harmonies stand at their angles', () => {
    const base = '#9a6a5a',
      h = toOklch(base).h;
    const angles = Object.fromEntries(
      harmonies(base).map((o) => [
        o.name,
        o.colours.map((c) => Math.round(((toOklch(c).h - h + 360) % 360) / 10) * 10),
      ]),
    );
    expect(angles).toEqual({
      neighbours: [330, 30],
      opposite: [180],
      split: [150, 210],
      three: [120, 240],
      four: [90, 180, 270],
    });
  });
});

describe('adapting palettes', () => {
  it('the nearest swatch is the nearest by brute force among its like, for 200 against 32', () => {
    fc.assert(
      fc.property(swatches(200), swatches(32), (from, to) => {
        const map = nearestBytes(from, to);
        for (const f of from) {
          const like = to.filter((t) => t.emissive > 0 === f.emissive > 0 && t.opacity < 1 === f.opacity < 1);
          const least = Math.min(...(like.length ? like : to).map((t) => colourDistance(t.colour, f.colour)));
          expect(colourDistance(to.find((t) => t.byte === map[f.byte])!.colour, f.colour)).toBeCloseTo(least, 9);
        }
        expect(map[0]).toBe(0);
      }),
      { numRuns: 30 },
    );
  });
  it('equal swatches are united, others take free bytes, and nobody loses a byte', () => {
    fc.assert(
      fc.property(swatches(60), swatches(60), (a, b) => {
        const out = appended(palette(a), b);
        expect(out.swatches.slice(0, a.length)).toEqual(a);
        expect(new Set(out.swatches.map((s) => s.byte)).size).toBe(out.swatches.length);
        b.forEach((s, i) =>
          expect(
            sameSwatch(
              { ...s, byte: out.bytes[i]! },
              out.swatches.find((o) => o.byte === out.bytes[i])!,
            ),
          ).toBe(true),
        );
        expect(out.swatches.length).toBe(a.length + b.length - out.united);
      }),
      { numRuns: 30 },
    );
  });
  it('says how many find no place above 255', () => {
    const full = palette(
      Array.from({ length: 254 }, (_, i) => makeSwatch(i + 1, '', `#0000${i.toString(16).padStart(2, '0')}`)),
    );
    expect(
      appended(full, [makeSwatch(1, 'a', '#ff0000'), makeSwatch(2, 'b', '#00ff00'), makeSwatch(3, 'c', '#000000')]),
    ).toMatchObject({ left: 1, united: 1, bytes: [255, 0, 1] });
  });
  it('sorting gives every byte once', () => {
    const p = palette(READY_PALETTES[1]!.swatches);
    for (const by of ['hue', 'light', 'vivid', 'name', 'use'] as const)
      expect([...sortedBytes(p, by, [])].sort((a, b) => a - b)).toEqual(p.swatches.map((s) => s.byte));
    const small = palette([
      makeSwatch(1, 'b', '#808080'),
      makeSwatch(2, 'C', '#ff2020'),
      makeSwatch(3, 'a', '#101010'),
    ]);
    expect([
      sortedBytes(small, 'light'),
      sortedBytes(small, 'vivid'),
      sortedBytes(small, 'name'),
      sortedBytes(small, 'use', [0, 5, 9, 1]),
      sortedBytes(small, 'hue'),
    ]).toEqual([
      [3, 1, 2],
      [2, 1, 3],
      [3, 1, 2],
      [2, 1, 3],
      [3, 1, 2],
    ]);
  });
});

describe('colourways', () => {
  const p = palette([makeSwatch(1, 'Coat', '#a34e18'), makeSwatch(2, 'Lamp', '#ffc866', { emissive: 5 })]);
  const plain: Colourway = { id: 'w', name: 'Frost', changes: [] };
  it('keep only what differs, dress a palette once, and follow it in all else', () => {
    const blue = withLook(plain, p, 1, { colour: '#224488', roughness: 0.8 });
    expect(blue.changes).toEqual([{ palette: 'p', byte: 1, look: { colour: '#224488' } }]);
    expect(recoloured(p, plain)).toBe(p);
    expect(recoloured(p, blue)).toBe(recoloured(p, blue));
    expect(recoloured(p, blue).swatches.map((s) => [s.colour, s.emissive, s.name])).toEqual([
      ['#224488', 0, 'Coat'],
      ['#ffc866', 5, 'Lamp'],
    ]);
    const more = { ...p, swatches: [...p.swatches, makeSwatch(3, 'New', '#123456')] };
    expect(recoloured(more, blue).swatches.map((s) => s.colour)).toEqual(['#224488', '#ffc866', '#123456']);
    expect(withLook(blue, p, 1, { colour: '#a34e18' }).changes).toEqual([]);
  });
});

describe('colour vision', () => {
  it('white, grey and black stay; grey is luminance; rows keep white', () => {
    for (const v of VISIONS) {
      for (const c of ['#000000', '#ffffff', '#808080']) expect(colourDistance(seenAs(c, v), c)).toBeLessThan(0.004);
      for (const row of VISION_MATRIX[v]) expect(row[0] + row[1] + row[2]).toBeCloseTo(1, 4);
    }
    expect(seenAs('#ff0000', 'grey')).toBe('#7f7f7f');
    // Published simulation of pure red and green without red cones: both turn to yellows.
    expect(hexBytes(seenAs('#ff0000', 'protan')).map((v) => Math.round(v / 8))).toEqual([14, 12, 0]);
  });
  it('finds what cannot be told apart any more', () => {
    const moss = makeSwatch(1, 'Moss', '#6d7a2a'),
      rust = makeSwatch(2, 'Rust', '#94632d'),
      sky = makeSwatch(3, 'Sky', '#6fa3c4');
    const pair = confused(palette([moss, rust, sky]), 'deutan', 0.08);
    expect(pair.map((c) => c.a.name + c.b.name)).toEqual(['MossRust']);
    expect(confused(palette([moss, rust, sky]), 'all')).toEqual([]);
  });
});

describe('ready palettes', () => {
  it('have no pair that is hard to tell apart, ramps of at least three tones, glow and names of their own', () => {
    for (const r of READY_PALETTES.slice(0, 3)) {
      expect(nearDuplicates(palette(r.swatches), 0.03).map((d) => d.a.name + d.b.name)).toEqual([]);
      expect(new Set(r.swatches.map((s) => s.name)).size).toBe(r.swatches.length);
      expect(r.swatches.some((s) => s.emissive > 0)).toBe(true);
      const l = r.swatches.map((s) => toOklch(s.colour).l);
      expect([Math.min(...l) < 0.28, Math.max(...l) > 0.93]).toEqual([true, true]);
    }
  });
});
