import {
  type Constraint,
  type Id,
  type Project,
  type Rig,
  chainOf,
  find,
  must,
  replaceRecord,
  sideSuffix,
} from '../../model';
import { solveOrder } from '../../rig';
import { EditError, defineEdit } from '../edit';

/** A bone as people read it, by its id. */
export const boneName = (p: { rig: Rig }, id: Id): string => {
  const b = find(p.rig.bones, id);
  return b ? b.name + sideSuffix(b.side) : 'a bone that is gone';
};

/** The rig, when everything in it can be worked out one after another. @throws EditError when bones steer one another in a circle */
export function inOrder(before: Project, rig: Rig): Rig {
  if (solveOrder(rig)) return rig;
  const odd = rig.constraints.find((c) => !before.rig.constraints.includes(c)) ?? rig.constraints.at(-1)!;
  throw new EditError('constraints.circle', { bone: boneName({ rig }, odd.bone) });
}

export const KINDS_OF_CONSTRAINT = ['ik', 'match', 'look', 'upright', 'limit'] as const;
export const CONSTRAINT_NAMES: Readonly<Record<Constraint['kind'], string>> = {
  ik: 'IK',
  match: 'Match turn',
  look: 'Look at',
  upright: 'Keep upright',
  limit: 'Limit angle',
};

/** A constraint without its id. */
export type NewConstraint = Constraint extends infer C ? (C extends Constraint ? Omit<C, 'id'> : never) : never;

export const addConstraintEdit = defineEdit<{ constraint: NewConstraint }>({
  name: 'addConstraint',
  label: (a, p) => `${CONSTRAINT_NAMES[a.constraint.kind]} on ${boneName(p, a.constraint.bone)}`,
  touches: (a) => [a.constraint.bone],
  run(project, a, ctx) {
    const c = { ...a.constraint, id: ctx.newId() } as Constraint;
    must(project.rig.bones, c.bone, 'bone');
    if (c.kind === 'ik' && chainOf(project.rig, c).length < 2)
      throw new EditError('constraints.noChain', { bone: boneName(project, c.bone) });
    return { ...project, rig: inOrder(project, { ...project.rig, constraints: [...project.rig.constraints, c] }) };
  },
});

export const changeConstraintEdit = defineEdit<{ constraint: Constraint }>({
  name: 'changeConstraint',
  label: (a, p) => `${CONSTRAINT_NAMES[a.constraint.kind]} of ${boneName(p, a.constraint.bone)}`,
  touches: (a) => [a.constraint.bone],
  run(project, a) {
    const old = must(project.rig.constraints, a.constraint.id, 'constraint');
    if (JSON.stringify(old) === JSON.stringify(a.constraint)) return project;
    const c = a.constraint;
    if (!(c.amount >= 0 && c.amount <= 1)) throw new EditError('constraints.amount');
    if (c.kind === 'limit' && c.min.some((v, i) => !(v <= c.max[i]!)))
      throw new EditError('constraints.limits', { bone: boneName(project, c.bone) });
    return {
      ...project,
      rig: inOrder(project, { ...project.rig, constraints: replaceRecord(project.rig.constraints, c) }),
    };
  },
});

export const deleteConstraintEdit = defineEdit<{ constraint: Id }>({
  name: 'deleteConstraint',
  label: (a, p) => {
    const c = find(p.rig.constraints, a.constraint);
    return c ? `No ${CONSTRAINT_NAMES[c.kind]} on ${boneName(p, c.bone)}` : 'Delete a constraint';
  },
  touches: (a) => [a.constraint],
  run: (project, a) => ({
    ...project,
    rig: {
      ...project.rig,
      constraints: project.rig.constraints.filter(
        (c) => c.id !== must(project.rig.constraints, a.constraint, 'constraint').id,
      ),
    },
  }),
});
