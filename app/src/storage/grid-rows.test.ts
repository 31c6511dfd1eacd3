import { type Brick, VoxelGrid } from '@sphalerite/core/voxel';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FULL_EVERY, planGrid, readGrid } from './grid-rows';

/** A table in memory that stands for the database. */
class Shelf {
  readonly bricks = new Map<number, Brick>();
  readonly keys = new Map<Brick, number>();
  readonly rows: ReturnType<typeof planGrid>[] = [];
  put(grid: VoxelGrid, before: { grid: VoxelGrid; key: number } | null): number {
    const keyOf = (b: Brick): number => {
      if (!this.keys.has(b)) this.bricks.set(this.keys.set(b, this.keys.size + 1).size, b);
      return this.keys.get(b)!;
    };
    this.rows.push(planGrid(grid, before && { ...before, depth: this.rows[before.key]!.depth }, keyOf));
    return this.rows.length - 1;
  }
  get(key: number, like: VoxelGrid | null = null): VoxelGrid {
    const row = this.rows[key]!;
    return readGrid(row, row.base === null ? null : this.get(row.base), (k) => this.bricks.get(k)!, like);
  }
}

const cell = fc.tuple(
  fc.integer({ min: -30, max: 29 }),
  fc.integer({ min: 0, max: 59 }),
  fc.integer({ min: -30, max: 29 }),
  fc.integer({ min: 0, max: 3 }),
);

describe('stored grids', () => {
  it('come back cell for cell through chains of deltas', () => {
    fc.assert(
      fc.property(
        fc.array(fc.array(cell, { minLength: 1, maxLength: 5 }), { minLength: 1, maxLength: 90 }),
        (edits) => {
          const shelf = new Shelf();
          let grid = VoxelGrid.empty({ min: [-30, 0, -30], size: [60, 60, 60] }).edit((d) =>
            d.fillBox({ min: [-30, 0, -30], size: [60, 20, 60] }, 2),
          );
          let last = { grid, key: shelf.put(grid, null) };
          for (const e of edits) {
            grid = grid.edit((d) => e.forEach(([x, y, z, v]) => d.set(x, y, z, v)));
            if (grid === last.grid) continue;
            last = { grid, key: shelf.put(grid, last) };
            expect(shelf.rows.at(-1)!.depth).toBeLessThan(FULL_EVERY);
          }
          expect(shelf.get(last.key).equals(grid)).toBe(true);
        },
      ),
      { numRuns: 20 },
    );
  });

  it('one cube writes one brick and four numbers', () => {
    const shelf = new Shelf();
    const solid = VoxelGrid.empty({ min: [0, 0, 0], size: [256, 256, 256] }).edit((d) => d.fillBox(d.bounds, 5));
    const first = shelf.put(solid, null);
    expect(shelf.bricks.size).toBe(0);
    const next = shelf.put(
      solid.edit((d) => d.set(7, 8, 9, 1)),
      { grid: solid, key: first },
    );
    expect(shelf.bricks.size).toBe(1);
    expect(shelf.rows[next]!.table).toHaveLength(4);
  });

  it('a full table read beside a grid that is nearly the same shares all that is alike with it', () => {
    const shelf = new Shelf();
    const bounds = { min: [-20, 0, -20], size: [60, 60, 60] } as const;
    const grid = VoxelGrid.empty(bounds).edit((d) => d.fillBox({ min: [-20, 0, -20], size: [33, 33, 33] }, 2));
    const like = grid.edit((d) => {
      d.set(-20, 0, -20, 9);
      d.set(39, 59, 39, 9);
    });
    const read = shelf.get(shelf.put(grid, null), like);
    expect(read.equals(grid)).toBe(true);
    expect(read.count).toBe(grid.count);
    expect(read.changedBricks(like)).toHaveLength(2);
  });
});
