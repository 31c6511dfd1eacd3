import { FACE_DIRECTIONS, type Vec3 } from '../math';
import type { VoxelGrid } from '../voxel';

/** What faces are told apart by: faces of different labels are never merged. */
export interface FaceLabels {
  /** For each direction of `FACE_DIRECTIONS` the label of each palette byte. */
  readonly tables: readonly Uint16Array[];
  /** For each direction numbers by cell, where some faces have been picked; their label is found by `labelOfPicked`. */
  readonly picked?: readonly (VoxelGrid | null)[];
  readonly labelOfPicked?: (number: number, byte: number) => number;
  /** For each direction, where faces are left out: 1 by cell. */
  readonly dropped?: readonly (VoxelGrid | null)[];
}
/** The label of faces that are left out. */
export const NO_LABEL = 65535;
/** The same labels whichever way a face looks. */
export const everyWay = (labels: ArrayLike<number>): FaceLabels => {
  const table = Uint16Array.from(labels);
  return { tables: FACE_DIRECTIONS.map(() => table) };
};

/** Cells of a grid with an empty layer around, and the numbers of picked faces likewise. */
export interface Field {
  readonly cells: Uint8Array;
  /** Cells along each axis, without the layer. */
  readonly size: Vec3;
  readonly stride: Vec3;
  readonly min: Vec3;
  readonly labels: FaceLabels;
  readonly picked: readonly (Uint8Array | null)[];
  readonly dropped: readonly (Uint8Array | null)[];
  /** For each direction the cells whose face that way is exposed, layer by layer. */
  readonly exposed: readonly Exposed[];
}
/** Exposed faces of one direction: those of layer k are `at[from[k]]` to before `at[from[k + 1]]`. */
interface Exposed {
  readonly from: Int32Array;
  readonly at: Int32Array;
}

/** Null for an empty grid. */
export function fieldOf(grid: VoxelGrid, labels: FaceLabels): Field | null {
  const box = grid.contentBox();
  if (!box) return null;
  const { size, min } = box;
  const around = {
    min: [min[0] - 1, min[1] - 1, min[2] - 1],
    size: [size[0] + 2, size[1] + 2, size[2] + 2],
  } as const;
  const cells = grid.readBox(around),
    stride: Vec3 = [1, size[0] + 2, (size[0] + 2) * (size[1] + 2)];
  return {
    cells,
    size,
    stride,
    exposed: exposedFaces(cells, size, stride),
    min,
    labels,
    picked: FACE_DIRECTIONS.map((_, d) => labels.picked?.[d]?.readBox(around) ?? null),
    dropped: FACE_DIRECTIONS.map((_, d) => labels.dropped?.[d]?.readBox(around) ?? null),
  };
}

/** Finds them in two walks through memory, one to count and one to tell: most cells are empty, and planes across them are slow to read. */
function exposedFaces(cells: Uint8Array, size: Vec3, stride: Vec3): Exposed[] {
  const counts = FACE_DIRECTIONS.map((_, d) => new Int32Array(size[d >> 1]! + 1));
  const walk = (found: (direction: number, layer: number, at: number) => void): void => {
    for (let z = 0; z < size[2]; z++)
      for (let y = 0; y < size[1]; y++) {
        let at = (z + 1) * stride[2] + (y + 1) * stride[1] + 1;
        for (let x = 0; x < size[0]; x++, at++) {
          if (cells[at] === 0) continue;
          if (cells[at + 1] === 0) found(0, x, at);
          if (cells[at - 1] === 0) found(1, x, at);
          if (cells[at + stride[1]] === 0) found(2, y, at);
          if (cells[at - stride[1]] === 0) found(3, y, at);
          if (cells[at + stride[2]] === 0) found(4, z, at);
          if (cells[at - stride[2]] === 0) found(5, z, at);
        }
      }
  };
  walk((d, layer) => counts[d]![layer + 1]!++);
  for (const list of counts) for (let k = 1; k < list.length; k++) list[k]! += list[k - 1]!;
  const lists = counts.map((c) => new Int32Array(c.at(-1)!)),
    next = counts.map((c) => c.slice());
  walk((d, layer, at) => (lists[d]![next[d]![layer]!++] = at));
  return lists.map((at, d) => ({ from: counts[d]!, at }));
}

/** One plane of faces that look one way: the label of each, plus one; 0 where there is none. With an empty border. */
export class Plane {
  readonly nu: number;
  readonly nv: number;
  readonly labels: Int32Array;
  /** The palette byte of each face. */
  readonly bytes: Uint8Array;
  /** Number of the region of each face, from 1. */
  readonly regions: Int32Array;
  readonly u: number;
  readonly v: number;
  /** Where there are faces at all: from the first to before the last along u and v. Most planes hold few. */
  u0 = 0;
  u1 = 0;
  v0 = 0;
  v1 = 0;

  constructor(
    readonly field: Field,
    readonly axis: number,
  ) {
    this.u = (axis + 1) % 3;
    this.v = (axis + 2) % 3;
    this.nu = field.size[this.u]!;
    this.nv = field.size[this.v]!;
    this.labels = new Int32Array((this.nu + 2) * (this.nv + 2));
    this.bytes = new Uint8Array(this.labels.length);
    this.regions = new Int32Array(this.labels.length);
  }

  /** Reads the faces of layer `k` that look towards `step`; gives how many there are. */
  read(k: number, step: 1 | -1): number {
    const { nu, nv, labels, bytes, field } = this,
      { cells, stride } = field,
      direction = this.axis * 2 + (step > 0 ? 0 : 1);
    const table = field.labels.tables[direction]!,
      picked = field.picked[direction]!,
      dropped = field.dropped[direction]!,
      labelOfPicked = field.labels.labelOfPicked!,
      { from, at: list } = field.exposed[direction]!;
    const row = nu + 2;
    // What the plane before left.
    labels.fill(0, this.v0 * row, (this.v1 + 1) * row);
    let found = 0,
      [u0, u1, v0, v1] = [nu, 0, nv, 0];
    for (let n = from[k]!; n < from[k + 1]!; n++) {
      const at = list[n]!,
        value = cells[at]!;
      if (dropped?.[at] === 1) continue;
      const number = picked ? picked[at]! : 0;
      const label = number === 0 ? table[value]! : labelOfPicked(number, value);
      if (label === NO_LABEL) continue;
      const z = Math.floor(at / stride[2]),
        y = Math.floor((at - z * stride[2]) / stride[1]),
        x = at - z * stride[2] - y * stride[1];
      const [i, j] = this.axis === 0 ? [y - 1, z - 1] : this.axis === 1 ? [z - 1, x - 1] : [x - 1, y - 1];
      const out = (j + 1) * row + i + 1;
      bytes[out] = value;
      labels[out] = label + 1;
      found++;
      if (i < u0) u0 = i;
      if (i >= u1) u1 = i + 1;
      if (j < v0) v0 = j;
      if (j >= v1) v1 = j + 1;
    }
    [this.u0, this.u1, this.v0, this.v1] = [u0, u1, v0, v1];
    return found;
  }

  /** Marks the corners of regions among the points of the whole lattice. */
  mark(w: number, corners: Uint8Array, point: Vec3): void {
    const { nu, u0, u1, v0, v1, labels } = this;
    const row = nu + 2;
    for (let j = v0; j <= v1; j++)
      for (let i = u0; i <= u1; i++) {
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
    const { labels, regions, nu, u0, u1, v0, v1 } = this;
    const row = nu + 2;
    regions.fill(0);
    let count = 0;
    const open: number[] = [];
    for (let j = v0 + 1; j <= v1; j++)
      for (let i = u0 + 1; i <= u1; i++) {
        const seed = j * row + i,
          label = labels[seed]!;
        if (label === 0 || regions[seed] !== 0) continue;
        regions[seed] = ++count;
        open.push(seed);
        for (let at = open.pop(); at !== undefined; at = open.pop()) {
          const take = (next: number): void => {
            if (labels[next] !== label || regions[next] !== 0) return;
            regions[next] = count;
            open.push(next);
          };
          take(at - 1);
          take(at + 1);
          take(at - row);
          take(at + row);
        }
      }
    return count;
  }

  /** The box around each region, by its number, in faces of the plane, and its label. */
  extents(count: number): {
    readonly u: number;
    readonly v: number;
    readonly wide: number;
    readonly high: number;
    readonly label: number;
  }[] {
    const { regions, labels, nu, nv, u0, u1, v0, v1 } = this;
    const ends = Array.from({ length: count + 1 }, () => [nu, nv, 0, 0, 0]);
    for (let j = v0; j < v1; j++)
      for (let i = u0; i < u1; i++) {
        const at = (j + 1) * (nu + 2) + i + 1,
          region = regions[at]!;
        if (region === 0) continue;
        const e = ends[region]!;
        if (i < e[0]!) e[0] = i;
        if (j < e[1]!) e[1] = j;
        if (i >= e[2]!) e[2] = i + 1;
        if (j >= e[3]!) e[3] = j + 1;
        e[4] = labels[at]! - 1;
      }
    return ends.map(([u, v, x, y, label]) => ({ u: u!, v: v!, wide: x! - u!, high: y! - v!, label: label! }));
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
    const { nu, u0, u1, v0, v1, regions } = this;
    const row = nu + 2,
      wide = 2 * nu + 1,
      out: number[][] = Array.from({ length: count + 1 }, () => []);
    const end = (region: number, along: 0 | 1, line: number, first: number, to: number): void => {
      const [i, j] = along === 0 ? [first, line] : [line, first],
        [x, y] = along === 0 ? [to, line] : [line, to],
        list = out[region]!,
        [p, q] = [2 * i + 2 * j * wide, 2 * x + 2 * y * wide];
      const middle = i + x + (j + y) * wide;
      if (halved(i, j, along, to - first)) list.push(p, middle, middle, q);
      else list.push(p, q);
    };
    /** Follows one line of the plane on one of its sides. @param side, other – where the first face of either side stands */
    const follow = (along: 0 | 1, line: number, side: number, other: number): void => {
      const [from, to, step] = along === 0 ? [u0, u1, 1] : [v0, v1, row];
      let begun = -1,
        of = 0;
      for (let k = from; k < to; k++) {
        const region = regions[side + k * step]!,
          edge = region !== 0 && region !== regions[other + k * step]!;
        if (begun >= 0 && (!edge || region !== of || (along === 0 ? isCorner(k, line) : isCorner(line, k)))) {
          end(of, along, line, begun, k);
          begun = -1;
        }
        if (edge && begun < 0) [begun, of] = [k, region];
      }
      if (begun >= 0) end(of, along, line, begun, to);
    };
    for (let j = v0; j <= v1; j++) {
      follow(0, j, j * row + 1, (j + 1) * row + 1);
      follow(0, j, (j + 1) * row + 1, j * row + 1);
    }
    for (let i = u0; i <= u1; i++) {
      follow(1, i, row + i, row + i + 1);
      follow(1, i, row + i + 1, row + i);
    }
    return out;
  }
}
