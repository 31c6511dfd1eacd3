import { fromAbove, importerOf } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import type { Arrival } from '../../stores/arrivals';

/** The importer of height maps. */
const HEIGHTS = 'height';

/** What was made up, as pictures of heights and colours that wait to be brought in, and the wishes that bring it back as it is. */
export function asHeights(
  project: Project,
  name: string,
): { readonly arrival: Arrival; readonly wishes: Readonly<Record<string, unknown>> } {
  const { heights, colours, high, width } = fromAbove(project);
  const files = [
    { name: `${name} heights.png`, bytes: heights },
    { name: `${name} colours.png`, bytes: colours },
  ];
  const { does } = importerOf(HEIGHTS)!;
  return {
    arrival: { importer: HEIGHTS, find: { title: files[0]!.name, files }, uses: [{ importer: HEIGHTS, does }] },
    wishes: { width, height: high, levels: Math.max(2, high + 1), base: 0, empty: 0 },
  };
}
