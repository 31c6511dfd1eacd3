import { FACE_DIRECTIONS, type Steps, type Vec3 } from '../math';
import type { VoxelGrid } from '../voxel';
import type { Surface } from './surface';
import { triangulate } from './triangulate';
import { umbrellaOf } from './umbrellas';

/** A surface without an open edge: every edge is shared by exactly two triangles, which go along it in opposite ways. */
export interface ClosedSurface {
  /** In half cubes of the lattice, 3 numbers a vertex. Where the surface touches itself, several vertices stand in one place. */
  readonly positions: Int32Array;
  /** Three vertices a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  /** Of each triangle: which way it looks, as in `FACE_DIRECTIONS`. */
  readonly directions: Uint8Array;
  /** Of each triangle: what the label of its cubes is. */
  readonly labels: Uint8Array;
  /** Faces of single cubes that it covers. */
  readonly faces: number;
  /** Flat regions of one label. */
  readonly regions: number;
}

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

/** Cells of a grid with an empty layer around, and the labels of their bytes. */
interface Field {
  readonly cells: Uint8Array;
  /** Cells along each axis, without the layer. */
  readonly size: Vec3;
  readonly stride: Vec3;
  readonly min: Vec3;
}

function fieldOf(grid: VoxelGrid): Field | null {
  const box = grid.contentBox();
  if (!box) return null;
  const size = box.size,
    min = box.min;
  const cells = grid.readBox({
    min: [min[0] - 1, min[1] - 1, min[2] - 1],
    size: [size[0] + 2, size[1] + 2, size[2] + 2],
  });
  return { cells, size, stride: [1, size[0] + 2, (size[0] + 2) * (size[1] + 2)], min };
}

/** One plane of faces that look one way: the label of each, plus one; 0 where there is none. With an empty border. */
class Plane {
  readonly nu: number;
  readonly nv: number;
  readonly labels: Int32Array;
  /** Number of the region of each face, from 1. */
  readonly regions: Int32Array;
  readonly u: number;
  readonly v: number;

  constructor(
    private readonly field: Field,
    readonly axis: number,
  ) {
    this.u = (axis + 1) % 3;
    this.v = (axis + 2) % 3;
    this.nu = field.size[this.u]!;
    this.nv = field.size[this.v]!;
    this.labels = new Int32Array((this.nu + 2) * (this.nv + 2));
    this.regions = new Int32Array(this.labels.length);
  }

  /** Reads the faces of layer `k` that look towards `step`; gives how many there are. */
  read(k: number, step: 1 | -1, labelOf: Uint8Array): number {
    const { nu, nv, labels, field } = this;
    const { cells, stride } = field;
    const su = stride[this.u]!,
      sv = stride[this.v]!,
      sa = stride[this.axis]!;
    let found = 0;
    for (let j = 0; j < nv; j++) {
      let at = (k + 1) * sa + (j + 1) * sv + su,
        out = (j + 1) * (nu + 2) + 1;
      for (let i = 0; i < nu; i++, at += su, out++) {
        const value = cells[at]!;
        const shown = value !== 0 && cells[at + step * sa] === 0;
        labels[out] = shown ? labelOf[value]! + 1 : 0;
        if (shown) found++;
      }
    }
    return found;
  }

  /** Marks the corners of regions among the points of the whole lattice. */
  mark(w: number, corners: Uint8Array, point: Vec3): void {
    const { nu, nv, labels } = this;
    const row = nu + 2;
    for (let j = 0; j <= nv; j++)
      for (let i = 0; i <= nu; i++) {
        const at = j * row + i;
        const a = labels[at]!,
          b = labels[at + 1]!,
          c = labels[at + row]!,
          d = labels[at + row + 1]!;
        if ((a === b && c === d) || (a === c && b === d)) continue;
        corners[w * point[this.axis]! + i * point[this.u]! + j * point[this.v]!] = 1;
      }
  }

  /** Numbers the connected regions of one label; gives how many there are. */
  number(): number {
    const { labels, regions, nu, nv } = this;
    const row = nu + 2;
    regions.fill(0);
    let count = 0;
    const open: number[] = [];
    for (let j = 1; j <= nv; j++)
      for (let i = 1; i <= nu; i++) {
        const seed = j * row + i,
          label = labels[seed]!;
        if (label === 0 || regions[seed] !== 0) continue;
        regions[seed] = ++count;
        open.push(seed);
        for (let at = open.pop(); at !== undefined; at = open.pop())
          for (const next of [at - 1, at + 1, at - row, at + row])
            if (labels[next] === label && regions[next] === 0) {
              regions[next] = count;
              open.push(next);
            }
      }
    return count;
  }

  /**
   * The outlines of all regions, cut at the corners: for each region pairs of points.
   *
   * @param isCorner – of a point of the plane, in cubes
   * @param halved – whether the line from such a point on, along u (0) or v (1), so long, needs a point in its middle
   */
  outlines(
    count: number,
    isCorner: (i: number, j: number) => boolean,
    halved: (i: number, j: number, along: 0 | 1, long: number) => boolean,
  ): number[][] {
    const { nu, nv, regions } = this;
    const row = nu + 2,
      wide = 2 * nu + 1,
      out: number[][] = Array.from({ length: count + 1 }, () => []);
    /** Follows one line of the plane. @param sides – the region on either side of its k-th piece */
    const follow = (
      along: 0 | 1,
      line: number,
      pieces: number,
      sides: readonly [(k: number) => number, (k: number) => number],
    ): void => {
      const at = (k: number): [number, number] => (along === 0 ? [k, line] : [line, k]);
      const end = (side: (k: number) => number, from: number, to: number): void => {
        const [i, j] = at(from),
          [x, y] = at(to),
          list = out[side(from)]!;
        const point = (a: number, b: number): number => a + b * wide;
        const middle = point(i + x, j + y);
        if (halved(i, j, along, to - from)) list.push(point(2 * i, 2 * j), middle, middle, point(2 * x, 2 * y));
        else list.push(point(2 * i, 2 * j), point(2 * x, 2 * y));
      };
      for (const [s, side] of sides.entries()) {
        const other = sides[1 - s]!;
        let begun = -1;
        for (let k = 0; k < pieces; k++) {
          const region = side(k);
          const edge = region !== 0 && region !== other(k);
          if (begun >= 0 && (isCorner(...at(k)) || !edge || region !== side(begun))) {
            end(side, begun, k);
            begun = -1;
          }
          if (edge && begun < 0) begun = k;
        }
        if (begun >= 0) end(side, begun, pieces);
      }
    };
    for (let j = 0; j <= nv; j++)
      follow(0, j, nu, [(i) => regions[j * row + i + 1]!, (i) => regions[(j + 1) * row + i + 1]!]);
    for (let i = 0; i <= nu; i++)
      follow(1, i, nv, [(j) => regions[(j + 1) * row + i]!, (j) => regions[(j + 1) * row + i + 1]!]);
    return out;
  }
}

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
  readonly positions: number[] = [];
  private readonly known = new Map<number, number>();

  constructor(private readonly field: Field) {}

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
      index = this.positions.length / 3;
      this.known.set(key, index);
      this.positions.push(x + 2 * min[0], y + 2 * min[1], z + 2 * min[2]);
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
 * The surface of a grid with the fewest triangles that leave no edge open; see {@link ClosedSurface}. In pieces: noise of 256³ takes
 * its time.
 *
 * @param labelOf – 256 labels, one a palette byte: faces of different labels are never merged
 */
export function* closedSurfaceSteps(grid: VoxelGrid, labelOf: Uint8Array): Steps<ClosedSurface> {
  const field = fieldOf(grid);
  const triangles: number[] = [],
    directions: number[] = [],
    labels: number[] = [];
  let faces = 0,
    regions = 0;
  if (!field) return assembled([], triangles, directions, labels, 0, 0);
  const { size } = field;
  const point: Vec3 = [1, size[0] + 1, (size[0] + 1) * (size[1] + 1)];
  const corners = new Uint8Array(point[2] * (size[2] + 1));
  const planes = [0, 1, 2].map((axis) => new Plane(field, axis));
  const layers = 2 * (size[0] + size[1] + size[2]);
  let done = 0;
  for (const plane of planes)
    for (let k = 0; k < size[plane.axis]!; k++)
      for (const step of [1, -1] as const) {
        if (plane.read(k, step, labelOf) > 0) plane.mark(step > 0 ? k + 1 : k, corners, point);
        yield (0.3 * done++) / layers;
      }
  const vertices = new Vertices(field);
  done = 0;
  for (const plane of planes)
    for (let k = 0; k < size[plane.axis]!; k++)
      for (const step of [1, -1] as const) {
        const found = plane.read(k, step, labelOf);
        if (found > 0) {
          faces += found;
          regions += addPlane(plane, k, step, { corners, point, vertices, triangles, directions, labels });
        }
        yield 0.3 + (0.7 * done++) / layers;
      }
  return assembled(vertices.positions, triangles, directions, labels, faces, regions);
}

interface Growing {
  readonly corners: Uint8Array;
  readonly point: Vec3;
  readonly vertices: Vertices;
  readonly triangles: number[];
  readonly directions: number[];
  readonly labels: number[];
}

/** The triangles of one plane; gives how many regions it has. */
function addPlane(plane: Plane, k: number, step: 1 | -1, o: Growing): number {
  const { axis, u, v, nu, nv } = plane;
  const w = step > 0 ? k + 1 : k;
  const count = plane.number();
  const isCorner = (i: number, j: number): boolean =>
    o.corners[w * o.point[axis]! + i * o.point[u]! + j * o.point[v]!] === 1;
  const spread = (i: number, j: number, deep: number): [number, number, number] => {
    const at: [number, number, number] = [0, 0, 0];
    at[axis] = deep;
    at[u] = i;
    at[v] = j;
    return at;
  };
  const outlines = plane.outlines(count, isCorner, (i, j, along, long) =>
    o.vertices.oneAtBothEnds(spread(i, j, w), along === 0 ? u : v, long),
  );
  const labelOfRegion = new Int32Array(count + 1);
  for (let j = 1; j <= nv; j++)
    for (let i = 1; i <= nu; i++) labelOfRegion[plane.regions[j * (nu + 2) + i]!] = plane.labels[j * (nu + 2) + i]!;
  const direction = axis * 2 + (step > 0 ? 0 : 1);
  const behind = (step > 0 ? 0 : 1) << axis;
  const row = 2 * nu + 1;
  const vertex = (p: number, q: number, r: number): number => {
    // The face that the triangle covers beside this corner: where the middle of its angle points.
    const [pi, pj] = [p % row, Math.floor(p / row)];
    const [qi, qj] = [(q % row) - pi, Math.floor(q / row) - pj],
      [ri, rj] = [(r % row) - pi, Math.floor(r / row) - pj];
    const [ql, rl] = [Math.hypot(qi, qj), Math.hypot(ri, rj)];
    const cell = behind | (qi / ql + ri / rl < 0 ? 0 : 1 << u) | (qj / ql + rj / rl < 0 ? 0 : 1 << v);
    return o.vertices.of(spread(pi, pj, 2 * w), cell, axis);
  };
  for (let region = 1; region <= count; region++)
    for (const [a, b, c] of triangulated(outlines[region]!, row)) {
      const [x, y, z] = [vertex(a, b, c), vertex(b, c, a), vertex(c, a, b)];
      if (step > 0) o.triangles.push(x, y, z);
      else o.triangles.push(x, z, y);
      o.directions.push(direction);
      o.labels.push(labelOfRegion[region]! - 1);
    }
  return count;
}

const assembled = (
  positions: readonly number[],
  triangles: readonly number[],
  directions: readonly number[],
  labels: readonly number[],
  faces: number,
  regions: number,
): ClosedSurface => ({
  positions: Int32Array.from(positions),
  triangles: Uint32Array.from(triangles),
  directions: Uint8Array.from(directions),
  labels: Uint8Array.from(labels),
  faces,
  regions,
});

/** The triangles of some labels as a surface with normals, where corners of one place, direction and label are one vertex. */
export function colouredSurface(closed: ClosedSurface, accept: (label: number) => boolean): Surface {
  const positions: number[] = [],
    normals: number[] = [],
    colours: number[] = [],
    indices: number[] = [];
  const known = new Map<number, number>();
  let area = 0,
    quads = 0;
  const { triangles, directions, labels } = closed;
  for (let t = 0; t < labels.length; t++) {
    const label = labels[t]!,
      d = directions[t]!;
    if (!accept(label)) continue;
    quads += 0.5;
    const at: number[] = [];
    for (let k = 0; k < 3; k++) {
      const v = triangles[3 * t + k]!;
      const key = (v * 6 + d) * 256 + label;
      let i = known.get(key);
      const p = [0, 1, 2].map((a) => closed.positions[v * 3 + a]! / 2) as [number, number, number];
      at.push(...p);
      if (i === undefined) {
        known.set(key, (i = colours.length));
        positions.push(...p);
        normals.push(...FACE_DIRECTIONS[d]!);
        colours.push(label);
      }
      indices.push(i);
    }
    const [u, w] = [((d >> 1) + 1) % 3, ((d >> 1) + 2) % 3];
    area += Math.abs((at[3 + u]! - at[u]!) * (at[6 + w]! - at[w]!) - (at[3 + w]! - at[w]!) * (at[6 + u]! - at[u]!)) / 2;
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    colours: Uint8Array.from(colours),
    indices: Uint32Array.from(indices),
    quads,
    faces: Math.round(area),
  };
}
