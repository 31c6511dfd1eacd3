import { FloatType } from 'three';
import { EXRLoader } from 'three/examples/jsm/loaders/EXRLoader.js';
import { decode, encode } from 'fast-png';
import jpeg from 'jpeg-js';
import { describe, expect, it } from 'vitest';
import { gifDelays } from '../codec';
import { NO_GRADE } from '../model';
import { type FilmLight, addTraced, guided, lightOf, makeFilm, makeTraced } from '../render';
import { QUIET_JOB, type SeriesFrame, type SeriesSource, exporterOf } from '.';

/** A film of 6 × 4 pixels, brighter to the right, its left column bare. */
function film(): FilmLight {
  const whole = makeFilm(6, 4);
  const t = makeTraced({ x: 0, y: 0, width: 6, height: 4 }, 2);
  for (let i = 0; i < 24; i++) {
    const x = i % 6;
    t.cover[i] = x === 0 ? 0 : 2;
    t.depth[i] = x === 0 ? 0 : 2 * (10 + x);
    for (let c = 0; c < 3; c++) {
      t.light[i * 3 + c] = x === 0 ? 0 : 2 * ((x + c) / 10);
      t.albedo[i * 3 + c] = 2 * 0.25;
      t.normal[i * 3 + c] = c === 2 ? 2 : 0;
    }
  }
  addTraced(whole, t);
  return guided(lightOf(whole), whole);
}
const write = async (exporter: string, options: object, more = {}) => {
  const known = exporterOf(exporter)!;
  const source = {
    name: 'Quay',
    film: film(),
    grade: { ...NO_GRADE, curve: 'none' as const },
    transparent: true,
    ...more,
  };
  return (await known.write(source as never, known.options.parse(options), QUIET_JOB)).files;
};

describe('pictures', () => {
  it('16 bits are the same picture in finer steps', async () => {
    const [[fine], [plain]] = await Promise.all([write('png', { deep: true }), write('png', {})]);
    const a = decode(fine!.bytes),
      b = decode(plain!.bytes);
    expect([a.depth, b.depth]).toEqual([16, 8]);
    for (let i = 0; i < b.data.length; i++) expect(Math.abs(a.data[i]! / 257 - b.data[i]!)).toBeLessThanOrEqual(0.6);
    expect(a.data.some((v) => v % 257 !== 0)).toBe(true);
  });
  it('cut out, a picture is as large as what is in it', async () => {
    const [cut] = await write('png', { cut: true });
    const { width, height, data } = decode(cut!.bytes);
    expect([width, height, data[3]]).toEqual([5, 4, 255]);
  });
  it('a JPEG is read by another reader and shows the same, roughly', async () => {
    const [file] = await write('jpeg', { quality: 100 }, { transparent: false });
    const { width, height, data } = jpeg.decode(file!.bytes);
    const png = decode((await write('png', {}, { transparent: false }))[0]!.bytes);
    expect([file!.name, width, height]).toEqual(['quay.jpg', 6, 4]);
    data.forEach((v, i) => expect(Math.abs(v - png.data[i]!)).toBeLessThan(24));
  });
  it('an EXR holds the light itself, and beside it colour, normal, distance and what it was', async () => {
    const files = await write('exr', { passes: true });
    expect(files.map((f) => f.name)).toEqual([
      'quay.exr',
      'quay.albedo.exr',
      'quay.normal.exr',
      'quay.depth.exr',
      'quay.id.exr',
    ]);
    const read = files.map((f) => {
      const made = new EXRLoader().setDataType(FloatType).parse(f.bytes.buffer) as {
        width: number;
        height: number;
        data: Float32Array;
      };
      expect([made.width, made.height]).toEqual([6, 4]);
      return made.data;
    });
    for (let i = 0; i < 24; i++) {
      const x = i % 6;
      if (x === 0) continue;
      [0, 1, 2].forEach((c) => expect(read[0]![i * 4 + c]).toBeCloseTo((x + c) / 10, 3));
      expect([read[0]![i * 4 + 3], read[1]![i * 4], read[2]![i * 4 + 2], read[3]![i * 4]]).toEqual([
        1,
        0.25,
        1,
        10 + x,
      ]);
    }
  });
});

describe('pictures that follow one another', () => {
  it('a GIF lasts as long as its frames should, though each stands for whole hundredths', () => {
    expect(gifDelays(Array.from({ length: 12 }, () => 1 / 12)).reduce((a, b) => a + b)).toBe(100);
    expect(gifDelays([1 / 30, 1 / 30, 1 / 30])).toEqual([3, 4, 3]);
    expect(gifDelays([0.001])).toEqual([2]);
  });
  it('shadows lie on a sheet of their own, where the table says', async () => {
    const png = (v: number): Uint8Array<ArrayBuffer> =>
      encode({ width: 2, height: 2, channels: 4, data: new Uint8Array(16).fill(v) }) as Uint8Array<ArrayBuffer>;
    const frame = (v: number, index: number): SeriesFrame => ({
      png: png(v),
      seconds: 0.5,
      clip: 'Wave',
      loop: true,
      direction: 0,
      index,
    });
    const source: SeriesSource = {
      ...{ name: 'Oar', loop: true, frames: [frame(250, 0), frame(200, 1)] },
      cell: { size: [2, 2], anchor: [1, 2] },
      shadows: [frame(40, 0), frame(60, 1)],
    };
    const known = exporterOf('sprites')!;
    const { files } = await known.write(source as never, known.options.parse({}), QUIET_JOB);
    expect(files.map((f) => f.name)).toEqual(['oar.png', 'oar-shadow.png', 'oar.json']);
    const table = JSON.parse(new TextDecoder().decode(files[2]!.bytes)) as {
      shadows: string;
      clips: { frames: { x: number; y: number; shadow: { x: number; y: number } }[] }[];
    };
    expect(table.shadows).toBe('oar-shadow.png');
    const [, second] = table.clips[0]!.frames;
    const at = (file: number, p: { x: number; y: number }): number => {
      const { data, width } = decode(files[file]!.bytes);
      return data[(p.y * width + p.x) * 4]!;
    };
    expect([at(0, second!), at(1, second!.shadow)]).toEqual([200, 60]);
    await expect(async () => known.write({ ...source, cell: null } as never, {}, QUIET_JOB)).rejects.toThrow(
      /not made as sprites/,
    );
  });
});
