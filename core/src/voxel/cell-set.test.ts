import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Box, type Vec3, boxHas, vec3Of } from '../math';
import { CellSet, VoxelGrid, connectedPieces, flood, piecesSet } from '.';

const bounds: Box = { min: [-19, -3, -5], size: [70, 7, 9] };
const at = fc.tuple(
  fc.integer({ min: -19, max: 50 }),
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: -5, max: 3 }),
);
const boxes = fc.array(
  fc.record({
    min: at,
    size: fc.tuple(fc.integer({ min: 1, max: 45 }), fc.integer({ min: 1, max: 3 }), fc.integer({ min: 1, max: 3 })),
  }) as fc.Arbitrary<Box>,
  { maxLength: 4 },
);
const gridOf = (list: readonly Box[]): VoxelGrid =>
  VoxelGrid.empty(bounds).edit((d) => list.forEach((b, i) => d.fillBox(b, i + 1)));
/** The set cell by cell, as text. */
const keys = (s: CellSet): Set<string> => {
  const out = new Set<string>();
  s.forEach((x, y, z) => out.add([x, y, z].join()));
  return out;
};
const near = (diagonals: boolean): Vec3[] => {
  const out: Vec3[] = [];
  for (let z = -1; z <= 1; z++)
    for (let y = -1; y <= 1; y++)
      for (let x = -1; x <= 1; x++)
        if ((x || y || z) && (diagonals || Math.abs(x) + Math.abs(y) + Math.abs(z) === 1)) out.push([x, y, z]);
  return out;
};
/** Flooding by a stack of cells. */
function slowFlood(open: Set<string>, seed: Vec3, diagonals: boolean): Set<string> {
  const got = new Set<string>();
  const stack = open.has(seed.join()) ? [seed] : [];
  if (stack.length > 0) got.add(seed.join());
  while (stack.length > 0) {
    const c = stack.pop()!;
    for (const n of near(diagonals)) {
      const k: Vec3 = [c[0] + n[0], c[1] + n[1], c[2] + n[2]];
      if (!open.has(k.join()) || got.has(k.join())) continue;
      got.add(k.join());
      stack.push(k);
    }
  }
  return got;
}

describe('cell sets', () => {
  it('hold the filled cells of a grid and count them; runs come back as the same set', () => {
    fc.assert(
      fc.property(boxes, (list) => {
        const grid = gridOf(list),
          set = CellSet.filled(grid);
        expect(set.count).toBe(grid.count);
        expect(set.tight).toEqual(grid.contentBox());
        const again = new CellSet(bounds);
        set.runs((x0, x1, y, z) => again.addRun(x0, x1, y, z));
        expect(again.equals(set)).toBe(true);
        grid.forEach((x, y, z) => expect(set.has(x, y, z)).toBe(true));
        expect(CellSet.ofValue(grid, 0).count).toBe(70 * 7 * 9 - grid.count);
      }),
      { numRuns: 40 },
    );
  });
  it('union, difference, intersection, growth and shrinking agree with plain sets', () => {
    fc.assert(
      fc.property(boxes, boxes, fc.boolean(), (la, lb, diagonals) => {
        const a = CellSet.filled(gridOf(la)),
          b = CellSet.filled(gridOf(lb), { min: [-30, -3, -5], size: [60, 5, 9] });
        const ka = keys(a),
          kb = keys(b);
        expect(keys(a.union(b))).toEqual(new Set([...ka, ...kb]));
        expect(keys(a.minus(b))).toEqual(new Set([...ka].filter((k) => !kb.has(k))));
        expect(keys(a.intersect(b))).toEqual(new Set([...ka].filter((k) => kb.has(k))));
        const grown = new Set(ka),
          shrunk = new Set(ka);
        for (const k of ka) {
          const c = k.split(',').map(Number);
          for (const n of near(diagonals)) {
            const to: Vec3 = [c[0]! + n[0], c[1]! + n[1], c[2]! + n[2]];
            if (boxHas(bounds, to)) grown.add(to.join());
            if (!ka.has(to.join())) shrunk.delete(k);
          }
        }
        expect(keys(a.grown(1, diagonals, bounds))).toEqual(grown);
        expect(keys(a.shrunk(1, diagonals))).toEqual(shrunk);
      }),
      { numRuns: 25 },
    );
  });
  it('fill a grid as cell by cell, whole bricks at once included', () => {
    fc.assert(
      fc.property(boxes, boxes, fc.integer({ min: 0, max: 3 }), (la, lb, value) => {
        const grid = gridOf(la),
          set = CellSet.filled(gridOf(lb));
        const slow = grid.edit((d) => set.forEach((x, y, z) => d.set(x, y, z, value)));
        expect(grid.edit((d) => d.fillSet(set, value)).equals(slow)).toBe(true);
      }),
      { numRuns: 40 },
    );
    const big = VoxelGrid.empty({ min: [0, 0, 0], size: [48, 48, 48] });
    const full = big.edit((d) => d.fillSet(CellSet.ofBox(big.bounds), 4));
    expect(full.count).toBe(48 ** 3);
    expect(full.brickAt(1, 1, 1)).toBe(full.brickAt(2, 0, 1));
  });
  it('a clipped grid shows only its box and keeps cut bricks from edit to edit', () => {
    const grid = gridOf([{ min: [-19, -3, -5], size: [70, 7, 9] }]);
    const box: Box = { min: [-3, -1, -2], size: [20, 3, 4] };
    const cut = grid.clippedTo(box);
    expect(cut.count).toBe(240);
    const edited = grid.edit((d) => d.set(0, 0, 0, 9)).clippedTo(box);
    expect(edited.get(0, 0, 0)).toBe(9);
    expect(edited.changedBricks(cut)).toEqual([[0, 0, 0]]);
    expect(grid.edit((d) => d.fillBox(bounds, 0), box).count).toBe(grid.count - 240);
  });
});

describe('flooding and pieces', () => {
  it('agree with a stack of cells, with and without diagonals', () => {
    fc.assert(
      fc.property(boxes, at, fc.boolean(), fc.boolean(), (list, seed, diagonals, empty) => {
        const filled = CellSet.filled(gridOf(list));
        const open = empty ? filled.inverted(bounds) : filled;
        expect(keys(flood(open, [seed as Vec3], diagonals))).toEqual(slowFlood(keys(open), seed as Vec3, diagonals));
      }),
      { numRuns: 40 },
    );
  });
  it('every piece is what flooding from one of its cells gives, largest first, and together they are all', () => {
    fc.assert(
      fc.property(fc.array(at, { maxLength: 60 }), boxes, fc.boolean(), (cells, list, diagonals) => {
        const set = CellSet.ofCells(cells as Vec3[])
          .within(bounds)
          .union(CellSet.filled(gridOf(list.slice(0, 2))));
        const pieces = connectedPieces(set, diagonals);
        const left = keys(set);
        pieces.sizes.forEach((size, i) => {
          const piece = keys(piecesSet(pieces, (p) => p === i));
          expect(piece.size).toBe(size);
          if (i > 0) expect(size).toBeLessThanOrEqual(pieces.sizes[i - 1]!);
          const first = vec3Of([...piece][0]!.split(',').map(Number));
          expect(piece).toEqual(slowFlood(keys(set), first, diagonals));
          for (const k of piece) left.delete(k);
        });
        expect(left.size).toBe(0);
      }),
      { numRuns: 30 },
    );
  });
  it('follows a winding corridor across words and rows', () => {
    // A comb of walls with one gap each, at alternating ends.
    const open = new CellSet({ min: [0, 0, 0], size: [100, 1, 41] });
    for (let z = 0; z < 41; z += 2) open.addRun(0, 100, 0, z);
    for (let z = 1; z < 41; z += 2) open.addRun(z % 4 === 1 ? 99 : 0, z % 4 === 1 ? 100 : 1, 0, z);
    expect(flood(open, [[0, 0, 0]]).count).toBe(open.count);
  });
});
