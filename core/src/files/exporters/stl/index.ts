import { strToU8 } from 'fflate';
import * as z from 'zod';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { printPlace } from '../../ship/print-place';
import type { PlacedSurface } from '../../ship/solid-mesh';
import { cubeCount, placedSurfaces } from '../../ship/solid-mesh';

const options = z.strictObject({
  text: z.boolean().default(false).meta({ title: 'As text', description: 'ASCII, which is larger and can be read' }),
});
type Options = z.infer<typeof options>;

/** Solids to print in one colour: closed, in millimetres, Z up, on the bed. */
export const stlExporter: Exporter<'solid', Options> = {
  id: 'stl',
  name: 'Print, one colour',
  noun: 'STL',
  about: 'STL: closed, millimetres',
  takes: 'solid',
  extensions: ['.stl'],
  type: 'model/stl',
  options,
  plan: (model) => ({ counts: { bodies: model.bodies.length, cubes: cubeCount(model) }, notes: model.notes }),
  async write(model, { text }, job) {
    const surfaces = await inPieces(placedSurfaces(model, printPlace(model), false), job);
    const bytes = text ? strToU8(asText(model.name, surfaces)) : asBinary(surfaces);
    return {
      files: [{ name: `${fileName(model.name)}.stl`, bytes: bytes as Uint8Array<ArrayBuffer> }],
      notes: model.notes,
    };
  },
};

/** Calls for each triangle with its normal and its three corners: twelve numbers, valid during the call. */
function eachTriangle(surfaces: readonly PlacedSurface[], visit: (t: Float64Array) => void): void {
  const t = new Float64Array(12);
  for (const { positions, triangles } of surfaces)
    for (let i = 0; i < triangles.length; i += 3) {
      for (let k = 0; k < 3; k++) for (let a = 0; a < 3; a++) t[3 + k * 3 + a] = positions[triangles[i + k]! * 3 + a]!;
      const [ux, uy, uz] = [t[6]! - t[3]!, t[7]! - t[4]!, t[8]! - t[5]!],
        [vx, vy, vz] = [t[9]! - t[3]!, t[10]! - t[4]!, t[11]! - t[5]!];
      const [x, y, z] = [uy * vz - uz * vy, uz * vx - ux * vz, ux * vy - uy * vx];
      const l = Math.hypot(x, y, z) || 1;
      t.set([x / l, y / l, z / l]);
      visit(t);
    }
}
const triangleCount = (surfaces: readonly PlacedSurface[]): number =>
  surfaces.reduce((n, s) => n + s.triangles.length / 3, 0);

function asBinary(surfaces: readonly PlacedSurface[]): Uint8Array {
  const view = new DataView(new ArrayBuffer(84 + 50 * triangleCount(surfaces)));
  view.setUint32(80, triangleCount(surfaces), true);
  let at = 84;
  eachTriangle(surfaces, (t) => {
    for (let i = 0; i < 12; i++) view.setFloat32(at + 4 * i, t[i]!, true);
    at += 50;
  });
  return new Uint8Array(view.buffer);
}

function asText(name: string, surfaces: readonly PlacedSurface[]): string {
  const solid = fileName(name),
    lines = [`solid ${solid}`];
  const three = (t: Float64Array, k: number): string =>
    [t[k]!, t[k + 1]!, t[k + 2]!].map((v) => String(Math.fround(v) + 0)).join(' ');
  eachTriangle(surfaces, (t) => {
    lines.push(`facet normal ${three(t, 0)}`, 'outer loop');
    for (const k of [3, 6, 9]) lines.push(`vertex ${three(t, k)}`);
    lines.push('endloop', 'endfacet');
  });
  return `${lines.join('\n')}\nendsolid ${solid}\n`;
}
