import * as z from 'zod';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { zipFiles } from '../../zip-files';

/** Pictures one by one, for a film editor. */
export const framesExporter: Exporter<'series', object> = {
  id: 'frames',
  name: 'Frames, PNG',
  noun: 'frames as PNG',
  about: 'ZIP of numbered PNG pictures',
  takes: 'series',
  extensions: ['.zip'],
  type: 'application/zip',
  options: z.strictObject({}),
  plan: ({ frames }) => ({ counts: { frames: frames.length }, notes: [] }),
  write({ name, frames }) {
    const safe = fileName(name);
    const files = frames.map((f, i) => ({ name: `${safe}-${String(i).padStart(4, '0')}.png`, bytes: f.png }));
    return Promise.resolve({ files: [zipFiles(`${safe}.zip`, files)], notes: [] });
  },
};
