import {
  type Id,
  type Mount,
  type Project,
  type Slot,
  find,
  freeName,
  makeMount,
  mountsOf,
  must,
  replaceRecord,
} from '../../model';
import { EditError, defineEdit } from '../edit';
import { inOrder } from './constraints';
import { checkName } from './parts';

const partName = (p: Project, mount: Id | null): string =>
  find(p.parts, find(p.rig.mounts, mount)?.part ?? null)?.name ?? 'nothing';
const withRig = (p: Project, rig: Partial<Project['rig']>): Project => ({ ...p, rig: { ...p.rig, ...rig } });
const slotName = (p: Project, name: string, but?: Slot): string =>
  freeName(
    checkName(name),
    p.rig.slots.filter((s) => s !== but).map((s) => s.name),
  );

/**
 * Puts a part in the place of another on its bone, pivot on pivot, and wears it; the other waits in the same slot. A part that is
 * mounted elsewhere comes from there.
 */
export const tryPartEdit = defineEdit<{ part: Id; instead: Id }>({
  name: 'tryPart',
  label: (a, p) => `Try ${find(p.parts, a.part)?.name ?? 'a part'} instead of ${partName(p, a.instead)}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part'),
      there = must(project.rig.mounts, a.instead, 'mounted part');
    if (there.part === a.part) return project;
    if (there.bone === null)
      throw new EditError(
        `“${partName(project, there.id)}” hangs on no bone, so nothing can be tried in its place. Mount it first.`,
      );
    const old = find(project.rig.slots, there.slot);
    const own = project.rig.mounts.find((m) => m.part === part.id);
    const mount: Mount = {
      ...makeMount(own?.id ?? ctx.newId(), part.id, there.bone, there.t),
      q: there.q,
      slot: old?.id ?? ctx.newId(),
    };
    const slot: Slot = {
      id: mount.slot!,
      name: old?.name ?? slotName(project, partName(project, there.id)),
      worn: mount.id,
    };
    const joined = replaceRecord(project.rig.mounts, { ...there, slot: slot.id }).filter((m) => m.part !== part.id);
    return withRig(project, {
      mounts: [...joined, mount],
      slots: old ? replaceRecord(project.rig.slots, slot) : [...project.rig.slots, slot],
    });
  },
});

/** What a slot wears at rest; null for nothing. */
export const wearEdit = defineEdit<{ slot: Id; mount: Id | null }>({
  name: 'wear',
  label: (a, p) => `Wear ${partName(p, a.mount)}`,
  touches: (a) => [a.slot],
  run(project, a) {
    const slot = must(project.rig.slots, a.slot, 'slot');
    if (a.mount !== null && must(project.rig.mounts, a.mount, 'mounted part').slot !== slot.id)
      throw new EditError(`“${partName(project, a.mount)}” is not one of “${slot.name}”.`);
    return slot.worn === a.mount
      ? project
      : withRig(project, { slots: replaceRecord(project.rig.slots, { ...slot, worn: a.mount }) });
  },
});

export const renameSlotEdit = defineEdit<{ slot: Id; name: string }>({
  name: 'renameSlot',
  label: (a) => `Rename a slot to ${a.name}`,
  touches: (a) => [a.slot],
  run(project, a) {
    const slot = must(project.rig.slots, a.slot, 'slot'),
      name = slotName(project, a.name, slot);
    return name === slot.name
      ? project
      : withRig(project, { slots: replaceRecord(project.rig.slots, { ...slot, name }) });
  },
});

/** Lets a mounted part come and go by keys: it gets a slot of its own and is worn. */
export const makeSlotEdit = defineEdit<{ mount: Id; name?: string }>({
  name: 'makeSlot',
  label: (a, p) => `${partName(p, a.mount)} may come and go`,
  touches: (a) => [a.mount],
  run(project, a, ctx) {
    const mount = must(project.rig.mounts, a.mount, 'mounted part');
    if (mount.slot !== null) return project;
    const slot: Slot = {
      id: ctx.newId(),
      name: slotName(project, a.name ?? partName(project, mount.id)),
      worn: mount.id,
    };
    return withRig(project, {
      mounts: replaceRecord(project.rig.mounts, { ...mount, slot: slot.id }),
      slots: [...project.rig.slots, slot],
    });
  },
});

/** The mount is always there again; the last one to leave takes the slot and its swap keys along. */
export const leaveSlotEdit = defineEdit<{ mount: Id }>({
  name: 'leaveSlot',
  label: (a, p) => `${partName(p, a.mount)} is always there`,
  touches: (a) => [a.mount],
  run(project, a) {
    const mount = must(project.rig.mounts, a.mount, 'mounted part'),
      slot = mount.slot;
    if (slot === null) return project;
    const mounts = replaceRecord(project.rig.mounts, { ...mount, slot: null });
    if (mountsOf({ ...project.rig, mounts }, slot).length > 0) return withRig(project, { mounts });
    const clips = project.clips.map((c) =>
      c.swaps.some((l) => l.slot === slot) ? { ...c, swaps: c.swaps.filter((l) => l.slot !== slot) } : c,
    );
    return {
      ...withRig(project, { mounts, slots: project.rig.slots.filter((s) => s.id !== slot) }),
      clips,
      bin: project.bin.map((b) =>
        b.kind === 'part' ? { ...b, mounts: b.mounts.map((m) => (m.slot === slot ? { ...m, slot: null } : m)) } : b,
      ),
    };
  },
});

/** Hangs a bone where an attachment point is, turned as it is: a lantern pole into a grip. */
export const hangAtEdit = defineEdit<{ bone: Id; attachment: Id }>({
  name: 'hangAt',
  label: (a, p) =>
    `Hang ${find(p.rig.bones, a.bone)?.name ?? 'a bone'} at ${find(p.rig.attachments, a.attachment)?.name ?? 'a point'}`,
  touches: (a) => [a.bone],
  run(project, a) {
    const bone = must(project.rig.bones, a.bone, 'bone'),
      point = must(project.rig.attachments, a.attachment, 'attachment point');
    for (let at: Id | null = point.bone; at !== null; at = must(project.rig.bones, at, 'bone').parent) {
      if (at === bone.id)
        throw new EditError(`“${bone.name}” cannot hang at “${point.name}”, which is on a bone below it.`);
    }
    const hung = { ...bone, parent: point.bone, rest: { ...bone.rest, t: point.t, q: point.q } };
    return withRig(project, inOrder(project, { ...project.rig, bones: replaceRecord(project.rig.bones, hung) }));
  },
});
