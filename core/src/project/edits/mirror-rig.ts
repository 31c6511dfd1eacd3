import { type Vec3, composeTransform, mirrorQuatX, relativeTransform, TRANSFORM_IDENTITY } from '../../math';
import {
  type Bone,
  type Constraint,
  type Id,
  type Mount,
  type Part,
  type Project,
  type Side,
  find,
  keptAside,
  makeMount,
  mapGrids,
  must,
  replaceRecord,
} from '../../model';
import { bonesInOrder, restWorld } from '../../rig';
import { mirrorImage } from '../../voxel';
import { EditError, defineEdit } from '../edit';
import { mirroredTransform } from '../twins';
import { inOrder } from './constraints';

/**
 * Makes or refreshes the other side of everything on one side, across the plane x = `plane`: bones, parts (as mirrored twins) with
 * their mounts, and constraints. What is there already keeps its identity, so that clips go on moving it.
 */
export const mirrorRigEdit = defineEdit<{ from: 'left' | 'right'; plane: number; bones?: readonly Id[] }>({
  name: 'mirrorRig',
  label: (a) => `Mirror ${a.from} to ${a.from === 'left' ? 'right' : 'left'}`,
  touches: (a) => a.bones ?? [],
  run(project, a, ctx) {
    const to: Side = a.from === 'left' ? 'right' : 'left';
    const meant = (b: Bone): boolean => b.side === a.from && (!a.bones || a.bones.includes(b.id));
    const sources = bonesInOrder(project.rig).filter(meant);
    if (sources.length === 0) throw new EditError('mirrorRig.noSide', { from: a.from });
    let bones = project.rig.bones;
    const twin = new Map<Id, Id>();
    // Every bone of the side has its counterpart by name, even those that are not mirrored now.
    for (const b of bones) {
      const other = b.side === a.from ? bones.find((o) => o.side === to && o.name === b.name) : undefined;
      if (other) twin.set(b.id, other.id);
    }
    for (const b of sources) if (!twin.has(b.id)) twin.set(b.id, ctx.newId());
    const over = (id: Id): Id => twin.get(id) ?? id;
    const world = restWorld(project.rig);
    for (const b of sources) {
      const stand = mirroredTransform(world.get(b.id)!, 0, a.plane),
        parent = b.parent === null ? null : over(b.parent);
      const now = restWorld({ ...project.rig, bones });
      const id = twin.get(b.id)!;
      const bone: Bone = {
        ...b,
        id,
        side: to,
        parent,
        rest: relativeTransform(parent === null ? TRANSFORM_IDENTITY : now.get(parent)!, stand),
      };
      bones = find(bones, id)
        ? replaceRecord(bones, bone)
        : bones.toSpliced(bones.findIndex((o) => o.id === b.id) + 1, 0, bone);
    }
    const aside = keptAside(project.parts);
    let parts: readonly Part[] = project.parts,
      mounts: readonly Mount[] = project.rig.mounts;
    const after = restWorld({ ...project.rig, bones });
    for (const m of project.rig.mounts) {
      if (m.bone === null || aside.has(m.part) || !sources.some((b) => b.id === m.bone)) continue;
      const part = must(parts, m.part, 'part');
      // A part that follows the other side is led by it already.
      if (part.twin || part.side === to) continue;
      const lead: Part = part.side === a.from ? part : { ...part, side: a.from };
      parts = replaceRecord(parts, lead);
      const follower =
        parts.find((p) => p.twin?.source === part.id) ??
        parts.find((p) => p.name === part.name && p.side === to && !parts.some((o) => o.twin?.source === p.id));
      const id = follower?.id ?? ctx.newId();
      const made: Part = {
        ...(follower ?? {
          ...lead,
          layers: lead.layers.map((l) => ({ ...l, id: ctx.newId() })),
          regions: null,
          origin: null,
        }),
        id,
        side: to,
        twin: { source: part.id, axis: 0, plane: a.plane },
      };
      parts = follower ? replaceRecord(parts, made) : parts.toSpliced(parts.indexOf(lead) + 1, 0, made);
      const bone = over(m.bone);
      const local = relativeTransform(
        after.get(bone)!,
        mirroredTransform(composeTransform(world.get(m.bone)!, m), 0, a.plane),
      );
      const old = mounts.find((o) => o.part === id);
      const mount: Mount = { ...(old ?? makeMount(ctx.newId(), id, bone)), bone, ...local };
      mounts = old ? replaceRecord(mounts, mount) : [...mounts, mount];
    }
    let constraints = project.rig.constraints;
    const ids = new Set(sources.map((b) => b.id));
    // Those of the other side that stand for ones of this side are made anew, in the order of this side.
    const gone = new Set(constraints.filter((c) => sources.some((b) => twin.get(b.id) === c.bone)).map((c) => c.id));
    const fresh = constraints
      .filter((c) => ids.has(c.bone))
      .map((c) => {
        const same = constraints.find((o) => gone.has(o.id) && o.kind === c.kind && o.bone === over(c.bone));
        if (same) gone.delete(same.id);
        return {
          old: same ?? null,
          made: { ...mirroredConstraint(c, over), id: same?.id ?? ctx.newId() } as Constraint,
        };
      });
    constraints = constraints.filter((c) => !gone.has(c.id));
    for (const { old, made } of fresh) constraints = old ? replaceRecord(constraints, made) : [...constraints, made];
    let attachments = project.rig.attachments;
    for (const t of project.rig.attachments.filter((o) => ids.has(o.bone))) {
      const place = { t: flipX(t.t), q: mirrorQuatX(t.q) },
        bone = over(t.bone);
      const same = attachments.find((o) => o.name === t.name && o.side === to);
      attachments = same
        ? replaceRecord(attachments, { ...same, ...place, bone })
        : [...attachments, { ...t, ...place, id: ctx.newId(), side: to, bone }];
    }
    const rig = inOrder(project, { ...project.rig, bones, mounts, constraints, attachments });
    return { ...project, parts, rig } satisfies Project;
  },
});

const flipX = (v: Vec3): Vec3 => [v[0] === 0 ? 0 : -v[0], v[1], v[2]];

function mirroredConstraint(c: Constraint, over: (id: Id) => Id): Constraint {
  const bone = over(c.bone);
  switch (c.kind) {
    case 'ik':
      return { ...c, bone, goal: over(c.goal), pole: c.pole === null ? null : over(c.pole), bend: flipX(c.bend) };
    case 'match':
      return { ...c, bone, target: over(c.target) };
    case 'look':
      return { ...c, bone, target: over(c.target), axis: flipX(c.axis) };
    // Turns about Y and Z are the other way round in a mirror.
    case 'limit':
      return { ...c, bone, min: [c.min[0], -c.max[1], -c.max[2]], max: [c.max[0], -c.min[1], -c.min[2]] };
    default:
      return { ...c, bone };
  }
}

const swapped: Readonly<Record<Side, Side>> = { left: 'right', right: 'left', centre: 'centre' };

/**
 * Turns the whole figure into its mirror image across the plane x = `plane`: bones, cubes, mounts, constraints, attachment points and
 * clips; left and right change names. Twice is the figure again.
 */
export const flipRigEdit = defineEdit<{ plane: number }>({
  name: 'flipRig',
  label: () => 'Flip the whole rig',
  touches: () => [],
  run(project, a) {
    const world = restWorld(project.rig);
    const bones = project.rig.bones.map((b): Bone => {
      const parent = b.parent === null ? TRANSFORM_IDENTITY : mirroredTransform(world.get(b.parent)!, 0, a.plane);
      return {
        ...b,
        side: swapped[b.side],
        rest: relativeTransform(parent, mirroredTransform(world.get(b.id)!, 0, a.plane)),
      };
    });
    // In its own lattice a part is mirrored across the origin; its mount mirrors in the frame of its bone.
    const parts = project.parts.map((p): Part => ({
      ...mapGrids(p, (g) => mirrorImage(g, 0)),
      side: swapped[p.side],
      pivot: flipX(p.pivot),
      bounds: { min: [-p.bounds.min[0] - p.bounds.size[0], p.bounds.min[1], p.bounds.min[2]], size: p.bounds.size },
      regions: p.regions && {
        ...p.regions,
        list: p.regions.list.map((r) => ({ ...r, side: swapped[r.side] })),
        grid: mirrorImage(p.regions.grid, 0),
      },
      twin: p.twin && { ...p.twin, plane: 2 * a.plane - p.twin.plane },
    }));
    const mounts = project.rig.mounts.map((m): Mount => ({
      ...m,
      ...mirroredTransform(m, 0, m.bone === null ? a.plane : 0),
    }));
    const over = (id: Id): Id => id;
    const clips = project.clips.map((c) => ({
      ...c,
      lanes: c.lanes.map((l) => ({
        ...l,
        move: l.move.map((k) => ({ ...k, value: flipX(k.value) })),
        turn: l.turn.map((k) => ({ ...k, value: mirrorQuatX(k.value) })),
      })),
    }));
    return {
      ...project,
      parts,
      clips,
      rig: {
        ...project.rig,
        bones,
        mounts,
        constraints: project.rig.constraints.map((c) => mirroredConstraint(c, over)),
        attachments: project.rig.attachments.map((t) => ({
          ...t,
          side: swapped[t.side],
          t: flipX(t.t),
          q: mirrorQuatX(t.q),
        })),
      },
    };
  },
});
