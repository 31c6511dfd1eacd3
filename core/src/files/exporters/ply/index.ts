import { strToU8 } from 'fflate';
import * as z from 'zod';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import type { SolidModel } from '../../ship/solid';
import { type PlacedSurface, type SolidPlace, cubeCount, eachCube, placedSurfaces } from '../../ship/solid-mesh';

const options = z.strictObject({
  points: z.boolean().default(false).meta({ title: 'As points', description: 'one for each cube, in its middle' }),
});
type Options = z.infer<typeof options>;

/** Bytes of a vertex: three floats and a colour; of a face: its length and three numbers. */
const VERTEX = 15,
  FACE = 13;

/** A surface with a colour at each vertex, or a point for each cube: binary, in metres, Y up (Stanford polygon format 1.0). */
export const plyExporter: Exporter<'solid', Options> = {
  id: 'ply',
  name: 'Coloured surface or points',
  noun: 'PLY',
  about: 'PLY: colours at vertices',
  takes: 'solid',
  extensions: ['.ply'],
  type: 'application/octet-stream',
  options,
  plan: (model) => ({ counts: { bodies: model.bodies.length, cubes: cubeCount(model) }, notes: model.notes }),
  async write(model, { points }, job) {
    const place: SolidPlace = { up: 'y', unit: model.metresPerUnit, onBed: false };
    const bytes = points ? pointsOf(model, place) : meshOf(await inPieces(placedSurfaces(model, place, true), job));
    return {
      files: [{ name: `${fileName(model.name)}.ply`, bytes: bytes as Uint8Array<ArrayBuffer> }],
      notes: model.notes,
    };
  },
};

function withHead(vertices: number, faces: number | null): { bytes: Uint8Array; view: DataView; at: number } {
  const head = strToU8(
    `ply\nformat binary_little_endian 1.0\ncomment Sphalerite\nelement vertex ${vertices}\n${['x', 'y', 'z'].map((a) => `property float ${a}\n`).join('')}${['red', 'green', 'blue'].map((c) => `property uchar ${c}\n`).join('')}${faces === null ? '' : `element face ${faces}\nproperty list uchar int vertex_indices\n`}end_header\n`,
  );
  const bytes = new Uint8Array(head.length + vertices * VERTEX + (faces ?? 0) * FACE);
  bytes.set(head);
  return { bytes, view: new DataView(bytes.buffer), at: head.length };
}

/** Bytes that a text would end a line with or leave blank. */
const BLANK = new Set([9, 10, 11, 12, 13, 32]);
/**
 * Which vertex comes first: some readers take a blank byte right behind the head for a part of it, and are off by one from there.
 *
 * @param xs – the first number of each
 */
function safeFirst(xs: readonly number[]): number {
  const view = new DataView(new ArrayBuffer(4));
  const at = xs.findIndex((x) => {
    view.setFloat32(0, x, true);
    return !BLANK.has(view.getUint8(0));
  });
  return Math.max(0, at);
}

function pointsOf(model: SolidModel, place: SolidPlace): Uint8Array {
  const out = withHead(cubeCount(model), null);
  const from = out.at;
  let { at } = out;
  const xs: number[] = [];
  eachCube(model, place, (p, r, g, b) => {
    xs.push(p[0]);
    for (const a of [0, 1, 2]) out.view.setFloat32(at + 4 * a, p[a]!, true);
    out.bytes.set([r, g, b], at + 12);
    at += VERTEX;
  });
  const first = from + safeFirst(xs) * VERTEX,
    kept = out.bytes.slice(from, from + VERTEX);
  out.bytes.copyWithin(from, first, first + VERTEX);
  out.bytes.set(kept, first);
  return out.bytes;
}

/** Vertices are shared by triangles of one colour, so that colours end where they end. */
function meshOf(surfaces: readonly PlacedSurface[]): Uint8Array {
  const vertices: { readonly surface: PlacedSurface; readonly vertex: number; readonly label: number }[] = [];
  const corners: number[] = [];
  for (const surface of surfaces) {
    const known = new Map<number, number>();
    surface.triangles.forEach((vertex, i) => {
      const label = surface.labels[Math.floor(i / 3)]!,
        key = vertex * 256 + label;
      if (!known.has(key)) known.set(key, vertices.push({ surface, vertex, label }) - 1);
      corners.push(known.get(key)!);
    });
  }
  const first = safeFirst(vertices.map(({ surface, vertex }) => surface.positions[vertex * 3]!));
  [vertices[0], vertices[first]] = [vertices[first]!, vertices[0]!];
  const out = withHead(vertices.length, corners.length / 3);
  let { at } = out;
  for (const { surface, vertex, label } of vertices) {
    for (const a of [0, 1, 2]) out.view.setFloat32(at + 4 * a, surface.positions[vertex * 3 + a]!, true);
    out.bytes.set(surface.body.colours.subarray(label * 3, label * 3 + 3), at + 12);
    at += VERTEX;
  }
  for (let i = 0; i < corners.length; i += 3) {
    out.bytes[at] = 3;
    for (const k of [0, 1, 2]) {
      const c = corners[i + k]!;
      out.view.setInt32(at + 1 + 4 * k, c === 0 ? first : c === first ? 0 : c, true);
    }
    at += FACE;
  }
  return out.bytes;
}
