import { type HeightOptions, heightOptions, heightSteps } from '../../../intake';
import type { Palette } from '../../../palette';
import { projectOfBodies } from '../../bodies';
import { decodedPicture, looksLikePicture } from '../../decoded-picture';
import type { Find, GivenFile, Importer } from '../../importer';
import { inPieces } from '../../job';
import { note } from '../../notes';
import { titleOf } from '../picture';

const HEIGHTS = /[-_ ]?(heights?|depth|bump|relief)$/i,
  COLOURS = /[-_ ]?(colou?rs?|albedo|diffuse)$/i;
const stem = (f: GivenFile): string => f.name.replace(/\.[^.]+$/, '');

/** A picture of heights with the one of its colours where their names say so; every other one by itself. */
function pairs(files: readonly GivenFile[]): Find[] {
  const coloursOf = (f: GivenFile): GivenFile | undefined => {
    if (!HEIGHTS.test(stem(f))) return undefined;
    const wanted = stem(f).replace(HEIGHTS, '').toLowerCase();
    return files.find((o) => COLOURS.test(stem(o)) && stem(o).replace(COLOURS, '').toLowerCase() === wanted);
  };
  const used = new Set(files.map(coloursOf));
  return files
    .filter((f) => !used.has(f))
    .map((f) => {
      const colours = coloursOf(f);
      return { title: f.name, files: colours ? [f, colours] : [f] };
    });
}

/** A picture of heights as a relief on the ground: one part, one for each piece, or tiles. */
export const heightsImporter: Importer<HeightOptions> = {
  id: 'height',
  does: 'Make it a relief of heights',
  extensions: ['.png', '.jpg', '.jpeg', '.webp', '.gif', '.svg'],
  needs: 'project',
  options: heightOptions,
  accepts: looksLikePicture,
  inspect: pairs,
  async run({ title, files }, options, job, place) {
    const pixels = await decodedPicture(files[0]!, job),
      seen = files[1] ? await decodedPicture(files[1], job) : null,
      ours = place?.palette ?? null;
    const field = await inPieces(heightSteps(pixels, seen, options, ours), job);
    const name = titleOf(title.replace(/\.[^.]+$/, '').replace(HEIGHTS, '') || title);
    const palette: Palette = field.ours ? ours! : { id: 'colours', name, swatches: field.swatches };
    const bodies = field.bodies.map((b) => ({ ...b, name: `${name} ${b.name}`.trim() }));
    return {
      brought: {
        kind: 'parts',
        project: projectOfBodies(name, bodies, palette),
        facts: {
          pixels: [pixels.width, pixels.height],
          size: [field.width, field.depth],
          pieces: [field.bodies.length, field.pieces],
          numbers: options.split === 'pieces' ? field.bodies.map((b) => b.piece) : [],
          colours: [field.colours, field.swatches.length],
          seen: seen ? [seen.width, seen.height] : [],
        },
      },
      notes: (options.colours === 'palette' || options.colours === 'each') && !ours ? [note('noPalette')] : [],
    };
  },
};
