import { type PivotPlace, placePivotsEdit } from '@sphalerite/core/project';
import { useSession } from '../../../stores/session';
import { isMuch } from '../heavy';
import { usePivot } from './pivot-state';

/** Puts the pivots of the parts that are chosen to a place that is found for each. Fetched when it is first asked for. */
export function putPivots(place: PivotPlace): void {
  const session = useSession();
  const args = { parts: session.view.chosen.part, place, joint: usePivot().joint };
  // A neighbour may be any part, and a cut is looked for in the whole that it was made in.
  if (isMuch(session.project!.parts)) void session.applyInBackground(placePivotsEdit, args);
  else session.apply(placePivotsEdit, args);
}
