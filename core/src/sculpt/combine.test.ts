import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Mat4, type Quat, type Vec3, matrixOf, transformPoint } from '../math';
import { VoxelGrid } from '../voxel';
import { type Body, COMBININGS, combined, meetingOf, tilesOf } from './combine';

const grid = (cells: readonly (readonly [number, number, number, number])[], edge = 4): VoxelGrid =>
  VoxelGrid.empty({ min: [0, 0, 0], size: [edge, edge, edge] }).edit((d) => cells.forEach((c) => d.set(...c)));
const at = (t: Vec3, q: Quat = [0, 0, 0, 1], s = 1): Mat4 => matrixOf({ t, q, s: [s, s, s] });
const body = (g: VoxelGrid, matrix: Mat4, bytes: Uint8Array | null = null): Body => ({ grid: g, matrix, bytes });
const full = (edge: number, v: number): VoxelGrid =>
  VoxelGrid.empty({ min: [0, 0, 0], size: [edge, edge, edge] }).edit((d) =>
    d.fillBox({ min: [0, 0, 0], size: [edge, edge, edge] }, v),
  );
const count = (grids: readonly VoxelGrid[]): number => grids.reduce((n, g) => n + g.count, 0);
const H = Math.SQRT1_2;
/** Turns by quarters about one axis or two. */
const QUARTERS: readonly Quat[] = [
  [0, 0, 0, 1],
  [0, H, 0, H],
  [0, 1, 0, 0],
  [H, 0, 0, H],
  [0, 0, -H, H],
  [0.5, 0.5, 0.5, 0.5],
];
/** Cells that are set, by the places of their middles in the world in eighths: a slow and simple reference. */
const places = ({ grid: g, matrix }: Body): Map<string, number> => {
  const out = new Map<string, number>();
  g.forEach((x, y, z, v) => {
    for (const dx of [0.25, 0.75])
      for (const dy of [0.25, 0.75])
        for (const dz of [0.25, 0.75])
          out.set(
            transformPoint(matrix, [x + dx, y + dy, z + dz])
              .map((c) => Math.round(c * 8))
              .join(),
            v,
          );
  });
  return out;
};

describe('bodies combined', () => {
  it('are exact for quarter turns and whole or half shifts, counted cube for cube against sets of places', () => {
    const cell = fc.tuple(fc.nat(3), fc.nat(3), fc.nat(3), fc.integer({ min: 1, max: 5 }));
    fc.assert(
      fc.property(
        fc.array(cell, { minLength: 1, maxLength: 20 }),
        fc.array(cell, { minLength: 1, maxLength: 20 }),
        fc.constantFrom(...QUARTERS),
        fc.tuple(fc.integer({ min: -6, max: 6 }), fc.integer({ min: -6, max: 6 }), fc.integer({ min: -6, max: 6 })),
        fc.constantFrom(...QUARTERS),
        fc.constantFrom(...COMBININGS),
        (a, b, q, halves, home, op) => {
          const first = body(grid(a), at([3, 1, 2], home)),
            second = body(grid(b), at([3 + halves[0] / 2, 1 + halves[1] / 2, 2 + halves[2] / 2], q));
          const meeting = meetingOf([first, second], op);
          const result = combined([first, second], op);
          expect(meeting.exact).toEqual([true, true]);
          expect(meeting.factor).toBeLessThanOrEqual(2);
          const [own, other] = [places(first), places(second)];
          const wanted = new Map(
            op === 'unite' ? [...other, ...own] : [...own].filter(([key]) => other.has(key) === (op === 'intersect')),
          );
          // A cut cube stands for eight places, an uncut one as well.
          const finer = matrixOf({
            t: [0, 0, 0],
            q: [0, 0, 0, 1],
            s: [1 / meeting.factor, 1 / meeting.factor, 1 / meeting.factor],
          });
          const found = new Map<string, number>();
          for (const g of result)
            g.forEach((x, y, z, v) => {
              const steps = meeting.factor === 2 ? [0.5] : [0.25, 0.75];
              for (const dx of steps)
                for (const dy of steps)
                  for (const dz of steps)
                    found.set(
                      transformPoint(first.matrix, transformPoint(finer, [x + dx, y + dy, z + dz]))
                        .map((c) => Math.round(c * 8))
                        .join(),
                      v,
                    );
            });
          expect(new Map([...found].sort())).toEqual(new Map([...wanted].sort()));
        },
      ),
      { numRuns: 150 },
    );
  });
  it('of larger cubes fill as many smaller ones; of thirds are cut by three', () => {
    const small = body(full(2, 1), at([0, 0, 0])),
      large = body(full(1, 2), at([1, 0, 0], [0, 0, 0, 1], 3));
    expect(meetingOf([small, large], 'unite')).toMatchObject({ factor: 1, exact: [true, true] });
    // A block of eight and one of twenty-seven that share four cells.
    expect(count(combined([small, large], 'unite'))).toBe(8 + 27 - 4);
    expect(meetingOf([large, small], 'unite')).toMatchObject({ factor: 3, exact: [true, true] });
    expect(count(combined([large, small], 'subtract'))).toBe(27 - 4);
  });
  it('turned freely are looked up, and hold about what they held', () => {
    const home = body(full(1, 1), at([-40, 0, 0])),
      turned = body(full(20, 2), at([0, 0, 0], [0, Math.sin(0.3), 0, Math.cos(0.3)]));
    expect(meetingOf([home, turned], 'unite').exact).toEqual([true, false]);
    const n = count(combined([home, turned], 'unite')) - 1;
    expect(Math.abs(n - 8000) / 8000).toBeLessThan(0.02);
  });
  it('beyond 256 come in tiles that leave nothing out and share nothing', () => {
    const bodies = [body(full(2, 1), at([0, 0, 0])), body(full(3, 2), at([600, 4, 1]))];
    const grids = combined(bodies, 'unite');
    expect(count(grids)).toBe(8 + 27);
    expect(grids.every((g) => g.bounds.size.every((s) => s <= 256))).toBe(true);
    const tiles = tilesOf({ min: [-3, 0, 5], size: [603, 7, 300] });
    expect(tiles).toHaveLength(6);
    expect(tiles.reduce((v, t) => v + t.size[0] * t.size[1] * t.size[2], 0)).toBe(603 * 7 * 300);
  });
  it('take the bytes of the result', () => {
    const bytes = new Uint8Array(256);
    bytes[7] = 9;
    const [g] = combined([body(full(1, 1), at([0, 0, 0])), body(full(1, 7), at([1, 0, 0]), bytes)], 'unite');
    expect([g!.get(0, 0, 0), g!.get(1, 0, 0)]).toEqual([1, 9]);
  });
});
