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
  return {
    cells: grid.readBox(around),
    size,
    stride: [1, size[0] + 2, (size[0] + 2) * (size[1] + 2)],
    min,
    labels,
    picked: FACE_DIRECTIONS.map((_, d) => labels.picked?.[d]?.readBox(around) ?? null),
    dropped: FACE_DIRECTIONS.map((_, d) => labels.dropped?.[d]?.readBox(around) ?? null),
  };
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
    const { nu, nv, labels, bytes, field } = this;
    const { cells, stride } = field;
    const direction = this.axis * 2 + (step > 0 ? 0 : 1);
    const table = field.labels.tables[direction]!,
      picked = field.picked[direction]!,
      dropped = field.dropped[direction]!,
      labelOfPicked = field.labels.labelOfPicked!;
    const su = stride[this.u]!,
      sv = stride[this.v]!,
      sa = stride[this.axis]!;
    let found = 0;
    [this.u0, this.u1, this.v0, this.v1] = [nu, 0, nv, 0];
    for (let j = 0; j < nv; j++) {
      let at = (k + 1) * sa + (j + 1) * sv + su,
        out = (j + 1) * (nu + 2) + 1;
      for (let i = 0; i < nu; i++, at += su, out++) {
        const value = cells[at]!;
        bytes[out] = value;
        labels[out] = 0;
        if (value === 0 || cells[at + step * sa] !== 0 || dropped?.[at] === 1) continue;
        const number = picked ? picked[at]! : 0;
        const label = number === 0 ? table[value]! : labelOfPicked(number, value);
        if (label === NO_LABEL) continue;
        labels[out] = label + 1;
        found++;
        if (i < this.u0) this.u0 = i;
        if (i >= this.u1) this.u1 = i + 1;
        if (j < this.v0) this.v0 = j;
        this.v1 = j + 1;
      }
    }
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
        for (let at = open.pop(); at !== undefined; at = open.pop())
          for (const next of [at - 1, at + 1, at - row, at + row])
            if (labels[next] === label && regions[next] === 0) {
              regions[next] = count;
              open.push(next);
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
    /** Follows one line of the plane. @param sides – the region on either side of its k-th piece */
    const follow = (
      along: 0 | 1,
      line: number,
      from: number,
      pieces: number,
      sides: readonly [(k: number) => number, (k: number) => number],
    ): void => {
      const at = (k: number): [number, number] => (along === 0 ? [k, line] : [line, k]);
      const end = (side: (k: number) => number, first: number, to: number): void => {
        const [i, j] = at(first),
          [x, y] = at(to),
          list = out[side(first)]!;
        const point = (a: number, b: number): number => a + b * wide;
        const middle = point(i + x, j + y);
        if (halved(i, j, along, to - first)) list.push(point(2 * i, 2 * j), middle, middle, point(2 * x, 2 * y));
        else list.push(point(2 * i, 2 * j), point(2 * x, 2 * y));
      };
      for (const [s, side] of sides.entries()) {
        const other = sides[1 - s]!;
        let begun = -1;
        for (let k = from; k < pieces; k++) {
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
    for (let j = v0; j <= v1; j++)
      follow(0, j, u0, u1, [(i) => regions[j * row + i + 1]!, (i) => regions[(j + 1) * row + i + 1]!]);
    for (let i = u0; i <= u1; i++)
      follow(1, i, v0, v1, [(j) => regions[(j + 1) * row + i]!, (j) => regions[(j + 1) * row + i + 1]!]);
    return out;
  }
}
