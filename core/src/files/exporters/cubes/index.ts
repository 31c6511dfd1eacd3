import { strToU8 } from 'fflate';
import * as z from 'zod';
import type { Vec3 } from '../../../math';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import type { SolidBody } from '../../ship/solid';
import { cubeCount } from '../../ship/solid-mesh';

/** A line a cube: its place in its lattice and its colour. The simplest there is, for programs of one's own. */
export const cubesExporter: Exporter<'solid', object> = {
  id: 'cubes',
  name: 'List of cubes',
  noun: 'list of cubes',
  about: 'text: x y z r g b a line',
  takes: 'solid',
  extensions: ['.txt'],
  type: 'text/plain',
  options: z.strictObject({}),
  plan: (model) => ({ counts: { bodies: model.bodies.length, cubes: cubeCount(model) }, notes: model.notes }),
  async write(model, _, job) {
    const several = model.bodies.length > 1;
    const files = [];
    for (const [i, body] of model.bodies.entries()) {
      job.report(i / model.bodies.length);
      await job.breathe();
      const name = `${fileName(model.name)}${several ? `-${i + 1}-${fileName(body.name)}` : ''}.txt`;
      files.push({ name, bytes: strToU8(linesOf(body)) as Uint8Array<ArrayBuffer> });
    }
    return { files, notes: model.notes };
  },
};

/** Bottom up, row by row. */
function linesOf({ grid, colours }: SolidBody): string {
  const cells: { readonly at: Vec3; readonly value: number }[] = [];
  grid.forEach((x, y, z, value) => cells.push({ at: [x, y, z], value }));
  cells.sort((p, q) => p.at[1] - q.at[1] || p.at[2] - q.at[2] || p.at[0] - q.at[0]);
  return cells
    .map(({ at, value: v }) => `${at.join(' ')} ${colours[v * 3]!} ${colours[v * 3 + 1]!} ${colours[v * 3 + 2]!}\n`)
    .join('');
}
