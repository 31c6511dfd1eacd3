import * as z from 'zod';
import { developSteps } from '../../../render';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { encodePng } from '../../png';

/** A traced picture. */
export const pngExporter: Exporter<'picture', object> = {
  id: 'png',
  name: 'Picture',
  noun: 'picture as PNG',
  about: 'PNG, as it was traced',
  takes: 'picture',
  extensions: ['.png'],
  type: 'image/png',
  options: z.strictObject({}),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  async write({ name, film, grade, transparent }, _, job) {
    const pixels = await inPieces(developSteps(film, { grade, transparent }), job);
    const bytes = encodePng(film.width, film.height, pixels) as Uint8Array<ArrayBuffer>;
    return { files: [{ name: `${fileName(name)}.png`, bytes }], notes: [] };
  },
};
