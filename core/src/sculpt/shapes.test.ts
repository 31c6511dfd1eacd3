import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { type Axis, type Box, type Vec3, boxFromCells, mapVec, vec3Of } from '../math';
import { CellSet, VoxelGrid, connectedPieces, flood } from '../voxel';
import {
  type Hollow,
  NO_SYMMETRY,
  type Profile,
  type Shape,
  applyStroke,
  curveCells,
  ellipsoidCells,
  lineCells,
  mirrorSet,
  shapeCells,
  revolvedCells,
  stepCells,
  symmetricSet,
  thickened,
  tipBox,
  tipCentre,
  wallOf,
} from '.';

const sizes: Vec3[] = [
  [7, 7, 7],
  [8, 8, 8],
  [9, 5, 12],
  [1, 1, 1],
  [2, 3, 2],
  [20, 2, 20],
  [16, 5, 4],
];
const boxOf = (size: Vec3): Box => ({ min: [-3, 2, 11], size });
const solid = (profile: Profile, size: Vec3, axis: Axis = 1, dir: 1 | -1 = 1) =>
  revolvedCells({ box: boxOf(size), axis, dir, profile, section: 'round', top: 0.5 });
const middle = (b: Box, a: Axis): number => 2 * b.min[a] + b.size[a];
/** Rows of a slice across an axis as text. */
const slice = (s: CellSet, y: number): string[] =>
  Array.from({ length: s.box.size[2] }, (_, z) =>
    Array.from({ length: s.box.size[0] }, (_x, x) => (s.has(s.box.min[0] + x, y, s.box.min[2] + z) ? '#' : '.')).join(
      '',
    ),
  );
/** No row of a convex body has a gap. */
const convexRows = (s: CellSet): boolean => {
  const rows = new Set<string>();
  let ok = true;
  s.runs((_a, _b, y, z) => {
    ok &&= !rows.has(`${y} ${z}`);
    rows.add(`${y} ${z}`);
  });
  return ok;
};

describe('round shapes', () => {
  it.each(sizes)('an ellipsoid of %i×%i×%i touches all six sides and mirrors itself', (...size) => {
    const s = ellipsoidCells(boxOf(size));
    expect(s.tight).toEqual(s.box);
    for (const a of [0, 1, 2] as Axis[]) expect(mirrorSet(s, a, middle(s.box, a)).equals(s)).toBe(true);
    expect(convexRows(s)).toBe(true);
    expect(connectedPieces(s).sizes).toHaveLength(1);
  });
  it('an ellipsoid holds exactly the cells whose centre its rule takes in', () => {
    for (const size of [
      [7, 7, 7],
      [8, 8, 8],
      [9, 5, 12],
    ] as Vec3[]) {
      const s = ellipsoidCells({ min: [0, 0, 0], size });
      let n = 0;
      for (let z = 0; z < size[2]; z++)
        for (let y = 0; y < size[1]; y++)
          for (let x = 0; x < size[0]; x++) {
            const inside =
              [x, y, z].reduce((sum, v, i) => sum + ((2 * v + 1 - size[i]!) / size[i]!) ** 2, 0) <= 1 + 1e-9;
            if (inside) n++;
            expect(s.has(x, y, z)).toBe(inside);
          }
      expect(s.count).toBe(n);
    }
    expect(slice(ellipsoidCells({ min: [0, 0, 0], size: [8, 1, 8] }), 0)).toEqual([
      '..####..',
      '.######.',
      '########',
      '########',
      '########',
      '########',
      '.######.',
      '..####..',
    ]);
  });
  it('equal sizes look alike along each axis: a ball from all six sides, a cylinder on X, Y and Z', () => {
    for (const n of [7, 8]) {
      const ball = keys(ellipsoidCells({ min: [0, 0, 0], size: [n, n, n] }));
      expect(keys(ellipsoidCells({ min: [0, 0, 0], size: [n, n, n] }), [1, 2, 0])).toEqual(ball);
      const counts = ([0, 1, 2] as Axis[]).map((a) => {
        const size: [number, number, number] = [n, n, n];
        size[a] = 5;
        return keys(
          revolvedCells({
            box: { min: [0, 0, 0], size },
            axis: a,
            dir: 1,
            profile: 'straight',
            section: 'round',
            top: 1,
          }),
          (
            [
              [1, 2, 0],
              [2, 0, 1],
              [0, 1, 2],
            ] as const
          )[a],
        );
      });
      expect(counts[1]).toEqual(counts[0]);
      expect(counts[2]).toEqual(counts[0]);
    }
  });
  it('a dome is the upper half of an ellipsoid twice as high; hung from above it is its mirror image', () => {
    const dome = solid('dome', [9, 4, 9]);
    const whole = ellipsoidCells({ min: [-3, -2, 11], size: [9, 8, 9] });
    expect(dome.equals(whole.intersect(CellSet.ofBox(dome.box)))).toBe(true);
    expect(solid('dome', [9, 4, 9], 1, -1).equals(mirrorSet(dome, 1, middle(dome.box, 1)))).toBe(true);
  });
  it('profiles narrow as they should, slice by slice', () => {
    const widths = (p: Profile): number[] => {
      const s = solid(p, [9, 6, 9]);
      return Array.from({ length: 6 }, (_, k) => slice(s, 2 + k).filter((r) => r.includes('#')).length);
    };
    expect(widths('straight')).toEqual([9, 9, 9, 9, 9, 9]);
    expect(widths('cone')).toEqual([9, 7, 5, 3, 3, 1]);
    expect(widths('taper')).toEqual([9, 9, 7, 7, 5, 5]);
    expect(widths('egg')[0]).toBeLessThan(widths('egg')[2]!);
    const all = {
      box: boxOf([9, 6, 9]),
      axis: 1 as Axis,
      dir: 1 as const,
      profile: 'egg' as const,
      section: 'round' as const,
      top: 0,
    };
    expect(
      revolvedCells(all, { from: 0, to: 2 })
        .union(revolvedCells(all, { from: 2, to: 6 }))
        .equals(revolvedCells(all)),
    ).toBe(true);
    expect(revolvedCells({ ...all, profile: 'cone', section: 'square' }).count).toBeGreaterThan(
      revolvedCells({ ...all, profile: 'cone' }).count,
    );
  });
});

const keys = (s: CellSet, order: readonly [number, number, number] = [0, 1, 2]): Set<string> => {
  const out = new Set<string>();
  s.forEach((x, y, z) => out.add(order.map((i) => [x, y, z][i]).join()));
  return out;
};

describe('hollow walls', () => {
  const bodies: [string, CellSet][] = [
    ['ball 12', ellipsoidCells(boxOf([12, 12, 12]))],
    ['egg', solid('egg', [11, 14, 9])],
    ['cone', solid('cone', [13, 9, 13])],
    ['thin', ellipsoidCells(boxOf([21, 9, 14]))],
    ['box', CellSet.ofBox(boxOf([6, 7, 8]))],
  ];
  it.each(bodies)('%s: no path over faces leads through, joined by faces or not', (_name, body) => {
    for (const faces of [false, true]) {
      for (const wall of [1, 2]) {
        const shell = wallOf(body, { wall, faces, open: null });
        const frame: Box = {
          min: mapVec(body.box.min, (v) => v - 1),
          size: mapVec(body.box.size, (v) => v + 2),
        };
        const outside = flood(shell.inverted(frame), [frame.min]);
        const inner = body.minus(shell);
        expect(inner.count).toBeGreaterThan(0);
        expect(outside.intersect(inner).count).toBe(0);
        if (!faces) continue;
        expect(connectedPieces(shell).sizes).toHaveLength(1);
        expect(flood(shell.inverted(frame), [frame.min], true).intersect(inner).count).toBe(0);
      }
    }
  });
  it('a box of 5 with a wall of 1 has 98 cubes; with both ends open a tube of 80', () => {
    const hollow: Hollow = { wall: 1, faces: true, open: null };
    expect(shapeCells({ kind: 'box', box: boxOf([5, 5, 5]), hollow }).count).toBe(125 - 27);
    for (const axis of [0, 1, 2] as Axis[]) {
      expect(
        shapeCells({ kind: 'box', box: boxOf([5, 5, 5]), hollow: { ...hollow, open: { axis, low: true, high: true } } })
          .count,
      ).toBe(5 * 16);
    }
  });
  it('a tapered hollow is open at the ends that are asked for, and a closed end is a lid as thick as its wall', () => {
    const taper = revolvedCells({
      box: boxOf([12, 9, 12]),
      axis: 1,
      dir: 1,
      profile: 'taper',
      section: 'round',
      top: 0.6,
    });
    const { min, size } = taper.box;
    for (const wall of [1, 2])
      for (const [low, high] of [
        [false, false],
        [true, false],
        [false, true],
        [true, true],
      ] as const) {
        const shell = wallOf(taper, { wall, faces: true, open: { axis: 1, low, high } });
        // Straight up through the middle: the lids, and nothing between them.
        const column = Array.from({ length: size[1] }, (_, y) => shell.has(min[0] + 6, min[1] + y, min[2] + 6));
        expect(column).toEqual(column.map((_, y) => (!low && y < wall) || (!high && y >= size[1] - wall)));
      }
  });
  it('a hollow dome that is open below has one way in, from below', () => {
    const dome = wallOf(solid('dome', [15, 8, 15]), {
      wall: 2,
      faces: false,
      open: { axis: 1, low: true, high: false },
    });
    expect(slice(dome, 2)[7]).toBe('##...........##');
    expect(dome.has(4, 9, 18)).toBe(true);
    const inside: Vec3 = [4, 5, 18];
    const closed = CellSet.ofBox({ min: [-4, 2, 10], size: [17, 9, 17] }).minus(dome);
    expect(flood(closed, [inside]).has(-4, 8, 10)).toBe(false);
  });
});

describe('paths', () => {
  it('a line steps one cell at a time and is the same from a mirrored place', () => {
    fc.assert(
      fc.property(fc.array(fc.integer({ min: -15, max: 15 }), { minLength: 6, maxLength: 6 }), (v) => {
        const a = vec3Of(v.slice(0, 3)),
          b = vec3Of(v.slice(3));
        const line = lineCells(a, b);
        expect([line[0], line.at(-1)]).toEqual([a, b]);
        for (let i = 1; i < line.length; i++)
          expect(Math.max(...line[i]!.map((c, k) => Math.abs(c - line[i - 1]![k]!)))).toBe(1);
        const flip = (c: Vec3): Vec3 => [-c[0], c[1], c[2]];
        expect(lineCells(flip(a), flip(b)).map((c) => c.join())).toEqual(
          line.map((c) => [c[0] === 0 ? 0 : -c[0], c[1], c[2]].join()),
        );
        expect(connectedPieces(CellSet.ofCells(lineCells(a, b, true))).sizes).toHaveLength(1);
      }),
      { numRuns: 60 },
    );
  });
  it('steps rise two after every three along, and hold together', () => {
    const steps = stepCells([0, 0, 0], [9, 4, 0], 1, 2, 3);
    expect(steps.filter((c) => c[0] === 4).map((c) => c[1])).toEqual([2]);
    expect(steps.filter((c) => c[0] === 3).map((c) => c[1])).toEqual([1, 2]);
    expect(steps.at(-1)).toEqual([9, 6, 0]);
    expect(stepCells([0, 0, 0], [-2, -1, 0], 1, 1, 1)).toEqual([
      [0, 0, 0],
      [-1, -1, 0],
      [-2, -2, 0],
    ]);
  });
  it('a curve goes through its points; thickness runs evenly from end to end', () => {
    const points: Vec3[] = [
      [0, 0, 0],
      [8, 6, 0],
      [16, 0, 2],
    ];
    const curve = curveCells(points);
    for (const p of points) expect(curve.map((c) => c.join())).toContain(p.join());
    expect(connectedPieces(CellSet.ofCells(curve), true).sizes).toHaveLength(1);
    const rod = thickened(lineCells([0, 0, 0], [10, 0, 0]), { form: 'cube', size: 5, axis: 1 }, 1);
    expect([-1, 0, 5, 10].map((x) => [-3, -2, -1, 0, 1, 2, 3].filter((y) => rod.has(x, y, 0)).length)).toEqual([
      5, 5, 4, 1,
    ]);
  });
  it('even tips centre on corners, odd ones on cubes', () => {
    expect(
      tipBox({ form: 'ball', size: 3, axis: 1 }, tipCentre({ form: 'ball', size: 3, axis: 1 }, [5, 5, 5])),
    ).toEqual({ min: [4, 4, 4], size: [3, 3, 3] });
    expect(tipBox({ form: 'cube', size: 4, axis: 1 }, [0, 0, 0])).toEqual({ min: [-2, -2, -2], size: [4, 4, 4] });
    expect(
      tipBox({ form: 'disc', size: 4, axis: 1 }, tipCentre({ form: 'disc', size: 4, axis: 1 }, [5, 5, 5])),
    ).toEqual({ min: [4, 5, 4], size: [4, 1, 4] });
  });
});

describe('symmetry with every shape', () => {
  const limit: Box = { min: [-24, -24, -24], size: [48, 48, 48] };
  const shapes: Shape[] = [
    { kind: 'box', box: boxFromCells([3, 1, 2], [6, 3, 9]) },
    { kind: 'ellipsoid', box: { min: [2, -3, 4], size: [7, 8, 5] } },
    {
      kind: 'standing',
      solid: { box: { min: [4, 0, 1], size: [5, 6, 5] }, axis: 1, dir: 1, profile: 'cone', section: 'round', top: 0 },
    },
    {
      kind: 'dabs',
      tip: { form: 'ball', size: 4, axis: 1 },
      centres: [
        [8, 2, 6],
        [10, 2, 8],
      ],
    },
    {
      kind: 'line',
      from: [1, 0, 3],
      to: [12, 5, 8],
      tip: { form: 'cube', size: 2, axis: 1 },
      endSize: 1,
      joined: true,
    },
    {
      kind: 'curve',
      points: [
        [1, 1, 1],
        [7, 4, 2],
        [11, 0, 9],
      ],
      tip: { form: 'disc', size: 3, axis: 1 },
      endSize: 3,
      joined: false,
    },
    {
      kind: 'steps',
      from: [1, 0, 1],
      to: [9, 3, 1],
      up: 1,
      rise: 1,
      run: 2,
      tip: { form: 'cube', size: 1, axis: 1 },
      endSize: 1,
    },
  ];
  it.each(shapes.map((s) => [s.kind, s] as const))(
    '%s: three planes, on cubes, between and off the middle, give a set that mirrors itself',
    (_k, shape) => {
      for (const mirror of [
        [0, 0, 0],
        [1, 3, -1],
        [-4, 5, 2],
      ] as const) {
        const set = symmetricSet(
          shapeCells(shape),
          { mirror, radial: null },
          { min: [-60, -60, -60], size: [120, 120, 120] },
        );
        ([0, 1, 2] as Axis[]).forEach((a) => expect(mirrorSet(set, a, mirror[a]).equals(set)).toBe(true));
      }
    },
  );
  it.each(shapes.map((s) => [s.kind, s] as const))(
    '%s: a quarter turn of four copies is the set again; any count keeps the first',
    (_k, shape) => {
      for (const centre of [
        [0, 0],
        [1, 1],
        [3, -1],
      ] as [number, number][]) {
        const radial = { axis: 1 as Axis, count: 4, centre };
        const set = symmetricSet(shapeCells(shape), { ...NO_SYMMETRY, radial }, limit);
        const turned = new CellSet(limit);
        set.forEach((x, y, z) => {
          // A quarter turn about Y takes the middle of z to x and of x to −z.
          const dz = 2 * z + 1 - centre[0],
            dx = 2 * x + 1 - centre[1];
          const nz = (centre[0] - dx - 1) / 2,
            nx = (centre[1] + dz - 1) / 2;
          turned.addRun(nx, nx + 1, y, nz);
        });
        expect(turned.equals(set.within(limit))).toBe(true);
      }
      for (const count of [3, 5, 6, 16]) {
        const set = symmetricSet(
          shapeCells(shape),
          { ...NO_SYMMETRY, radial: { axis: 1, count, centre: [1, 1] } },
          limit,
        );
        expect(shapeCells(shape).minus(set).count).toBe(0);
      }
    },
  );
  it('eight spokes hold together from the hub to the rim', () => {
    const spoke: Shape = {
      kind: 'line',
      from: [0, 0, 0],
      to: [9, 0, 0],
      tip: { form: 'cube', size: 1, axis: 1 },
      endSize: 1,
      joined: true,
    };
    const set = symmetricSet(
      shapeCells(spoke),
      { ...NO_SYMMETRY, radial: { axis: 1, count: 8, centre: [1, 1] } },
      limit,
    );
    expect(connectedPieces(set, true).sizes).toHaveLength(1);
    for (const [x, z] of [
      [9, 0],
      [-9, 0],
      [0, 9],
      [0, -9],
      [6, 6],
      [-6, 6],
      [6, -6],
      [-6, -6],
    ] as const)
      expect(set.has(x, 0, z)).toBe(true);
  });
  it('a stroke drawn in pieces is the stroke drawn at once', () => {
    const grid = VoxelGrid.empty(limit).edit((d) => d.fillBox({ min: [-6, -6, -6], size: [12, 6, 12] }, 3));
    for (const verb of ['add', 'erase', 'paint'] as const) {
      const stroke = (list: readonly Shape[]) => ({
        verb,
        value: 5,
        shapes: list,
        symmetry: { mirror: [0, null, null] as const, radial: null },
      });
      const once = applyStroke(grid, grid, stroke(shapes));
      const parts = shapes.reduce((g, s) => applyStroke(g, g, stroke([s])), grid);
      expect(parts.equals(once)).toBe(true);
    }
  });
  it('each dab may keep the colour it grew from', () => {
    const grid = VoxelGrid.empty(limit);
    const out = applyStroke(grid, grid, {
      verb: 'add',
      value: 1,
      symmetry: NO_SYMMETRY,
      shapes: [
        { kind: 'box', box: boxFromCells([0, 0, 0], [2, 0, 0]), value: 7 },
        { kind: 'box', box: boxFromCells([2, 0, 0], [4, 0, 0]), value: 8 },
      ],
    });
    expect([0, 2, 3, 4].map((x) => out.get(x, 0, 0))).toEqual([7, 7, 8, 8]);
  });
});
