import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Axis, type Box, type Vec3, mapVec } from '../math';
import { CellSet, VoxelGrid } from '../voxel';
import {
  coarsened,
  cutOpening,
  cutOut,
  grainOf,
  innerCells,
  mirrorOver,
  mirroredGrid,
  movedGrid,
  quarterTurned,
  refined,
  regionCells,
  resampled,
  rowPlan,
  turnedGrid,
  unpairedCells,
  untidy,
  withRow,
  type Opening,
} from '.';

const bounds: Box = { min: [-8, -8, -8], size: [16, 16, 16] };
const cells = fc.array(
  fc.tuple(
    fc.integer({ min: -6, max: 5 }),
    fc.integer({ min: -6, max: 5 }),
    fc.integer({ min: -6, max: 5 }),
    fc.integer({ min: 1, max: 5 }),
  ),
  { minLength: 1, maxLength: 40 },
);
const gridOf = (list: readonly (readonly [number, number, number, number])[]): VoxelGrid =>
  VoxelGrid.empty(bounds).edit((d) => list.forEach((c) => d.set(...c)));
const tally = (g: VoxelGrid): number[] => {
  const n = new Array<number>(256).fill(0);
  g.forEach((_x, _y, _z, v) => n[v]!++);
  return n;
};
const axes = fc.constantFrom(0, 1, 2) as fc.Arbitrary<Axis>;
/** A grid cut to what it holds, so that only cells are compared. */
const tight = (g: VoxelGrid): VoxelGrid => g.withBounds(g.contentBox()!);
/** Slices from the top of an ASCII drawing: rows along z, letters a–z are bytes. */
const draw = (...rows: string[]): VoxelGrid =>
  VoxelGrid.empty({ min: [0, 0, 0], size: [rows[0]!.length, 1, rows.length] }).edit((d) =>
    rows.forEach((r, z) => [...r].forEach((c, x) => c !== '.' && d.set(x, 0, z, c.charCodeAt(0) - 96))),
  );
const drawn = (g: VoxelGrid): string[] =>
  Array.from({ length: g.bounds.size[2] }, (_, z) =>
    Array.from({ length: g.bounds.size[0] }, (_x, x) => {
      const v = g.get(g.bounds.min[0] + x, g.bounds.min[1], g.bounds.min[2] + z);
      return v === 0 ? '.' : String.fromCharCode(96 + v);
    }).join(''),
  );

describe('moving, turning and mirroring', () => {
  it('keep every cube and its colour; four quarters and two mirrors are nothing', () => {
    fc.assert(
      fc.property(cells, axes, fc.integer({ min: 0, max: 3 }), fc.integer({ min: -6, max: 6 }), (list, axis, n, h) => {
        const g = tight(gridOf(list));
        expect(tally(quarterTurned(g, axis, n))).toEqual(tally(g));
        expect(quarterTurned(quarterTurned(g, axis, n), axis, 4 - n).count).toBe(g.count);
        const round = quarterTurned(g, axis, 4);
        expect(round.equals(g)).toBe(true);
        expect(mirroredGrid(mirroredGrid(g, axis, h), axis, h).equals(g)).toBe(true);
        expect(movedGrid(movedGrid(g, [3, -2, 1]), [-3, 2, -1]).equals(g)).toBe(true);
      }),
      { numRuns: 40 },
    );
  });
  it('a quarter about Y takes +Z to +X, seen on a drawing', () => {
    expect(drawn(quarterTurned(draw('abc', '...'), 1, 1))).toEqual(['c.', 'b.', 'a.']);
    expect(drawn(quarterTurned(draw('ab', 'c.'), 1, 2))).toEqual(['.c', 'ba']);
  });
  it('a turned copy of a radial by quarters agrees with quarter turns about its middle', () => {
    fc.assert(
      fc.property(cells, (list) => {
        const g = tight(gridOf(list));
        const centre: [number, number] = [
          2 * g.bounds.min[2] + g.bounds.size[2],
          2 * g.bounds.min[0] + g.bounds.size[0],
        ];
        if ((centre[0] + centre[1]) % 2 !== 0) return;
        const turned = turnedGrid(g, { axis: 1, count: 4, centre }, 1)!;
        expect(tight(turned).equals(tight(quarterTurned(g, 1, 1)))).toBe(true);
      }),
      { numRuns: 30 },
    );
  });
});

describe('mirroring afterwards', () => {
  it('leaves nothing unpaired, keeps the kept half, on cubes and between', () => {
    fc.assert(
      fc.property(cells, axes, fc.integer({ min: -3, max: 3 }), fc.boolean(), (list, axis, h, low) => {
        const g = gridOf(list).withBounds({ min: [-24, -24, -24], size: [48, 48, 48] });
        const keep = low ? ('low' as const) : ('high' as const);
        const out = mirrorOver(g, axis, h, keep);
        expect(unpairedCells(out, axis, h, true).count).toBe(0);
        g.forEach((x, y, z, v) => {
          const k = 2 * [x, y, z][axis]! + 1;
          if (low ? k <= h : k >= h) expect(out.get(x, y, z)).toBe(v);
        });
      }),
      { numRuns: 40 },
    );
  });
  it('a selection is carried over alone', () => {
    const g = draw('a..b');
    const out = mirrorOver(g, 0, 4, 'low', CellSet.ofCells([[0, 0, 0]]));
    expect(drawn(out)).toEqual(['a..a']);
    expect(unpairedCells(g, 0, 4, false).count).toBe(0);
    expect(unpairedCells(g, 0, 4, true).count).toBe(2);
  });
});

describe('regions', () => {
  const g = draw('aab..', 'a.bb.', '..b.a');
  const query = { cell: [0, 0, 0] as Vec3, normal: [0, 1, 0] as Vec3, diagonals: false };
  it('connected, of one colour, of all, empty space', () => {
    expect(regionCells(g, { ...query, kind: 'connected' }).count).toBe(7);
    expect(regionCells(g, { ...query, kind: 'connected', diagonals: true }).count).toBe(8);
    expect(regionCells(g, { ...query, kind: 'colour' }).count).toBe(3);
    expect(regionCells(g, { ...query, kind: 'all of colour' }).count).toBe(4);
    expect(regionCells(g, { ...query, kind: 'face' }).count).toBe(7);
    expect(regionCells(g, { ...query, kind: 'space', cell: [3, 0, 0] }).count).toBe(3);
    expect(regionCells(g, { ...query, kind: 'space' }).isEmpty).toBe(true);
  });
});

describe('grain', () => {
  it('refining and coarsening again is nothing; refined cubes are k³ each', () => {
    fc.assert(
      fc.property(cells, fc.constantFrom(2, 3), (list, k) => {
        const g = tight(gridOf(list));
        const fine = refined(g, k);
        expect(fine.count).toBe(g.count * k ** 3);
        expect(coarsened(fine, k).equals(g)).toBe(true);
        expect(
          resampled(
            g,
            g.bounds,
            mapVec(g.bounds.size, (s) => s * k),
            mapVec(g.bounds.min, (s) => s * k),
          ).equals(fine),
        ).toBe(true);
      }),
      { numRuns: 25 },
    );
  });
  it('coarsening takes what most cubes are, and tells full blocks from half empty ones', () => {
    expect(drawn(coarsened(draw('aab.', 'ac..').withBounds({ min: [0, 0, 0], size: [4, 2, 2] }), 2))).toEqual(['a.']);
    const full = VoxelGrid.empty({ min: [0, 0, 0], size: [4, 2, 2] }).edit((d) =>
      d.fillBox({ min: [0, 0, 0], size: [4, 2, 2] }, 1),
    );
    expect(grainOf(full)).toEqual({ mixed: [], blocks: 2 });
    expect(grainOf(full.edit((d) => d.set(3, 1, 1, 2))).mixed).toEqual([[1, 0, 0]]);
  });
  it('resampling says which rows double or go, and keeps symmetry', () => {
    expect(rowPlan(4, 8)).toEqual({ from: [0, 0, 1, 1, 2, 2, 3, 3], doubled: [0, 1, 2, 3], lost: [] });
    expect(rowPlan(20, 23).doubled).toHaveLength(3);
    expect(rowPlan(20, 17).lost).toHaveLength(3);
    for (let a = 1; a < 30; a++)
      for (let b = 1; b < 30; b++) {
        const { from } = rowPlan(a, b);
        from.forEach((f, i) => {
          expect(f).toBeGreaterThanOrEqual(0);
          // The middle row of an odd size that lands between two old ones has no mirror image to agree with.
          if (2 * i + 1 !== b) expect(f).toBe(a - 1 - from[b - 1 - i]!);
        });
      }
  });
  it('a row put in and taken out again is nothing', () => {
    const g = draw('abc', 'd.e');
    const wide = withRow(g, 0, 1, 1, { min: [0, 0, 0], size: [4, 1, 2] });
    expect(drawn(wide)).toEqual(['abbc', 'd..e']);
    expect(withRow(wide, 0, 1, -1, g.bounds).equals(g)).toBe(true);
  });
});

describe('clean-up', () => {
  it('finds loose pieces, single holes and cubes that nobody sees', () => {
    const g = VoxelGrid.empty(bounds).edit((d) => {
      d.fillBox({ min: [-5, -5, -5], size: [7, 7, 7] }, 1);
      d.set(-2, -2, -2, 0);
      d.set(5, 5, 5, 2);
      d.fillBox({ min: [6, -8, 0], size: [2, 1, 1] }, 2);
    });
    const u = untidy(g);
    expect([u.loose.count, u.loosePieces, u.holes.count, u.hidden.count]).toEqual([3, 2, 1, 124]);
    expect(u.holes.has(-2, -2, -2)).toBe(true);
    expect(innerCells(g, 2).count).toBe(26);
    expect(innerCells(g, 1).count).toBe(124);
  });
  it('hollowed, a stepped body has walls exactly as thick as asked everywhere, or thicker where its cubes meet in faces', () => {
    // A ball of steps; a slow walk from the outside counts how deep every cube lies, over faces or over corners.
    const ball = VoxelGrid.empty({ min: [0, 0, 0], size: [15, 15, 15] }).edit((d) => {
      for (let x = 0; x < 15; x++)
        for (let y = 0; y < 15; y++)
          for (let z = 0; z < 15; z++) if (Math.hypot(x - 7, y - 7, z - 7) <= 7) d.set(x, y, z, 1);
    });
    const steps = [-1, 0, 1].flatMap((x) => [-1, 0, 1].flatMap((y) => [-1, 0, 1].map((z): Vec3 => [x, y, z])));
    const depths = (corners: boolean): Map<string, number> => {
      const out = new Map<string, number>();
      let rim: Vec3[] = [];
      for (let depth = 1; ; depth++) {
        const next: Vec3[] = [];
        ball.forEach((x, y, z) => {
          if (out.has(`${x},${y},${z}`)) return;
          const near = steps.some(([i, j, k]) => {
            if (!corners && Math.abs(i) + Math.abs(j) + Math.abs(k) !== 1) return false;
            const c: Vec3 = [x + i, y + j, z + k];
            return depth === 1 ? ball.get(...c) === 0 : rim.some((r) => r.join() === c.join());
          });
          if (near) next.push([x, y, z]);
        });
        if (next.length === 0) return out;
        for (const c of next) out.set(c.join(), depth);
        rim = next;
      }
    };
    for (const joined of [false, true]) {
      const depth = depths(joined);
      for (const wall of [1, 2, 3]) {
        const inner = innerCells(ball, wall, joined);
        expect(inner.count).toBe([...depth.values()].filter((d) => d > wall).length);
        inner.forEach((x, y, z) => expect(depth.get(`${x},${y},${z}`)).toBeGreaterThan(wall));
      }
    }
    expect(innerCells(ball, 1).count).toBeGreaterThan(innerCells(ball, 1, true).count);
  });
});

describe('openings', () => {
  // A wall two cubes thick across Z, its face towards +Z.
  const wall = VoxelGrid.empty({ min: [-10, 0, -4], size: [20, 12, 10] }).edit((d) =>
    d.fillBox({ min: [-8, 0, -1], size: [16, 10, 2] }, 1),
  );
  const window: Opening = {
    face: { min: [-3, 3, 0], size: [6, 5, 1] },
    normal: [0, 0, 1],
    border: 1,
    sill: true,
    proud: 1,
    recess: 0,
    frame: 2,
    filling: null,
  };
  it('without filling goes right through, with a frame that stands proud all round', () => {
    const out = cutOpening(wall, wall, window);
    expect(tally(out)[1]).toBe(320 - 30 * 2);
    // 18 cells of frame, through both layers and one before them.
    expect(tally(out)[2]).toBe(18 * 3);
    expect([out.get(0, 5, 0), out.get(0, 5, -1), out.get(-3, 3, 1), out.get(0, 5, 1)]).toEqual([0, 0, 2, 0]);
  });
  it('filled, it is set back by its recess; a door has no sill', () => {
    const out = cutOpening(wall, wall, { ...window, filling: 3, recess: 1, sill: false });
    expect([out.get(0, 5, 0), out.get(0, 5, -1), out.get(0, 3, -1), out.get(-3, 3, 1)]).toEqual([0, 3, 3, 2]);
    expect(tally(out)[3]).toBe(4 * 4);
  });
  it('lies in a wall seen from any side', () => {
    const turned = quarterTurned(wall, 1, 1);
    const box = turned.contentBox()!;
    const g = cutOpening(turned, turned, {
      ...window,
      face: { min: [box.min[0] + 1, 3, box.min[2] + 5], size: [1, 5, 6] },
      normal: [1, 0, 0],
    });
    expect(tally(g)[2]).toBe(54);
  });
  it('cells are cut out with their colours', () => {
    expect(
      cutOut(
        wall,
        CellSet.ofCells([
          [0, 0, 0],
          [0, 11, 0],
        ]),
      )!.count,
    ).toBe(1);
    expect(cutOut(wall, CellSet.ofCells([[0, 11, 0]]))).toBeNull();
  });
});
