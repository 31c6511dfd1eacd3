import { type Id, must } from '../../model';
import { defineEdit } from '../edit';
import { type PivotPlace, pivotAt } from '../pivot-places';
import { setPivotEdit } from './parts';

/** Puts the pivots of parts to a place that is found for each; see {@link pivotAt}. With `joint` as {@link setPivotEdit} has it. */
export const placePivotsEdit = defineEdit<{ parts: readonly Id[]; place: PivotPlace; joint: boolean }>({
  name: 'placePivots',
  label: (a, p) =>
    a.parts.length === 1
      ? `Move the pivot of ${must(p.parts, a.parts[0]!, 'part').name}`
      : `Move the pivots of ${a.parts.length} parts`,
  touches: (a) => a.parts,
  run: (project, a, ctx) =>
    a.parts.reduce(
      (p, part) => setPivotEdit.run(p, { part, pivot: pivotAt(project, part, a.place), joint: a.joint }, ctx),
      project,
    ),
});
