import type { Plane } from './plane';

/** Triangles of a grid's surface, by the flat regions that they make up. */
export interface FlatSurface {
  /** In half cubes of the lattice, 3 numbers a vertex. */
  readonly positions: Int32Array;
  /** Three vertices a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
  /** Of each triangle: which way it looks, as in `FACE_DIRECTIONS`. */
  readonly directions: Uint8Array;
  /** Of each triangle: the label of its faces. */
  readonly labels: Uint16Array;
  /** Of each triangle: the number of its region. */
  readonly regionOf: Uint32Array;
  /** How many regions there are: flat, connected, of one label. */
  readonly regions: number;
  /** Of each region the box around it in its plane, in cubes: lowest along u and v, then how many there; see {@link planeAxes}. */
  readonly spans: Int32Array;
  /** Of each region the byte of each face in that box, u fastest; 0 where the box holds no face of it. Null when they were not asked for. */
  readonly texels: readonly Uint8Array[] | null;
  /** Faces of single cubes that it covers. */
  readonly faces: number;
}

/** The axes that u and v of a plane run along, by the direction of its faces. */
export const planeAxes = (direction: number): readonly [number, number] => [
  ((direction >> 1) + 1) % 3,
  ((direction >> 1) + 2) % 3,
];

/** Numbers in a row that grows; arrays of plain numbers are several times as large. */
class Growing<A extends Int32Array | Uint32Array | Uint16Array | Uint8Array> {
  length = 0;
  constructor(
    private array: A,
    private readonly make: (length: number) => A,
  ) {}
  push(a: number): void {
    if (this.length === this.array.length) {
      const more = this.make(this.array.length * 2);
      more.set(this.array);
      this.array = more;
    }
    this.array[this.length++] = a;
  }
  push3(a: number, b: number, c: number): void {
    this.push(a);
    this.push(b);
    this.push(c);
  }
  done(): A {
    return this.array.slice(0, this.length) as A;
  }
}

/** Puts a surface together, plane by plane. */
export class SurfaceMaker {
  readonly positions = new Growing(new Int32Array(1024), (n) => new Int32Array(n));
  private readonly triangles = new Growing(new Uint32Array(1024), (n) => new Uint32Array(n));
  private readonly directions = new Growing(new Uint8Array(256), (n) => new Uint8Array(n));
  private readonly labels = new Growing(new Uint16Array(256), (n) => new Uint16Array(n));
  private readonly regionOf = new Growing(new Uint32Array(256), (n) => new Uint32Array(n));
  private readonly spans = new Growing(new Int32Array(1024), (n) => new Int32Array(n));
  private readonly texels: Uint8Array[] = [];
  private regions = 0;
  faces = 0;

  /** @param withTexels – whether what each region looks like is wanted */
  constructor(readonly withTexels: boolean) {}

  /** A point; gives its number. @param x – in half cubes, as y and z */
  vertex(x: number, y: number, z: number): number {
    this.positions.push3(x, y, z);
    return this.positions.length / 3 - 1;
  }

  /** A new region in a plane; gives its number. @param is – whether a face of the plane is of it, by its place there */
  region(plane: Plane, u: number, v: number, wide: number, high: number, is: (at: number) => boolean): number {
    this.spans.push3(u + plane.field.min[plane.u]!, v + plane.field.min[plane.v]!, wide);
    this.spans.push(high);
    if (this.withTexels) {
      const image = new Uint8Array(wide * high);
      for (let j = 0; j < high; j++)
        for (let i = 0; i < wide; i++) {
          const at = (v + j + 1) * (plane.nu + 2) + u + i + 1;
          if (is(at)) image[j * wide + i] = plane.bytes[at]!;
        }
      this.texels.push(image);
    }
    return this.regions++;
  }

  /** A triangle whose corners go round counter-clockwise as u turns to v. */
  triangle(direction: number, label: number, region: number, a: number, b: number, c: number): void {
    if (direction % 2 === 0) this.triangles.push3(a, b, c);
    else this.triangles.push3(a, c, b);
    this.directions.push(direction);
    this.labels.push(label);
    this.regionOf.push(region);
  }

  finished(): FlatSurface {
    return {
      positions: this.positions.done(),
      triangles: this.triangles.done(),
      directions: this.directions.done(),
      labels: this.labels.done(),
      regionOf: this.regionOf.done(),
      regions: this.regions,
      spans: this.spans.done(),
      texels: this.withTexels ? this.texels : null,
      faces: this.faces,
    };
  }
}
