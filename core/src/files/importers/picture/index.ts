import type { Pixels } from '../../../codec';
import { pictureOptions, type PictureOptions, pictureSteps, sheetSteps } from '../../../intake';
import { TRANSFORM_IDENTITY } from '../../../math';
import { PLAIN_BONE, PLAIN_CLIP, type Project, TICKS, idsFrom } from '../../../model';
import type { Palette } from '../../../palette';
import { type Body, inRows, projectOfBodies } from '../../bodies';
import { decodedPicture, looksLikePicture } from '../../decoded-picture';
import { type ImportJob, type Imported, type Importer, oneEach } from '../../importer';
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
    if (options.sprites !== 'one') return sheet(title, pixels, options, job, ours);
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

/** Parts side by side, or over each other as a set of alternates, which a clip may go through. */
async function sheet(
  title: string,
  pixels: Pixels,
  options: PictureOptions,
  job: ImportJob,
  ours: Palette | null,
): Promise<Imported> {
  const body = await inPieces(sheetSteps(pixels, options, ours), job);
  const name = titleOf(title);
  const palette: Palette = body.ours ? ours! : { id: 'colours', name, swatches: body.swatches };
  const bodies = body.sprites.map((grid, i): Body => ({
    name: `${name} ${i + 1}`,
    grid,
    whole: options.sprites !== 'parts',
  }));
  const project = projectOfBodies(name, options.sprites === 'parts' ? inRows(bodies, body.across) : bodies, palette);
  return {
    brought: {
      kind: 'parts',
      project: options.sprites === 'parts' ? project : inTurns(project, name, options),
      facts: {
        pixels: [pixels.width, pixels.height],
        size: [body.width, body.height],
        colours: [body.colours, body.swatches.length],
        blocks: [body.blocks ? 1 : 0],
        sprites: [body.sprites.length, body.across, body.down],
      },
    },
    notes: options.colours === 'palette' && !ours ? [note('noPalette')] : [],
  };
}

/** The parts as one set of alternates on a bone of their own; as frames, with a clip that goes through them. */
function inTurns(project: Project, name: string, { sprites, fps }: PictureOptions): Project {
  const newId = idsFrom(`${name} in turns`);
  const bone = newId(),
    set = newId(),
    clip = newId();
  const mounts = project.rig.mounts.map((m) => ({ ...m, bone, alternateSet: set }));
  const keys = mounts.map((m, i) => ({ time: Math.round((i * TICKS) / fps), mount: m.id }));
  return {
    ...project,
    rig: {
      ...project.rig,
      bones: [{ ...PLAIN_BONE, id: bone, name, side: 'centre', parent: null, rest: TRANSFORM_IDENTITY }],
      mounts,
      alternateSets: [{ id: set, name, worn: mounts[0]!.id }],
    },
    clips:
      sprites === 'frames'
        ? [
            {
              ...PLAIN_CLIP,
              ...{ id: clip, name, length: Math.round((mounts.length * TICKS) / fps), fps, loop: true, lanes: [] },
              swaps: [{ alternateSet: set, keys }],
            },
          ]
        : [],
  };
}

/** What one would call it: the file's name without its ending. */
export const titleOf = (file: string): string =>
  file
    .replace(/\.[^.]{1,5}$/, '')
    .replaceAll(/[_\s]+/g, ' ')
    .trim()
    .slice(0, 60) || 'Picture';
