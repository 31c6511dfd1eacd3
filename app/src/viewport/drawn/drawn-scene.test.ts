import { type Mat4, type Vec3, seededRandom, translation } from '@sphalerite/core/math';
import { meshChunk } from '@sphalerite/core/mesh';
import type { Face, TerrainSet } from '@sphalerite/core/model';
import { type Palette, makeSwatch } from '@sphalerite/core/palette';
import { type DrawInstance, type DrawList, cubeGeometry, gridGeometry } from '@sphalerite/core/scene';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { InstancedMesh, LineSegments, Matrix4, Mesh, type Object3D } from 'three';
import { describe, expect, it } from 'vitest';
import { chunkGeometries } from './chunk-geometry';
import { cubePictures, cubePiece } from './cube-skin';
import { DrawnScene } from './drawn-scene';
import { Following } from './following';
import type { DrawStyle } from './style';

const paletteOf = (id: string, glass = 0): Palette => ({
  id,
  name: id,
  swatches: glass === 0 ? [] : [{ ...makeSwatch(glass, 'glass', '#88aabb'), opacity: 0.5 }],
});
const HARBOUR = paletteOf('harbour');
const box = VoxelGrid.empty({ min: [0, 0, 0], size: [64, 32, 32] }).edit((d) =>
  d.fillBox({ min: [2, 2, 2], size: [5, 6, 7] }, 9),
);
const at = (
  grid: VoxelGrid,
  matrix: Mat4 = translation([0, 0, 0]),
  palette: Palette = HARBOUR,
  part = 'post',
): DrawInstance => ({
  geometry: gridGeometry(grid),
  palette,
  matrix,
  source: { path: [], part, mount: null, copy: 0 },
});

/** A scene drawn without a screen, that counts what it meshes in the background. */
function stage() {
  let asked = 0;
  const scene = new DrawnScene(
    async (_, chunks) => (asked++, chunks.map(() => null)),
    () => undefined,
    { edges: { value: 0 }, lit: { value: 1 }, glow: { value: 1 }, around: { value: 1 } },
  );
  const set = (
    list: DrawList,
    {
      styleOf = ((): DrawStyle => 'plain') as (i: DrawInstance) => DrawStyle | null,
      lined = false,
      besides = [] as [DrawList, Vec3, boolean][],
    } = {},
  ): void =>
    scene.set([
      { list, styleOf, lined, shift: [0, 0, 0], moment: false },
      ...besides.map(([l, shift, moment]) => ({ list: l, styleOf, lined: false, shift, moment })),
    ]);
  const all = (): Object3D[] => {
    const out: Object3D[] = [];
    scene.group.updateMatrixWorld(true);
    scene.group.traverse((o) => void (o instanceof Mesh || o instanceof LineSegments ? out.push(o) : 0));
    return out;
  };
  const meshes = (): Mesh[] => all().filter((o) => o instanceof Mesh);
  /** Where each thing stands, told by where the origin of its lattice comes to; once for each geometry. */
  const places = (): string[] =>
    meshes()
      .flatMap((m) => {
        const direction = m.userData['direction'] as number | undefined;
        if (direction !== undefined && direction > 0) return [];
        const count = m instanceof InstancedMesh ? m.count : 1;
        return Array.from({ length: count }, (_, i) => {
          const own = new Matrix4();
          if (m instanceof InstancedMesh) m.getMatrixAt(i, own);
          return own.premultiply(m.matrixWorld).elements.slice(12, 15).join();
        });
      })
      .sort();
  return { scene, set, all, meshes, places, asked: () => asked };
}

describe('what stands alone', () => {
  it('is six geometries, each with faces of its own direction only', () => {
    const g = chunkGeometries(meshChunk(box, 0, 0, 0)!);
    expect(g.map((x) => x!.index!.count)).toEqual([6, 6, 6, 6, 6, 6]);
    const p = g[2]!.getAttribute('position');
    expect([0, 1, 2, 3].map((i) => p.getY(i))).toEqual([8, 8, 8, 8]);
    expect(g[2]!.getAttribute('swatch').getX(0)).toBe(9);
  });

  it('meshes only the chunk that an edit touched; faces that look away from the eye are left out', () => {
    const { scene, set, meshes, asked } = stage();
    set([at(box)]);
    const before = new Set(meshes());
    expect(before.size).toBe(6);
    set([at(box.edit((d) => d.set(50, 5, 5, 3)))]);
    expect(meshes().filter((m) => before.has(m)).length).toBe(6);
    expect(meshes().length).toBe(12);
    expect(asked()).toBe(0);
    const shown = (): number[] =>
      [...new Set(meshes().flatMap((m) => (m.visible ? [m.userData['direction'] as number] : [])))].sort();
    scene.cull([200, 200, 200], [0, 0, -1], false);
    expect(shown()).toEqual([0, 2, 4]);
    scene.cull([0, 0, 100], [0, 0, -1], true);
    expect(shown()).toEqual([4]);
    scene.cull(null, [0, 0, -1], true);
    expect(shown()).toEqual([0, 1, 2, 3, 4, 5]);
  });

  it('shares every geometry with its other looks and with moments before and after', () => {
    const { set, meshes, places } = stage();
    const list = [at(box)];
    const look = (id: string): DrawList => [at(box, translation([0, 0, 0]), paletteOf(id))];
    set(list, { besides: [1, 2, 3].map((n) => [look(`look ${n}`), [n * 10, 0, 0], false]) });
    expect([new Set(meshes().map((m) => m.geometry)).size, new Set(meshes().map((m) => m.material)).size]).toEqual([
      6, 4,
    ]);
    expect(places()).toEqual(['0,0,0', '10,0,0', '20,0,0', '30,0,0']);
    set(list, { besides: [[[at(box, translation([0, 7, 0]))], [0, 0, 0], true]] });
    // Solid once before and once over the faint moment, which throws no shadow.
    expect(
      meshes()
        .map((m) => [m.renderOrder, m.castShadow])
        .filter((_, i) => i % 6 === 0),
    ).toEqual([
      [0, true],
      [0, true],
      [3, false],
    ]);
    expect(new Set(meshes().map((m) => m.geometry)).size).toBe(6);
    set(list);
    expect([meshes().length, places()]).toEqual([6, ['0,0,0']]);
  });

  it('is drawn faintly, seen through, or left out as it is told', () => {
    const { set, meshes } = stage();
    const list = [at(box)];
    const orders = (style: DrawStyle | null): number[] => {
      set(list, { styleOf: () => style });
      return [...new Set(meshes().map((m) => m.renderOrder))];
    };
    expect([orders('plain'), orders('faint'), orders('glass'), orders(null)]).toEqual([[0], [2, 3], [0], []]);
  });

  it('cubes behind glass have faces of their own, and glass comes after them', () => {
    const pane = box.edit((d) => d.fillBox({ min: [7, 2, 2], size: [1, 6, 7] }, 4));
    const { set, meshes } = stage();
    const right = (order: number): number =>
      meshes()
        .filter((m) => m.renderOrder === order && m.userData['direction'] === 0)
        .reduce((n, m) => n + m.geometry.index!.count / 6, 0);
    set([at(pane)]);
    expect([right(0), right(1)]).toEqual([1, 0]);
    set([at(pane, translation([0, 0, 0]), paletteOf('harbour', 4))]);
    // The wall behind the pane and the pane before it each show one quad to the right.
    expect([right(0), right(1)]).toEqual([1, 1]);
    set([at(pane)]);
    expect(right(1)).toBe(0);
  });
});

describe('what stands many times', () => {
  const many = (n: number, grid = box): DrawInstance[] =>
    Array.from({ length: n }, (_, i) => at(grid, translation([i * 100, 0, 0])));

  it('is one thing to draw, moved without being meshed, and meshed once when the part changes', () => {
    const { set, meshes, places } = stage();
    const list = many(50);
    set(list);
    const [mesh] = meshes() as InstancedMesh[];
    expect([meshes().length, mesh!.count]).toEqual([1, 50]);
    const moved = list.with(20, at(box, translation([0, 33, 0])));
    set(moved);
    expect(meshes()).toEqual([mesh]);
    expect(places()).toEqual(moved.map((i) => i.matrix.slice(12, 15).join()).sort());
    const edited = box.edit((d) => d.set(3, 20, 3, 3));
    set(many(50, edited));
    const [after] = meshes() as InstancedMesh[];
    expect([meshes().length, after!.count, after!.geometry === mesh!.geometry]).toEqual([1, 50, false]);
    // One cube more is five faces more, and nothing else.
    expect(after!.geometry.index!.count).toBe(mesh!.geometry.index!.count + 6 * 6);
  });

  it('has a look for each palette, and a changed palette changes its texture alone', () => {
    const { set, meshes } = stage();
    const coloured = (p: Palette, q: Palette): DrawList =>
      many(20).map((i, n) => ({ ...i, palette: n % 2 === 0 ? p : q }));
    set(coloured(paletteOf('a'), paletteOf('b')));
    const before = meshes();
    expect([before.length, new Set(before.map((m) => m.geometry)).size]).toEqual([2, 1]);
    set(coloured(paletteOf('a'), { ...paletteOf('b'), swatches: [makeSwatch(9, 'red', '#ff0000')] }));
    expect(meshes()).toEqual(before);
  });

  it('draws the lines where colours meet at each of them', () => {
    const { set, all } = stage();
    set(
      many(
        3,
        box.edit((d) => d.set(4, 7, 4, 2)),
      ),
      { lined: true },
    );
    const lines = all().filter((o) => o instanceof LineSegments) as unknown as InstancedMesh[];
    expect(lines.map((l) => [l.isInstancedMesh, l.count])).toEqual([[true, 3]]);
  });

  it('kept from list to list and made anew give the same (seeds 1 to 6)', () => {
    const grids = [box, box.edit((d) => d.set(9, 9, 9, 1)), box.edit((d) => d.fillBox(d.bounds, 2))];
    const palettes = [HARBOUR, paletteOf('night', 9)];
    for (let seed = 1; seed <= 6; seed++) {
      const random = seededRandom(seed);
      const some = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
      const one = (): DrawInstance => {
        const k = Math.floor(random() * 3);
        return at(grids[k]!, translation([random(), random(), random()]), some(palettes), `part ${k}`);
      };
      const kept = stage();
      let list: DrawInstance[] = [];
      for (let step = 0; step < 25; step++) {
        list = list.filter(() => random() > 0.3).map((i) => (random() < 0.2 ? { ...i, matrix: one().matrix } : i));
        for (let n = Math.floor(random() * 6); n > 0; n--)
          list.splice(Math.floor(random() * (list.length + 1)), 0, one());
        if (random() < 0.2) grids[0] = grids[0]!.edit((d) => d.set(step, 3, 3, 5));
        const styleOf = (i: DrawInstance): DrawStyle =>
          i.source.part === 'part 1' && step % 3 === 0 ? 'faint' : 'plain';
        kept.set(list, { styleOf });
        const anew = stage();
        anew.set(list, { styleOf });
        expect(kept.places(), `seed ${seed} step ${step}`).toEqual(anew.places());
        expect(kept.meshes().length, `seed ${seed} step ${step}`).toBe(anew.meshes().length);
      }
      kept.scene.dispose();
      expect(kept.meshes()).toEqual([]);
    }
  });
});

describe('a terrain cube', () => {
  const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [16, 16, 1] }).edit((d) => d.set(15, 0, 0, 7));
  const face: Face = { picture: 'p', turns: 0, mirrored: false };
  const set: TerrainSet = {
    id: 's',
    name: 'Quay',
    texels: 16,
    palette: 'harbour',
    pictures: [{ id: 'p', name: 'corner', grid }],
    cubes: [{ id: 'c', name: 'Setts', faces: [face, face, face, face, face, face], flow: null }],
  };
  it('has its picture on each face, the lower right texel where one sees it from outside', () => {
    const picture = cubePictures(set, set.cubes[0]!);
    const bytes = picture.image.data as Uint8Array;
    const faces = cubePiece(16).faces();
    const corners = faces.map((g, i) => {
      const place = g!.getAttribute('swatch'),
        p = g!.getAttribute('position');
      // The second corner is the lower right one; half a texel inwards of it lies the texel.
      const x = Math.floor(place.getX(1) * 96 - 0.5),
        y = Math.floor(place.getY(1) * 16 + 0.5);
      expect([i, bytes[y * 96 + x]]).toEqual([i, 7]);
      return [p.getX(1), p.getY(1), p.getZ(1)];
    });
    expect(corners).toEqual([
      [16, 0, 0],
      [0, 0, 16],
      [16, 16, 16],
      [16, 0, 0],
      [16, 0, 16],
      [0, 0, 0],
    ]);
  });
  it('is drawn once for all places it stands at', () => {
    const { set: draw, meshes, places } = stage();
    const geometry = cubeGeometry(set, set.cubes[0]!);
    draw([0, 16, 32].map((x) => ({ ...at(box, translation([x, 0, 0])), geometry })));
    expect([meshes().length, places()]).toEqual([1, ['0,0,0', '16,0,0', '32,0,0']]);
  });
});

it('something made of a value is handed on only when nobody uses it any more', () => {
  const log: string[] = [];
  const known = new Following<{ n: number }, { made: number }>(
    (k) => ({ made: k.n }),
    (v, k) => log.push(`${v.made} follows ${k.n}`),
    (v) => log.push(`${v.made} goes`),
  );
  const [a, b, c, d] = [1, 2, 3, 4].map((n) => ({ n })) as [{ n: number }, { n: number }, { n: number }, { n: number }];
  known.keep(new Map([[a, 'post']]), new Set());
  known.keep(new Map([[b, 'post']]), new Set([known.get(a)]));
  expect([log, known.get(b).made]).toEqual([[], 2]);
  known.keep(new Map([[c, 'post']]), new Set([known.get(b)]));
  expect([log, known.get(c).made]).toEqual([['1 follows 3'], 1]);
  known.keep(new Map([[d, 'lamp']]), new Set());
  expect([log.slice(1).sort(), known.get(d).made]).toEqual([['1 goes', '2 goes'], 4]);
});
