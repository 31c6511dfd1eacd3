import { describe, expect, it } from 'vitest';
import { finish } from '../../math';
import { type Triangles, ball, box, lathe, soup, surface, torus, turnedWhere } from './bodies.testing';
import { insideSteps } from './inside';
import { solidAngle } from './sides';
import { FINE, type Soup } from './soup';

const SIZE = [24, 24, 24] as const;
const cellsOf = (t: Triangles, size: readonly [number, number, number] = SIZE): Uint8Array =>
  finish(insideSteps(soup(t, size))).cells;
const volume = (cells: Uint8Array): number => cells.reduce((n, c) => n + c, 0);

/** The winding number of a cell's middle by summing over every triangle. */
function winding(s: Soup, x: number, y: number, z: number): number {
  const from = [(x + 0.5) * FINE, (y + 0.5) * FINE, (z + 0.5) * FINE];
  let sum = 0;
  for (let t = 0; t < s.triangles.length / 3; t++) sum += solidAngle(s, t, from);
  return sum / (4 * Math.PI);
}

/** Cells of which the slow way says otherwise; those where it is within a hair of a half are nobody's. */
function wrong(t: Triangles, size: readonly [number, number, number] = SIZE): number {
  const s = soup(t, size),
    cells = cellsOf(t, size);
  let n = 0;
  for (let z = 0, i = 0; z < size[2]; z++)
    for (let y = 0; y < size[1]; y++)
      for (let x = 0; x < size[0]; x++, i++) {
        const w = Math.abs(winding(s, x, y, z));
        if (Math.abs(w - 0.5) > 1e-6 && w > 0.5 !== (cells[i] === 1)) n++;
      }
  return n;
}

describe('cells inside a mesh', () => {
  const middle = [12.1, 11.9, 12.3] as const;

  it('agrees with the sum over all triangles for closed bodies', () => {
    expect(wrong(ball(middle, 9.7, 24))).toBe(0);
    expect(wrong(torus(middle, 7, 3, 24))).toBe(0);
    expect(wrong([...box([2.2, 3.1, 4.3], [9, 8, 7]), ...box([6.7, 6.2, 6.9], [12, 9, 11])])).toBe(0);
  });

  it('agrees with it where there are holes', () => {
    expect(
      wrong(
        lathe(
          [12.2, 2.1, 11.7],
          [
            [0, 0],
            [7, 0],
            [8, 9],
            [3, 13],
            [3, 19],
          ]
            .map(([r, h]) => [r!, h!] as const)
            .reverse(),
          20,
        ),
      ),
    ).toBe(0);
    expect(wrong(ball(middle, 9.3, 24).slice(0, 9 * 900))).toBe(0);
    expect(wrong(box([3.3, 3.2, 3.4], [15, 14, 16], [0, 1, 2, 4, 5]))).toBe(0);
    // Two holes that face each other, their rims on rims of cells.
    expect(wrong(box([4, 4, 4], [12, 12, 12], [0, 1, 2, 3]))).toBe(0);
  });

  it.each([
    ['all turned', () => true],
    ['a few turned', (t: number) => t % 5 === 0],
  ])('is the same whichever way faces are turned: %s', (_, is) => {
    for (const body of [ball(middle, 9, 20), torus(middle, 7, 3, 20), box([3, 4, 5], [12, 9, 8])])
      expect(cellsOf(turnedWhere(body, is))).toEqual(cellsOf(body));
  });

  it('keeps hollows, unites what overlaps, and takes bodies with both sides of every face', () => {
    const outer = box([2, 2, 2], [16, 16, 16]),
      hollow = turnedWhere(box([5, 5, 5], [6, 6, 6]), () => true);
    expect(volume(cellsOf([...outer, ...hollow]))).toBe(16 ** 3 - 6 ** 3);
    // Inside out altogether it is the same.
    expect(volume(cellsOf(turnedWhere([...outer, ...hollow], () => true)))).toBe(16 ** 3 - 6 ** 3);
    const two = [...box([2, 2, 2], [8, 8, 8]), ...turnedWhere(box([6, 2, 2], [8, 8, 8]), () => true)];
    expect(volume(cellsOf(two))).toBe(12 * 8 * 8);
    const ring = torus(middle, 7, 3, 20);
    expect(cellsOf([...ring, ...turnedWhere(ring, () => true)])).toEqual(cellsOf(ring));
    // Walls between two bodies that touch are there for both.
    expect(volume(cellsOf([...box([2, 2, 2], [6, 8, 8]), ...box([8, 2, 2], [6, 8, 8])]))).toBe(12 * 8 * 8);
  });

  it('takes long edges that meet short ones as closed', () => {
    const split = (n: number): Triangles => surface(n, 1, (u, v) => [4 + 12 * u, 16, 16 - 12 * v]);
    const lid = [...box([4, 4, 4], [12, 12, 12], [0, 1, 2, 4, 5]), ...split(4)];
    expect(volume(cellsOf(lid))).toBe(12 ** 3);
  });

  it('holds volumes of 128 cubes to a hundredth', () => {
    const size = [128, 128, 128] as const,
      c = [64, 64, 64] as const;
    const share = (t: Triangles, exact: number): number => volume(cellsOf(t, size)) / exact;
    expect(share(ball(c, 60, 200), (4 / 3) * Math.PI * 60 ** 3)).toBeCloseTo(1, 2);
    expect(share(torus(c, 42, 18, 160), 2 * Math.PI ** 2 * 42 * 18 ** 2)).toBeCloseTo(1, 2);
  });

  it('gives a mirrored body mirrored cells, whatever lies on middles and rims of cells', () => {
    const mirrored = (t: Triangles): Triangles =>
      turnedWhere(
        t.map((v, i) => (i % 3 === 0 ? 24 - v : v)),
        () => true,
      );
    for (const t of [
      ball([9.5, 12, 12], 7.5, 20),
      box([2.5, 3, 3.5], [10, 7.5, 9]),
      box([3.5, 3.5, 3.5], [12, 12, 12], [0, 1, 2, 4, 5]),
    ]) {
      const [one, other] = [cellsOf(t), cellsOf(mirrored(t))];
      const flipped = one.map((_, i) => one[i - (i % 24) + 23 - (i % 24)]!);
      expect(other).toEqual(flipped);
    }
  });

  it('ends for a mess of triangles', () => {
    let seed = 7;
    const random = (): number => (seed = (seed * 16807) % 2147483647) / 2147483647;
    const mess = Array.from({ length: 9 * 400 }, () => 1 + 22 * random());
    expect(volume(cellsOf(mess))).toBeLessThan(24 ** 3);
    // A bottle that goes through itself and has one side.
    const bottle = surface(24, 24, (u, v) => {
      const [a, b] = [2 * Math.PI * u, 2 * Math.PI * v];
      const r = 5 + Math.cos(a / 2) * Math.sin(b) - Math.sin(a / 2) * Math.sin(2 * b);
      return [
        12 + r * Math.cos(a),
        12 + 2 * (Math.sin(a / 2) * Math.sin(b) + Math.cos(a / 2) * Math.sin(2 * b)),
        12 + r * Math.sin(a),
      ];
    });
    expect(volume(cellsOf(bottle))).toBeGreaterThan(0);
  });
});
