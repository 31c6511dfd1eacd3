import { pictureOptions, type PictureOptions, pictureSteps } from '../../../intake';
import type { Palette } from '../../../palette';
import { projectOfBodies } from '../../bodies';
import { decodedPicture, looksLikePicture } from '../../decoded-picture';
import { type Importer, oneEach } from '../../importer';
import { inPieces } from '../../job';
import { note } from '../../notes';

/** A picture as a part: a cube a pixel, or as wide as one wants it. */
export const pictureImporter: Importer<PictureOptions> = {
  id: 'picture',
  does: 'Make it a part',
  extensions: ['.png', '.jpg', '.jpeg', '.webp', '.gif', '.svg'],
  needs: 'project',
  options: pictureOptions,
  accepts: looksLikePicture,
  inspect: oneEach,
  async run({ title, files }, options, job, place) {
    const pixels = await decodedPicture(files[0]!, job);
    const ours = place?.palette ?? null;
    const body = await inPieces(pictureSteps(pixels, options, ours), job);
    const name = titleOf(title);
    const palette: Palette = body.ours ? ours! : { id: 'colours', name, swatches: body.swatches };
    return {
      brought: {
        kind: 'parts',
        project: projectOfBodies(name, [{ name, grid: body.grid }], palette),
        facts: {
          pixels: [pixels.width, pixels.height],
          size: [body.width, body.height],
          colours: [body.colours, body.swatches.length],
          blocks: [body.blocks ? 1 : 0],
        },
      },
      notes: options.colours === 'palette' && !ours ? [note('noPalette')] : [],
    };
  },
};

/** What one would call it: the file's name without its ending. */
export const titleOf = (file: string): string =>
  file
    .replace(/\.[^.]{1,5}$/, '')
    .replaceAll(/[_\s]+/g, ' ')
    .trim()
    .slice(0, 60) || 'Picture';
