import { strToU8 } from 'fflate';
import * as z from 'zod';
import { type SliceWay, SLICE_WAYS } from '../../../intake';
import { type Box, type Vec3, AXES } from '../../../math';
import { BYTE_VALUES } from '../../../voxel';
import type { Exporter, WrittenFile } from '../../exporter';
import { fileName } from '../../file-name';
import { encodeIndexedPng } from '../../png';
import type { SolidBody } from '../../ship/solid';
import { cubeCount } from '../../ship/solid-mesh';

const WAYS = Object.keys(SLICE_WAYS) as [SliceWay, ...SliceWay[]];
const options = z.strictObject({
  order: z.enum(WAYS).default('bottom up').meta({ title: 'Order', description: 'the way from slice to slice' }),
});
type Options = z.infer<typeof options>;
/** An indexed picture of one pixel a cube for each slice, and a text that says how they lie: for exchange with anything else. */
export const slicesExporter: Exporter<'solid', Options> = {
  id: 'slices',
  name: 'Slices',
  noun: 'slices as PNGs',
  about: 'PNG: an indexed picture a slice',
  takes: 'solid',
  extensions: ['.png', '.json'],
  type: 'image/png',
  options,
  plan: (model, { order }) => ({
    counts: {
      bodies: model.bodies.length,
      slices: model.bodies.reduce((n, b) => n + b.grid.contentBox()!.size[SLICE_WAYS[order][0]]!, 0),
      cubes: cubeCount(model),
    },
    notes: model.notes,
  }),
  async write(model, { order }, job) {
    const files: WrittenFile[] = [];
    const several = model.bodies.length > 1;
    for (const [i, body] of model.bodies.entries()) {
      const stem = `${fileName(model.name)}${several ? `-${i + 1}-${fileName(body.name)}` : ''}`;
      const box = body.grid.contentBox()!;
      const count = box.size[SLICE_WAYS[order][0]]!;
      files.push({
        name: `${stem}.slices.json`,
        bytes: strToU8(JSON.stringify(aboutOf(box, order), null, 1)) as Uint8Array<ArrayBuffer>,
      });
      for (let k = 0; k < count; k++) {
        if (k % 16 === 0) {
          job.report((i + k / count) / model.bodies.length);
          await job.breathe();
        }
        files.push({ name: `${stem}-${String(k).padStart(3, '0')}.png`, bytes: slice(body, box, order, k) });
      }
    }
    return { files, notes: model.notes };
  },
};

const letter = (axis: number): string => 'xyz'[axis]!;
const aboutOf = (box: Box, order: SliceWay) => {
  const [along, right, up] = SLICE_WAYS[order];
  return {
    format: 'slices, an indexed picture each; index 0 is empty',
    order,
    slicesAlong: `+${letter(along)}`,
    pixelsRight: `+${letter(right)}`,
    // A floor plan is seen from above, so that its front is at its foot.
    pixelsDown: order === 'bottom up' ? `+${letter(up)}` : `-${letter(up)}`,
    size: AXES.map((a) => box.size[a]),
    lowest: AXES.map((a) => box.min[a]),
  };
};

function slice({ grid, colours }: SolidBody, box: Box, order: SliceWay, k: number): Uint8Array<ArrayBuffer> {
  const [along, right, up] = SLICE_WAYS[order];
  const width = box.size[right]!,
    height = box.size[up]!;
  const pixels = new Uint8Array(width * height);
  const at: [number, number, number] = [box.min[0], box.min[1], box.min[2]];
  at[along] = box.min[along]! + k;
  for (let j = 0; j < height; j++)
    for (let i = 0; i < width; i++) {
      at[right] = box.min[right]! + i;
      at[up] = box.min[up]! + (order === 'bottom up' ? j : height - 1 - j);
      pixels[j * width + i] = grid.get(...(at as Vec3 as [number, number, number]));
    }
  const palette = Array.from(
    { length: BYTE_VALUES },
    (_, b) => [colours[b * 3]!, colours[b * 3 + 1]!, colours[b * 3 + 2]!] as const,
  );
  return encodeIndexedPng(width, height, pixels, palette) as Uint8Array<ArrayBuffer>;
}
