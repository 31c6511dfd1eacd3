import { seededRandom, translation } from '@sphalerite/core/math';
import { chunksOf, coarserForms, meshChunk } from '@sphalerite/core/mesh';
import { type DrawInstance, type DrawList, gridGeometry, instanceExtent } from '@sphalerite/core/scene';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { describe, expect, it } from 'vitest';
import { Detail, type Eye, type SeenInstance } from './detail';

const palette = { id: 'harbour', name: 'harbour', swatches: [] };
const quadsOf = (grid: VoxelGrid): number =>
  chunksOf(grid).reduce((n, [x, y, z]) => n + (meshChunk(grid, x, y, z)?.counts.reduce((a, c) => a + c, 0) ?? 0), 0);
/** A body whose colours leave little to be merged. */
function speckled(edge: number, seed = 1): VoxelGrid {
  const random = seededRandom(seed);
  return VoxelGrid.empty({ min: [0, 0, 0], size: [edge, edge, edge] }).edit((d) => {
    for (let z = 0; z < edge; z++)
      for (let y = 0; y < edge; y++) for (let x = 0; x < edge; x++) d.set(x, y, z, 1 + Math.floor(random() * 5));
  });
}
const ROCK = speckled(24);
const standing = (grid: VoxelGrid, x: number, z: number): DrawInstance => ({
  geometry: gridGeometry(grid),
  palette,
  matrix: translation([x, 0, z]),
  source: { path: [], part: 'rock', mount: null, copy: 0 },
});
/** Rocks in a row away from the eye. */
const row = (n: number, grid = ROCK): DrawList =>
  Array.from({ length: n }, (_, i) => standing(grid, -12, -60 - 40 * i));
const AHEAD: Eye = { at: [0, 12, 0], ahead: [0, 0, -1], orthographic: false, pixels: 1000 };

/** What stands in the view, as far as its meshes are there. */
function view(most: number, drawn: (grid: VoxelGrid) => number | null = quadsOf) {
  const asked: VoxelGrid[] = [];
  let arrivals = 0;
  const detail = new Detail(
    (grid) => {
      asked.push(grid);
      const forms = coarserForms(grid, 5);
      return Promise.resolve({ forms, quads: [grid, ...forms].map(quadsOf) });
    },
    (g) => (g.kind === 'grid' ? drawn(g.grid) : 6),
    () => arrivals++,
    most,
  );
  const total = (list: DrawList): number =>
    list.reduce((n, i) => n + (i.geometry.kind === 'grid' ? quadsOf(i.geometry.grid) : 6), 0);
  return { detail, asked, total, arrivals: () => arrivals };
}
const levels = (list: readonly SeenInstance[]): number[] => list.map((i) => i.level ?? 0);

describe('level of detail', () => {
  it('leaves what can be drawn as it is, and makes nothing for it', () => {
    const { detail, asked } = view(quadsOf(ROCK) * 8);
    const list = row(8);
    expect(detail.seen(list, AHEAD)).toBe(list);
    expect(asked).toEqual([]);
  });

  it('keeps within its budget, with what is near finest, and gives the same list from the same place', async () => {
    const most = quadsOf(ROCK) * 5;
    const { detail, asked, total } = view(most);
    const list = row(40);
    detail.seen(list, AHEAD);
    await Promise.resolve();
    expect(asked).toEqual([ROCK]);
    const seen: readonly SeenInstance[] = detail.seen(list, AHEAD);
    expect(total(seen)).toBeLessThanOrEqual(most);
    expect(total(seen)).toBeGreaterThan(most / 3);
    const by = levels(seen);
    expect(by).toHaveLength(40);
    expect(by[0]).toBe(0);
    expect(by).toEqual(by.toSorted((a, b) => a - b));
    expect(detail.seen(list, AHEAD)).toBe(seen);
    // From the other end it is the other way round; what is the same stays the same object.
    const back: readonly SeenInstance[] = detail.seen(list, { ...AHEAD, at: [0, 12, -1700], ahead: [0, 0, 1] });
    expect(levels(back)).toEqual(levels(back).toSorted((a, b) => b - a));
    expect(back.at(-1)).toBe(list.at(-1));
    expect(detail.seen(list, AHEAD).map((i, k) => i === seen[k])).toEqual(seen.map(() => true));
  });

  it('stands a coarser form where the whole stands, over the same ground', async () => {
    const { detail } = view(quadsOf(ROCK) * 3);
    const list = row(30);
    detail.seen(list, AHEAD);
    await Promise.resolve();
    for (const seen of detail.seen(list, AHEAD) as readonly SeenInstance[]) {
      const whole = seen.whole ?? seen;
      const [a, b] = [instanceExtent(whole)!, instanceExtent(seen)!];
      const edge = 2 ** (seen.level ?? 0);
      for (const k of [0, 1, 2] as const) {
        expect(b.lo[k]).toBeLessThanOrEqual(a.lo[k]);
        expect(a.lo[k] - b.lo[k]).toBeLessThan(edge);
        expect(b.hi[k]).toBeGreaterThanOrEqual(a.hi[k]);
        expect(b.hi[k] - a.hi[k]).toBeLessThan(edge);
      }
    }
  });

  it('leaves out what would stop everything until its coarser form is there, and then is told', async () => {
    const { detail, arrivals } = view(quadsOf(ROCK) * 3, () => null);
    const list = row(30);
    const first: readonly SeenInstance[] = detail.seen(list, AHEAD);
    expect(first.length).toBeLessThan(30);
    expect(levels(first)).toEqual(first.map(() => 0));
    await Promise.resolve();
    expect(arrivals()).toBe(1);
    expect(detail.seen(list, AHEAD)).toHaveLength(30);
  });

  it('shows the forms from before a stroke until those after it are there', async () => {
    const { detail } = view(quadsOf(ROCK) * 3);
    detail.seen(row(30), AHEAD);
    await Promise.resolve();
    const far = detail.seen(row(30), AHEAD).at(-1)!;
    const after = ROCK.edit((d) => d.fillBox({ min: [0, 20, 0], size: [24, 4, 24] }, 0));
    const list = row(30, after);
    expect(detail.seen(list, AHEAD).at(-1)!.geometry).toBe(far.geometry);
    await Promise.resolve();
    expect(detail.seen(list, AHEAD).at(-1)!.geometry).not.toBe(far.geometry);
  });
});
