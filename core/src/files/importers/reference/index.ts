import * as z from 'zod';
import { pictureTypeOf } from '../../../model';
import { FileError } from '../../file-error';
import { type Importer, oneEach } from '../../importer';

const NAMES = /\.(png|jpe?g|webp)$/i;
const noPicture = (name: string): FileError => new FileError('importReference.unreadable', { name });

/** A picture behind the part in hand: as high as what is there, on the floor, in the middle, in whole cubes. */
export const referenceImporter: Importer<object> = {
  id: 'reference',
  does: 'Stand it behind the part as a reference',
  extensions: ['.png', '.jpg', '.jpeg', '.webp'],
  needs: 'part',
  options: z.strictObject({}),
  accepts: (head, name) => pictureTypeOf(head) !== null || NAMES.test(name),
  inspect: oneEach,
  async run({ title, files }, _, job, place) {
    const { bytes } = files[0]!;
    const type = pictureTypeOf(bytes);
    const size = type && (await job.pictureSize(bytes, type).catch(() => null));
    if (!size || !place) throw noPicture(title);
    const { content, part, floor } = place;
    const height = Math.max(1, content.size[1]),
      width = Math.max(1, Math.round((height * size.width) / size.height));
    const at = [Math.round(content.min[0] + content.size[0] / 2 - width / 2), floor] as const;
    const args = { name: title.slice(0, 60), part, plane: 'front', bytes, at, size: [width, height] };
    return { brought: { kind: 'edit', edit: 'addReference', args }, notes: [] };
  },
};
