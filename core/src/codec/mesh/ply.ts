import { TRANSFORM_IDENTITY } from '../../math';
import { CodecError } from '../codec-error';
import { Growing } from './growing';
import { MOST_TRIANGLES, type MeshScene, PLAIN_SURFACE } from './mesh-scene';
import { Scanner } from './scanner';

/** Places with colours, one a cube or one a measurement. */
export interface Points {
  /** Three each. */
  readonly positions: Float64Array;
  /** Three bytes each, sRGB. */
  readonly colours: Uint8Array;
}

/** A mesh, or points where it has no faces. */
export type PlyContent =
  { readonly kind: 'mesh'; readonly scene: MeshScene } | { readonly kind: 'points'; readonly points: Points };

type Type = 'i1' | 'u1' | 'i2' | 'u2' | 'i4' | 'u4' | 'f4' | 'f8';
const TYPES: Readonly<Record<string, Type>> = {
  ...{ char: 'i1', int8: 'i1', uchar: 'u1', uint8: 'u1', short: 'i2', int16: 'i2', ushort: 'u2', uint16: 'u2' },
  ...{ int: 'i4', int32: 'i4', uint: 'u4', uint32: 'u4', float: 'f4', float32: 'f4', double: 'f8', float64: 'f8' },
};
const LENGTHS: Readonly<Record<Type, number>> = { i1: 1, u1: 1, i2: 2, u2: 2, i4: 4, u4: 4, f4: 4, f8: 8 };

interface Property {
  readonly name: string;
  readonly type: Type;
  /** Of the number of values before them, for a list. */
  readonly count: Type | null;
}
interface Element {
  readonly name: string;
  readonly count: number;
  readonly properties: readonly Property[];
}

/** More vertices than these are not read. */
const MOST_VERTICES = 20_000_000;

export const isPly = (head: Uint8Array): boolean =>
  head[0] === 0x70 && head[1] === 0x6c && head[2] === 0x79 && (head[3] === 10 || head[3] === 13);

/**
 * Vertices with colours and the faces between them, in no unit (Stanford polygon format 1.0, text or binary). Colours of vertices, or of
 * faces.
 *
 * @throws CodecError when it is none, ends early, or has more than can be worked with
 */
export function readPly(bytes: Uint8Array): PlyContent {
  if (!isPly(bytes)) throw new CodecError('codec.notPly');
  const { format, elements, behind } = headOf(bytes);
  const source =
    format === 'ascii' ? new TextSource(bytes, behind) : new ByteSource(bytes, behind, format === 'little');
  const read = new Reading();
  for (const e of elements) {
    if (!Number.isInteger(e.count) || e.count < 0 || e.count > MOST_VERTICES) throw new CodecError('codec.damaged');
    source.expect(e);
    if (e.name === 'vertex') read.vertices(e, source);
    else if (e.name === 'face') read.faces(e, source);
    else skipElement(e, source);
  }
  return read.content();
}

function headOf(bytes: Uint8Array): { format: 'ascii' | 'little' | 'big'; elements: Element[]; behind: number } {
  const scan = new Scanner(bytes),
    elements: { name: string; count: number; properties: Property[] }[] = [];
  let format: 'ascii' | 'little' | 'big' | null = null;
  for (let lines = 0; scan.line() && lines < 1000; lines++) {
    const word = scan.word();
    if (word === 'format') {
      const of = scan.word();
      format = of === 'ascii' ? 'ascii' : of === 'binary_little_endian' ? 'little' : 'big';
    } else if (word === 'element') elements.push({ name: scan.word(), count: scan.number(), properties: [] });
    else if (word === 'property') {
      const first = scan.word();
      const list = first === 'list';
      const [count, type] = list ? [TYPES[scan.word()], TYPES[scan.word()]] : [null, TYPES[first]];
      if (!type || count === undefined || elements.length === 0) throw new CodecError('codec.damaged');
      elements.at(-1)!.properties.push({ name: scan.word(), type, count });
    } else if (word === 'end_header') {
      if (!format) throw new CodecError('codec.damaged');
      return { format, elements, behind: scan.behind };
    }
  }
  throw new CodecError('codec.damaged');
}

/** Where values come from. */
interface Source {
  /** @throws CodecError when an element cannot be there in full */
  expect(e: Element): void;
  /** Before the values of one of an element. */
  begin(): void;
  value(type: Type): number;
}

class ByteSource implements Source {
  private readonly view: DataView;
  constructor(
    private readonly bytes: Uint8Array,
    private at: number,
    private readonly little: boolean,
  ) {
    this.view = new DataView(bytes.buffer, bytes.byteOffset, bytes.byteLength);
  }
  expect({ count, properties }: Element): void {
    const least = properties.reduce((n, p) => n + LENGTHS[p.count ?? p.type], 0);
    if (count * Math.max(1, least) > this.bytes.length - this.at) throw new CodecError('codec.damaged');
  }
  begin(): void {
    // Values stand one behind the other.
  }
  value(type: Type): number {
    const { at, little, view } = this;
    this.at += LENGTHS[type];
    if (this.at > this.bytes.length) throw new CodecError('codec.damaged');
    switch (type) {
      case 'i1':
        return view.getInt8(at);
      case 'u1':
        return view.getUint8(at);
      case 'i2':
        return view.getInt16(at, little);
      case 'u2':
        return view.getUint16(at, little);
      case 'i4':
        return view.getInt32(at, little);
      case 'u4':
        return view.getUint32(at, little);
      case 'f4':
        return view.getFloat32(at, little);
      case 'f8':
        return view.getFloat64(at, little);
    }
  }
}

class TextSource implements Source {
  private readonly scan: Scanner;
  constructor(
    private readonly bytes: Uint8Array,
    from: number,
  ) {
    this.scan = new Scanner(bytes, from);
  }
  expect({ count }: Element): void {
    if (count > this.bytes.length) throw new CodecError('codec.damaged');
  }
  begin(): void {
    if (!this.scan.line()) throw new CodecError('codec.damaged');
  }
  value(): number {
    return this.scan.number();
  }
}

function skipElement({ count, properties }: Element, source: Source): void {
  for (let i = 0; i < count; i++) {
    source.begin();
    for (const p of properties) skipValues(p, source);
  }
}
function skipValues(p: Property, source: Source): void {
  const n = p.count === null ? 1 : lengthOf(p.count, source);
  for (let k = 0; k < n; k++) source.value(p.type);
}
function lengthOf(type: Type, source: Source): number {
  const n = source.value(type);
  if (!(n >= 0 && n <= 65_536)) throw new CodecError('codec.damaged');
  return n;
}

const COLOURS = new Map([
  ...['red', 'green', 'blue', 'alpha'].map((n, i) => [n, i] as const),
  ...['diffuse_red', 'diffuse_green', 'diffuse_blue'].map((n, i) => [n, i] as const),
  ...['r', 'g', 'b', 'a'].map((n, i) => [n, i] as const),
]);
/** Numbers are shares where they are not whole. */
const byte = (v: number, type: Type): number =>
  Math.round(Math.min(255, Math.max(0, type === 'f4' || type === 'f8' ? v * 255 : v)));

class Reading {
  private positions = new Float64Array(0);
  private colours: Uint8Array | null = null;
  private readonly corners = new Growing();
  /** Of each triangle, where faces have colours. */
  private readonly tints: number[] = [];

  vertices({ count, properties }: Element, source: Source): void {
    this.positions = new Float64Array(count * 3);
    if (properties.some((p) => COLOURS.has(p.name))) this.colours = new Uint8Array(count * 4).fill(255);
    for (let i = 0; i < count; i++) {
      source.begin();
      for (const p of properties) {
        if (p.count !== null) {
          skipValues(p, source);
          continue;
        }
        const v = source.value(p.type),
          axis = 'xyz'.indexOf(p.name),
          channel = COLOURS.get(p.name);
        if (axis >= 0 && p.name.length === 1) this.positions[i * 3 + axis] = v;
        else if (channel !== undefined) this.colours![i * 4 + channel] = byte(v, p.type);
      }
    }
  }

  faces({ count, properties }: Element, source: Source): void {
    const painted = properties.some((p) => COLOURS.has(p.name));
    for (let i = 0; i < count; i++) {
      source.begin();
      const from = this.corners.length,
        tint = [255, 255, 255, 255];
      for (const p of properties) {
        if (p.name === 'vertex_indices' || p.name === 'vertex_index') this.polygon(p, source);
        else if (p.count !== null) skipValues(p, source);
        else {
          const v = source.value(p.type),
            channel = COLOURS.get(p.name);
          if (channel !== undefined) tint[channel] = byte(v, p.type);
        }
      }
      if (painted) for (let k = from; k < this.corners.length; k += 3) this.tints.push(...tint);
    }
  }
  private polygon(p: Property, source: Source): void {
    const n = p.count === null ? 0 : lengthOf(p.count, source);
    let [first, last, bad] = [0, 0, false];
    const from = this.corners.length,
      most = this.positions.length / 3;
    for (let k = 0; k < n; k++) {
      const v = source.value(p.type);
      if (!(v >= 0 && v < most)) bad = true;
      if (k === 0) first = v;
      if (k > 1) this.corners.push3(first, last, v);
      last = v;
    }
    if (bad) this.corners.length = from;
    if (this.corners.length > MOST_TRIANGLES * 3) throw new CodecError('codec.manyTriangles', { most: MOST_TRIANGLES });
  }

  content(): PlyContent {
    const { corners, positions } = this;
    if (positions.length === 0) throw new CodecError('codec.noFaces');
    if (corners.length === 0) {
      const n = positions.length / 3,
        colours = new Uint8Array(n * 3).fill(153);
      if (this.colours) for (let i = 0; i < n; i++) colours.set(this.colours.subarray(i * 4, i * 4 + 3), i * 3);
      return { kind: 'points', points: { positions, colours } };
    }
    const shape = this.tints.length > 0 ? this.unshared() : this.shared();
    return {
      kind: 'mesh',
      scene: {
        nodes: [{ name: '', parent: null, rest: TRANSFORM_IDENTITY, shapes: [shape], role: 'node' }],
        surfaces: [{ ...PLAIN_SURFACE, colour: shape.colours ? [1, 1, 1] : PLAIN_SURFACE.colour }],
        pictures: [],
        clips: [],
        metres: false,
        pivots: false,
        missing: [],
      },
    };
  }
  private shared() {
    const triangles = Uint32Array.from(this.corners.all());
    return { positions: this.positions, triangles, uvs: null, colours: this.colours, surface: 0 };
  }
  /** Each triangle with corners of its own, which have its colour. */
  private unshared() {
    const n = this.corners.length,
      positions = new Float64Array(n * 3),
      colours = new Uint8Array(n * 4);
    for (let i = 0; i < n; i++) {
      const v = this.corners.at(i),
        face = Math.floor(i / 3);
      for (let a = 0; a < 3; a++) positions[i * 3 + a] = this.positions[v * 3 + a]!;
      for (let c = 0; c < 4; c++) colours[i * 4 + c] = this.tints[face * 4 + c]!;
    }
    return { positions, triangles: Uint32Array.from({ length: n }, (_, i) => i), uvs: null, colours, surface: 0 };
  }
}
