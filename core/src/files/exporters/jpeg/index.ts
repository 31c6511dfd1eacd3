import { encode } from 'jpeg-js';
import * as z from 'zod';
import { developSteps } from '../../../render';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';

/** A traced picture, small for posts and pages. */
export const jpegExporter: Exporter<'picture', { quality: number }> = {
  id: 'jpeg',
  name: 'Picture, JPEG',
  noun: 'picture as JPEG',
  about: 'JPEG, small, nothing see-through',
  takes: 'picture',
  extensions: ['.jpg'],
  type: 'image/jpeg',
  options: z.strictObject({
    quality: z.int().min(1).max(100).default(90).meta({ title: 'Quality', description: '1 is smallest, 100 is best' }),
  }),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  async write({ name, film, grade }, { quality }, job) {
    const data = await inPieces(developSteps(film, { grade }), job);
    const { width, height } = film;
    const bytes = new Uint8Array(encode({ width, height, data }, quality).data);
    return { files: [{ name: `${fileName(name)}.jpg`, bytes }], notes: [] };
  },
};
