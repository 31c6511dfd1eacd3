import type { Steps, Vec3 } from '../math';
import type { VoxelGrid } from '../voxel';
import { type FlatSurface, SurfaceMaker } from './flat-surface';
import { type FaceLabels, type Field, Plane, fieldOf } from './plane';

/** Corners of rectangles by their place in the lattice: one vertex for each. */
class Corners {
  /** Number of the vertex at each point, plus one. */
  private readonly known: Int32Array;
  private readonly strides: Vec3;

  constructor(
    private readonly maker: SurfaceMaker,
    private readonly field: Field,
  ) {
    const [nx, ny, nz] = field.size;
    this.strides = [1, nx + 1, (nx + 1) * (ny + 1)];
    this.known = new Int32Array(this.strides[2] * (nz + 1));
  }
  of({ axis, u, v }: Plane, w: number, i: number, j: number): number {
    const { strides, known, field } = this;
    const key = w * strides[axis]! + i * strides[u]! + j * strides[v]!;
    if (known[key] === 0) {
      const at: [number, number, number] = [0, 0, 0];
      at[axis] = 2 * (w + field.min[axis]!);
      at[u] = 2 * (i + field.min[u]!);
      at[v] = 2 * (j + field.min[v]!);
      known[key] = this.maker.vertex(...at) + 1;
    }
    return known[key]! - 1;
  }
}

/**
 * Exposed faces merged to rectangles, each the longest run along u and then as many rows as allow it; edges meet as they may. Over the
 * whole grid, without borders of chunks. In pieces.
 *
 * @param texels – whether what the rectangles look like is wanted
 */
export function* openSurfaceSteps(grid: VoxelGrid, labels: FaceLabels, texels = false): Steps<FlatSurface> {
  const field = fieldOf(grid, labels);
  const maker = new SurfaceMaker(texels);
  if (!field) return maker.finished();
  const { size } = field;
  const layers = 2 * (size[0] + size[1] + size[2]);
  const corners = new Corners(maker, field);
  let done = 0;
  for (const axis of [0, 1, 2]) {
    const plane = new Plane(field, axis);
    for (let k = 0; k < size[axis]!; k++)
      for (const step of [1, -1] as const) {
        const found = plane.read(k, step);
        maker.faces += found;
        if (found > 0) addRectangles(maker, corners, plane, step > 0 ? k + 1 : k, axis * 2 + (step > 0 ? 0 : 1));
        yield done++ / layers;
      }
  }
  return maker.finished();
}

/** Rectangles of one label, taken off the plane one after another. */
function addRectangles(maker: SurfaceMaker, corners: Corners, plane: Plane, w: number, direction: number): void {
  const { labels, nu, u0, u1, v0, v1 } = plane;
  const row = nu + 2;
  for (let j = v0; j < v1; j++)
    for (let i = u0; i < u1; i++) {
      const from = (j + 1) * row + i + 1,
        label = labels[from]!;
      if (label === 0) continue;
      let wide = 1;
      while (labels[from + wide] === label) wide++;
      let high = 1;
      const same = (at: number): boolean => {
        for (let x = 0; x < wide; x++) if (labels[at + x] !== label) return false;
        return true;
      };
      while (same(from + high * row)) high++;
      const region = maker.region(plane, i, j, wide, high, () => true);
      for (let y = 0; y < high; y++) labels.fill(0, from + y * row, from + y * row + wide);
      const [a, b, c, d] = [
        corners.of(plane, w, i, j),
        corners.of(plane, w, i + wide, j),
        corners.of(plane, w, i + wide, j + high),
        corners.of(plane, w, i, j + high),
      ];
      maker.triangle(direction, label - 1, region, a, b, c);
      maker.triangle(direction, label - 1, region, a, c, d);
    }
}
