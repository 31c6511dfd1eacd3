import { type Quat, type Transform, type Vec3, normalizeQuat, relativeTransform } from '../../math';
import {
  type Bone,
  type Id,
  PLAIN_BONE,
  type Project,
  type Side,
  constraintTargets,
  find,
  freeName,
  must,
  replaceRecord,
} from '../../model';
import { clipsKeepingLook } from '../../motion';
import { loosened, moveJoint, reparentKeepingPlace, restWorld } from '../../rig';
import { binned } from '../bin';
import { EditError, defineEdit } from '../edit';
import { inOrder } from './constraints';

const nameOf = (p: Project, id: Id): string => find(p.rig.bones, id)?.name ?? 'bone';
const withBones = (p: Project, bones: readonly Bone[]): Project =>
  bones === p.rig.bones ? p : { ...p, rig: { ...p.rig, bones } };

/** A bone at `t` of its parent, of its parent's side where none is given. */
export const addBoneEdit = defineEdit<{ name: string; parent: Id | null; t: Vec3; side?: Side; q?: Quat }>({
  name: 'addBone',
  label: (a) => `New bone ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const parent = a.parent === null ? null : must(project.rig.bones, a.parent, 'bone');
    const side = a.side ?? parent?.side ?? 'centre';
    const name = freeName(
      a.name,
      project.rig.bones.filter((b) => b.side === side).map((b) => b.name),
    );
    const bone: Bone = {
      id: ctx.newId(),
      name,
      side,
      parent: a.parent,
      rest: { t: a.t, q: a.q ?? [0, 0, 0, 1], s: [1, 1, 1] },
      ...PLAIN_BONE,
    };
    return withBones(project, [...project.rig.bones, bone]);
  },
});

export const renameBoneEdit = defineEdit<{ bone: Id; name: string }>({
  name: 'renameBone',
  label: (a, p) => `Rename ${nameOf(p, a.bone)} to ${a.name}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    const wanted = a.name.trim();
    if (wanted === '' || wanted.length > 120) throw new EditError('name.length');
    const name = freeName(
      wanted,
      project.rig.bones.filter((b) => b.id !== a.bone && b.side === bone.side).map((b) => b.name),
    );
    return name === bone.name ? project : withBones(project, replaceRecord(project.rig.bones, { ...bone, name }));
  },
});

/** Hangs a bone on another, keeping its place. Refuses a circle. */
export const reparentBoneEdit = defineEdit<{ bone: Id; parent: Id | null }>({
  name: 'reparentBone',
  label: (a, p) => `Hang ${nameOf(p, a.bone)} on ${a.parent === null ? 'nothing' : nameOf(p, a.parent)}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    if (bone.parent === a.parent) return project;
    for (let at = a.parent; at !== null; at = must(project.rig.bones, at, 'bone').parent) {
      if (at === a.bone) throw new EditError('rig.circle', { bone: bone.name, parent: nameOf(project, a.parent!) });
    }
    return { ...project, rig: inOrder(project, reparentKeepingPlace(project.rig, a.bone, a.parent)) };
  },
});

/**
 * Changes channels of a bone's rest: where it stands, how it is turned, how large it is. Children follow, unless it changes
 * `alone`. Clips keep their numbers, which are offsets from rest, or with `keepLook` look as before.
 */
export const setRestEdit = defineEdit<{ bone: Id; rest: Partial<Transform>; alone?: boolean; keepLook?: boolean }>({
  name: 'setRest',
  label: (a, p) => `${a.rest.q ? 'Turn' : a.rest.t ? 'Move' : 'Scale'} ${nameOf(p, a.bone)}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    const rest = { ...bone.rest, ...a.rest };
    if (![...rest.t, ...rest.q, ...rest.s].every(Number.isFinite))
      throw new EditError('rig.place', { bone: bone.name });
    if (rest.s.some((v) => v <= 0)) throw new EditError('rig.scale', { bone: bone.name });
    if (JSON.stringify(rest) === JSON.stringify(bone.rest)) return project;
    const after: Transform = { ...rest, q: normalizeQuat(rest.q) };
    let bones = replaceRecord(project.rig.bones, { ...bone, rest: after });
    let clips = project.clips;
    const keep = (id: Id, was: Transform, is: Transform): void => {
      if (a.keepLook) clips = clipsKeepingLook(clips, id, was, is);
    };
    keep(bone.id, bone.rest, after);
    if (a.alone) {
      const was = restWorld(project.rig),
        is = restWorld({ ...project.rig, bones }).get(bone.id)!;
      bones = bones.map((b) => {
        if (b.parent !== bone.id) return b;
        const local = relativeTransform(is, was.get(b.id)!);
        keep(b.id, b.rest, local);
        return { ...b, rest: local };
      });
    }
    const next = withBones(project, bones);
    return clips === project.clips ? next : { ...next, clips };
  },
});

/** Moves a joint in rig space while parts and children keep their place. */
export const moveJointEdit = defineEdit<{ bone: Id; delta: Vec3 }>({
  name: 'moveJoint',
  label: (a, p) => `Move the joint of ${nameOf(p, a.bone)}`,
  touches: (a) => [a.bone],
  run(project, a) {
    must(project.rig.bones, a.bone, 'bone');
    if (a.delta.every((v) => v === 0)) return project;
    return { ...project, ...moveJoint(project.rig, project.parts, a.bone, a.delta) };
  },
});

/** To the bin with its keys; children move up to its parent and parts become loose, all keeping their place. */
export const deleteBoneEdit = defineEdit<{ bone: Id }>({
  name: 'deleteBone',
  label: (a, p) => `Delete bone ${nameOf(p, a.bone)}`,
  touches: (a) => [a.bone],
  run(project, a, ctx) {
    const bone = must(project.rig.bones, a.bone, 'bone');
    const children = project.rig.bones.filter((b) => b.parent === bone.id).map((b) => b.id);
    const mounts = project.rig.mounts.filter((m) => m.bone === bone.id).map((m) => m.id);
    const constraints = project.rig.constraints.filter(
      (c) => c.bone === bone.id || constraintTargets(c).includes(bone.id),
    );
    let rig = project.rig;
    for (const c of children) rig = reparentKeepingPlace(rig, c, bone.parent);
    const lanes = project.clips.flatMap((c) =>
      c.lanes.filter((l) => l.bone === bone.id).map((lane) => ({ clip: c.id, lane })),
    );
    return {
      ...project,
      rig: {
        ...rig,
        bones: rig.bones.filter((b) => b.id !== bone.id),
        mounts: rig.mounts.map((m) => (m.bone === bone.id ? loosened(m, project.rig) : m)),
        constraints: rig.constraints.filter((c) => !constraints.includes(c)),
        attachments: rig.attachments.filter((t) => t.bone !== bone.id),
      },
      clips:
        lanes.length === 0
          ? project.clips
          : project.clips.map((c) => ({ ...c, lanes: c.lanes.filter((l) => l.bone !== bone.id) })),
      bin: [
        ...project.bin,
        binned(
          'bone',
          bone,
          {
            children,
            mounts,
            lanes,
            constraints,
            attachments: project.rig.attachments.filter((t) => t.bone === bone.id),
          },
          ctx,
        ),
      ],
    };
  },
});
