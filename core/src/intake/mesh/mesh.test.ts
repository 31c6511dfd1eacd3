import { describe, expect, it } from 'vitest';
import { type MeshScene, type MeshShape, PLAIN_SURFACE, type Pixels } from '../../codec';
import { finish } from '../../math';
import { byteCounts } from '../../voxel';
import { type Triangles, ball, box, surface } from './bodies.testing';
import { type MeshOptions, meshOptions, meshSteps } from './mesh';

const shapeOf = (t: Triangles, more: Partial<MeshShape> = {}): MeshShape => ({
  positions: Float64Array.from(t),
  triangles: Uint32Array.from({ length: t.length / 3 }, (_, i) => i),
  uvs: null,
  colours: null,
  surface: 0,
  ...more,
});
const sceneOf = (shapes: readonly (readonly [string, MeshShape])[], surfaces = [PLAIN_SURFACE]): MeshScene => ({
  nodes: shapes.map(([name, s]) => ({
    name,
    parent: null,
    rest: { t: [0, 0, 0], q: [0, 0, 0, 1], s: [1, 1, 1] },
    shapes: [s],
    role: 'node',
  })),
  surfaces,
  pictures: [],
  clips: [],
  metres: false,
  pivots: false,
  missing: [],
});
const make = (scene: MeshScene, options: Partial<MeshOptions> = {}, pictures: (Pixels | null)[] = []) =>
  finish(meshSteps(scene, pictures, { ...meshOptions.parse({}), ...options }, null, 0.05));

/** Two by two texels. */
const chequer: Pixels = {
  width: 2,
  height: 2,
  rgba: Uint8Array.from([255, 0, 0, 255, 0, 0, 255, 255, 0, 255, 0, 255, 255, 255, 255, 255]),
  indexed: null,
};

describe('a mesh in cubes', () => {
  it('is as high as was wished, on the ground, its middle in the middle', () => {
    const { parts, scaling } = make(sceneOf([['box', shapeOf(box([3, 7, -2], [2, 4, 1]))]]), { height: 32 });
    expect(scaling.cubes).toBe(8);
    expect(parts[0]!.grid.contentBox()).toEqual({ min: [-8, 0, -4], size: [16, 32, 8] });
    expect(parts[0]!.grid.count).toBe(16 * 32 * 8);
  });

  it('is as large as it is where the unit is told, and refuses what is too large with a height that would do', () => {
    const crate = sceneOf([['crate', shapeOf(box([0, 0, 0], [90, 60, 120]))]]);
    // 60 cm in cubes of 5 cm.
    expect(make(crate, { size: 'true', unit: 'cm' }).parts[0]!.grid.contentBox()!.size).toEqual([18, 12, 24]);
    expect(() => make(crate, { size: 'true', unit: 'm' })).toThrow(/2,400 cubes along an edge/);
    expect(() => make(crate, { height: 200 })).toThrow(/at most 128\./);
    expect(make(crate, { height: 128 }).parts[0]!.grid.contentBox()!.size).toEqual([192, 128, 256]);
  });

  it('turns what has Z up, and about the way up', () => {
    const wedge = sceneOf([['wedge', shapeOf(box([0, 0, 0], [1, 2, 4]))]]);
    expect(make(wedge, { up: 'z', height: 16 }).parts[0]!.grid.contentBox()!.size).toEqual([4, 16, 8]);
    expect(make(wedge, { up: 'z', turn: '90', height: 16 }).parts[0]!.grid.contentBox()!.size).toEqual([8, 16, 4]);
  });

  it('fills the skin only where that is wished, so that nothing gets in from face to face', () => {
    const ballScene = sceneOf([['ball', shapeOf(ball([0, 0, 0], 1, 40))]]);
    const skin = make(ballScene, { fill: 'surface', height: 24 }).parts[0]!.grid,
      solid = make(ballScene, { height: 24 }).parts[0]!.grid;
    expect(skin.get(0, 12, 0)).toBe(0);
    expect(solid.get(0, 12, 0)).toBeGreaterThan(0);
    // From the middle no way leads out.
    const seen = new Set(['0,12,0']),
      open = [[0, 12, 0]];
    for (let at = open.pop(); at && seen.size < 20_000; at = open.pop())
      for (const [x, y, z] of [
        [1, 0, 0],
        [-1, 0, 0],
        [0, 1, 0],
        [0, -1, 0],
        [0, 0, 1],
        [0, 0, -1],
      ] as const) {
        const next = [at[0]! + x, at[1]! + y, at[2]! + z] as const;
        if (skin.get(...next) > 0 || seen.has(next.join())) continue;
        seen.add(next.join());
        open.push([...next]);
      }
    expect(seen.size).toBeLessThan(24 ** 3 / 1.5);
  });

  it('keeps blades that go through no middle of a cell only where thin things are kept', () => {
    const sword = [...box([0, 0, 0], [4, 4, 4]), ...box([0.7, 4, 0.3], [0.1, 12, 0.2])];
    const scene = sceneOf([['sword', shapeOf(sword)]]);
    expect(make(scene, { height: 16 }).parts[0]!.grid.contentBox()!.size).toEqual([4, 4, 4]);
    const thin = make(scene, { height: 16, thin: true }).parts[0]!.grid;
    expect(thin.contentBox()!.size).toEqual([4, 16, 4]);
    expect(thin.count).toBe(64 + 12);
  });

  it('gives a symmetric mesh exactly mirrored cubes and colours, wherever it stands', () => {
    const half = [...ball([1.3, 2, 0.1], 1.1, 24), ...box([0.2, 0, -1], [1.7, 1.37, 2.2])];
    const other = half.map((v, i) => (i % 3 === 0 ? -v : v));
    const both = sceneOf([['both', shapeOf([...half, ...other].map((v, i) => (i % 3 === 0 ? v + 17.3 : v)))]]);
    for (const height of [31, 40, 77]) {
      const g = make(both, { height }).parts[0]!.grid,
        { min, size } = g.contentBox()!;
      let wrong = 0;
      for (let z = 0; z < size[2]; z++)
        for (let y = 0; y < size[1]; y++)
          for (let x = 0; x < size[0]; x++)
            if (g.get(min[0] + x, min[1] + y, min[2] + z) !== g.get(min[0] + size[0] - 1 - x, min[1] + y, min[2] + z))
              wrong++;
      expect(wrong).toBe(0);
    }
  });

  it('takes colours of materials with their names, glow and surface, exactly where there are few', () => {
    const surfaces = [
      { ...PLAIN_SURFACE, name: 'brass', colour: [0.5, 0.2, 0.02] as const, metalness: 1, roughness: 0.3 },
      { ...PLAIN_SURFACE, name: 'flame', colour: [1, 0.5, 0] as const, glow: [3, 1.5, 0] as const },
    ];
    const { parts, swatches } = make(
      sceneOf(
        [
          ['lamp', shapeOf(box([0, 0, 0], [1, 1, 1]))],
          ['fire', shapeOf(box([0, 1, 0], [1, 1, 1]), { surface: 1 })],
        ],
        surfaces,
      ),
      { height: 8 },
    );
    expect(parts.map((p) => p.name)).toEqual(['lamp', 'fire']);
    expect(swatches.map((s) => [s.name, s.colour, s.metalness, s.roughness, s.emissive])).toEqual([
      ['brass', '#bc7c27', 1, 0.3, 0],
      ['flame', '#ffbc00', 0, 0.8, 3],
    ]);
  });

  it('shows texels where cubes are as fine, and the mean of their light where one cube covers them all', () => {
    const card = surface(1, 1, (u, v) => [u * 2, 2 - v * 2, 0]).map((v, i) => (i % 3 === 2 ? 0.5 : v));
    const face = shapeOf(card, { uvs: Float32Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]), surface: 0 });
    const scene = sceneOf(
      [['card', face]],
      [{ ...PLAIN_SURFACE, colour: [1, 1, 1], picture: { picture: 0, repeats: false } }],
    );
    const fine = make(scene, { height: 8, fill: 'surface' }, [chequer]);
    const counts = byteCounts(fine.parts[0]!.grid);
    expect(fine.swatches.map((s) => [s.colour, counts[s.byte]]).sort()).toEqual([
      ['#0000ff', 16],
      ['#00ff00', 16],
      ['#ff0000', 16],
      ['#ffffff', 16],
    ]);
    const one = make(scene, { height: 1, fill: 'surface', blend: 'mean' }, [chequer]);
    // A half of each channel as light is 188, not 128.
    expect(one.swatches.map((s) => s.colour)).toEqual(['#bcbcbc']);
  });

  it('leaves out what a picture cuts out', () => {
    const holed: Pixels = { ...chequer, rgba: chequer.rgba.map((v, i) => (i === 3 || i === 15 ? 0 : v)) };
    const card = shapeOf(
      surface(1, 1, (u, v) => [u * 8, 8 - v * 8, 0.5]),
      { uvs: Float32Array.from([0, 0, 1, 0, 1, 1, 0, 0, 1, 1, 0, 1]) },
    );
    const look = {
      ...PLAIN_SURFACE,
      colour: [1, 1, 1] as const,
      picture: { picture: 0, repeats: false },
      clear: 'cut' as const,
    };
    expect(make(sceneOf([['leaf', card]], [look]), { height: 8, fill: 'surface' }, [holed]).parts[0]!.grid.count).toBe(
      32,
    );
  });

  it('makes few colours of many over all parts together', () => {
    const tints = (from: number, t: Triangles): Uint8Array =>
      Uint8Array.from({ length: (t.length / 3) * 4 }, (_, i) =>
        i % 4 === 3 ? 255 : (from + Math.floor(i / 4) * (1 + (i % 4))) % 256,
      );
    const [one, other] = [ball([0, 0, 0], 4, 32), ball([10, 0, 0], 4, 32)];
    const scene = sceneOf([
      ['a', shapeOf(one, { colours: tints(0, one), surface: -1 })],
      ['b', shapeOf(other, { colours: tints(90, other), surface: -1 })],
    ]);
    const made = make(scene, { height: 32, most: 12 });
    expect(made.swatches).toHaveLength(12);
    expect(made.colours).toBeGreaterThan(500);
    const used = made.parts.map((p) => byteCounts(p.grid).reduce((n, c) => n + (c > 0 ? 1 : 0), 0));
    expect(Math.min(...used)).toBeGreaterThan(6);
  });

  it('says what it cannot do', () => {
    expect(() =>
      make(sceneOf([['sheet', shapeOf(surface(1, 1, (u, v) => [u, v, 0.83 * u + 0.11 * v]))]]), { height: 4 }),
    ).toThrow(/Nothing of it became a cube/);
    const nowhere = make(
      sceneOf([
        [
          'box',
          shapeOf([...box([0, 0, 0], [1, 1, 1]), ...[NaN, 0, 0, 1, 0, 0, 0, 1, 0], ...[1e300, 0, 0, 1, 0, 0, 0, 1, 0]]),
        ],
      ]),
    );
    expect([nowhere.lost, nowhere.parts[0]!.grid.count]).toEqual([2, 64 ** 3]);
  });
});
