import { encode } from 'fast-png';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Palette, type Swatch, makeSwatch } from '../palette';
import {
  FileError,
  paletteToHexList,
  paletteToJson,
  paletteToStrip,
  readHexList,
  readPaletteFile,
  readPaletteJson,
  readPaletteStrip,
  EXPORTERS,
  QUIET_JOB,
} from '.';

const hex = fc.integer({ min: 0, max: 0xffffff }).map((n) => `#${n.toString(16).padStart(6, '0')}`);
const unit = fc.integer({ min: 0, max: 1000 }).map((n) => n / 1000);
const name = fc.string({ maxLength: 20 });
const palettes: fc.Arbitrary<Palette> = fc
  .record({
    name,
    list: fc.array(
      fc.record({
        colour: hex,
        name,
        emissive: unit,
        roughness: unit,
        metalness: unit,
        opacity: unit,
        slot: name,
        helper: fc.boolean(),
      }),
      { minLength: 1, maxLength: 255 },
    ),
  })
  .map(({ name: n, list }) => ({
    id: 'p',
    name: n,
    swatches: list.map((s, i) => makeSwatch(i + 1, s.name, s.colour, s)),
  }));
const text = (s: string): Uint8Array => new TextEncoder().encode(s);
const sentence = (f: () => unknown): string => {
  try {
    f();
  } catch (e) {
    if (e instanceof FileError) return e.message;
    throw e;
  }
  return 'it was taken';
};

describe('palette files come back as they went', () => {
  it('JSON: everything, for any palette', () => {
    fc.assert(
      fc.property(palettes, (p) => {
        const back = readPaletteFile(text(paletteToJson(p)));
        expect(back).toEqual({ name: p.name || null, swatches: p.swatches });
      }),
      { numRuns: 40 },
    );
  });
  it('hex lists: colours and plain names, in their order', () => {
    fc.assert(
      fc.property(palettes, fc.constantFrom('\n', '\r\n'), (p, end) => {
        const plain = {
          ...p,
          name: 'Quay',
          swatches: p.swatches.map((s) => ({
            ...s,
            name: s.name
              .replaceAll(/[^A-Za-z ]/g, '')
              .replaceAll(/\s+/g, ' ')
              .trim(),
          })),
        };
        const back = readPaletteFile(text(paletteToHexList(plain).replaceAll('\n', end)));
        expect(back.name).toBe('Quay');
        expect(back.swatches.map((s) => [s.byte, s.colour, s.name])).toEqual(
          plain.swatches.map((s) => [s.byte, s.colour, s.name]),
        );
      }),
      { numRuns: 40 },
    );
  });
  it('strips: every colour, equal ones too, and opacity to a byte', () => {
    fc.assert(
      fc.property(palettes, (p) => {
        const back = readPaletteStrip(paletteToStrip(p)).swatches;
        expect(back.map((s) => s.colour)).toEqual(p.swatches.map((s) => s.colour));
        back.forEach((s, i) => expect(Math.abs(s.opacity - p.swatches[i]!.opacity)).toBeLessThan(0.005));
      }),
      { numRuns: 25 },
    );
  });
  it('are told by their content', async () => {
    const p: Palette = { id: 'p', name: 'Lamp', swatches: [makeSwatch(1, 'Iron', '#363b45')] };
    const writers = EXPORTERS.filter((e) => e.takes === 'palette');
    expect(writers.length).toBe(3);
    for (const e of writers) {
      const { files } = await e.write(p, {}, QUIET_JOB);
      expect(readPaletteFile(files[0]!.bytes).swatches[0]!.colour).toBe('#363b45');
    }
  });
});

describe('other hands’ palettes', () => {
  it('hex lists in the usual spellings', () => {
    const s = readHexList(
      '\uFEFF; Reeds\n\n// by hand\n#ABC\n  00ff80 , Light reed\n0x112233\tDeep\n#11223380\n',
    ).swatches;
    expect(s.map((o) => [o.colour, o.name, o.opacity])).toEqual([
      ['#aabbcc', '', 1],
      ['#00ff80', 'Light reed', 1],
      ['#112233', 'Deep', 1],
      ['#112233', '', 0.502],
    ]);
  });
  it('pictures of blocks give their colours once, in reading order; see-through ones none', () => {
    const data = new Uint8Array(6 * 2 * 4);
    const colours = [
      [9, 8, 7, 255],
      [9, 8, 7, 255],
      [1, 2, 3, 0],
      [200, 0, 0, 255],
      [200, 0, 0, 128],
      [9, 8, 7, 255],
    ];
    for (let y = 0; y < 2; y++) colours.forEach((c, x) => data.set(c, (y * 6 + x) * 4));
    const rgba = readPaletteStrip(encode({ width: 6, height: 2, data, channels: 4, depth: 8 })).swatches;
    expect(rgba.map((s) => [s.colour, s.opacity])).toEqual([
      ['#090807', 1],
      ['#c80000', 1],
      ['#c80000', 0.502],
    ]);
    const grey = readPaletteStrip(
      encode({ width: 2, height: 2, data: Uint8Array.of(0, 255, 17, 0), channels: 1, depth: 8 }),
    ).swatches;
    expect(grey.map((s) => s.colour)).toEqual(['#000000', '#ffffff', '#111111']);
    const indexed = readPaletteStrip(
      encode({
        width: 3,
        height: 1,
        data: Uint8Array.of(2, 0, 1),
        channels: 1,
        depth: 8,
        palette: [
          [1, 1, 1],
          [2, 2, 2],
          [3, 3, 3],
        ],
      }),
    ).swatches;
    expect(indexed.map((s) => s.colour)).toEqual(['#030303', '#010101', '#020202']);
  });
});

describe('malformed palettes get a sentence', () => {
  it('with the line, for texts', () => {
    expect(sentence(() => readHexList('#112233\n#12\n'))).toBe(
      'Line 2, “#12”, is not a colour. Write it as #rrggbb, with a name behind it if you like.',
    );
    const json = (more: string): string =>
      `{\n "palette": "A",\n "swatches": [\n  {"colour": "#112233"},\n  ${more}\n ]\n}`;
    expect(sentence(() => readPaletteJson(json('{"colour": "red"}')))).toBe(
      'Line 5: swatches › number 2 › colour must be a colour such as "#e3a127".',
    );
    expect(sentence(() => readPaletteJson(json('{"name": "x"}')))).toBe(
      'Line 5: swatches › number 2 › colour is missing.',
    );
    expect(sentence(() => readPaletteJson(json('{"colour": "#112233", "opacity": 2}')))).toBe(
      'Line 5: swatches › number 2 › opacity must be 1 or less.',
    );
    expect(sentence(() => readPaletteJson(json('{"colour": "#112233", "shine": 2}')))).toBe(
      'Line 5: swatches › number 2 has something unknown: shine.',
    );
    expect(sentence(() => readPaletteJson(json('{"colour": "#112233",, }')))).toMatch(/^Line 5 is not valid JSON: /);
    expect(sentence(() => readPaletteJson('[]'))).toMatch(/^Line 1: the palette /);
    expect(sentence(() => readPaletteJson('{"palette": "A"}'))).toBe('Line 1: swatches is missing.');
  });
  it('and for what cannot be a palette', () => {
    expect(sentence(() => readPaletteFile(new Uint8Array()))).toBe('The file is empty.');
    expect(sentence(() => readPaletteFile(text('; only a remark\n')))).toMatch(/no colours/);
    expect(sentence(() => readPaletteFile(Uint8Array.of(0, 1, 2, 250, 3)))).toMatch(/neither a PNG picture nor a text/);
    expect(
      sentence(() =>
        readPaletteFile(
          text(Array.from({ length: 300 }, (_, i) => `#0001${(i % 256).toString(16).padStart(2, '0')}`).join('\n')),
        ),
      ),
    ).toMatch(/holds 300 colours/);
    const many = new Uint8Array(400 * 4).map((_, i) => (i % 4 === 3 ? 255 : i % 4 === 0 ? (i >> 2) & 255 : i >> 10));
    expect(
      sentence(() => readPaletteStrip(encode({ width: 20, height: 20, data: many, channels: 4, depth: 8 }))),
    ).toMatch(/colours; a palette holds at most 255/);
    expect(
      sentence(() =>
        readPaletteFile(
          paletteToStrip({ id: 'p', name: '', swatches: [makeSwatch(1, '', '#112233')] as Swatch[] }).slice(0, 50),
        ),
      ),
    ).toMatch(/damaged/);
  });
  it('never anything else, whatever the bytes', () => {
    fc.assert(
      fc.property(fc.uint8Array({ maxLength: 300 }), fc.boolean(), (bytes, png) => {
        const b = png ? Uint8Array.of(0x89, 0x50, 0x4e, 0x47, ...bytes) : bytes;
        sentence(() => readPaletteFile(b));
      }),
      { numRuns: 300 },
    );
    const strip = paletteToStrip({
      id: 'p',
      name: '',
      swatches: Array.from({ length: 9 }, (_, i) => makeSwatch(i + 1, '', '#112233')),
    });
    fc.assert(
      fc.property(fc.integer({ min: 0, max: strip.length - 1 }), fc.integer({ min: 0, max: 255 }), (i, v) => {
        sentence(() => readPaletteFile(strip.with(i, v)));
      }),
      { numRuns: 300 },
    );
    expect(paletteToJson({ id: 'p', name: 'A', swatches: [] })).toContain('"palette": "A"');
  });
});
