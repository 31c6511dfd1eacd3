import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { FACE_DIRECTIONS, type Vec3, finish } from '../math';
import { VoxelGrid, byteTable } from '../voxel';
import { type FlatSurface, NO_LABEL, closedSurfaceSteps, countFaces, everyWay, openSurfaceSteps, planeAxes } from '.';

const EACH = everyWay(byteTable((b) => b)),
  ONE = everyWay(byteTable(() => 0));
const heap = fc
  .array(fc.tuple(fc.nat(5), fc.nat(5), fc.nat(5), fc.integer({ min: 1, max: 3 })), { minLength: 1, maxLength: 90 })
  .map((cells) =>
    VoxelGrid.empty({ min: [-2, 3, 0], size: [6, 6, 6] }).edit((d) =>
      cells.forEach(([x, y, z, v]) => d.set(x - 2, y + 3, z, v)),
    ),
  );

/** Every exposed face of a grid, with its byte: the slow way. */
function exposed(grid: VoxelGrid): Map<string, number> {
  const out = new Map<string, number>();
  grid.forEach((x, y, z, v) =>
    FACE_DIRECTIONS.forEach(([dx, dy, dz], d) => {
      if (grid.get(x + dx, y + dy, z + dz) === 0) out.set(`${x} ${y} ${z} ${d}`, v);
    }),
  );
  return out;
}
/** The faces that the regions of a surface hold, with what they look like there. */
function held(s: FlatSurface): Map<string, number> {
  const out = new Map<string, number>();
  const seen = new Set<number>();
  for (let t = 0; t < s.labels.length; t++) {
    const region = s.regionOf[t]!,
      d = s.directions[t]!;
    if (seen.has(region)) continue;
    seen.add(region);
    const [u, v] = planeAxes(d),
      axis = d >> 1;
    const at = s.positions[s.triangles[t * 3]! * 3 + axis]! / 2 - (d % 2 === 0 ? 1 : 0);
    const [u0, v0, wide, high] = [0, 1, 2, 3].map((k) => s.spans[region * 4 + k]!) as [number, number, number, number];
    for (let j = 0; j < high; j++)
      for (let i = 0; i < wide; i++) {
        const byte = s.texels![region]![j * wide + i]!;
        if (byte === 0) continue;
        const cell: [number, number, number] = [0, 0, 0];
        cell[axis] = at;
        cell[u] = u0 + i;
        cell[v] = v0 + j;
        const key = `${cell.join(' ')} ${d}`;
        expect(out.has(key)).toBe(false);
        out.set(key, byte);
      }
  }
  return out;
}
const sorted = (m: Map<string, number>): [string, number][] => [...m].sort(([a], [b]) => (a < b ? -1 : 1));

describe('flat faces as rectangles, and as closed regions', () => {
  it('hold every exposed face once, with its colour, whatever is merged', () => {
    fc.assert(
      fc.property(heap, (grid) => {
        for (const labels of [EACH, ONE])
          for (const make of [openSurfaceSteps, closedSurfaceSteps]) {
            const s = finish(make(grid, labels, true));
            expect(sorted(held(s))).toEqual(sorted(exposed(grid)));
            expect([s.faces, countFaces(grid)]).toEqual([exposed(grid).size, exposed(grid).size]);
          }
      }),
      { numRuns: 40 },
    );
  });
  it('are not cut at any border: a solid of 70 cubes is six rectangles of eight corners', () => {
    const size: Vec3 = [70, 70, 70];
    const s = finish(
      openSurfaceSteps(
        VoxelGrid.empty({ min: [-35, -35, -35], size }).edit((d) => {
          for (let z = -35; z < 35; z++)
            for (let y = -35; y < 35; y++) for (let x = -35; x < 35; x++) d.set(x, y, z, 1);
        }),
        ONE,
      ),
    );
    expect([s.regions, s.labels.length, s.positions.length / 3]).toEqual([6, 12, 8]);
  });
  it('are told apart by which way they look, by picked faces, and leave out what has no label', () => {
    const grid = VoxelGrid.empty({ min: [0, 0, 0], size: [4, 1, 1] }).edit((d) => {
      for (let x = 0; x < 4; x++) d.set(x, 0, 0, x === 3 ? 2 : 1);
    });
    const byWay = FACE_DIRECTIONS.map((_, d) => Uint16Array.from(byteTable((b) => (b === 2 ? 0 : d))));
    const none = FACE_DIRECTIONS.map(() => Uint16Array.from({ length: 256 }, (_, b) => (b === 2 ? NO_LABEL : 1)));
    const top = grid.edit((d) => {
      for (let x = 0; x < 4; x++) d.set(x, 0, 0, x === 1 ? 9 : 0);
    });
    const s = finish(openSurfaceSteps(grid, { tables: byWay }));
    expect(s.regions).toBe(6 + 4);
    const picked = FACE_DIRECTIONS.map((_, d) => (d === 2 ? top : null));
    const labelOfPicked = (number: number): number => 700 + number;
    const p = finish(openSurfaceSteps(grid, { tables: ONE.tables, picked, labelOfPicked }));
    expect([...new Set(p.labels)]).toEqual([0, 709]);
    expect(p.regions).toBe(6 + 2);
    expect(finish(openSurfaceSteps(grid, { tables: none })).faces).toBe(1 + 4 * 3);
    const dropped = FACE_DIRECTIONS.map((_, d) => (d === 2 ? top.edit((w) => w.set(1, 0, 0, 1)) : null));
    expect(finish(openSurfaceSteps(grid, { tables: ONE.tables, dropped })).faces).toBe(17);
  });
});
