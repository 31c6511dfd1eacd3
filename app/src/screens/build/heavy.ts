import { boxVolume } from '@sphalerite/core/math';
import type { Part } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { useSession } from '../../stores/session';

/** Above this many cells of a part, edits that look at every cell go to a worker: below, they take a few milliseconds. */
const MANY = 600_000;

/** Whether looking at every cell of these parts, `times` over, would be felt. */
export const isMuch = (parts: readonly Part[], times = 1): boolean =>
  parts.reduce((n, p) => n + boxVolume(p.bounds), 0) * times > MANY;

/** An edit of the part on the bench that looks at all of its cells `times` over: on the spot, or in a worker when that would be felt. */
export function applyToPart<A extends { readonly part: string }>(edit: Edit<A>, args: A, times = 1): void {
  const session = useSession();
  const part = session.part;
  if (!part) return;
  if (isMuch([part], times)) void session.applyInBackground(edit, args);
  else session.apply(edit, args);
}
