import {
  type Axis,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  invertQuat,
  mirrorQuat,
  mirrorVec,
  relativeTransform,
  rotate,
  scale,
} from '../../math';
import {
  type Bone,
  type Clip,
  type Constraint,
  type Id,
  type Lane,
  type Mount,
  type Part,
  type Project,
  type Side,
  find,
  freeName,
  facesTurned,
  mapGrids,
  must,
  replaceRecord,
  sideSuffix,
} from '../../model';
import { restWorld } from '../../rig';
import { mirrorImage } from '../../voxel';
import { type EditContext, defineEdit } from '../edit';
import { branchOf } from '../mounting';
import { mirroredTransform } from '../twins';
import { copiedPart } from './copied-part';
import { inOrder } from './constraints';

/** A constraint as it is in a mirror square to `axis`, on bones as `over` names them. */
export function mirroredConstraint(c: Constraint, axis: Axis, over: (id: Id) => Id): Constraint {
  const bone = over(c.bone);
  switch (c.kind) {
    case 'ik':
      return {
        ...c,
        bone,
        goal: over(c.goal),
        pole: c.pole === null ? null : over(c.pole),
        bend: mirrorVec(c.bend, axis),
      };
    case 'match':
      return { ...c, bone, target: over(c.target) };
    case 'look':
      return { ...c, bone, target: over(c.target), axis: mirrorVec(c.axis, axis) };
    case 'limit': {
      // Turns about the axes in the mirror are the other way round.
      const from = (v: Vec3, w: Vec3): Vec3 =>
        [0, 1, 2].map((i) => (i === axis ? v[i]! : 0 - w[i]!)) as unknown as Vec3;
      return { ...c, bone, min: from(c.min, c.max), max: from(c.max, c.min) };
    }
    case 'upright':
      return { ...c, bone };
  }
}

const OTHER: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', centre: 'centre' };

/** The part mirrored across the origin of its own lattice. */
function mirroredPart(p: Part, axis: Axis, side: Side): Part {
  const { min, size } = p.bounds;
  const image = mapGrids(p, (g) => mirrorImage(g, axis));
  return {
    ...image,
    faceSlots: facesTurned(image.faceSlots, axis),
    side,
    pivot: mirrorVec(p.pivot, axis),
    bounds: { min: min.map((v, i) => (i === axis ? -v - size[i]! : v)) as unknown as Vec3, size },
    regions: image.regions && {
      ...image.regions,
      list: image.regions.list.map((r) => (axis === 0 ? { ...r, side: OTHER[r.side] } : r)),
    },
  };
}

/** Parts that hang in the branch and elsewhere too get a copy of their own in it. */
function withOwnParts(project: Project, inside: (m: Mount) => boolean, ctx: EditContext): Project {
  let { parts } = project,
    { mounts } = project.rig;
  for (const part of project.parts) {
    const mine = mounts.filter((m) => m.part === part.id && inside(m));
    if (mine.length === 0 || mine.length === mounts.filter((m) => m.part === part.id).length) continue;
    const copy = copiedPart(part, parts, ctx);
    parts = parts.toSpliced(parts.indexOf(part) + 1, 0, copy);
    mounts = mounts.map((m) => (mine.includes(m) ? { ...m, part: copy.id } : m));
  }
  return { ...project, parts, rig: { ...project.rig, mounts } };
}

/** Of what becomes of the other side, names that are taken there get a number. */
function renamedApart<R extends { readonly id: Id; readonly name: string; readonly side: Side }>(
  list: readonly R[],
  meant: ReadonlySet<Id>,
): readonly R[] {
  let out = list;
  for (const r of list) {
    if (!meant.has(r.id)) continue;
    const taken = out.filter((o) => o.id !== r.id && o.side === r.side).map((o) => o.name);
    out = replaceRecord(out, { ...r, name: freeName(r.name, taken) });
  }
  return out;
}

/** Its keys in the mirror; the first bone of a branch moves in the frame of one that is not mirrored. */
function mirroredLane(l: Lane, axis: Axis, parent: Transform): Lane {
  const shift = (v: Vec3): Vec3 => rotate(invertQuat(parent.q), mirrorVec(rotate(parent.q, v), axis));
  return {
    ...l,
    move: l.move.map((k) => ({ ...k, value: shift(k.value) })),
    turn: l.turn.map((k) => ({ ...k, value: mirrorQuat(k.value, axis) })),
    // Across the plane an axis that is spun about points the other way round.
    hinge: l.hinge.map((k) => ({ ...k, value: scale(mirrorVec(k.value, axis), -1) })),
  };
}

/**
 * Turns the whole figure, or a bone with all that hangs on it, into its mirror image across the plane square to `axis` at `plane`
 * of rig space (X where none is given): bones, cubes, mounts, constraints, attachment points and clips. Across X left and right
 * change names. Twice is the figure again. Twins of which one alone is in the branch no longer follow each other.
 */
export const flipRigEdit = defineEdit<{ plane: number; axis?: Axis; bone?: Id | null }>({
  name: 'flipRig',
  risky: () => true,
  label: (a, p) => {
    const bone = find(p.rig.bones, a.bone ?? null);
    return bone ? `Flip ${bone.name}${sideSuffix(bone.side)} with what hangs on it` : 'Flip the whole rig';
  },
  touches: (a) => (a.bone ? [a.bone] : []),
  run(before, { plane, axis = 0, bone: top = null }, ctx) {
    if (top !== null) must(before.rig.bones, top, 'bone');
    const branch = top === null ? new Set(before.rig.bones.map((b) => b.id)) : branchOf(before, top);
    const inside = (m: Mount): boolean => (m.bone === null ? top === null : branch.has(m.bone));
    const project = top === null ? before : withOwnParts(before, inside, ctx);
    const flipped =
      top === null
        ? new Set(project.parts.map((p) => p.id))
        : new Set(project.rig.mounts.filter(inside).map((m) => m.part));
    const sideOf = (side: Side): Side => (axis === 0 ? OTHER[side] : side);
    const world = restWorld(project.rig);
    /** What a bone hangs on, as it stands afterwards. */
    const above = (b: Bone): Transform => {
      if (b.parent === null) return TRANSFORM_IDENTITY;
      const stand = world.get(b.parent)!;
      return branch.has(b.parent) ? mirroredTransform(stand, axis, plane) : stand;
    };
    const bones = project.rig.bones.map((b): Bone => {
      if (!branch.has(b.id)) return b;
      const rest = relativeTransform(above(b), mirroredTransform(world.get(b.id)!, axis, plane));
      return { ...b, side: sideOf(b.side), rest };
    });
    const parts = project.parts.map((p): Part => {
      const together = p.twin && flipped.has(p.id) === flipped.has(p.twin.source);
      if (!flipped.has(p.id)) return p.twin && !together ? { ...p, twin: null } : p;
      const twin =
        together && p.twin
          ? { ...p.twin, plane: p.twin.axis === axis ? 2 * plane - p.twin.plane : p.twin.plane }
          : null;
      return { ...mirroredPart(p, axis, sideOf(p.side)), twin };
    });
    const byId = new Map(project.rig.bones.map((b) => [b.id, b]));
    /** The frame in which a bone's shifts are, where that is not mirrored. */
    const frameOf = (id: Id): Transform => {
      const parent = byId.get(id)?.parent ?? null;
      return parent === null || branch.has(parent) ? TRANSFORM_IDENTITY : world.get(parent)!;
    };
    const clips = project.clips.map((c): Clip => {
      if (!c.lanes.some((l) => branch.has(l.bone))) return c;
      return { ...c, lanes: c.lanes.map((l) => (branch.has(l.bone) ? mirroredLane(l, axis, frameOf(l.bone)) : l)) };
    });
    const same = (id: Id): Id => id;
    const attachments = project.rig.attachments.map((t) =>
      branch.has(t.bone) ? { ...t, side: sideOf(t.side), t: mirrorVec(t.t, axis), q: mirrorQuat(t.q, axis) } : t,
    );
    const turned = new Set(attachments.filter((t) => branch.has(t.bone)).map((t) => t.id));
    const rig = {
      ...project.rig,
      bones: renamedApart(bones, branch),
      mounts: project.rig.mounts.map((m): Mount =>
        inside(m) ? { ...m, ...mirroredTransform(m, axis, m.bone === null ? plane : 0) } : m,
      ),
      constraints: project.rig.constraints.map((c) => (branch.has(c.bone) ? mirroredConstraint(c, axis, same) : c)),
      attachments: renamedApart(attachments, turned),
    };
    return { ...project, parts: renamedApart(parts, flipped), clips, rig: inOrder(project, rig) };
  },
});
