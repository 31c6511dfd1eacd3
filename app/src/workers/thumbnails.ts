import { EMPTY_RIG, type Part, type Project } from '@sphalerite/core/model';
import { sharedPool } from './pool';

const png = (bytes: Uint8Array<ArrayBuffer>): Blob => new Blob([bytes], { type: 'image/png' });

/** The project at rest, drawn in a worker. */
export const projectPicture = async (project: Project): Promise<Blob> =>
  png(await sharedPool().run('thumbnail', (sent) => ({ project: sent.packProject(project), part: null })));

const partPictures = new WeakMap<Part['layers'], Map<unknown, Promise<string>>>();

/** An address of the part's picture; the same for the same cubes and palette. */
export function partPicture(project: Project, part: Part): Promise<string> {
  const palette = project.palettes.find((p) => p.id === part.palette);
  let byPalette = partPictures.get(part.layers);
  if (!byPalette) partPictures.set(part.layers, (byPalette = new Map()));
  let picture = byPalette.get(palette);
  if (!picture) {
    const alone: Project = { ...project, parts: [part], rig: EMPTY_RIG, clips: [], shots: [], bin: [] };
    picture = sharedPool()
      .run('thumbnail', (sent) => ({ project: sent.packProject(alone), part: part.id }))
      .then((b) => URL.createObjectURL(png(b)));
    byPalette.set(palette, picture);
  }
  return picture;
}
