import type { Steps, Vec3 } from '../math';
import type { VoxelGrid } from '../voxel';
import { type FlatSurface, SurfaceMaker } from './flat-surface';
import { type FaceLabels, type Field, Plane, fieldOf } from './plane';
import { triangulate } from './triangulate';
import { umbrellaOf } from './umbrellas';

/*
 * How it works, after trials: connected faces of one plane and label are dissolved to their outline. A lattice point that is a
 * corner of any region is kept on the outlines of all that it lies on, so that no edge ends within another's; everything else goes.
 * What is left is triangulated with those outlines as constraints: Σ (V + 2H − 2) triangles for V points and H holes, which is
 * the least there is without moving a surface. Ear clipping dropped points in a straight line and left open edges.
 *
 * Where cubes meet in an edge, two sheets run along it. Should they be one at both its ends, both would have an edge between the
 * same two vertices; there they get a point more, in the middle of it, for each its own.
 *
 * Points of a plane are counted in half cubes, i + j · (2 nu + 1).
 */

/** The triangles of a region, counter-clockwise, by its outline. @param row – points of the plane in a row */
function triangulated(outline: readonly number[], row: number): (readonly [number, number, number])[] {
  const points: [number, number][] = [],
    ids: number[] = [];
  const known = new Map<number, number>();
  const local = (p: number): number => {
    let i = known.get(p);
    if (i === undefined) {
      known.set(p, (i = points.length));
      points.push([p % row, Math.floor(p / row)]);
      ids.push(p);
    }
    return i;
  };
  const edges: [number, number][] = [];
  for (let k = 0; k < outline.length; k += 2) edges.push([local(outline[k]!), local(outline[k + 1]!)]);
  if (edges.length === 4) {
    // A plain rectangle.
    const [lo, b, c, hi] = [...ids].sort((x, y) => x - y) as [number, number, number, number];
    return [
      [lo, b, hi],
      [lo, hi, c],
    ];
  }
  return triangulate(points, edges).map(([a, b, c]) => {
    const [p, q, r] = [points[a]!, points[b]!, points[c]!];
    const left = (q[0] - p[0]) * (r[1] - p[1]) - (q[1] - p[1]) * (r[0] - p[0]) > 0;
    return left ? [ids[a]!, ids[b]!, ids[c]!] : [ids[a]!, ids[c]!, ids[b]!];
  });
}

/** Vertices by where they stand and which sheet of the surface they are of. */
class Vertices {
  private readonly known = new Map<number, number>();

  constructor(
    private readonly field: Field,
    private readonly maker: SurfaceMaker,
  ) {}

  /** A bit for each filled cell of the eight around a lattice point, from the field's low corner. */
  private config(x: number, y: number, z: number): number {
    const { cells, stride } = this.field;
    const base = x * stride[0] + y * stride[1] + z * stride[2];
    let config = 0;
    for (let c = 0; c < 8; c++)
      if (cells[base + (c & 1) * stride[0] + ((c >> 1) & 1) * stride[1] + (c >> 2) * stride[2]] !== 0) config |= 1 << c;
    return config;
  }

  /** @param at – in half cubes from the field's low corner @param cell – of the eight around it, the one with the face */
  of(at: Vec3, cell: number, axis: number): number {
    const { size, min } = this.field;
    const [x, y, z] = at;
    const half = (x & 1) | ((y & 1) << 1) | ((z & 1) << 2);
    // In the middle of an edge that cubes meet in each of them has a sheet of its own.
    const sheet = half === 0 ? umbrellaOf(this.config(x >> 1, y >> 1, z >> 1), cell, axis) : cell & ~half;
    const key = (x + (2 * size[0] + 1) * (y + (2 * size[1] + 1) * z)) * 8 + sheet;
    let index = this.known.get(key);
    if (index === undefined) {
      index = this.maker.vertex(x + 2 * min[0], y + 2 * min[1], z + 2 * min[2]);
      this.known.set(key, index);
    }
    return index;
  }

  /** Whether two sheets run along an edge of the lattice that are one at both ends. @param at – the lower end, in cubes */
  oneAtBothEnds(at: Vec3, axis: number, long: number): boolean {
    const u = 1 << ((axis + 1) % 3),
      v = 1 << ((axis + 2) % 3),
      on = 1 << axis;
    const to: [number, number, number] = [at[0], at[1], at[2]];
    to[axis]! += long;
    const low = this.config(...at);
    const bits = [0, u, v, u | v].map((c) => (low >> (c | on)) & 1);
    if (bits[0] !== bits[3] || bits[1] !== bits[2] || bits[0] === bits[1]) return false;
    // The two cubes that meet there, and a face of each.
    const [one, other] = bits[0] === 1 ? [0, u | v] : [u, v];
    const face = (axis + 1) % 3;
    const same = (config: number, end: number): boolean =>
      umbrellaOf(config, one | end, face) === umbrellaOf(config, other | end, face);
    return same(low, on) && same(this.config(...to), 0);
  }
}

/**
 * The surface of a grid with the fewest triangles that leave no edge open: every edge is shared by exactly two triangles, which go
 * along it in opposite ways. Where the surface touches itself, several vertices stand in one place. In pieces: noise of 256³ takes
 * its time.
 *
 * @param texels – whether what the regions look like is wanted
 */
export function* closedSurfaceSteps(grid: VoxelGrid, labels: FaceLabels, texels = false): Steps<FlatSurface> {
  const field = fieldOf(grid, labels);
  const maker = new SurfaceMaker(texels);
  if (!field) return maker.finished();
  const { size } = field;
  const point: Vec3 = [1, size[0] + 1, (size[0] + 1) * (size[1] + 1)];
  const corners = new Uint8Array(point[2] * (size[2] + 1));
  const planes = [0, 1, 2].map((axis) => new Plane(field, axis));
  const layers = 2 * (size[0] + size[1] + size[2]);
  let done = 0;
  for (const plane of planes)
    for (let k = 0; k < size[plane.axis]!; k++)
      for (const step of [1, -1] as const) {
        if (plane.read(k, step) > 0) plane.mark(step > 0 ? k + 1 : k, corners, point);
        yield (0.3 * done++) / layers;
      }
  const vertices = new Vertices(field, maker);
  done = 0;
  for (const plane of planes)
    for (let k = 0; k < size[plane.axis]!; k++)
      for (const step of [1, -1] as const) {
        const found = plane.read(k, step);
        maker.faces += found;
        if (found > 0) addPlane(plane, k, step, { corners, point, vertices, maker });
        yield 0.3 + (0.7 * done++) / layers;
      }
  return maker.finished();
}

interface Made {
  readonly corners: Uint8Array;
  readonly point: Vec3;
  readonly vertices: Vertices;
  readonly maker: SurfaceMaker;
}

/** The triangles of one plane. */
function addPlane(plane: Plane, k: number, step: 1 | -1, { corners, point, vertices, maker }: Made): void {
  const { axis, u, v, nu } = plane;
  const w = step > 0 ? k + 1 : k;
  const count = plane.number();
  const isCorner = (i: number, j: number): boolean => corners[w * point[axis]! + i * point[u]! + j * point[v]!] === 1;
  const spread = (i: number, j: number, deep: number): [number, number, number] => {
    const at: [number, number, number] = [0, 0, 0];
    at[axis] = deep;
    at[u] = i;
    at[v] = j;
    return at;
  };
  const outlines = plane.outlines(count, isCorner, (i, j, along, long) =>
    vertices.oneAtBothEnds(spread(i, j, w), along === 0 ? u : v, long),
  );
  const direction = axis * 2 + (step > 0 ? 0 : 1);
  const behind = (step > 0 ? 0 : 1) << axis;
  const row = 2 * nu + 1;
  const vertex = (p: number, q: number, r: number): number => {
    // The face that the triangle covers beside this corner: where the middle of its angle points.
    const [pi, pj] = [p % row, Math.floor(p / row)];
    const [qi, qj] = [(q % row) - pi, Math.floor(q / row) - pj],
      [ri, rj] = [(r % row) - pi, Math.floor(r / row) - pj];
    const ql = Math.sqrt(qi * qi + qj * qj),
      rl = Math.sqrt(ri * ri + rj * rj);
    const cell = behind | (qi / ql + ri / rl < 0 ? 0 : 1 << u) | (qj / ql + rj / rl < 0 ? 0 : 1 << v);
    return vertices.of(spread(pi, pj, 2 * w), cell, axis);
  };
  const extents = plane.extents(count);
  for (let n = 1; n <= count; n++) {
    const { u: u0, v: v0, wide, high, label } = extents[n]!;
    const region = maker.region(plane, u0, v0, wide, high, (at) => plane.regions[at] === n);
    for (const [a, b, c] of triangulated(outlines[n]!, row))
      maker.triangle(direction, label, region, vertex(a, b, c), vertex(b, c, a), vertex(c, a, b));
  }
}
