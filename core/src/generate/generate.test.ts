import { describe, expect, it } from 'vitest';
import { CellSet, type VoxelGrid, byteCounts, connectedPieces } from '../voxel';
import { GENERATORS, generatorOf } from '.';
import { terrainWith } from './terrain';
import { placeIn } from './wall';

const make = (id: string, wishes: object = {}) => {
  const g = generatorOf(id)!;
  return g.make(g.options.parse(wishes));
};
const pieces = (grid: VoxelGrid, diagonals = false): number =>
  connectedPieces(CellSet.filled(grid), diagonals).sizes.length;

/** Room for panels to grow in. */
const WIDE = { min: [-128, 0, -128], size: [256, 40, 256] } as const;

describe('what is made up', () => {
  it.each(GENERATORS.map((g) => g.id))('%s is the same for the same seed, another for another, and sound', (id) => {
    const [one, again, other] = [make(id, { seed: 4 }), make(id, { seed: 4 }), make(id, { seed: 5 })];
    expect(one.parts.length).toBeGreaterThan(0);
    expect(one.parts.map((p) => p.name)).toEqual(again.parts.map((p) => p.name));
    expect(one.parts.every((p, i) => p.grid.equals(again.parts[i]!.grid))).toBe(true);
    expect(one.parts.some((p, i) => !other.parts[i] || !p.grid.equals(other.parts[i].grid))).toBe(true);
    const known = new Set(one.swatches.map((s) => s.byte));
    for (const { grid } of one.parts) {
      expect(grid.count).toBeGreaterThan(0);
      byteCounts(grid).forEach((n, b) => n > 0 && expect(known.has(b), `${id} byte ${b}`).toBe(true));
    }
  });

  it('a tree is one piece that stands on the ground, as high and wide as wished, and leans with the wind', () => {
    for (const shape of ['round', 'cone', 'flat', 'bare'] as const)
      for (const seed of [1, 2, 3, 4]) {
        const { grid } = make('tree', { seed, shape, height: 50, crown: 34 }).parts[0]!;
        expect(pieces(grid), `${shape} ${seed}`).toBe(1);
        const { min, size } = grid.contentBox()!;
        expect(min[1]).toBe(0);
        expect(Math.abs(size[1] - 50), `${shape} ${seed}`).toBeLessThan(14);
        expect(size[0]).toBeLessThan(34 * 1.5);
      }
    const middle = (wind: number): number => {
      const { grid } = make('tree', { seed: 8, wind }).parts[0]!;
      let sum = 0;
      grid.forEach((x) => (sum += x));
      return sum / grid.count;
    };
    expect(middle(1)).toBeGreaterThan(middle(0) + 4);
  });

  it('rocks, clouds and crystals are one piece each', () => {
    for (const id of ['rock', 'cloud', 'crystal'])
      for (const seed of [1, 2, 3, 4, 5, 6]) expect(pieces(make(id, { seed }).parts[0]!.grid), `${id} ${seed}`).toBe(1);
  });

  it('a river runs downhill from inside to the rim, its water level step by step no higher', () => {
    const options = generatorOf('terrain')!.options;
    for (const seed of [1, 2, 3, 4, 5, 6, 7, 8]) {
      const o = options.parse({ seed, width: 60, depth: 50 }) as Parameters<typeof terrainWith>[0];
      const { river, grid } = terrainWith(o);
      expect(river.length).toBeGreaterThan(8);
      river.forEach((r, i) => {
        if (i === 0) return;
        const before = river[i - 1]!;
        expect(r.level).toBeLessThanOrEqual(before.level);
        expect(Math.abs(r.x - before.x) + Math.abs(r.z - before.z)).toBe(1);
        // Nothing stands in it.
        const [x, z] = [r.x + grid.bounds.min[0], r.z + grid.bounds.min[2]];
        expect(grid.get(x, r.level, z), `${seed} at ${i}`).toBe(0);
        expect(grid.get(x, r.level - 1, z)).toBeGreaterThan(0);
      });
      const end = river.at(-1)!;
      expect(end.x === 0 || end.z === 0 || end.x === 59 || end.z === 49).toBe(true);
    }
    const flat = make('terrain', { seed: 3, river: false }).parts[0]!.grid;
    expect(pieces(flat)).toBe(1);
  });

  it('panels stand apart as asked, one part a plate, and are mirrored where wished', () => {
    for (const apart of [1, 2, 5]) {
      const { grid } = make('panels', { seed: 6, apart, parts: 'one' }).parts[0]!;
      const own = connectedPieces(CellSet.filled(grid));
      expect(own.sizes.length).toBe(make('panels', { seed: 6, apart }).parts.length);
      // Grown by half of the space between they still do not meet; by more they do.
      const near = (steps: number): number =>
        connectedPieces(CellSet.filled(grid).grown(steps, true, WIDE)).sizes.length;
      expect(near(Math.floor((apart - 1) / 2)), `apart ${apart}`).toBe(own.sizes.length);
      expect(near(Math.ceil((apart + 1) / 2))).toBeLessThan(own.sizes.length);
    }
    for (const { grid } of make('panels', { seed: 6, symmetry: 'across' }).parts) {
      const { min, size } = grid.bounds;
      let wrong = 0;
      grid.forEach((x, y, z, v) => (wrong += grid.get(2 * min[0] + size[0] - 1 - x, y, z) === v ? 0 : 1));
      expect(wrong).toBe(0);
    }
  });

  it('courses meet at corners: beds are level all around, and there no joint stands over another', () => {
    const o = { plan: 'room', width: 40, thick: 4, long: 8, course: 4, joint: 1 } as const,
      size = [40, 24, 32] as const;
    for (let y = 0; y < 24; y++) {
      const joints = [
        [20, 31],
        [20, 0],
        [0, 15],
        [39, 15],
        [1, 30],
        [38, 1],
      ].map(([x, z]) => placeIn(x!, y, z!, o, size)!.joint);
      if (y % 4 === 3) expect(joints.every(Boolean)).toBe(true);
    }
    // The corner post is of one wall and the other in turns.
    const post = [0, 4, 8, 12].map((y) => placeIn(1, y, 30, o, size)!.brick % 4);
    expect(post[0]).toBe(post[2]);
    expect(post[1]).toBe(post[3]);
    expect(post[0]).not.toBe(post[1]);
    const { grid } = make('wall', { plan: 'room', decay: 0, chipped: 0 }).parts[0]!;
    expect(pieces(grid)).toBe(1);
    expect(grid.contentBox()!.size).toEqual([48, 30, 36]);
  });

  it('a rope goes through its places and hangs together; a chain hangs lower the more it sags', () => {
    const path = '-30,40,0;0,25,10;30,44,-6';
    for (const kind of ['rope', 'chain'] as const) {
      const { grid } = make('rope', { kind, path, sag: 0, thick: 6 }).parts[0]!;
      expect(pieces(grid, true), kind).toBe(1);
      const { min, size } = grid.contentBox()!;
      expect([min[0] <= -28, min[0] + size[0] >= 28]).toEqual([true, true]);
    }
    const low = (sag: number): number =>
      make('rope', { kind: 'chain', path: '0,40,0;60,40,0', sag }).parts[0]!.grid.contentBox()!.min[1];
    expect(low(0.8)).toBeLessThan(low(0.1) - 8);
  });
});
