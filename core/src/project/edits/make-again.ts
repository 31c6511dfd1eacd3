import type { Vec3 } from '../../math';
import { type Id, type Part, type Project, must } from '../../model';
import { movedGrid } from '../../sculpt';
import { say } from '../../words';
import { freshIds, withImportsOf } from '../bringing';
import { EditError, defineEdit } from '../edit';
import { madeWith } from '../making';
import { bringPartsEdit, withoutParts } from './bring-parts';
import { type Taking, stepsBetween, takingCubes } from './taking-cubes';

/**
 * What parts were made of is made anew with other wishes: a part and those that came with it take the cubes that come under their names
 * now. Where they stand, their names, mounts and palettes stay; what they were goes to the bin; what comes for the first time stands beside.
 *
 * @param source – as `keepingHow` gives it
 */
export const makeAgainEdit = defineEdit<{ source: Project; part: Id }>({
  name: 'makeAgain',
  risky: () => true,
  label: (a, p) => say('label.makeAgain', { part: p.parts.find((o) => o.id === a.part)?.name ?? '' }),
  touches: (a) => [a.part],
  run(project, { source, part: id }, ctx) {
    const asked = must(project.parts, id, 'part');
    if (!asked.made) throw new EditError('makeAgain.byHand', { part: asked.name });
    const ids = freshIds(ctx.newId);
    const takings = matched(madeWith(project, asked), source).map(({ part, by }): Taking => ({
      part,
      by,
      fit(grid) {
        const { came, ...is } = onto(part, by, grid);
        return { ...is, made: by.made && { ...by.made, pivot: came, import: ids(by.made.import) } };
      },
    }));
    if (takings.length === 0) throw new EditError('makeAgain.otherNames', { part: asked.name });
    const made = takingCubes(withImportsOf(project, source, source.parts, ids), source, takings, ctx);
    const fresh = withoutParts(source, new Set(takings.map((t) => t.by.id)));
    if (fresh.parts.length === 0) return made;
    const there = new Set(made.parts.map((p) => p.id));
    const whole = bringPartsEdit.run(made, { source: { ...fresh, imports: [] }, into: null }, ctx);
    return {
      ...whole,
      parts: whole.parts.map((p) =>
        there.has(p.id) || !p.made
          ? p
          : { ...p, group: asked.group, made: { ...p.made, import: ids(source.imports[0]!.id) } },
      ),
    };
  },
});

/** Which part takes what comes: by the name that it came under; the only one takes the only one. */
function matched(mates: readonly Part[], source: Project): { part: Part; by: Part }[] {
  const taken = new Set<Part>();
  const pairs = source.parts.flatMap((by) => {
    const part = mates.find((m) => !taken.has(m) && m.made!.as === by.name);
    if (!part) return [];
    taken.add(part);
    return [{ part, by }];
  });
  const [only] = source.parts;
  return pairs.length === 0 && only && source.parts.length === 1 && mates.length === 1
    ? [{ part: mates[0]!, by: only }]
    : pairs;
}

/** Cells that lie about the pivot of a part as what came first did, though the pivot was moved since. */
function onto(part: Part, by: Part, grid: Parameters<Taking['fit']>[0]) {
  const was = part.made!.pivot;
  const steps = by.cell === part.cell ? stepsBetween(by.pivot, was) : null;
  if (steps) return { grid: movedGrid(grid, steps), pivot: part.pivot, came: was };
  const shift = by.cell / part.cell;
  const pivot = by.pivot.map((v, a) => v + Math.round((part.pivot[a]! - was[a]!) / shift)) as unknown as Vec3;
  return { grid, pivot, cell: by.cell, came: by.pivot };
}
