import {
  type Id,
  type Mount,
  type Project,
  type AlternateSet,
  find,
  freeName,
  makeMount,
  mountsOf,
  must,
  replaceRecord,
} from '../../model';
import { EditError, defineEdit } from '../edit';
import { inOrder } from './constraints';
import { checkName } from './names';
import { duplicatePartEdit } from './parts';

const partName = (p: Project, mount: Id | null): string =>
  find(p.parts, find(p.rig.mounts, mount)?.part ?? null)?.name ?? 'nothing';
const withRig = (p: Project, rig: Partial<Project['rig']>): Project => ({ ...p, rig: { ...p.rig, ...rig } });
const alternateSetName = (p: Project, name: string, but?: AlternateSet): string =>
  freeName(
    checkName(name),
    p.rig.alternateSets.filter((s) => s !== but).map((s) => s.name),
  );

/**
 * Puts a part in the place of another on its bone, pivot on pivot, and wears it; the other waits in the same set of alternates. A part that is
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
    if (there.bone === null) throw new EditError('alternates.unmounted', { part: partName(project, there.id) });
    const old = find(project.rig.alternateSets, there.alternateSet);
    const own = project.rig.mounts.find((m) => m.part === part.id);
    const mount: Mount = {
      ...makeMount(own?.id ?? ctx.newId(), part.id, there.bone, there.t),
      q: there.q,
      alternateSet: old?.id ?? ctx.newId(),
    };
    const alternateSet: AlternateSet = {
      id: mount.alternateSet!,
      name: old?.name ?? alternateSetName(project, partName(project, there.id)),
      worn: mount.id,
    };
    const joined = replaceRecord(project.rig.mounts, { ...there, alternateSet: alternateSet.id }).filter(
      (m) => m.part !== part.id,
    );
    return withRig(project, {
      mounts: [...joined, mount],
      alternateSets: old
        ? replaceRecord(project.rig.alternateSets, alternateSet)
        : [...project.rig.alternateSets, alternateSet],
    });
  },
});

/** A copy of a mounted part as its alternate: in the same set, worn in its place, the first hidden until it is worn again. */
export const duplicateAsAlternateEdit = defineEdit<{ part: Id }>({
  name: 'duplicateAsAlternate',
  label: (a, p) => `An alternate of ${find(p.parts, a.part)?.name ?? 'a part'}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    const there = project.rig.mounts.find((m) => m.part === part.id && m.bone !== null);
    if (!there) throw new EditError('alternates.unmounted', { part: part.name });
    const copied = duplicatePartEdit.run(project, a, ctx);
    const copy = copied.parts[copied.parts.findIndex((p) => p.id === part.id) + 1]!;
    return tryPartEdit.run(copied, { part: copy.id, instead: there.id }, ctx);
  },
});

/** What a set of alternates wears at rest; null for nothing. */
export const wearEdit = defineEdit<{ alternateSet: Id; mount: Id | null }>({
  name: 'wear',
  label: (a, p) => `Wear ${partName(p, a.mount)}`,
  touches: (a) => [a.alternateSet],
  run(project, a) {
    const alternateSet = must(project.rig.alternateSets, a.alternateSet, 'set of alternates');
    if (a.mount !== null && must(project.rig.mounts, a.mount, 'mounted part').alternateSet !== alternateSet.id)
      throw new EditError('alternates.notOne', { part: partName(project, a.mount), alternateSet: alternateSet.name });
    return alternateSet.worn === a.mount
      ? project
      : withRig(project, {
          alternateSets: replaceRecord(project.rig.alternateSets, { ...alternateSet, worn: a.mount }),
        });
  },
});

/**
 * Worn at rest and in every clip: wherever a clip put on what was worn at rest, it puts on this. Swaps between others, a blink say,
 * stay.
 */
export const wearEverywhereEdit = defineEdit<{ alternateSet: Id; mount: Id | null }>({
  name: 'wearEverywhere',
  label: (a, p) => `Wear ${partName(p, a.mount)} in every clip`,
  touches: (a) => [a.alternateSet],
  run(project, a, ctx) {
    const { worn } = must(project.rig.alternateSets, a.alternateSet, 'set of alternates');
    const next = wearEdit.run(project, a, ctx);
    const clips = project.clips.map((c) => {
      const lane = c.swaps.find((l) => l.alternateSet === a.alternateSet);
      if (!lane?.keys.some((k) => k.mount === worn && worn !== a.mount)) return c;
      const keys = lane.keys.map((k) => (k.mount === worn ? { ...k, mount: a.mount } : k));
      return { ...c, swaps: c.swaps.map((l) => (l === lane ? { ...l, keys } : l)) };
    });
    return clips.every((c, i) => c === project.clips[i]) ? next : { ...next, clips };
  },
});

export const renameAlternateSetEdit = defineEdit<{ alternateSet: Id; name: string }>({
  name: 'renameAlternateSet',
  label: (a) => `Rename alternates to ${a.name}`,
  touches: (a) => [a.alternateSet],
  run(project, a) {
    const alternateSet = must(project.rig.alternateSets, a.alternateSet, 'set of alternates'),
      name = alternateSetName(project, a.name, alternateSet);
    return name === alternateSet.name
      ? project
      : withRig(project, { alternateSets: replaceRecord(project.rig.alternateSets, { ...alternateSet, name }) });
  },
});

/** Lets a mounted part come and go by keys: it gets a set of alternates of its own and is worn. */
export const makeAlternateSetEdit = defineEdit<{ mount: Id; name?: string }>({
  name: 'makeAlternateSet',
  label: (a, p) => `${partName(p, a.mount)} may come and go`,
  touches: (a) => [a.mount],
  run(project, a, ctx) {
    const mount = must(project.rig.mounts, a.mount, 'mounted part');
    if (mount.alternateSet !== null) return project;
    const alternateSet: AlternateSet = {
      id: ctx.newId(),
      name: alternateSetName(project, a.name ?? partName(project, mount.id)),
      worn: mount.id,
    };
    return withRig(project, {
      mounts: replaceRecord(project.rig.mounts, { ...mount, alternateSet: alternateSet.id }),
      alternateSets: [...project.rig.alternateSets, alternateSet],
    });
  },
});

/** The mount is always there again; the last one to leave takes the set of alternates and its swap keys along. */
export const leaveAlternateSetEdit = defineEdit<{ mount: Id }>({
  name: 'leaveAlternateSet',
  label: (a, p) => `${partName(p, a.mount)} is always there`,
  touches: (a) => [a.mount],
  run(project, a) {
    const mount = must(project.rig.mounts, a.mount, 'mounted part'),
      alternateSet = mount.alternateSet;
    if (alternateSet === null) return project;
    const mounts = replaceRecord(project.rig.mounts, { ...mount, alternateSet: null });
    if (mountsOf({ ...project.rig, mounts }, alternateSet).length > 0) return withRig(project, { mounts });
    const clips = project.clips.map((c) =>
      c.swaps.some((l) => l.alternateSet === alternateSet)
        ? { ...c, swaps: c.swaps.filter((l) => l.alternateSet !== alternateSet) }
        : c,
    );
    return {
      ...withRig(project, { mounts, alternateSets: project.rig.alternateSets.filter((s) => s.id !== alternateSet) }),
      clips,
      bin: project.bin.map((b) =>
        b.kind === 'part'
          ? {
              ...b,
              kept: {
                ...b.kept,
                mounts: b.kept.mounts.map((m) => (m.alternateSet === alternateSet ? { ...m, alternateSet: null } : m)),
              },
            }
          : b,
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
      if (at === bone.id) throw new EditError('alternates.circle', { bone: bone.name, point: point.name });
    }
    const hung = { ...bone, parent: point.bone, rest: { ...bone.rest, t: point.t, q: point.q } };
    return withRig(project, inOrder(project, { ...project.rig, bones: replaceRecord(project.rig.bones, hung) }));
  },
});
