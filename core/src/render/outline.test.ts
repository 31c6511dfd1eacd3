import { describe, expect, it } from 'vitest';
import { makeGrade } from '../model';
import { addTraced, developFilm, guided, lightOf, makeFilm, makeTraced } from '.';

const SIZE = 16;
/** A square of 8 in the middle of a clear picture; its right half is of another colour, its lower half farther away by `step`. */
function square(step = 0): ReturnType<typeof guided> {
  const film = makeFilm(SIZE, SIZE);
  const t = makeTraced({ x: 0, y: 0, width: SIZE, height: SIZE }, 1);
  for (let y = 4; y < 12; y++)
    for (let x = 4; x < 12; x++) {
      const i = y * SIZE + x;
      t.cover[i] = 1;
      t.depth[i] = 50 + (y < 8 ? 0 : step);
      t.id[i] = 2;
      t.votes[i] = 1;
      for (let c = 0; c < 3; c++) {
        t.albedo[i * 3 + c] = x < 8 ? 0.6 : 0.2;
        t.light[i * 3 + c] = t.albedo[i * 3 + c]! * (x === 5 ? 0.9 : 0.6);
        t.normal[i * 3 + c] = c === 2 ? 1 : 0;
      }
    }
  addTraced(film, t);
  return guided(lightOf(film), film);
}
const outline = (width: number, inside: boolean) =>
  makeGrade({ curve: 'none', outline: { width, colour: '#ff0000', inside } });
/** Where the picture is red. */
function inked(picture: Uint8Array): Set<string> {
  const out = new Set<string>();
  for (let i = 0; i < SIZE * SIZE; i++)
    if (picture[i * 4]! > 200 && picture[i * 4 + 1]! < 40 && picture[i * 4 + 3]! > 200)
      out.add(`${i % SIZE},${Math.floor(i / SIZE)}`);
  return out;
}

describe('lines', () => {
  it('a rim of one pixel lies just outside of the figure, all about it', () => {
    const lines = inked(developFilm(square(), { grade: outline(1, false), transparent: true }));
    const rim = new Set<string>();
    for (let k = 4; k < 12; k++) for (const at of [`${k},3`, `${k},12`, `3,${k}`, `12,${k}`]) rim.add(at);
    expect([...lines].sort()).toEqual([...rim].sort());
  });
  it('a step back is a rim too, drawn on what lies behind; a slope is none', () => {
    const lines = inked(developFilm(square(5), { grade: outline(1, false), transparent: true }));
    for (let x = 4; x < 12; x++) expect([lines.has(`${x},8`), lines.has(`${x},7`)]).toEqual([true, false]);
    const slope = square();
    for (const tile of slope.tiles)
      for (let i = 0; i < SIZE * SIZE; i++) tile!.guides!.depth[i]! *= 1 + 0.05 * Math.floor(i / SIZE);
    const sloping = inked(developFilm(slope, { grade: outline(1, false), transparent: true }));
    expect(sloping.has('6,8') || sloping.has('6,7')).toBe(false);
  });
  it('inside, parts are told apart though they are alike; ground is no part, and its end at the sky no line', () => {
    const film = square();
    const { id, albedo } = film.tiles[0]!.guides!;
    albedo.fill(0.5);
    const drawn = (inside: boolean): number =>
      inked(developFilm(film, { grade: outline(4, inside), transparent: true })).size;
    const before = drawn(true);
    for (let y = 4; y < 8; y++) id.fill(3, y * SIZE + 4, y * SIZE + 12);
    expect(drawn(true)).toBe(before + 16);
    expect(drawn(false)).toBe(before);
    id.forEach((v, i) => (id[i] = v > 0 ? 1 : 0));
    expect(drawn(true)).toBe(0);
  });
  it('inside, lines part colours; without, they do not', () => {
    const how = { transparent: true };
    const between = (inside: boolean): number =>
      [5, 6, 9, 10].filter((y) => inked(developFilm(square(), { ...how, grade: outline(4, inside) })).has(`7,${y}`))
        .length;
    expect([between(true), between(false)]).toEqual([4, 0]);
  });
  it('steps of light: one leaves colours alone, two part dim from bright, and what glows stays', () => {
    const at = (steps: number, x: number): number => {
      const picture = developFilm(square(), { grade: makeGrade({ curve: 'none', steps }), transparent: true });
      return picture[(6 * SIZE + x) * 4]!;
    };
    // Linear 0.6 as sRGB is 203, whatever fell on it.
    expect([at(1, 4), at(1, 5), at(1, 6)]).toEqual([203, 203, 203]);
    expect(at(8, 5)).toBeGreaterThan(at(8, 6));
    const glowing = square();
    for (const tile of glowing.tiles) tile!.light.fill(6);
    const bright = developFilm(glowing, { grade: makeGrade({ curve: 'none', steps: 2 }) });
    expect(bright[(6 * SIZE + 6) * 4]).toBe(255);
  });
});
