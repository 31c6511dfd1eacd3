import * as z from 'zod';
import { CodecError, decodeRadiance, encodeRadiance, isRadiance, shrunkLight } from '../../../codec';
import { FileError } from '../../file-error';
import { type Importer, oneEach } from '../../importer';

/** Pixels across of surroundings: finer ones light nothing any better. */
const WIDEST = 1024;

/** A Radiance picture of all directions as what surrounds the shot in hand. */
export const surroundingsImporter: Importer<object> = {
  id: 'surroundings',
  does: 'Light the shot with it',
  extensions: ['.hdr'],
  needs: 'project',
  options: z.strictObject({}),
  accepts: (head, name) => isRadiance(head) || /\.hdr$/i.test(name),
  inspect: oneEach,
  run({ title, files }) {
    try {
      const whole = decodeRadiance(files[0]!.bytes);
      if (whole.width !== whole.height * 2)
        throw new FileError('surroundings.shape', { name: title, width: whole.width, height: whole.height });
      const wide = Math.min(WIDEST, whole.width);
      const bytes = encodeRadiance(shrunkLight(whole, wide, wide / 2));
      return Promise.resolve({ brought: { kind: 'surroundings', name: title, bytes }, notes: [] });
    } catch (e) {
      if (e instanceof CodecError) throw new FileError('surroundings.unreadable', { name: title, why: e.message });
      throw e;
    }
  },
};
