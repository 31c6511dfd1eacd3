import { EMPTY_RIG, type Part, type Project, emptyLists } from '@sphalerite/core/model';
import { sharedPool } from './pool';

/** The project at rest, drawn in a worker, as a PNG. */
export const projectPicture = (project: Project): Promise<Uint8Array<ArrayBuffer>> =>
  sharedPool().run('thumbnail', (sent) => ({ project: sent.packProject(project), part: null }));

const partPictures = new WeakMap<Part['layers'], Map<unknown, Promise<string>>>();

/**
 * The part's picture as an address that holds the picture itself, so that it goes when nobody shows it any more; the same
 * for the same cubes and palette.
 */
export function partPicture(project: Project, part: Part): Promise<string> {
  const palette = project.palettes.find((p) => p.id === part.palette);
  let byPalette = partPictures.get(part.layers);
  if (!byPalette) partPictures.set(part.layers, (byPalette = new Map()));
  const known = byPalette.get(palette);
  if (known) return known;
  const alone: Project = {
    ...project,
    ...emptyLists(),
    palettes: project.palettes,
    parts: [part],
    rig: EMPTY_RIG,
    bin: [],
  };
  const picture = sharedPool()
    .run('thumbnail', (sent) => ({ project: sent.packProject(alone, 'shown', 'part'), part: part.id }))
    .then(dataAddress);
  byPalette.set(palette, picture);
  // A picture that failed is asked for anew the next time.
  picture.catch(() => byPalette.delete(palette));
  return picture;
}

/** What an importer that needs no file would make up, small, as an address that holds the picture itself. */
export const grownPicture = (importer: string, options: unknown, signal: AbortSignal): Promise<string> =>
  sharedPool()
    .run('grownPicture', () => ({ importer, options }), { signal })
    .then(dataAddress);

const dataAddress = (bytes: Uint8Array): string =>
  `data:image/png;base64,${btoa(Array.from(bytes, (b) => String.fromCharCode(b)).join(''))}`;
