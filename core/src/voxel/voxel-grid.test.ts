import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Box, Vec3 } from '../math';
import { GridError, VoxelGrid, rayWalk } from '.';

/** The slow twin of a grid: a map from cell to value. */
class Model {
  readonly cells = new Map<string, number>();
  constructor(readonly bounds: Box) {}
  set([x, y, z]: Vec3, v: number): void {
    const { min, size } = this.bounds;
    if (
      x < min[0] ||
      y < min[1] ||
      z < min[2] ||
      x >= min[0] + size[0] ||
      y >= min[1] + size[1] ||
      z >= min[2] + size[2]
    )
      return;
    if (v === 0) this.cells.delete(`${x},${y},${z}`);
    else this.cells.set(`${x},${y},${z}`, v);
  }
}
const cellsOf = (g: VoxelGrid): Record<string, number> => {
  const out: Record<string, number> = {};
  g.forEach((x, y, z, v) => (out[`${x},${y},${z}`] = v));
  return out;
};
const coord = fc.integer({ min: -40, max: 40 });
const cell = fc.tuple(coord, coord, coord);
const box = fc.record({
  min: cell,
  size: fc.tuple(...([0, 1, 2].map(() => fc.integer({ min: 1, max: 50 })) as [never, never, never])),
}) as fc.Arbitrary<Box>;
const op = fc.oneof(
  fc.record({ kind: fc.constant('set' as const), at: cell, v: fc.integer({ min: 0, max: 3 }) }),
  fc.record({
    kind: fc.constant('fill' as const),
    box: fc.record({
      min: cell,
      size: fc.tuple(fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 }), fc.integer({ min: 1, max: 20 })),
    }),
    v: fc.integer({ min: 0, max: 3 }),
  }),
);

describe('VoxelGrid against a map of cells', () => {
  it('agrees after any edits, and the grids before stay as they were', () => {
    fc.assert(
      fc.property(box, fc.array(fc.array(op, { maxLength: 6 }), { maxLength: 5 }), (bounds, strokes) => {
        let grid = VoxelGrid.empty(bounds);
        const model = new Model(bounds);
        const kept: { grid: VoxelGrid; cells: Record<string, number> }[] = [];
        for (const stroke of strokes) {
          grid = grid.edit((d) => {
            for (const o of stroke) {
              if (o.kind === 'set') {
                d.set(...o.at, o.v);
                model.set(o.at, o.v);
              } else {
                d.fillBox(o.box as Box, o.v);
                const { min, size } = o.box;
                for (let z = 0; z < size[2]; z++)
                  for (let y = 0; y < size[1]; y++)
                    for (let x = 0; x < size[0]; x++) model.set([min[0] + x, min[1] + y, min[2] + z], o.v);
              }
            }
          });
          kept.push({ grid, cells: Object.fromEntries(model.cells) });
        }
        for (const k of kept) {
          expect(cellsOf(k.grid)).toEqual(k.cells);
          expect(k.grid.count).toBe(Object.keys(k.cells).length);
        }
      }),
      { numRuns: 60 },
    );
  });

  it('growing and shrinking the box keeps every cell that stays inside', () => {
    fc.assert(
      fc.property(box, box, fc.array(cell, { maxLength: 30 }), (a, b, cells) => {
        const grid = VoxelGrid.empty(a).edit((d) =>
          cells.forEach((c, i) => d.set(...(c as [number, number, number]), 1 + (i % 5))),
        );
        const moved = grid.withBounds(b);
        const expected = Object.fromEntries(
          Object.entries(cellsOf(grid)).filter(([k]) => {
            const c = k.split(',').map(Number);
            return c.every((v, i) => v >= b.min[i]! && v < b.min[i]! + b.size[i]!);
          }),
        );
        expect(cellsOf(moved)).toEqual(expected);
        expect(moved.count).toBe(Object.keys(expected).length);
        expect(grid.count - moved.count).toBe(grid.countOutside(b));
      }),
      { numRuns: 60 },
    );
  });

  it('a dense copy comes back as the same grid', () => {
    fc.assert(
      fc.property(box, fc.array(cell, { maxLength: 30 }), (b, cells) => {
        const grid = VoxelGrid.empty(b).edit((d) => cells.forEach((c) => d.set(...(c as [number, number, number]), 7)));
        expect(VoxelGrid.fromDense(b, grid.readBox(b)).equals(grid)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
});

describe('VoxelGrid', () => {
  const full = VoxelGrid.empty({ min: [-128, 0, -128], size: [256, 256, 256] }).edit((d) => d.fillBox(d.bounds, 3));

  it('fills 256³ with one shared brick and no memory a cell', () => {
    expect(full.count).toBe(256 ** 3);
    expect(new Set([...full.bricks()].map((b) => b.brick)).size).toBe(1);
  });
  it('gives back the same grid when nothing changes', () => {
    expect(full.edit((d) => d.set(0, 0, 0, 3))).toBe(full);
    expect(
      full.edit((d) => {
        d.set(0, 0, 0, 4);
        d.set(0, 0, 0, 3);
      }),
    ).toBe(full);
  });
  it('shares all bricks but the touched one', () => {
    const next = full.edit((d) => d.set(-1, 5, 6, 9));
    expect(next.changedBricks(full)).toEqual([[-1, 0, 0]]);
    expect(next.bytesSince(full)).toBeLessThan(6000);
  });
  it('refuses volumes over 256 with a sentence', () => {
    expect(() => VoxelGrid.empty({ min: [0, 0, 0], size: [257, 1, 1] })).toThrow(GridError);
    expect(() => VoxelGrid.empty({ min: [0, 0, 0], size: [257, 1, 1] })).toThrow(/257×1×1.*1 to 256/);
  });
});

describe('rayWalk', () => {
  it('meets the same cube as a slow march of tiny steps', () => {
    fc.assert(
      fc.property(
        fc.array(cell, { minLength: 1, maxLength: 40 }),
        cell,
        fc.tuple(
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
          fc.double({ min: -1, max: 1, noNaN: true }),
        ),
        (cells, target, jitter) => {
          const bounds: Box = { min: [-40, -40, -40], size: [81, 81, 81] };
          const grid = VoxelGrid.empty(bounds).edit((d) =>
            cells.forEach((c) => d.set(...(c as [number, number, number]), 1)),
          );
          const origin: Vec3 = [70.3 + jitter[0], 61.7 + jitter[1], -66.1 + jitter[2]];
          const dir: Vec3 = [target[0] + 0.37 - origin[0], target[1] + 0.41 - origin[1], target[2] + 0.29 - origin[2]];
          let slow: Vec3 | null = null;
          for (let t = 0; t < 2 && !slow; t += 0.00005) {
            const c: Vec3 = [
              Math.floor(origin[0] + dir[0] * t),
              Math.floor(origin[1] + dir[1] * t),
              Math.floor(origin[2] + dir[2] * t),
            ];
            if (grid.get(...c) !== 0) slow = c;
          }
          const hit = rayWalk(grid, origin, dir, 2);
          // The march may step over a corner thinner than its step; the walk may never miss what it found.
          if (slow) expect(hit).not.toBeNull();
          if (slow && hit && JSON.stringify(slow) !== JSON.stringify(hit.cell)) expect(grid.get(...hit.cell)).toBe(1);
          if (slow && hit) expect(hit.t).toBeLessThanOrEqual(2);
        },
      ),
      { numRuns: 40 },
    );
  });
  it('tells the face: from above it is +Y, from the left +X', () => {
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [20, 20, 20] }).edit((d) => d.set(4, 5, 6, 1));
    expect(rayWalk(grid, [4.5, 30, 6.5], [0, -1, 0])).toEqual({ cell: [4, 5, 6], normal: [0, 1, 0], t: 24 });
    expect(rayWalk(grid, [30, 5.5, 6.5], [-2, 0, 0])).toEqual({ cell: [4, 5, 6], normal: [1, 0, 0], t: 12.5 });
    expect(rayWalk(grid, [30, 7.5, 6.5], [-2, 0, 0])).toBeNull();
  });
});
