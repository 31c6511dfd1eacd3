import type { Vec3 } from '../../math';
import { TRANSFORM_IDENTITY } from '../../math';
import { toLinear } from '../../palette';
import { CodecError } from '../codec-error';
import { mtlSurfaces } from './mtl';
import {
  MOST_NODES,
  MOST_TRIANGLES,
  type MeshPicture,
  type MeshScene,
  type MeshShape,
  type MeshSurface,
  type NamedBytes,
  PLAIN_SURFACE,
  fileNamed,
} from './mesh-scene';
import { Scanner } from './scanner';
import { Growing } from './growing';

const SLASH = 47;
/** A corner without a coordinate of its picture. */
const NONE = 0;

/** Faces of one object that wear one material. */
interface Group {
  readonly object: number;
  readonly material: string;
  /** Places of positions and coordinates, three corners a triangle. */
  readonly corners: Growing;
  readonly uvs: Growing;
}

/**
 * Objects of polygons with the materials that belong to them (Wavefront OBJ 3.0 and MTL). Colours may stand behind positions.
 *
 * @param others – files given beside it: what it names is looked for among them, by the last piece of its path
 * @throws CodecError when it has no faces, or more than can be worked with
 */
export function readObj(bytes: Uint8Array, others: readonly NamedBytes[]): MeshScene {
  const positions = new Growing(),
    tints = new Growing(),
    coordinates = new Growing();
  const groups = new Map<string, Group>(),
    objects: string[] = [],
    libraries: string[] = [];
  let object = '',
    named = false,
    material = '',
    group: Group | null = null,
    triangles = 0;
  const current = (): Group => {
    const key = `${object}\n${material}`;
    let g = groups.get(key);
    if (!g) {
      let place = objects.indexOf(object);
      if (place < 0) place = objects.push(object) - 1;
      if (objects.length > MOST_NODES) throw new CodecError('codec.manyNodes', { most: MOST_NODES });
      groups.set(key, (g = { object: place, material, corners: new Growing(), uvs: new Growing() }));
    }
    return g;
  };
  const scan = new Scanner(bytes);
  while (scan.line()) {
    switch (scan.word()) {
      case 'v': {
        positions.push3(scan.number(), scan.number(), scan.number());
        const [r, g, b] = [scan.number(), scan.number(), scan.number()];
        if (b === b) {
          // Those before it had none.
          while (tints.length < positions.length - 3) tints.push3(1, 1, 1);
          tints.push3(r, g, b);
        } else if (tints.length > 0) tints.push3(1, 1, 1);
        break;
      }
      case 'vt':
        coordinates.push3(scan.number(), scan.number(), 0);
        break;
      case 'f': {
        group ??= current();
        triangles += face(scan, group, positions.length / 3, coordinates.length / 3);
        if (triangles > MOST_TRIANGLES) throw new CodecError('codec.manyTriangles', { most: MOST_TRIANGLES });
        break;
      }
      case 'o':
        [object, named, group] = [titleOf(scan.rest()), true, null];
        break;
      case 'g':
        // Groups are objects where nothing else is.
        if (!named) [object, group] = [titleOf(scan.rest()), null];
        break;
      case 'usemtl':
        [material, group] = [scan.rest(), null];
        break;
      case 'mtllib':
        libraries.push(scan.rest());
    }
  }
  if (triangles === 0) throw new CodecError('codec.noFaces');
  const { surfaces, pictures, missing } = materialsOf(libraries, others);
  const places = new Map(surfaces.map((s, i) => [s.name, i]));
  const shapes = [...groups.values()].map((g) => ({
    object: g.object,
    shape: shapeOf(g, positions, tints, coordinates, places.get(g.material) ?? -1),
  }));
  return {
    nodes: objects.map((name, i) => ({
      name,
      parent: null,
      rest: TRANSFORM_IDENTITY,
      shapes: shapes.filter((s) => s.object === i).map((s) => s.shape),
      role: 'node',
    })),
    surfaces,
    pictures,
    clips: [],
    metres: false,
    pivots: false,
    missing,
  };
}

/** Names have no blanks in this format: what stands for them becomes one again. */
const titleOf = (name: string): string => name.replaceAll('_', ' ').trim();

/** A face of any number of corners, as a fan; those that name what is not there are left out. */
function face(scan: Scanner, { corners, uvs }: Group, positions: number, coordinates: number): number {
  let count = 0,
    bad = false,
    [first, last, firstUv, lastUv] = [0, 0, 0, 0];
  const from = corners.length;
  while (scan.more()) {
    const v = placed(scan.index(), positions);
    let uv = NONE;
    if (scan.take(SLASH)) uv = placed(scan.index(), coordinates);
    scan.skip();
    if (v === NONE) bad = true;
    count++;
    if (count === 1) [first, firstUv] = [v, uv];
    if (count > 2) {
      corners.push3(first, last, v);
      uvs.push3(firstUv, lastUv, uv);
    }
    [last, lastUv] = [v, uv];
  }
  if (bad) {
    corners.length = from;
    uvs.length = from;
    return 0;
  }
  return Math.max(0, count - 2);
}

/** A place from 1 on; negative ones count from the end. 0 where there is none. */
function placed(index: number, count: number): number {
  const at = index < 0 ? count + 1 + index : index;
  return at >= 1 && at <= count ? at : NONE;
}

function shapeOf(g: Group, positions: Growing, tints: Growing, coordinates: Growing, surface: number): MeshShape {
  const n = g.corners.length,
    known = new Map<number, number>(),
    triangles = new Uint32Array(n),
    vertices: number[] = [];
  for (let i = 0; i < n; i++) {
    const key = g.corners.at(i) * 2 ** 26 + g.uvs.at(i);
    let v = known.get(key);
    if (v === undefined) {
      known.set(key, (v = vertices.length / 2));
      vertices.push(g.corners.at(i) - 1, g.uvs.at(i) - 1);
    }
    triangles[i] = v;
  }
  const count = vertices.length / 2;
  const own = new Float64Array(count * 3),
    uvs = g.uvs.some((v) => v !== NONE) ? new Float32Array(count * 2) : null,
    colours = tints.length > 0 ? new Uint8Array(count * 4).fill(255) : null;
  for (let i = 0; i < count; i++) {
    const [v, t] = [vertices[i * 2]!, vertices[i * 2 + 1]!];
    for (let a = 0; a < 3; a++) {
      own[i * 3 + a] = positions.at(v * 3 + a);
      if (colours) colours[i * 4 + a] = Math.round(255 * Math.min(1, Math.max(0, tints.at(v * 3 + a))));
    }
    // Rows of pictures go up in this format.
    if (uvs && t >= 0) uvs.set([coordinates.at(t * 3), 1 - coordinates.at(t * 3 + 1)], i * 2);
  }
  return { positions: own, triangles, uvs, colours, surface };
}

function materialsOf(
  libraries: readonly string[],
  others: readonly NamedBytes[],
): { readonly surfaces: MeshSurface[]; readonly pictures: MeshPicture[]; readonly missing: string[] } {
  const surfaces: MeshSurface[] = [],
    pictures: MeshPicture[] = [],
    missing: string[] = [];
  const places = new Map<string, number>();
  const pictureAt = (path: string): number => {
    let place = places.get(path);
    if (place === undefined) {
      const file = fileNamed(path, others);
      if (!file) missing.push(path);
      places.set(path, (place = pictures.push({ name: path, bytes: file?.bytes ?? null }) - 1));
    }
    return place;
  };
  const linear = (v: Vec3): Vec3 => [toLinear(v[0]), toLinear(v[1]), toLinear(v[2])];
  for (const path of libraries) {
    // Several names may stand on a line, and a name may have blanks.
    const whole = fileNamed(path, others);
    const files = whole ? [whole] : path.split(/\s+/).map((p) => fileNamed(p, others) ?? p);
    for (const file of files) {
      if (typeof file === 'string') {
        missing.push(file);
        continue;
      }
      for (const m of mtlSurfaces(file.bytes)) {
        const texture = (of: string | null): MeshSurface['picture'] =>
          of === null ? null : { picture: pictureAt(of), repeats: true };
        surfaces.push({
          ...PLAIN_SURFACE,
          name: m.name,
          colour: linear(m.colour),
          opacity: m.opacity,
          picture: texture(m.picture),
          glow: linear(m.glow),
          glowPicture: texture(m.glowPicture),
          roughness: m.roughness,
          metalness: m.metalness,
          clear: m.opacity < 1 ? 'through' : m.pictured ? 'pictured' : 'solid',
        });
      }
    }
  }
  return { surfaces, pictures, missing };
}
