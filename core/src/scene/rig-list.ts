import { type Id, type Project, composite, find, lookUp, must } from '../model';
import { type Palette, recoloured } from '../palette';
import { type Pose, REST_POSE, placeParts } from '../rig';
import { type DrawInstance, gridGeometry } from './draw-list';

/** A palette as it looks in a colourway; the same object while neither changes. */
export function paletteOf(project: Project, id: Id, colourway: Id | null): Palette {
  const palette = lookUp(project.palettes, id) ?? must(project.palettes, id, 'palette');
  const way = colourway === null ? undefined : find(project.colourways, colourway);
  return way ? recoloured(palette, way) : palette;
}

/** What stands where of a project's rig at a pose: what `gather` gives of it, without what scenes need. */
export const gatherRig = (
  project: Project,
  { pose = REST_POSE, alternates = 'worn' }: { readonly pose?: Pose; readonly alternates?: 'worn' | 'all' } = {},
  colourway: Id | null = null,
): DrawInstance[] =>
  placeParts(project, pose, alternates).map(({ part, mount, matrix }) => ({
    geometry: gridGeometry(composite(part)),
    palette: paletteOf(project, part.palette, colourway),
    matrix,
    source: { path: [], part: part.id, mount: mount.id, copy: 0 },
  }));
