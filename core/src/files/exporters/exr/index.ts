import * as z from 'zod';
import { filmLayers } from '../../../render';
import { encodeExr } from '../../../codec';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';

/** The light itself, before any grading. */
export const exrExporter: Exporter<'picture', { passes: boolean }> = {
  id: 'exr',
  name: 'Light, EXR',
  noun: 'light as EXR',
  about: 'EXR: linear light before grading, and what the eye met',
  takes: 'picture',
  extensions: ['.exr'],
  type: 'image/x-exr',
  options: z.strictObject({
    passes: z
      .boolean()
      .default(false)
      .meta({ title: 'Passes', description: 'colour, normal, depth and id as files beside it' }),
  }),
  plan: ({ film }) => ({ counts: { width: film.width, height: film.height }, notes: [] }),
  write({ name, film, transparent }, { passes }) {
    const { width, height } = film,
      safe = fileName(name);
    const layers = filmLayers(film, transparent);
    const files = [{ name: `${safe}.exr`, bytes: encodeExr(width, height, layers.light) }];
    for (const pass of passes ? (['albedo', 'normal', 'depth', 'id'] as const) : []) {
      const layer = layers[pass];
      if (layer) files.push({ name: `${safe}.${pass}.exr`, bytes: encodeExr(width, height, layer) });
    }
    return Promise.resolve({ files, notes: [] });
  },
};
