import { type PivotPlace, pivotAt } from '@sphalerite/core/project';
import { useSession } from '../../../stores/session';
import { usePivot } from './pivot-state';

/** Puts the pivots of the parts that are chosen to a place that is found for each. Fetched when it is first asked for. */
export function putPivots(place: PivotPlace): void {
  const session = useSession();
  usePivot().move(
    session.view.chosen.part.map((part) => ({ part, pivot: pivotAt(session.project!, part, place) })),
    true,
  );
}
