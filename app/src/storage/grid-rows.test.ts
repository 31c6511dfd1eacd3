import { type Brick, VoxelGrid } from '@sphalerite/core/voxel';
import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FULL_EVERY, type GridPlan, planGrid, readGrid } from './grid-rows';

/** A table in memory that stands for the database. */
class Shelf {
  readonly bricks = new Map<number, Brick>();
  readonly keys = new Map<Brick, number>();
  readonly rows: GridPlan['row'][] = [];
  put(grid: VoxelGrid, before: { grid: VoxelGrid; key: number } | null): { key: number; fresh: number } {
    const plan = planGrid(grid, before && { ...before, depth: this.rows[before.key]!.depth }, (b) => this.keys.get(b));
    for (const m of plan.missing) {
      if (!this.keys.has(m.brick)) {
        this.keys.set(m.brick, this.keys.size + 1);
        this.bricks.set(this.keys.size, m.brick);
      }
      plan.row.table[m.at] = this.keys.get(m.brick)!;
    }
    this.rows.push(plan.row);
    return { key: this.rows.length - 1, fresh: plan.missing.length };
  }
  get(key: number): VoxelGrid {
    const row = this.rows[key]!;
    return readGrid(row, row.base === null ? null : this.get(row.base), (k) => this.bricks.get(k)!);
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
          let last = { grid, key: shelf.put(grid, null).key };
          for (const e of edits) {
            grid = grid.edit((d) => e.forEach(([x, y, z, v]) => d.set(x, y, z, v)));
            if (grid === last.grid) continue;
            last = { grid, key: shelf.put(grid, last).key };
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
    expect(first.fresh).toBe(0);
    const next = shelf.put(
      solid.edit((d) => d.set(7, 8, 9, 1)),
      { grid: solid, key: first.key },
    );
    expect(next.fresh).toBe(1);
    expect(shelf.rows[next.key]!.table).toHaveLength(4);
  });
});
