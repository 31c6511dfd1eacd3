import * as z from 'zod';
import { FileError } from '../../file-error';
import { type Importer, oneEach } from '../../importer';
import { readPaletteFile } from '../../palette-file';

const TEXTS = /(?<!\.delivery)\.(json|hex|txt)$/i;

/** The colours of a text or a PNG picture. */
export const paletteImporter: Importer<object> = {
  id: 'palette',
  does: 'Take its colours as a palette',
  extensions: ['.json', '.hex', '.txt', '.png'],
  needs: 'project',
  options: z.strictObject({}),
  accepts: (head, name) => TEXTS.test(name) || (head[0] === 0x89 && head[1] === 0x50),
  inspect: oneEach,
  run({ title, files }) {
    try {
      const { name, swatches } = readPaletteFile(files[0]!.bytes);
      return Promise.resolve({
        brought: {
          kind: 'palette',
          name: name ?? (title.replace(/(\.palette|\.hex)?\.\w+$/, '').slice(0, 120) || 'Palette'),
          swatches: swatches.map((s) => ({ ...s, name: s.name || s.colour })),
        },
        notes: [],
      });
    } catch (e) {
      if (e instanceof FileError) throw new FileError('importPalette.refused', { title, message: e.message });
      throw e;
    }
  },
};
