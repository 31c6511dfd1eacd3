import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { CellSet, VoxelGrid, byteCounts, mapBytes } from '.';

const spot = fc.tuple(
  fc.integer({ min: -20, max: 30 }),
  fc.integer({ min: -20, max: 30 }),
  fc.integer({ min: -20, max: 30 }),
  fc.integer({ min: 1, max: 6 }),
);
const grids = fc.array(spot, { maxLength: 60 }).map((list) =>
  VoxelGrid.empty({ min: [-20, -20, -20], size: [51, 51, 51] }).edit((d) => {
    d.fillBox({ min: [-16, -16, -16], size: [20, 34, 17] }, 2);
    for (const [x, y, z, v] of list) d.fillBox({ min: [x, y, z], size: [3, 2, 4] }, v);
  }),
);
const tables = fc
  .array(fc.integer({ min: 0, max: 6 }), { minLength: 7, maxLength: 7 })
  .map((t) => Uint8Array.from({ length: 256 }, (_, i) => (i === 0 ? 0 : (t[i] ?? i))));

describe('bytes of a grid', () => {
  it('are counted as one by one', () => {
    fc.assert(
      fc.property(grids, (g) => {
        const slow = new Uint32Array(256);
        g.forEach((_x, _y, _z, v) => slow[v]!++);
        expect([...byteCounts(g)]).toEqual([...slow]);
      }),
      { numRuns: 25 },
    );
  });
  it('are mapped as one by one, inside a set or all over, and untouched bricks stay the same', () => {
    fc.assert(
      fc.property(grids, tables, fc.boolean(), (g, table, limited) => {
        const within = limited ? CellSet.ofBoxes([{ min: [-18, -3, -18], size: [21, 9, 30] }]) : null;
        const out = mapBytes(g, table, within);
        let wrong = 0,
          filled = 0;
        g.forEach((x, y, z, v) => {
          const want = within && !within.has(x, y, z) ? v : table[v]!;
          if (out.get(x, y, z) !== want) wrong++;
          if (want !== 0) filled++;
        });
        expect([wrong, out.count]).toEqual([0, filled]);
      }),
      { numRuns: 25 },
    );
    const g = VoxelGrid.empty({ min: [0, 0, 0], size: [48, 16, 16] }).edit((d) =>
      d.fillBox({ min: [0, 0, 0], size: [40, 9, 9] }, 3),
    );
    const one = mapBytes(
      g,
      Uint8Array.from({ length: 256 }, (_, i) => (i === 3 ? 4 : i)),
      CellSet.ofBoxes([{ min: [0, 0, 0], size: [2, 2, 2] }]),
    );
    expect(one.changedBricks(g)).toEqual([[0, 0, 0]]);
    expect(
      mapBytes(
        g,
        Uint8Array.from({ length: 256 }, (_, i) => (i === 9 ? 1 : i)),
      ),
    ).toBe(g);
  });
});
