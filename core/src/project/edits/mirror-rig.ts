import { composeTransform, mirrorQuat, mirrorVec, relativeTransform, TRANSFORM_IDENTITY } from '../../math';
import {
  type AlternateSet,
  type Bone,
  type Constraint,
  type Id,
  type Mount,
  type Part,
  type Project,
  type Side,
  find,
  freeName,
  keptAside,
  makeMount,
  must,
  replaceRecord,
  withFaceIds,
} from '../../model';
import { bonesInOrder, restWorld } from '../../rig';
import { EditError, defineEdit } from '../edit';
import { mirroredTransform } from '../twins';
import { inOrder } from './constraints';
import { mirroredConstraint } from './flip';

/**
 * Makes or refreshes the other side of everything on one side, across the plane x = `plane`: bones, parts (as mirrored twins) with
 * their mounts and alternates, and constraints. What is there already keeps its identity, so that clips go on moving it.
 */
export const mirrorRigEdit = defineEdit<{ from: 'left' | 'right'; plane: number; bones?: readonly Id[] }>({
  name: 'mirrorRig',
  risky: () => true,
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
    let alternateSets: readonly AlternateSet[] = project.rig.alternateSets;
    const sets = new Map<Id, Id>();
    /** The set on the other side: the one that a mount there is in already, or a new one. */
    const setOf = (source: Id, there: Mount | undefined): Id => {
      const known = sets.get(source) ?? there?.alternateSet ?? null;
      const set = known ?? ctx.newId();
      if (known === null) {
        const name = freeName(
          must(alternateSets, source, 'set of alternates').name,
          alternateSets.map((s) => s.name),
        );
        alternateSets = [...alternateSets, { id: set, name, worn: null }];
      }
      sets.set(source, set);
      return set;
    };
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
          faceSlots: withFaceIds(lead.faceSlots, () => ctx.newId()),
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
      const mount: Mount = {
        ...(old ?? makeMount(ctx.newId(), id, bone)),
        bone,
        ...local,
        alternateSet: m.alternateSet === null ? null : setOf(m.alternateSet, old),
      };
      mounts = old ? replaceRecord(mounts, mount) : [...mounts, mount];
      if (find(project.rig.alternateSets, m.alternateSet)?.worn === m.id)
        alternateSets = alternateSets.map((s) => (s.id === mount.alternateSet ? { ...s, worn: mount.id } : s));
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
          made: { ...mirroredConstraint(c, 0, over), id: same?.id ?? ctx.newId() } as Constraint,
        };
      });
    constraints = constraints.filter((c) => !gone.has(c.id));
    for (const { old, made } of fresh) constraints = old ? replaceRecord(constraints, made) : [...constraints, made];
    let attachments = project.rig.attachments;
    for (const t of project.rig.attachments.filter((o) => ids.has(o.bone))) {
      const place = { t: mirrorVec(t.t, 0), q: mirrorQuat(t.q, 0) },
        bone = over(t.bone);
      const same = attachments.find((o) => o.name === t.name && o.side === to);
      attachments = same
        ? replaceRecord(attachments, { ...same, ...place, bone })
        : [...attachments, { ...t, ...place, id: ctx.newId(), side: to, bone }];
    }
    const rig = inOrder(project, { ...project.rig, bones, mounts, constraints, attachments, alternateSets });
    return { ...project, parts, rig } satisfies Project;
  },
});
