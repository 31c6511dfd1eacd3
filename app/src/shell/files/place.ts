import type { Place } from '@sphalerite/core/files';
import { must, partContent } from '@sphalerite/core/model';
import { useSession } from '../../stores/session';

/** Where something that is brought in goes: the part in hand; null where there is none. */
export function placeInHand(): Place | null {
  const { part, project } = useSession();
  return (
    part &&
    project && {
      part: part.id,
      palette: must(project.palettes, part.palette, 'palette'),
      content: partContent(part) ?? part.bounds,
      floor: part.bounds.min[1],
      cube: part.cell * project.metresPerUnit,
    }
  );
}
