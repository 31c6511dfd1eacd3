import {
  type Vec3,
  AXES,
  TRANSFORM_IDENTITY,
  add,
  dot,
  invertQuat,
  length,
  normalize,
  placedExtent,
  relativeTransform,
  rotate,
  scale,
  sub,
  mapVec,
} from '../../math';
import {
  type Bone,
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
  partContent,
  replaceRecord,
  steeringBones,
} from '../../model';
import { moveJoint, placeParts, reparentKeepingPlace, restWorld, squareTo } from '../../rig';
import { type EditContext, EditError, defineEdit } from '../edit';
import { boneName, inOrder } from './constraints';

/** To which side a limb bends, in words. */
export const bendWord = (bend: Vec3): string => {
  const axis = AXES.reduce((a, b) => (Math.abs(bend[b]) > Math.abs(bend[a]) ? b : a));
  return (bend[axis] > 0 ? ['to its left', 'upwards', 'forward'] : ['to its right', 'downwards', 'backward'])[axis]!;
};

const ARM = /arm|hand|wrist|elbow|fore ?(leg|paw|limb)/i,
  BIRD = /wing|beak|bill/i;

/**
 * The side to which a limb of two bones should bend, in rig space: to a joint that was modelled well out of line; else forward or
 * backward, square to the limb, never sideways: as it leans already, or elbows backward and knees forward, and the legs of whatever
 * has wings or a beak backward.
 */
function bendOf(project: Project, chain: readonly Bone[], joints: readonly Vec3[]): Vec3 {
  const u = normalize(sub(joints[2]!, joints[0]!));
  const lean = sub(sub(joints[1]!, joints[0]!), scale(u, dot(u, sub(joints[1]!, joints[0]!))));
  const long = length(sub(joints[2]!, joints[0]!));
  if (length(lean) > MODELLED * long) return normalize(lean);
  const ahead = squareTo(u, [0, 0, 1]) ?? squareTo(u, [0, 1, 0])!;
  // Joints in the middle of cuts stand a little out of line.
  const forward = dot(lean, ahead);
  const way = (sign: number): Vec3 => mapVec(ahead, (v) => v * sign || 0);
  if (Math.abs(forward) > SLIP * long) return way(Math.sign(forward));
  const names = [...project.rig.bones, ...project.parts].map((b) => b.name);
  return way(isArm(chain) || names.some((n) => BIRD.test(n)) ? -1 : 1);
}
/** How far out of line a joint stands, as a share of the limb, that is taken for a modelled bend, or for a lean forward or backward. */
const MODELLED = 0.25,
  SLIP = 0.1;
const isArm = (chain: readonly Bone[]): boolean => chain.some((b) => ARM.test(b.name));

/** Where a limb can end: at a bone's own joint, or at the far end of what is mounted on it, where no bone stands yet. */
export interface LimbEnd {
  readonly bone: Id;
  readonly far: boolean;
}
/** The ways in which a limb can be meant, the likeliest first. */
export interface LimbChoice {
  readonly ends: readonly LimbEnd[];
  /** Whether one has to ask which is meant. */
  readonly doubt: boolean;
  /** Whether the goal better goes along with the body: a hand does, a foot stays on the ground. */
  readonly along: boolean;
}

/**
 * What a limb can be when one bone is pointed at: to its own joint, to that of a bone below it, or to its far end. A hand or a foot
 * at the end of two bones of its side is no question; a forearm is.
 */
export function limbChoice(project: Project, id: Id): LimbChoice {
  const { rig } = project;
  const bone = must(rig.bones, id, 'bone');
  const steering = steeringBones(rig);
  const above = chainOf(rig, { bone: id, links: 2 }).map((b) => must(rig.bones, b, 'bone'));
  const below = rig.bones.filter((b) => b.parent === id && !steering.has(b.id));
  const carries = rig.mounts.some((m) => m.bone === id);
  // A limb goes over bones of one side: from the trunk it begins a bone too early.
  const own = above.length === 3 && above.every((b) => b.side === bone.side);
  const ends: LimbEnd[] = [
    ...(own ? [{ bone: id, far: false }] : []),
    ...(above.length >= 2 ? below.map((b) => ({ bone: b.id, far: false })) : []),
    ...(!own && above.length >= 2 && below.length === 0 && carries ? [{ bone: id, far: true }] : []),
    ...(!own && above.length === 3 ? [{ bone: id, far: false }] : []),
  ];
  return { ends, doubt: !own || below.length > 0, along: isArm([...above, ...below]) };
}

/** Where the far end of what is mounted on a bone stands in rig space: on the axis from its joint that reaches farthest, on a half cube. */
function farEnd(project: Project, bone: Id): Vec3 {
  const joint = restWorld(project.rig).get(bone)!.t;
  let best: Vec3 | null = null;
  for (const p of placeParts(project)) {
    const box = p.mount.bone === bone ? partContent(p.part) : null;
    if (!box) continue;
    const { lo, hi } = placedExtent(p.matrix, box);
    for (const axis of AXES)
      for (const at of [lo[axis], hi[axis]])
        if (!best || Math.abs(at - joint[axis]) > length(sub(best, joint)))
          best = mapVec(joint, (v, i) => (i === axis ? Math.round(2 * at) / 2 : v));
  }
  if (!best) throw new EditError('constraints.noFarEnd', { bone: boneName(project, bone) });
  return best;
}

/** The project with a bone at the far end of what is mounted on another, below that one. */
function withEndBone(project: Project, below: Bone, id: Id): Project {
  const { rig } = project;
  const world = restWorld(rig).get(below.id)!;
  const rest = relativeTransform(world, { ...TRANSFORM_IDENTITY, t: farEnd(project, below.id) });
  const names = rig.bones.filter((b) => b.side === below.side).map((b) => b.name);
  const end: Bone = {
    id,
    name: freeName(`${below.name} end`, names),
    side: below.side,
    parent: below.id,
    rest: { ...rest, s: [1, 1, 1] },
    ...PLAIN_BONE,
  };
  return { ...project, rig: { ...rig, bones: [...rig.bones, end] } };
}

/** The topmost bone above a bone; null where that is the topmost itself. */
function topAbove(rig: Rig, id: Id): Bone | null {
  const own = must(rig.bones, id, 'bone');
  let bone = own;
  while (bone.parent !== null) bone = must(rig.bones, bone.parent, 'bone');
  return bone === own ? null : bone;
}

/**
 * Makes an arm or a leg of a hand or foot and the two bones above it: a goal at the tip, a bend control before the joint, half a
 * cube of bend where it was straight, and IK through them. The tip keeps its own turn. No angle is asked for.
 *
 * @param far – the tip is the far end of what the bone carries; a bone is made there
 * @param along – goal and bend control hang on the topmost bone, so that they go along with the body; else on nothing
 */
export const addLimbEdit = defineEdit<{ tip: Id; far?: boolean; along?: boolean }>({
  name: 'addLimb',
  label: (a, p) => `Limb to ${boneName(p, a.tip)}`,
  touches: (a) => [a.tip],
  run(project, a, ctx) {
    const pointed = must(project.rig.bones, a.tip, 'bone');
    const start = a.far ? withEndBone(project, pointed, ctx.newId()) : project;
    const tip = a.far ? start.rig.bones.at(-1)! : pointed;
    const ids = chainOf(start.rig, { bone: tip.id, links: 2 });
    if (ids.length < 3)
      throw new EditError('constraints.shortLimb', {
        bone: boneName(start, tip.id),
        above: ids.length - 1 === 0 ? 'no bone' : 'one bone',
      });
    if (start.rig.constraints.some((c) => c.kind === 'ik' && c.bone === tip.id))
      throw new EditError('constraints.hasLimb', { bone: boneName(start, tip.id) });
    return withLimb(start, { ids, tip, along: a.along ?? false }, ctx);
  },
});

/** The project with a limb through three joints: pre-bent, with its controls and its IK. */
function withLimb(
  project: Project,
  { ids, tip, along }: { readonly ids: readonly Id[]; readonly tip: Bone; readonly along: boolean },
  ctx: EditContext,
): Project {
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
  const shift = mapVec(AXES, (i) => (i === axis ? 0.5 * Math.sign(bend[axis]) : 0));
  if (off < 0.25) p = { ...p, ...moveJoint(p.rig, p.parts, ids[1]!, shift) };
  const joints = place(),
    long = length(sub(joints[1]!, joints[0]!)) + length(sub(joints[2]!, joints[1]!));
  const above = along ? topAbove(p.rig, ids[0]!) : null,
    aboveAt = above ? restWorld(p.rig).get(above.id)! : TRANSFORM_IDENTITY;
  const control = (name: string, side: Side, t: Vec3): Bone => ({
    id: ctx.newId(),
    name: freeName(
      name,
      p.rig.bones.filter((b) => b.side === side).map((b) => b.name),
    ),
    side,
    parent: above?.id ?? null,
    rest: relativeTransform(aboveAt, { ...TRANSFORM_IDENTITY, t }),
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
}

/** Hangs the goal and the bend control of a limb on the topmost bone, so that they go along with the body, or on nothing. */
export const setLimbAlongEdit = defineEdit<{ constraint: Id; along: boolean }>({
  name: 'setLimbAlong',
  label: (a, p) =>
    `The goal of ${boneName(p, must(p.rig.constraints, a.constraint, 'constraint').bone)} ${a.along ? 'goes along with the body' : 'stays where it is'}`,
  touches: (a) => [a.constraint],
  run(project, a) {
    const c = must(project.rig.constraints, a.constraint, 'constraint');
    if (c.kind !== 'ik') throw new EditError('constraints.noBend');
    // What bends cannot carry its own goal along.
    const parent = a.along ? (topAbove(project.rig, chainOf(project.rig, c)[0]!)?.id ?? null) : null;
    const rig = [c.goal, ...(c.pole === null ? [] : [c.pole])].reduce(
      (r, id) => (must(r.bones, id, 'bone').parent === parent ? r : reparentKeepingPlace(r, id, parent)),
      project.rig,
    );
    return rig === project.rig ? project : { ...project, rig: inOrder(project, rig) };
  },
});

/** Bends a limb to the other side: its bend control crosses over, and half a cube of bend with it. */
export const turnLimbEdit = defineEdit<{ constraint: Id }>({
  name: 'turnLimb',
  label: (a, p) =>
    `Bend the limb to ${boneName(p, must(p.rig.constraints, a.constraint, 'constraint').bone)} the other way`,
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
