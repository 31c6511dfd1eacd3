import type { Id } from './ids';
import type { Constraint, IkConstraint, Rig } from './kinds';

/** The bones that a constraint looks at. */
export function constraintTargets(c: Constraint): readonly Id[] {
  switch (c.kind) {
    case 'ik':
      return c.pole === null ? [c.goal] : [c.goal, c.pole];
    case 'match':
    case 'look':
      return [c.target];
    default:
      return [];
  }
}

const steering = new WeakMap<Rig['constraints'], ReadonlySet<Id>>();
/** The bones that steer others, by any constraint: controls. Memoised by the constraints. */
export function steeringBones({ constraints }: Pick<Rig, 'constraints'>): ReadonlySet<Id> {
  let known = steering.get(constraints);
  if (!known) steering.set(constraints, (known = new Set(constraints.flatMap(constraintTargets))));
  return known;
}

/** The bones of a chain from its root to its tip; fewer than asked where the skeleton ends. */
export function chainOf(rig: Rig, c: Pick<IkConstraint, 'bone' | 'links'>): readonly Id[] {
  const chain = [c.bone];
  for (let i = 0; i < c.links; i++) {
    const parent = rig.bones.find((b) => b.id === chain[0])?.parent;
    if (!parent) break;
    chain.unshift(parent);
  }
  return chain;
}

/** The bones whose turns a constraint writes. */
export const constraintWrites = (rig: Rig, c: Constraint): readonly Id[] =>
  c.kind !== 'ik' ? [c.bone] : c.hold ? chainOf(rig, c) : chainOf(rig, c).slice(0, -1);
