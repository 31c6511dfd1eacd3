import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { VoxelGrid } from '../voxel';
import { FACE_DIRECTIONS, changedChunks, chunksOf, forQuads, meshChunk } from '.';

type Cell = [number, number, number, number];
const build = (cells: Cell[], size = 70): VoxelGrid =>
  VoxelGrid.empty({ min: [-size / 2, -size / 2, -size / 2], size: [size, size, size] }).edit((d) =>
    cells.forEach(([x, y, z, v]) => d.set(x, y, z, v)),
  );

/** Every unit face that the quads cover, with its colour; throws when two quads cover the same one. */
function coveredFaces(grid: VoxelGrid): Map<string, number> {
  const found = new Map<string, number>();
  for (const at of chunksOf(grid)) {
    const mesh = meshChunk(grid, ...(at as [number, number, number]));
    if (!mesh) continue;
    forQuads(mesh, (d, colour, c) => {
      const lo = [0, 1, 2].map((a) => Math.min(c[a]!, c[a + 3]!, c[a + 6]!, c[a + 9]!));
      const hi = [0, 1, 2].map((a) => Math.max(c[a]!, c[a + 3]!, c[a + 6]!, c[a + 9]!));
      const axis = d >> 1;
      lo[axis]! -= d % 2 === 0 ? 1 : 0;
      hi[axis] = lo[axis]! + 1;
      for (let z = lo[2]!; z < hi[2]!; z++)
        for (let y = lo[1]!; y < hi[1]!; y++)
          for (let x = lo[0]!; x < hi[0]!; x++) {
            const key = `${x},${y},${z},${d}`;
            if (found.has(key)) throw new Error(`face ${key} twice`);
            found.set(key, colour);
          }
    });
  }
  return found;
}
function exposedFaces(grid: VoxelGrid): Map<string, number> {
  const found = new Map<string, number>();
  grid.forEach((x, y, z, v) =>
    FACE_DIRECTIONS.forEach(([dx, dy, dz], d) => {
      if (grid.get(x + dx, y + dy, z + dz) === 0) found.set(`${x},${y},${z},${d}`, v);
    }),
  );
  return found;
}
const coord = fc.integer({ min: -35, max: 34 });
const cell = fc.tuple(coord, coord, coord, fc.integer({ min: 1, max: 3 })) as fc.Arbitrary<Cell>;
const near = fc.tuple(
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: -3, max: 3 }),
  fc.integer({ min: 1, max: 2 }),
) as fc.Arbitrary<Cell>;

const quadsOf = (grid: VoxelGrid): number =>
  chunksOf(grid).reduce((n, at) => n + (meshChunk(grid, ...at)?.quads.length ?? 0), 0);

describe('meshChunk', () => {
  it('covers exactly the exposed faces, each once, in its own colour', () => {
    fc.assert(
      fc.property(fc.array(fc.oneof(cell, near), { maxLength: 200 }), (cells) => {
        const grid = build(cells);
        const faces = exposedFaces(grid);
        expect(new Map([...coveredFaces(grid)].sort())).toEqual(new Map([...faces].sort()));
      }),
      { numRuns: 40 },
    );
  });

  it('a solid box of one colour inside one chunk is six quads', () => {
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [32, 32, 32] }).edit((d) =>
      d.fillBox({ min: [1, 2, 3], size: [29, 28, 20] }, 4),
    );
    const mesh = meshChunk(grid, 0, 0, 0)!;
    expect(mesh.counts).toEqual([1, 1, 1, 1, 1, 1]);
    const full = grid.edit((d) => d.fillBox(d.bounds, 5));
    expect(meshChunk(full, 0, 0, 0)!.counts).toEqual([1, 1, 1, 1, 1, 1]);
  });

  it('does not cut a small box that stands about lattice 0, and follows edits of it', () => {
    const about = (size: number): VoxelGrid =>
      VoxelGrid.empty({ min: [-size / 2, 0, -size / 2], size: [size, size, size] }).edit((d) => d.fillBox(d.bounds, 3));
    expect([2, 16, 32, 40].map((size) => quadsOf(about(size)))).toEqual([6, 6, 6, 24]);
    const before = about(20),
      after = before.edit((d) => d.set(-10, 5, 9, 0));
    expect(chunksOf(after)).toEqual([[0, 0, 0]]);
    expect(changedChunks(before, after)).toContainEqual([0, 0, 0]);
    expect(coveredFaces(after)).toEqual(exposedFaces(after));
  });

  it('winds every quad counter-clockwise seen from outside', () => {
    const grid = build([
      [0, 0, 0, 1],
      [1, 0, 0, 2],
      [-4, 3, 2, 1],
    ]);
    let seen = 0;
    for (const at of chunksOf(grid)) {
      const mesh = meshChunk(grid, ...at);
      if (!mesh) continue;
      forQuads(mesh, (d, _colour, corners) => {
        const [a, b, c] = [0, 3, 6].map((k) => [...corners.subarray(k, k + 3)]) as [number[], number[], number[]];
        const u = b.map((v, k) => v - a[k]!),
          w = c.map((v, k) => v - a[k]!);
        const n = [u[1]! * w[2]! - u[2]! * w[1]!, u[2]! * w[0]! - u[0]! * w[2]!, u[0]! * w[1]! - u[1]! * w[0]!];
        expect(n.map(Math.sign).map((v) => v + 0)).toEqual([...FACE_DIRECTIONS[d]!]);
        seen++;
      });
    }
    expect(seen).toBe(10 + 6);
  });

  it('an edit at a chunk border names the chunk beyond it too', () => {
    const before = build([[15, 5, 5, 1]]);
    const after = before.edit((d) => d.set(16, 5, 5, 1));
    expect(changedChunks(before, after)).toContainEqual([1, 0, 0]);
    expect(changedChunks(before, after)).toContainEqual([0, 0, 0]);
  });
});
