import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Box, Vec3 } from '../math';
import { READY_PALETTES, makeSwatch, toOklch } from '../palette';
import { CellSet, VoxelGrid } from '../voxel';
import {
  type Finish,
  FINISH_KINDS,
  applyFinish,
  forOcclusion,
  ordered,
  ownTones,
  scatter,
  toneOfCourse,
  girthOf,
} from '.';

const palette = { id: 'p', name: 'Dusk', swatches: READY_PALETTES[1]!.swatches };
const FRAME = { half: [0, 0, 0] as Vec3, cell: 1 };
const filled = (min: Vec3, size: Vec3, value = 12): VoxelGrid =>
  VoxelGrid.empty({ min, size }).edit((d) => d.fillBox({ min, size }, value));
const paint = (
  grid: VoxelGrid,
  finish: Finish,
  more: Partial<{ frame: typeof FRAME; only: number[]; within: CellSet }> = {},
): VoxelGrid =>
  applyFinish(grid, grid, finish, more.frame ?? FRAME, palette, {
    within: more.within ?? null,
    only: more.only ?? null,
    box: grid.bounds,
  });
const ramp = [11, 12, 13, 14];
const ALL: Readonly<Record<(typeof FINISH_KINDS)[number], Finish>> = {
  gradient: { kind: 'gradient', ramp, seed: 7, from: [0, 0, 0], to: [9, 5, 3], round: false, blend: 'noise' },
  speckle: { kind: 'speckle', ramp, seed: 7, amount: 0.3, size: 1 },
  dither: { kind: 'dither', ramp, seed: 7, share: 0.4, blend: 'ordered' },
  height: { kind: 'height', ramp, seed: 7, low: 0, high: 10, blend: 'ordered' },
  occlusion: { kind: 'occlusion', ramp, seed: 7, reach: 3, strength: 1, blend: 'noise' },
  bricks: {
    kind: 'bricks',
    ramp,
    seed: 7,
    long: 4,
    high: 2,
    bond: 0.5,
    gap: 1,
    joint: 30,
    sides: 'each',
    upright: false,
  },
  planks: {
    kind: 'planks',
    ramp,
    seed: 7,
    long: 7,
    wide: 2,
    gap: 0,
    joint: 0,
    grain: 0.3,
    sides: 'each',
    upright: false,
  },
};
/** FNV-1a over all cells, in reading order. */
const hash = (g: VoxelGrid): string => {
  let h = 0x811c9dc5;
  g.forEach((x, y, z, v) => [x, y, z, v].forEach((n) => (h = Math.imul(h ^ (n & 0xffff), 0x01000193))));
  return (h >>> 0).toString(16);
};
const room = VoxelGrid.empty({ min: [-3, 0, -2], size: [12, 10, 9] }).edit((d) => {
  d.fillBox({ min: [-3, 0, -2], size: [12, 2, 9] }, 12);
  d.fillBox({ min: [-3, 2, -2], size: [2, 8, 9] }, 13);
  d.fillBox({ min: [3, 2, 1], size: [3, 4, 3] }, 5);
});

describe('scatter and ordered patterns', () => {
  it('are the same on every machine: these are their numbers', () => {
    expect(
      [scatter(0, 0, 0, 0), scatter(1, -2, 3, 4), scatter(-100, 7, 0, 99)].map((v) => Math.round(v * 1e9)),
    ).toEqual([631039715, 546331091, 67228770]);
    expect(Object.fromEntries(FINISH_KINDS.map((k) => [k, hash(paint(room, ALL[k]))]))).toMatchInlineSnapshot(`
      {
        "bricks": "34a077c4",
        "dither": "dfa31916",
        "gradient": "b46be457",
        "height": "4855584a",
        "occlusion": "3a246768",
        "planks": "45687f9d",
        "speckle": "218006d3",
      }
    `);
  });
  it('any share of an ordered block is met exactly, and its faces are even', () => {
    const block = Array.from({ length: 64 }, (_, i) => ordered(i & 3, (i >> 2) & 3, i >> 4));
    expect([...block].sort((a, b) => a - b)).toEqual(Array.from({ length: 64 }, (_, i) => (i + 0.5) / 64));
    for (let k = 0; k < 4; k++)
      for (const plane of [
        (i: number) => (i & 3) === k,
        (i: number) => ((i >> 2) & 3) === k,
        (i: number) => i >> 4 === k,
      ]) {
        const half = block.filter((v, i) => plane(i) && v < 0.5).length;
        expect(half).toBeGreaterThanOrEqual(7);
        expect(half).toBeLessThanOrEqual(9);
      }
  });
  it('speckle takes about the share it is told, in clumps of the size it is told', () => {
    const g = paint(filled([0, 0, 0], [40, 40, 40], 5), { ...ALL.speckle, size: 2 } as Finish);
    let n = 0,
      torn = 0;
    g.forEach((x, y, z, v) => {
      if (v !== 5) n++;
      if (v !== g.get(x & ~1, y & ~1, z & ~1)) torn++;
    });
    expect(torn).toBe(0);
    expect(Math.abs(n / 64000 - 0.3)).toBeLessThan(0.02);
  });
});

describe('every finish', () => {
  it('keeps every cube, paints only what it may, and repeats itself', () => {
    const within = CellSet.ofBoxes([{ min: [-3, 0, -2], size: [6, 5, 9] }]);
    for (const kind of FINISH_KINDS) {
      const out = paint(room, ALL[kind], { only: [12, 13], within });
      const again = paint(room, ALL[kind], { only: [12, 13], within });
      expect(out.equals(again)).toBe(true);
      expect(out.count).toBe(room.count);
      let painted = 0;
      room.forEach((x, y, z, v) => {
        const now = out.get(x, y, z);
        if (now === v) return;
        painted++;
        expect(within.has(x, y, z) && (v === 12 || v === 13)).toBe(true);
        expect([...ramp, 30]).toContain(now);
      });
      expect(painted, kind).toBeGreaterThan(0);
    }
  });
  it('another seed gives another scatter; growing the volume changes nothing', () => {
    for (const kind of ['gradient', 'speckle', 'bricks', 'planks', 'occlusion'] as const) {
      expect(paint(room, { ...ALL[kind], seed: 8 }).equals(paint(room, ALL[kind])), kind).toBe(false);
      const bounds: Box = { min: [-20, -5, -9], size: [40, 30, 30] };
      expect(
        paint(room.withBounds(bounds), ALL[kind]).withBounds(room.bounds).equals(paint(room, ALL[kind])),
        kind,
      ).toBe(true);
    }
  });
});

describe('gradient, height and dither', () => {
  it('bands stand where they are worked out by hand', () => {
    const g = paint(filled([0, 0, 0], [8, 1, 1]), {
      ...ALL.gradient,
      from: [0, 0.5, 0.5],
      to: [8, 0.5, 0.5],
      blend: 'bands',
    } as Finish);
    expect(Array.from({ length: 8 }, (_, x) => g.get(x, 0, 0))).toEqual([11, 11, 12, 12, 13, 13, 14, 14]);
    const h = paint(filled([0, -4, 0], [1, 8, 1]), { ...ALL.height, low: -4, high: 4, blend: 'bands' } as Finish);
    expect(Array.from({ length: 8 }, (_, y) => h.get(0, y - 4, 0))).toEqual([11, 11, 12, 12, 13, 13, 14, 14]);
    const round = paint(filled([0, 0, 0], [9, 1, 1]), {
      ...ALL.gradient,
      from: [4.5, 0.5, 0.5],
      to: [9, 0.5, 0.5],
      round: true,
      blend: 'bands',
    } as Finish);
    expect(Array.from({ length: 9 }, (_, x) => round.get(x, 0, 0))).toEqual([14, 13, 12, 11, 11, 11, 12, 13, 14]);
  });
  it('a dither of two tones has each in its share, exactly per block', () => {
    const g = paint(filled([0, 0, 0], [8, 8, 8]), {
      kind: 'dither',
      ramp: [11, 14],
      seed: 1,
      share: 0.25,
      blend: 'ordered',
    });
    let n = 0;
    g.forEach((_x, _y, _z, v) => (n += v === 14 ? 1 : 0));
    expect(n).toBe(128);
  });
});

describe('occlusion', () => {
  /** By the words of its definition: every cube, every face, every cube before it. */
  function slow(grid: VoxelGrid, reach: number): Map<string, number> {
    const out = new Map<string, number>();
    grid.forEach((x, y, z) => {
      const faces = new Map<string, number>();
      for (const [nx, ny, nz] of [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ] as const) {
        if (grid.get(x + nx, y + ny, z + nz) !== 0) continue;
        let n = 0,
          shut = 0;
        for (let dz = -reach; dz <= reach; dz++)
          for (let dy = -reach; dy <= reach; dy++)
            for (let dx = -reach; dx <= reach; dx++) {
              if (dx * nx + dy * ny + dz * nz < 1 || Math.hypot(dx, dy, dz) > reach + 0.5) continue;
              n++;
              if (grid.get(x + dx, y + dy, z + dz) !== 0) shut++;
            }
        const axis = [nx, ny, nz].map(Math.abs).join();
        faces.set(axis, Math.max(faces.get(axis) ?? 0, shut / n));
      }
      if (faces.size > 0) out.set(`${x},${y},${z}`, [...faces.values()].reduce((a, b) => a + b) / faces.size);
    });
    return out;
  }
  const fast = (grid: VoxelGrid, reach: number): Map<string, number> => {
    const out = new Map<string, number>();
    forOcclusion(grid, reach, (x, y, z, s) => out.set(`${x},${y},${z}`, s));
    return out;
  };
  it('agrees with brute force on random heaps of boxes', () => {
    const coord = fc.integer({ min: -8, max: 8 }),
      size = fc.integer({ min: 1, max: 7 });
    fc.assert(
      fc.property(
        fc.array(fc.tuple(coord, coord, coord, size, size, size), { minLength: 1, maxLength: 8 }),
        fc.integer({ min: 1, max: 4 }),
        (boxes, reach) => {
          const g = VoxelGrid.empty({ min: [-8, -8, -8], size: [24, 24, 24] }).edit((d) =>
            boxes.forEach(([x, y, z, a, b, c]) => d.fillBox({ min: [x, y, z], size: [a, b, c] }, 3)),
          );
          const want = slow(g, reach),
            is = fast(g, reach);
          expect([...is.keys()].sort()).toEqual([...want.keys()].sort());
          for (const [k, v] of want) expect(is.get(k)).toBeCloseTo(v, 12);
        },
      ),
      { numRuns: 20 },
    );
  });
  it('is nothing on an open plane and nearly a half in the corner of two walls', () => {
    const plane = fast(filled([-20, 0, -20], [41, 3, 41]), 4);
    expect(plane.get('0,2,0')).toBe(0);
    expect(plane.has('0,1,0')).toBe(false);
    const corner = fast(
      VoxelGrid.empty({ min: [-20, 0, -20], size: [41, 41, 41] }).edit((d) => {
        d.fillBox({ min: [-20, 0, -20], size: [41, 1, 41] }, 1);
        d.fillBox({ min: [-20, 0, -20], size: [20, 41, 41] }, 1);
      }),
      4,
    );
    expect(corner.get('0,0,0')!).toBeGreaterThan(0.35);
    expect(corner.get('0,0,0')!).toBeLessThan(0.5);
    expect(corner.get('8,0,0')).toBe(0);
  });
  it('darkens cubes in corners and leaves buried ones', () => {
    const out = paint(room, { ...ALL.occlusion, ramp: [], blend: 'bands' } as Finish);
    const light = (v: number) => toOklch(palette.swatches.find((s) => s.byte === v)!.colour).l;
    expect(light(out.get(-1, 1, 3))).toBeLessThan(light(out.get(8, 1, 3)));
    expect(out.get(8, 1, 3)).toBe(12);
    expect(out.get(4, 0, 2)).toBe(room.get(4, 0, 2));
  });
});

describe('bricks and planks', () => {
  const bricks = ALL.bricks as Finish & { kind: 'bricks' };
  it('have courses, joints and a bond where they are worked out by hand', () => {
    const g = paint(filled([0, 0, 0], [10, 6, 1]), { ...bricks, ramp: [11] });
    const row = (y: number) => Array.from({ length: 10 }, (_, x) => (g.get(x, y, 0) === 30 ? '-' : '#')).join('');
    expect([0, 1, 2, 3, 4, 5].map(row)).toEqual([
      '####-####-',
      '####-####-',
      '----------',
      '##-####-##',
      '##-####-##',
      '----------',
    ]);
  });
  it('repeat without a seam: the joints of one period are those of the next', () => {
    const joint = (a: number, b: number): boolean => toneOfCourse(bricks, a + 0.5, b + 0.5, 0, 4) < 0;
    const wrong: number[][] = [];
    for (let u = 0; u < 40; u++)
      for (let v = 0; v < 24; v++)
        if ([joint(u + 5, v), joint(u, v + 6), joint(u - 100, v - 60)].some((j) => j !== joint(u, v)))
          wrong.push([u, v]);
    expect(wrong).toEqual([]);
  });
  it('keep their courses level across parts, at half cubes and when one is finer', () => {
    const wall = paint(filled([0, 0, 0], [16, 16, 1]), bricks);
    // The same wall as two parts whose lattices begin elsewhere.
    const left = paint(filled([-3, 5, 0], [8, 16, 1]), bricks, { frame: { half: [6, -10, 0], cell: 1 } });
    const right = paint(filled([0, 0, 0], [8, 16, 1]), bricks, { frame: { half: [16, 0, 0], cell: 1 } });
    wall.forEach((x, y, _z, v) => expect(x < 8 ? left.get(x - 3, y + 5, 0) : right.get(x - 8, y, 0)).toBe(v));
    const fine = paint(filled([0, 0, 0], [32, 32, 1]), bricks, { frame: { half: [0, 0, 0], cell: 0.5 } });
    wall.forEach((x, y, _z, v) =>
      expect([fine.get(2 * x, 2 * y, 0), fine.get(2 * x + 1, 2 * y + 1, 0)]).toEqual([v, v]),
    );
    const third = paint(filled([0, 0, 0], [48, 48, 1]), bricks, { frame: { half: [0, 0, 0], cell: 1 / 3 } });
    wall.forEach((x, y, _z, v) =>
      expect([third.get(3 * x, 3 * y, 0), third.get(3 * x + 2, 3 * y + 2, 0)]).toEqual([v, v]),
    );
  });
  it('go around a tower in whole bricks, closed without a seam, the same ones at every setback', () => {
    const round = {
      ...bricks,
      sides: 'around',
      around: { axis: 1, centre: [0.5, 0, 0.5], radius: 10 },
    } as typeof bricks;
    const girth = girthOf(round, 10);
    // Bricks of 4 with joints of 1: 2π·10 / 5 is nearly 13 of them.
    expect(girth).toEqual({ count: 13, length: 65 });
    const tones = Array.from({ length: 650 }, (_, i) => toneOfCourse(round, i / 10 + 0.05, 3.5, 0, 3, girth.count));
    expect(tones.filter((t) => t < 0).length).toBe(13 * 10);
    const begins = tones.filter((t, i) => t < 0 && tones.at(i - 1)! >= 0).length;
    expect(begins).toBe(13);
    // The brick that lies across the seam is one brick.
    expect(tones[0]).toBe(tones.at(-1));
    const tower = VoxelGrid.empty({ min: [-12, 0, -12], size: [25, 12, 25] }).edit((d) => {
      for (let y = 0; y < 12; y++)
        for (let x = -12; x <= 12; x++)
          for (let z = -12; z <= 12; z++) if (Math.hypot(x, z) <= (y < 6 ? 10 : 7)) d.set(x, y, z, 11);
    });
    const painted = paint(tower, { ...round, high: 11, gap: 1, ramp: [11, 12, 13, 14] });
    for (const [wide, narrow] of [
      [
        [9, 2, 0],
        [6, 8, 0],
      ],
      [
        [0, 2, 9],
        [0, 8, 6],
      ],
      [
        [-9, 2, 0],
        [-6, 8, 0],
      ],
    ] as const)
      expect(painted.get(narrow[0], narrow[1], narrow[2])).toBe(painted.get(wide[0], wide[1], wide[2]));
  });
  it('lie on walls by their own face, and on floors along X', () => {
    const g = paint(filled([0, 0, 0], [12, 6, 12]), { ...bricks, ramp: [11] });
    expect([g.get(11, 0, 4), g.get(11, 0, 3), g.get(4, 0, 11), g.get(3, 0, 11)]).toEqual([30, 11, 30, 11]);
    expect([g.get(4, 5, 4), g.get(3, 5, 4), g.get(3, 5, 5)]).toEqual([11, 11, 30]);
    const upright = paint(filled([0, 0, 0], [6, 12, 1]), {
      ...ALL.planks,
      ramp: [11, 14],
      grain: 0,
      wide: 2,
      long: 500,
    } as Finish & { kind: 'planks' });
    const turned = paint(filled([0, 0, 0], [6, 12, 1]), {
      ...ALL.planks,
      ramp: [11, 14],
      grain: 0,
      wide: 2,
      long: 500,
      upright: true,
    } as Finish & { kind: 'planks' });
    for (let y = 0; y < 12; y++) expect(new Set([0, 1, 2, 3, 4, 5].map((x) => upright.get(x, y, 0))).size).toBe(1);
    for (let x = 0; x < 6; x++) expect(new Set([0, 3, 6, 9, 11].map((y) => turned.get(x, y, 0))).size).toBe(1);
  });
});

describe('tones of one’s own', () => {
  it('go down and up a ramp of the palette, keep to their kind, and stop at its ends', () => {
    const t = ownTones(palette);
    const of = (name: string) => palette.swatches.find((s) => s.name === name)!.byte;
    const name = (b: number) => palette.swatches.find((s) => s.byte === b)!.name;
    expect([name(t.darker[of('Chestnut')]!), name(t.lighter[of('Chestnut')]!)]).toEqual(['Walnut', 'Tan']);
    expect(t.lighter[of('Lamp glass')]).toBe(of('Lamp glass'));
    // Names of a ramp count for more than likeness: skin never turns to the clay beside it.
    const named = ownTones({
      id: 'q',
      name: 'Named',
      swatches: [
        makeSwatch(1, 'Skin', '#d99668'),
        makeSwatch(2, 'Clay', '#c98a60'),
        makeSwatch(3, 'Skin, shade', '#8a4a6f'),
        makeSwatch(4, 'Skin 2', '#efb98c'),
      ],
    });
    expect([named.darker[1], named.lighter[1], named.darker[2]]).toEqual([3, 4, 2]);
    for (const s of palette.swatches) {
      const l = toOklch(s.colour).l,
        at = (b: number) => toOklch(palette.swatches.find((o) => o.byte === b)!.colour).l;
      expect([at(t.darker[s.byte]!) <= l, at(t.lighter[s.byte]!) >= l]).toEqual([true, true]);
    }
    expect([...ownTones({ id: 'q', name: 'One', swatches: [makeSwatch(4, 'Clay', '#b5533a')] }).darker]).toEqual(
      Array.from({ length: 256 }, (_, i) => i),
    );
  });
});
