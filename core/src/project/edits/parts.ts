import { say } from '../../words';
import {
  type Box,
  type Quat,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  equals,
  mul,
  normalizeQuat,
  relativeTransform,
  rotate,
  sub,
  mapVec,
} from '../../math';
import {
  type Id,
  type Mount,
  type Rig,
  type Part,
  type Project,
  type Side,
  find,
  freeName,
  makeMount,
  makePart,
  must,
  partContent,
  replaceRecord,
  withPartBounds,
} from '../../model';
import { hungOn, loosened, moveJoint, movePivot, restWorld } from '../../rig';
import { partsToBin } from '../bin';
import { EditError, defineEdit } from '../edit';
import { copiedPart } from './copied-part';
import { checkName } from './names';

const changePart = (project: Project, id: Id, change: (part: Part) => Part): Project => {
  const part = must(project.parts, id, 'part');
  const parts = replaceRecord(project.parts, change(part));
  return parts === project.parts ? project : { ...project, parts };
};
const nameOf = (p: Project, id: Id): string => find(p.parts, id)?.name ?? 'part';
/** Adds an empty part, mounted on a bone or loose at the rig's origin. */
export const addPartEdit = defineEdit<{
  name: string;
  bounds: Box;
  bone?: Id | null;
  side?: Side;
  pivot?: Vec3;
  palette?: Id;
  cell?: number;
  at?: Vec3;
  /** How it is turned on its bone. */
  turn?: Quat;
}>({
  name: 'addPart',
  label: (a) => `New part ${a.name}`,
  touches: () => [],
  run(project, a, ctx) {
    const side = a.side ?? 'centre';
    const name = freeName(
      checkName(a.name),
      project.parts.filter((p) => p.side === side).map((p) => p.name),
    );
    const palette = must(project.palettes, a.palette ?? project.palettes[0]!.id, 'palette');
    const part = makePart(ctx.newId(), ctx.newId(), name, palette.id, a.bounds, {
      side,
      ...(a.pivot ? { pivot: a.pivot } : {}),
      ...(a.cell ? { cell: a.cell } : {}),
    });
    const bone = a.bone ?? null;
    if (bone !== null) must(project.rig.bones, bone, 'bone');
    const mount = { ...makeMount(ctx.newId(), part.id, bone, a.at), ...(a.turn ? { q: a.turn } : {}) };
    return {
      ...project,
      parts: [...project.parts, part],
      rig: { ...project.rig, mounts: [...project.rig.mounts, mount] },
    };
  },
});

export const renamePartEdit = defineEdit<{ part: Id; name: string }>({
  name: 'renamePart',
  label: (a, p) => `Rename ${nameOf(p, a.part)} to ${a.name}`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => {
      const name = freeName(
        checkName(a.name),
        project.parts.filter((p) => p.id !== a.part && p.side === part.side).map((p) => p.name),
      );
      return name === part.name ? part : { ...part, name };
    }),
});

export const setPartHiddenEdit = defineEdit<{ part: Id; hidden: boolean }>({
  name: 'setPartHidden',
  label: (a, p) => `${a.hidden ? 'Hide' : 'Show'} ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a) => changePart(project, a.part, (p) => (p.hidden === a.hidden ? p : { ...p, hidden: a.hidden })),
});

/** A copy with its own cubes, mounted as the first is. */
export const duplicatePartEdit = defineEdit<{ part: Id }>({
  name: 'duplicatePart',
  label: (a, p) => `Duplicate ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    const part = must(project.parts, a.part, 'part');
    const copy = copiedPart(part, project.parts, ctx);
    const mounts = project.rig.mounts
      .filter((m) => m.part === part.id)
      .map((m) => ({ ...m, id: ctx.newId(), part: copy.id }));
    const at = project.parts.indexOf(part) + 1;
    return {
      ...project,
      parts: project.parts.toSpliced(at, 0, copy),
      rig: { ...project.rig, mounts: [...project.rig.mounts, ...mounts] },
    };
  },
});

/** To the bin, with its mounts. */
export const deletePartEdit = defineEdit<{ part: Id }>({
  name: 'deletePart',
  label: (a, p) => `Delete ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run: (project, a, ctx) => partsToBin(project, [must(project.parts, a.part, 'part')], ctx),
});

/** Gives a part another box; its cubes stay where they are. Refuses to cut cubes unless `cut` is true. */
export const resizePartEdit = defineEdit<{ part: Id; bounds: Box; cut?: boolean }>({
  name: 'resizePart',
  label: (a, p) => `Resize ${nameOf(p, a.part)} to ${a.bounds.size.join('×')}`,
  risky: (a) => a.cut === true,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => {
      const next = withPartBounds(part, a.bounds);
      const lost = part.layers.reduce((n, l) => n + l.grid.countOutside(a.bounds), 0);
      if (lost > 0 && !a.cut) throw new EditError('parts.cutsOff', { n: lost, part: part.name });
      return next;
    }),
});

export const shrinkPartEdit = defineEdit<{ part: Id }>({
  name: 'shrinkPart',
  label: (a, p) => `Shrink ${nameOf(p, a.part)} to fit`,
  touches: (a) => [a.part],
  run: (project, a) =>
    changePart(project, a.part, (part) => {
      const box = partContent(part);
      if (!box) throw new EditError('parts.empty', { part: part.name });
      return box.min.every((v, i) => v === part.bounds.min[i] && box.size[i] === part.bounds.size[i])
        ? part
        : withPartBounds(part, box);
    }),
});

/**
 * Moves a part's pivot, in half cubes; its cubes keep their place on every bone it is mounted on. With `joint` the joints that it
 * stood on go along, and everything on those keeps its place.
 */
export const setPivotEdit = defineEdit<{ part: Id; pivot: Vec3; joint?: boolean }>({
  name: 'setPivot',
  label: (a, p) => `Move the pivot of ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run(project, a) {
    if (!a.pivot.every(Number.isInteger)) throw new EditError('parts.pivot');
    const part = must(project.parts, a.part, 'part');
    if (a.pivot.every((v, i) => v === part.pivot[i])) return project;
    const mounts = project.rig.mounts.map((m) => (m.part === part.id ? movePivot(m, part, a.pivot).mount : m));
    const moved: Project = {
      ...project,
      parts: replaceRecord(project.parts, { ...part, pivot: a.pivot }),
      rig: { ...project.rig, mounts },
    };
    return a.joint ? jointsAlong(project, moved, part.id) : moved;
  },
});

/** The joints that a part's pivot stood on, moved to where it stands now. */
function jointsAlong(before: Project, after: Project, part: Id): Project {
  let out = after;
  for (const old of before.rig.mounts) {
    if (old.part !== part || old.bone === null || !equals(old.t, [0, 0, 0])) continue;
    const now = must(out.rig.mounts, old.id, 'mounted part');
    const world = restWorld(out.rig).get(old.bone)!;
    const { rig, parts } = moveJoint(out.rig, out.parts, old.bone, rotate(world.q, mul(world.s, now.t)));
    // What rounding left of the way from the joint to the pivot is none.
    out = {
      ...out,
      parts,
      rig: { ...rig, mounts: rig.mounts.map((m) => (m.id === old.id ? { ...m, t: [0, 0, 0] } : m)) },
    };
  }
  return out;
}

/** A mount on another bone, or loose: see {@link mountPartEdit}. */
function remounted(old: Mount, bone: Id | null, rig: Rig): Mount {
  if (bone === null) return loosened(old, rig);
  const placed = old.t.some((v) => v !== 0) || Math.abs(old.q[3]) < 1;
  return old.bone === null && placed ? hungOn(old, bone, rig) : { ...old, bone };
}

/**
 * How a part is mounted: on a bone, or loose, where it stands. A part that was never placed comes with its pivot onto the joint; one
 * that hangs on another bone keeps the numbers of its place, as heads are swapped.
 */
export const mountPartEdit = defineEdit<{ part: Id; bone: Id | null }>({
  name: 'mountPart',
  label: (a, p) => `${a.bone === null ? 'Unmount' : 'Mount'} ${nameOf(p, a.part)}`,
  touches: (a) => [a.part],
  run(project, a, ctx) {
    must(project.parts, a.part, 'part');
    if (a.bone !== null) must(project.rig.bones, a.bone, 'bone');
    const rest = project.rig.mounts.filter((m) => m.part !== a.part);
    const old = project.rig.mounts.find((m) => m.part === a.part);
    if (old && old.bone === a.bone) return project;
    const mount = old ? remounted(old, a.bone, project.rig) : makeMount(ctx.newId(), a.part, a.bone);
    return { ...project, rig: { ...project.rig, mounts: [...rest, mount] } };
  },
});

/** Mounts several parts at once, each in its place; no other part is touched. */
export const mountPartsEdit = defineEdit<{ pairs: readonly { readonly part: Id; readonly bone: Id }[] }>({
  name: 'mountParts',
  label: (a, p) =>
    a.pairs.length === 1 ? `Mount ${nameOf(p, a.pairs[0]!.part)}` : say('label.mountParts', { n: a.pairs.length }),
  touches: (a) => a.pairs.map((t) => t.part),
  run(project, a, ctx) {
    const world = restWorld(project.rig);
    const mounts = a.pairs.reduce<readonly Mount[]>((list, { part, bone }) => {
      must(project.parts, part, 'part');
      must(project.rig.bones, bone, 'bone');
      const old = list.find((m) => m.part === part) ?? makeMount(ctx.newId(), part, null);
      const stand = composeTransform(old.bone === null ? TRANSFORM_IDENTITY : world.get(old.bone)!, old);
      const mount: Mount = { ...old, bone, ...relativeTransform(world.get(bone)!, stand) };
      // A part on two bones hangs on this one alone then.
      return [...list.filter((m) => m.part !== part), mount];
    }, project.rig.mounts);
    return { ...project, rig: { ...project.rig, mounts } };
  },
});

/** Where a mounted part stands on its bone, how it is turned and how large it is there: any of these by numbers. */
export const setMountEdit = defineEdit<{ mount: Id; place: Partial<Transform> }>({
  name: 'setMount',
  label: (a, p) =>
    `${a.place.s ? 'Scale' : a.place.q ? 'Turn' : 'Move'} ${nameOf(p, find(p.rig.mounts, a.mount)?.part ?? '')} on its bone`,
  touches: (a) => [a.mount],
  run(project, a) {
    const mount = must(project.rig.mounts, a.mount, 'mounted part');
    const next: Mount = { ...mount, ...a.place };
    const part = nameOf(project, mount.part);
    if (![...next.t, ...next.q, ...next.s].every(Number.isFinite)) throw new EditError('rig.place', { bone: part });
    if (next.s.some((v) => v <= 0)) throw new EditError('rig.scale', { bone: part });
    if (JSON.stringify(next) === JSON.stringify(mount)) return project;
    const mounts = replaceRecord(project.rig.mounts, { ...next, q: normalizeQuat(next.q) });
    return { ...project, rig: { ...project.rig, mounts } };
  },
});

/** A little smaller or larger on its bone, about its own middle, so that faces that lie in those of others do not flicker. */
export const shrinkSlightlyEdit = defineEdit<{ part: Id; by: number }>({
  name: 'shrinkSlightly',
  label: (a, p) =>
    a.by === 1
      ? `${nameOf(p, a.part)} in its full size`
      : `${a.by < 1 ? 'Shrink' : 'Grow'} ${nameOf(p, a.part)} slightly`,
  touches: (a) => [a.part],
  run(project, a) {
    const part = must(project.parts, a.part, 'part');
    if (!(a.by >= 0.5 && a.by <= 1.5)) throw new EditError('parts.slightly');
    const box = partContent(part) ?? part.bounds;
    const middle = mapVec(box.min, (v, i) => (v + box.size[i]! / 2 - part.pivot[i]! / 2) * part.cell);
    const mounts = project.rig.mounts.map((m) => {
      if (m.part !== part.id || m.s.every((s) => s === a.by)) return m;
      const s: Vec3 = [a.by, a.by, a.by];
      return { ...m, s, t: add(m.t, rotate(m.q, mul(sub(m.s, s), middle))) };
    });
    return mounts.every((m, i) => m === project.rig.mounts[i])
      ? project
      : { ...project, rig: { ...project.rig, mounts } };
  },
});
