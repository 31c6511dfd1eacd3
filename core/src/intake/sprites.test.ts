import { describe, expect, it } from 'vitest';
import type { Pixels } from '../codec';
import { pictureOptions, type PictureOptions } from './picture';
import { sheetSteps } from './sprites';
import { finish } from '../math';

const INK: Readonly<Record<string, readonly number[]>> = { r: [200, 30, 30], g: [30, 160, 60], b: [40, 60, 200] };
/** A picture of rows of letters; a dot is nothing. */
function pixels(rows: readonly string[]): Pixels {
  const width = rows[0]!.length,
    rgba = new Uint8Array(width * rows.length * 4);
  rows.forEach((row, y) => [...row].forEach((c, x) => INK[c] && rgba.set([...INK[c], 255], (y * width + x) * 4)));
  return { width, height: rows.length, rgba, indexed: null };
}
const sheet = (rows: readonly string[], wishes: Partial<PictureOptions> = {}) =>
  finish(sheetSteps(pixels(rows), pictureOptions.parse({ sprites: 'parts', blocks: 'ignored', ...wishes }), null));
/** The front of each sprite, a letter a cube. */
const drawn = (body: ReturnType<typeof sheet>): string[][] =>
  body.sprites.map((grid) => {
    const { min, size } = grid.bounds;
    return Array.from({ length: size[1] }, (_, row) =>
      Array.from({ length: size[0] }, (_, x) => {
        const v = grid.get(min[0] + x, size[1] - 1 - row, min[2]);
        const hex = body.swatches.find((s) => s.byte === v)?.colour;
        return hex === undefined ? '.' : (Object.keys(INK).find((k) => hex === css(INK[k]!)) ?? '?');
      }).join(''),
    );
  });
const css = (c: readonly number[]): string => `#${c.map((v) => v.toString(16).padStart(2, '0')).join('')}`;

const SHEET = ['....b...', '.rr.bb..', '.r..b...', '........', '.g...rr.', '.gg..rr.', '........', '........'];

describe('a sheet of sprites', () => {
  it('in a grid that divides it: each lies in its frame as it did', () => {
    const body = sheet(SHEET);
    expect([body.across, body.down]).toEqual([2, 2]);
    expect(drawn(body)).toEqual([
      ['....', '.rr.', '.r..', '....'],
      ['b...', 'bb..', 'b...', '....'],
      ['.g..', '.gg.', '....', '....'],
      ['.rr.', '.rr.', '....', '....'],
    ]);
  });
  it('as many across and down as it is told; empty frames are none', () => {
    const body = sheet(SHEET, { across: 4, down: 2 });
    expect(drawn(body)).toEqual([
      ['..', '.r', '.r', '..'],
      ['..', 'r.', '..', '..'],
      ['b.', 'bb', 'b.', '..'],
      ['.g', '.g', '..', '..'],
      ['..', 'g.', '..', '..'],
      ['.r', '.r', '..', '..'],
      ['r.', 'r.', '..', '..'],
    ]);
  });
  it('between clear lines where the picture is no grid', () => {
    const body = sheet(['r.gg.b.', 'r.gg.bb', '.......', 'b......', 'b......']);
    expect([body.across, body.down]).toEqual([3, 2]);
    expect(drawn(body)).toEqual([
      ['r', 'r'],
      ['gg', 'gg'],
      ['b.', 'bb'],
      ['b', 'b'],
    ]);
  });
  it('has few colours over all of it, and one measure', () => {
    const body = sheet(SHEET, { most: 2, width: 2, clear: 1 });
    expect(body.swatches).toHaveLength(2);
    expect(body.sprites.map((g) => [...g.bounds.size])).toEqual(Array(4).fill([2, 2, 1]));
  });
  it('refuses one with more sprites than a sheet may hold, and one with nothing on it', () => {
    const dots = Array.from({ length: 80 }, (_, y) =>
      Array.from({ length: 80 }, (_, x) => ((x | y) & 1 ? '.' : 'r')).join(''),
    );
    expect(() =>
      sheet(
        dots.map((r) => r + '.'),
        {},
      ),
    ).toThrow(/sheet may hold 1,024/);
    expect(() => sheet(['....', '....'])).toThrow(/./);
  });
});
