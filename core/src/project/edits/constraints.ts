import {
  type Quat,
  type Vec3,
  AXES,
  add,
  dot,
  invertQuat,
  length,
  normalize,
  rotate,
  scale,
  sub,
  mapVec,
} from '../../math';
import {
  type Bone,
  type Constraint,
  type Id,
  type IkConstraint,
  PLAIN_BONE,
  type Project,
  type Rig,
  type Side,
  chainOf,
  find,
  freeName,
  must,
  replaceRecord,
  sideSuffix,
} from '../../model';
import { moveJoint, restWorld, solveOrder, squareTo } from '../../rig';
import { EditError, defineEdit } from '../edit';

const nameOf = (p: { rig: Rig }, id: Id): string => {
  const b = find(p.rig.bones, id);
  return b ? b.name + sideSuffix(b.side) : 'a bone that is gone';
};

/** The rig, when everything in it can be worked out one after another. @throws EditError when bones steer one another in a circle */
export function inOrder(before: Project, rig: Rig): Rig {
  if (solveOrder(rig)) return rig;
  const odd = rig.constraints.find((c) => !before.rig.constraints.includes(c)) ?? rig.constraints.at(-1)!;
  throw new EditError('constraints.circle', { bone: nameOf({ rig }, odd.bone) });
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
  label: (a, p) => `${CONSTRAINT_NAMES[a.constraint.kind]} on ${nameOf(p, a.constraint.bone)}`,
  touches: (a) => [a.constraint.bone],
  run(project, a, ctx) {
    const c = { ...a.constraint, id: ctx.newId() } as Constraint;
    must(project.rig.bones, c.bone, 'bone');
    if (c.kind === 'ik' && chainOf(project.rig, c).length < 2)
      throw new EditError('constraints.noChain', { bone: nameOf(project, c.bone) });
    return { ...project, rig: inOrder(project, { ...project.rig, constraints: [...project.rig.constraints, c] }) };
  },
});

export const changeConstraintEdit = defineEdit<{ constraint: Constraint }>({
  name: 'changeConstraint',
  label: (a, p) => `${CONSTRAINT_NAMES[a.constraint.kind]} of ${nameOf(p, a.constraint.bone)}`,
  touches: (a) => [a.constraint.bone],
  run(project, a) {
    const old = must(project.rig.constraints, a.constraint.id, 'constraint');
    if (JSON.stringify(old) === JSON.stringify(a.constraint)) return project;
    const c = a.constraint;
    if (!(c.amount >= 0 && c.amount <= 1)) throw new EditError('constraints.amount');
    if (c.kind === 'limit' && c.min.some((v, i) => !(v <= c.max[i]!)))
      throw new EditError('constraints.limits', { bone: nameOf(project, c.bone) });
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
    return c ? `No ${CONSTRAINT_NAMES[c.kind]} on ${nameOf(p, c.bone)}` : 'Delete a constraint';
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

/** To which side a limb bends, in words. */
export const bendWord = (bend: Vec3): string => {
  const axis = AXES.reduce((a, b) => (Math.abs(bend[b]) > Math.abs(bend[a]) ? b : a));
  return (bend[axis] > 0 ? ['to its left', 'upwards', 'forward'] : ['to its right', 'downwards', 'backward'])[axis]!;
};

const ARM = /arm|hand|wrist|elbow|fore ?(leg|paw|limb)/i,
  BIRD = /wing|beak|bill/i;

/**
 * The side to which a limb of two bones should bend, in rig space: as it is bent already; else elbows backward, knees forward, and
 * the legs of whatever has wings or a beak backward.
 */
function bendOf(project: Project, chain: readonly Bone[], joints: readonly Vec3[]): Vec3 {
  const u = normalize(sub(joints[2]!, joints[0]!));
  const lean = sub(sub(joints[1]!, joints[0]!), scale(u, dot(u, sub(joints[1]!, joints[0]!))));
  // Joints in the middle of cuts stand a little out of line; a modelled knee stands out by more.
  if (length(lean) > 0.1 * length(sub(joints[2]!, joints[0]!))) return normalize(lean);
  const names = [...project.rig.bones, ...project.parts].map((b) => b.name);
  const back = chain.some((b) => ARM.test(b.name)) || names.some((n) => BIRD.test(n));
  return squareTo(u, [0, 0, back ? -1 : 1]) ?? squareTo(u, [0, 1, 0])!;
}

/**
 * Makes an arm or a leg of a hand or foot and the two bones above it: a goal at the tip, a bend control before the joint, half a
 * cube of bend where it was straight, and IK through them. The tip keeps its own turn. No angle is asked for.
 */
export const addLimbEdit = defineEdit<{ tip: Id }>({
  name: 'addLimb',
  label: (a, p) => `Limb to ${nameOf(p, a.tip)}`,
  touches: (a) => [a.tip],
  run(project, a, ctx) {
    const tip = must(project.rig.bones, a.tip, 'bone');
    const ids = chainOf(project.rig, { bone: a.tip, links: 2 });
    if (ids.length < 3)
      throw new EditError('constraints.shortLimb', {
        bone: nameOf(project, a.tip),
        above: ids.length - 1 === 0 ? 'no bone' : 'one bone',
      });
    if (project.rig.constraints.some((c) => c.kind === 'ik' && c.bone === a.tip))
      throw new EditError('constraints.hasLimb', { bone: nameOf(project, a.tip) });
    let p = project;
    const chain = ids.map((id) => must(p.rig.bones, id, 'bone'));
    const place = (): Vec3[] => {
      const world = restWorld(p.rig);
      return ids.map((id) => world.get(id)!.t);
    };
    const bend = bendOf(p, chain, place());
    const [root, middle, end] = place() as [Vec3, Vec3, Vec3];
    const u = normalize(sub(end, root)),
      off = dot(bend, sub(sub(middle, root), scale(u, dot(u, sub(middle, root)))));
    // Half a cube of bend, along the axis it is nearest to, so that joints stay on half cubes.
    const axis = AXES.reduce((x, y) => (Math.abs(bend[y]) > Math.abs(bend[x]) ? y : x));
    if (off < 0.25)
      p = {
        ...p,
        ...moveJoint(
          p.rig,
          p.parts,
          ids[1]!,
          mapVec(AXES, (i) => (i === axis ? 0.5 * Math.sign(bend[axis]) : 0)),
        ),
      };
    const joints = place(),
      long = length(sub(joints[1]!, joints[0]!)) + length(sub(joints[2]!, joints[1]!));
    const control = (name: string, side: Side, t: Vec3): Bone => ({
      id: ctx.newId(),
      name: freeName(
        name,
        p.rig.bones.filter((b) => b.side === side).map((b) => b.name),
      ),
      side,
      parent: null,
      rest: { t, q: [0, 0, 0, 1] as Quat, s: [1, 1, 1] },
      ...PLAIN_BONE,
      ships: false,
    });
    const goal = control(`${tip.name} goal`, tip.side, joints[2]!);
    const pole = control(`${chain[1]!.name} bend`, tip.side, add(joints[1]!, scale(bend, Math.round(2 * long) / 2)));
    const ik: IkConstraint = {
      id: ctx.newId(),
      kind: 'ik',
      bone: tip.id,
      on: true,
      amount: 1,
      goal: goal.id,
      pole: pole.id,
      links: 2,
      bend,
      hold: true,
    };
    return {
      ...p,
      rig: inOrder(project, { ...p.rig, bones: [...p.rig.bones, goal, pole], constraints: [...p.rig.constraints, ik] }),
    };
  },
});

/** Bends a limb to the other side: its bend control crosses over, and half a cube of bend with it. */
export const turnLimbEdit = defineEdit<{ constraint: Id }>({
  name: 'turnLimb',
  label: (a, p) =>
    `Bend the limb to ${nameOf(p, must(p.rig.constraints, a.constraint, 'constraint').bone)} the other way`,
  touches: (a) => [a.constraint],
  run(project, a) {
    const c = must(project.rig.constraints, a.constraint, 'constraint');
    if (c.kind !== 'ik') throw new EditError('constraints.noBend');
    let { rig, parts } = project;
    const ids = chainOf(rig, c);
    const world = restWorld(rig),
      [root, middle, end] = [ids[0]!, ids[1]!, ids.at(-1)!].map((id) => world.get(id)!.t) as [Vec3, Vec3, Vec3];
    const u = normalize(sub(end, root));
    const across = (v: Vec3): Vec3 => {
      const from = sub(v, root),
        along = scale(u, dot(u, from));
      return mapVec(sub(along, sub(from, along)), (x, i) => x + root[i]!);
    };
    const lean = sub(across(middle), middle);
    // Only the half cube that made it bend crosses over, never a knee that was modelled.
    if (ids.length === 3 && length(lean) > 1e-6 && length(lean) <= 1.2)
      ({ rig, parts } = moveJoint(
        rig,
        parts,
        ids[1]!,
        mapVec(lean, (v) => Math.round(v * 2) / 2),
      ));
    const pole = find(rig.bones, c.pole);
    if (pole) {
      const above = pole.parent === null ? null : restWorld(rig).get(pole.parent)!;
      const t = across(restWorld(rig).get(pole.id)!.t);
      rig = {
        ...rig,
        bones: replaceRecord(rig.bones, {
          ...pole,
          rest: { ...pole.rest, t: above ? rotate(invertQuat(above.q), sub(t, above.t)) : t },
        }),
      };
    }
    return {
      ...project,
      parts,
      rig: { ...rig, constraints: replaceRecord(rig.constraints, { ...c, bend: scale(c.bend, -1) }) },
    };
  },
});
