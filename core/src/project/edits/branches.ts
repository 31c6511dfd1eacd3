import { type Transform, type Vec3, TRANSFORM_IDENTITY, add, relativeTransform } from '../../math';
import {
  type AlternateSet,
  type Attachment,
  type Bone,
  type Clip,
  type Constraint,
  type Id,
  type Mount,
  type Project,
  type Rig,
  PLAIN_BONE,
  find,
  freeName,
  must,
  sideSuffix,
} from '../../model';
import { reparentKeepingPlace, restWorld } from '../../rig';
import { type EditContext, EditError, defineEdit } from '../edit';
import { freeAmong, freshIds } from '../bringing';
import { branchOf } from '../mounting';
import { copiedPart } from './copied-part';
import { inOrder } from './constraints';
import { checkName } from './names';

const nameOf = (p: Project, id: Id | undefined): string => {
  const b = find(p.rig.bones, id ?? null);
  return b ? b.name + sideSuffix(b.side) : 'nothing';
};

/**
 * A new bone above some that hang on the same bone, or all on none: it stands in the joint of the first, turned as what it hangs
 * on, so that keys of theirs go on meaning the same, and they hang on it from now on, keeping their place. @throws EditError when they hang on different bones
 */
export const insertBoneEdit = defineEdit<{ bones: readonly Id[]; name: string }>({
  name: 'insertBone',
  label: (a, p) => `New bone ${a.name} above ${nameOf(p, a.bones[0])}`,
  touches: (a) => a.bones,
  run(project, a, ctx) {
    const bones = a.bones.map((id) => must(project.rig.bones, id, 'bone')),
      [first] = bones;
    if (!first) throw new EditError('branches.none');
    const other = bones.find((b) => b.parent !== first.parent);
    if (other)
      throw new EditError('branches.apart', { bone: nameOf(project, first.id), other: nameOf(project, other.id) });
    const world = restWorld(project.rig);
    const above = first.parent === null ? TRANSFORM_IDENTITY : world.get(first.parent)!;
    const { side } = first;
    const made: Bone = {
      id: ctx.newId(),
      name: freeAmong(project.rig.bones, { id: '', name: checkName(a.name), side }),
      side,
      parent: first.parent,
      rest: { ...TRANSFORM_IDENTITY, t: relativeTransform(above, world.get(first.id)!).t },
      ...PLAIN_BONE,
    };
    const at = Math.min(...bones.map((b) => project.rig.bones.indexOf(b)));
    const rig = { ...project.rig, bones: project.rig.bones.toSpliced(at, 0, made) };
    return {
      ...project,
      rig: inOrder(
        project,
        a.bones.reduce<Rig>((r, id) => reparentKeepingPlace(r, id, made.id), rig),
      ),
    };
  },
});

/** What becomes of the parts of a bone that is duplicated. */
export const COPIED_PARTS = ['share', 'copy', 'none'] as const;
export type CopiedParts = (typeof COPIED_PARTS)[number];

/** How bones are duplicated. */
export interface Duplicating {
  readonly bones: readonly Id[];
  /** Whether all that hangs on them comes along. */
  readonly branch: boolean;
  /** The copies show the same parts, so that one edit changes all; have copies of their own; or carry none. */
  readonly parts: CopiedParts;
  readonly count: number;
  /** From one copy to the next, in rig space. */
  readonly step: Vec3;
  /** What the copies of the first bone are called; empty for its own name. Numbers count on. */
  readonly name: string;
}

/** The chosen bones but those that hang on others of them. */
const topmost = (project: Project, bones: readonly Id[]): Id[] =>
  bones.filter((id) => !bones.some((o) => o !== id && branchOf(project, o).has(id)));

/** One copy of the bones, `shift` away from the first ones in rig space. */
function oneCopy(project: Project, a: Duplicating, shift: Vec3, ctx: EditContext): Project {
  const tops = topmost(project, a.bones);
  const meant = a.branch ? new Set(tops.flatMap((id) => [...branchOf(project, id)])) : new Set(a.bones);
  const over = freshIds(() => ctx.newId());
  const inside = (id: Id): Id => (meant.has(id) ? over(id) : id);
  const { rig } = project;
  let { bones } = rig;
  const world = restWorld(rig);
  for (const b of rig.bones.filter((o) => meant.has(o.id))) {
    const moved: Transform = { ...world.get(b.id)!, t: add(world.get(b.id)!.t, shift) };
    const top = b.parent === null || !meant.has(b.parent);
    const name = b.id === tops[0] && a.name.trim() !== '' ? checkName(a.name) : b.name;
    bones = [
      ...bones,
      {
        ...b,
        id: over(b.id),
        name: freeAmong(bones, { id: '', name, side: b.side }),
        parent: b.parent === null ? null : inside(b.parent),
        rest: top ? relativeTransform(b.parent === null ? TRANSFORM_IDENTITY : world.get(b.parent)!, moved) : b.rest,
      },
    ];
  }
  const carried = a.parts === 'none' ? [] : rig.mounts.filter((m) => m.bone !== null && meant.has(m.bone));
  let { parts } = project;
  if (a.parts === 'copy')
    for (const id of new Set(carried.map((m) => m.part))) {
      const part = must(parts, id, 'part');
      const copy = copiedPart(part, parts, ctx, over(id));
      parts = parts.toSpliced(parts.indexOf(part) + 1, 0, copy);
    }
  const sets = rig.alternateSets.filter((s) => carried.some((m) => m.alternateSet === s.id));
  const alternateSets = sets.reduce<readonly AlternateSet[]>(
    (list, s) => [
      ...list,
      {
        id: over(s.id),
        name: freeName(
          s.name,
          list.map((o) => o.name),
        ),
        worn: s.worn === null ? null : over(s.worn),
      },
    ],
    rig.alternateSets,
  );
  const mounts = carried.map((m): Mount => ({
    ...m,
    id: over(m.id),
    bone: over(m.bone!),
    part: a.parts === 'copy' ? over(m.part) : m.part,
    alternateSet: m.alternateSet === null ? null : over(m.alternateSet),
  }));
  const constraints = rig.constraints
    .filter((c) => meant.has(c.bone))
    .map((c) => ({ ...withTargets(c, inside), id: over(c.id), bone: over(c.bone) }) as Constraint);
  const attachments = rig.attachments
    .filter((t) => meant.has(t.bone))
    .reduce<readonly Attachment[]>(
      (list, t) => [...list, { ...t, id: over(t.id), bone: over(t.bone), name: freeAmong(list, t) }],
      rig.attachments,
    );
  const clips = project.clips.map((c): Clip => {
    const lanes = c.lanes.filter((l) => meant.has(l.bone)).map((l) => ({ ...l, bone: over(l.bone) }));
    const swaps = c.swaps
      .filter((l) => sets.some((s) => s.id === l.alternateSet))
      .map((l) => ({
        alternateSet: over(l.alternateSet),
        keys: l.keys.map((k) => ({ ...k, mount: k.mount === null ? null : over(k.mount) })),
      }));
    return lanes.length + swaps.length === 0
      ? c
      : { ...c, lanes: [...c.lanes, ...lanes], swaps: [...c.swaps, ...swaps] };
  });
  const next = {
    ...rig,
    bones,
    mounts: [...rig.mounts, ...mounts],
    constraints: [...rig.constraints, ...constraints],
    attachments,
    alternateSets,
  };
  return { ...project, parts, clips, rig: inOrder(project, next) };
}

/** With its targets as `over` names them. */
function withTargets(c: Constraint, over: (id: Id) => Id): Constraint {
  switch (c.kind) {
    case 'ik':
      return { ...c, goal: over(c.goal), pole: c.pole === null ? null : over(c.pole) };
    case 'match':
    case 'look':
      return { ...c, target: over(c.target) };
    default:
      return c;
  }
}

/**
 * Copies of bones, with parts, constraints, attachment points and keys: what they steer among themselves the copies steer among
 * theirs.
 */
export const duplicateBonesEdit = defineEdit<Duplicating>({
  name: 'duplicateBones',
  label: (a, p) => `Duplicate ${nameOf(p, a.bones[0])}${a.count > 1 ? ` ${a.count} times` : ''}`,
  touches: () => [],
  run(project, a, ctx) {
    a.bones.forEach((id) => must(project.rig.bones, id, 'bone'));
    if (a.bones.length === 0) throw new EditError('branches.none');
    if (!(Number.isInteger(a.count) && a.count >= 1 && a.count <= 64)) throw new EditError('branches.count');
    return Array.from({ length: a.count }).reduce<Project>(
      (p, _, i) => oneCopy(p, a, [a.step[0] * (i + 1), a.step[1] * (i + 1), a.step[2] * (i + 1)], ctx),
      project,
    );
  },
});
