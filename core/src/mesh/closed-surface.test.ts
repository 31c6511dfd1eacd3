import fc from 'fast-check';
import Module from 'manifold-3d';
import { describe, expect, it } from 'vitest';
import { FACE_DIRECTIONS, type Vec3, finish, seededRandom } from '../math';
import { VoxelGrid, byteTable } from '../voxel';
import { type FlatSurface, closedSurfaceSteps, countFaces, everyWay } from '.';

const ONE = everyWay(byteTable(() => 0)),
  EACH = everyWay(byteTable((b) => b));
const surface = (grid: VoxelGrid, labels = ONE): FlatSurface => finish(closedSurfaceSteps(grid, labels));
const gridOf = (
  size: number,
  cells: readonly (readonly [number, number, number, number?])[],
  min: Vec3 = [0, 0, 0],
): VoxelGrid =>
  VoxelGrid.empty({ min, size: [size, size, size] }).edit((d) =>
    cells.forEach(([x, y, z, v]) => d.set(x, y, z, v ?? 1)),
  );
const filled = (size: number, is: (x: number, y: number, z: number) => number, min: Vec3 = [0, 0, 0]): VoxelGrid =>
  VoxelGrid.empty({ min, size: [size, size, size] }).edit((d) => {
    for (let z = 0; z < size; z++)
      for (let y = 0; y < size; y++)
        for (let x = 0; x < size; x++) {
          const v = is(x, y, z);
          if (v !== 0) d.set(x + min[0], y + min[1], z + min[2], v);
        }
  });

/** What is wrong with a mesh as a closed one: an edge that is not gone along once in each way. */
function openEdges({ triangles }: FlatSurface): number {
  const edges = new Map<string, number>();
  for (let t = 0; t < triangles.length; t += 3)
    for (let k = 0; k < 3; k++) {
      const key = `${triangles[t + k]!} ${triangles[t + ((k + 1) % 3)]!}`;
      edges.set(key, (edges.get(key) ?? 0) + 1);
    }
  return [...edges].filter(([key, n]) => n !== 1 || edges.get(key.split(' ').reverse().join(' ')) !== 1).length;
}
/** By the divergence theorem. */
function volumeOf({ positions, triangles }: FlatSurface): number {
  const at = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  let sum = 0;
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [at(triangles[t]!), at(triangles[t + 1]!), at(triangles[t + 2]!)];
    sum += a[0] * (b[1] * c[2] - b[2] * c[1]) + a[1] * (b[2] * c[0] - b[0] * c[2]) + a[2] * (b[0] * c[1] - b[1] * c[0]);
  }
  // In half cubes: an eighth of a cube each.
  return sum / 6 / 8;
}
const counts = (s: FlatSurface): [number, number] => [s.positions.length / 3, s.triangles.length / 3];

describe('a surface without open edges', () => {
  it('is of a cube 12 triangles, however many cubes it is of and wherever it stands', () => {
    expect(counts(surface(gridOf(1, [[0, 0, 0]])))).toEqual([8, 12]);
    const big = surface(filled(20, () => 3, [-11, 30, -40]));
    expect(counts(big)).toEqual([8, 12]);
    expect([volumeOf(big), big.faces, big.regions]).toEqual([8000, 2400, 6]);
    expect(counts(surface(gridOf(2, [])))).toEqual([0, 0]);
  });
  it('cubes that meet in an edge or a corner are sheets of their own; a hole has Σ (V + 2H − 2) triangles', () => {
    expect(
      counts(
        surface(
          gridOf(2, [
            [0, 0, 0],
            [1, 1, 0],
          ]),
        ),
      ),
    ).toEqual([16, 24]);
    expect(
      counts(
        surface(
          gridOf(2, [
            [0, 0, 0],
            [1, 1, 1],
          ]),
        ),
      ),
    ).toEqual([16, 24]);
    // A ring of 3 × 3 around nothing: two faces of 4 + 4 points and a hole each (8), four sides out and four in (2 each).
    const ring = surface(filled(3, (x, y, z) => (y === 0 && !(x === 1 && z === 1) ? 1 : 0)));
    expect(counts(ring)).toEqual([16, 2 * (8 + 2 - 2) + 8 * 2]);
    // A cavity is a closed sheet inside.
    const hollow = surface(filled(3, (x, y, z) => (x === 1 && y === 1 && z === 1 ? 0 : 1)));
    expect([...counts(hollow), volumeOf(hollow)]).toEqual([16, 24, 26]);
  });
  it('keeps labels apart with no edge ending within another', () => {
    // A slab of two colours beside one of one: the border between the two is a point of the faces that meet there.
    const two = surface(
      filled(4, (x, y) => (y > 0 ? 0 : x < 2 ? 1 : 2)),
      EACH,
    );
    expect(openEdges(two)).toBe(0);
    expect(volumeOf(two)).toBe(16);
    // Front, back, top and bottom are two rectangles each, the ends one.
    expect([two.regions, two.triangles.length / 3]).toEqual([10, 20]);
    for (let t = 0; t < two.labels.length; t++)
      for (let k = 0; k < 3; k++) {
        const x = two.positions[two.triangles[t * 3 + k]! * 3]! / 2;
        expect(two.labels[t] === 1 ? x <= 2 : x >= 2).toBe(true);
      }
  });
  it.each([1, 2, 3, 4])(
    'of random heaps of density %i/5, in three colours, is closed and as large as they are',
    (density) => {
      const random = seededRandom(density);
      for (let n = 0; n < 12; n++) {
        const grid = filled(7, () => (random() * 5 < density ? 1 + Math.floor(random() * 3) : 0), [-3, 2, 5]);
        for (const labels of [ONE, EACH]) {
          const s = surface(grid, labels);
          expect(openEdges(s)).toBe(0);
          expect(volumeOf(s)).toBe(grid.count);
          // Each face of a cube is covered once, by a triangle that looks its way.
          expect(s.faces).toBe(countFaces(grid));
        }
      }
    },
  );
  it('has no triangle without area, and covers what is exposed of each colour exactly', () => {
    fc.assert(
      fc.property(
        fc.array(fc.tuple(fc.nat(4), fc.nat(4), fc.nat(4), fc.integer({ min: 1, max: 3 })), { maxLength: 60 }),
        (cells) => {
          const grid = gridOf(5, cells),
            s = surface(grid, EACH);
          const area = [0, 0, 0, 0];
          for (let t = 0; t < s.labels.length; t++) {
            const [a, b, c] = [0, 1, 2].map((k) => [
              ...s.positions.slice(s.triangles[t * 3 + k]! * 3, s.triangles[t * 3 + k]! * 3 + 3),
            ]) as [number[], number[], number[]];
            const [p, q] = [b.map((v, i) => v - a[i]!), c.map((v, i) => v - a[i]!)];
            const n = [p[1]! * q[2]! - p[2]! * q[1]!, p[2]! * q[0]! - p[0]! * q[2]!, p[0]! * q[1]! - p[1]! * q[0]!];
            const along = n[s.directions[t]! >> 1]! * (s.directions[t]! % 2 === 0 ? 1 : -1);
            expect(along).toBeGreaterThan(0);
            area[s.labels[t]!]! += along / 2 / 4;
          }
          const exposed = [0, 0, 0, 0];
          grid.forEach((x, y, z, v) =>
            FACE_DIRECTIONS.forEach(([dx, dy, dz]) => (exposed[v]! += grid.get(x + dx, y + dy, z + dz) === 0 ? 1 : 0)),
          );
          expect(area).toEqual(exposed);
        },
      ),
      { numRuns: 60 },
    );
  });
  it('an independent geometry library takes it for a solid of that volume', async () => {
    const lib = await Module();
    lib.setup();
    const random = seededRandom(77);
    for (const grid of [
      filled(9, () => (random() < 0.45 ? 1 + Math.floor(random() * 4) : 0)),
      filled(12, (x, y, z) => (Math.hypot(x - 6, y - 6, z - 6) < 5 ? 1 + ((x >> 1) & 1) : 0)),
    ]) {
      const { positions, triangles } = surface(grid, EACH);
      const mesh = new lib.Mesh({
        numProp: 3,
        vertProperties: Float32Array.from(positions, (v) => v / 2),
        triVerts: triangles,
      });
      const solid = new lib.Manifold(mesh);
      expect(solid.status()).toBe('NoError');
      expect(solid.volume()).toBeCloseTo(grid.count, 3);
    }
  });
});
