import {
  type BinItem,
  type Bone,
  type Id,
  type KeptOfBone,
  type KeptOfPart,
  type NamedRecord,
  LISTED_KINDS,
  type Part,
  type Project,
  type RecordKind,
  constraintTargets,
  find,
  must,
  recordsOf,
} from '../model';
import { hungOn, reparentKeepingPlace, solveOrder } from '../rig';
import { freeAmong } from './bringing';
import type { EditContext } from './edit';
import { EditError } from './edit-error';

type Ids = Pick<EditContext, 'newId' | 'now'>;

/** Something for the bin, with what goes back with it. */
export const binned = <K extends BinItem['kind']>(
  kind: K,
  record: Extract<BinItem, { kind: K }>['record'],
  kept: Extract<BinItem, { kind: K }>['kept'],
  ctx: Ids,
): BinItem => ({ id: ctx.newId(), kind, at: ctx.now, record, kept }) as unknown as BinItem;

/** A part for the bin, with its mounts and reference pictures. */
export const binnedPart = (project: Project, part: Part, ctx: Ids, more: Partial<KeptOfPart> = {}): BinItem =>
  binned(
    'part',
    part,
    {
      mounts: project.rig.mounts.filter((m) => m.part === part.id),
      references: project.references.filter((r) => r.part === part.id),
      ...more,
    },
    ctx,
  );

/** The project with parts in the bin, and their mounts and reference pictures with them. */
export function partsToBin(project: Project, gone: readonly Part[], ctx: Ids): Project {
  if (gone.length === 0) return project;
  const ids = new Set(gone.map((p) => p.id));
  return {
    ...project,
    parts: project.parts.filter((p) => !ids.has(p.id)),
    references: project.references.filter((r) => !ids.has(r.part)),
    rig: { ...project.rig, mounts: project.rig.mounts.filter((m) => !ids.has(m.part)) },
    bin: [...project.bin, ...gone.map((p) => binnedPart(project, p, ctx))],
  };
}

/** A part or a stamp that lies in the bin; null for anything else. */
export const partInBin = (item: BinItem): Part | null =>
  item.kind === 'part' || item.kind === 'stamp' ? item.record : null;

/** The kind of that name that can be deleted by itself. @throws EditError when there is none */
function deletable(name: string): RecordKind<string, string> {
  const kind = LISTED_KINDS.find((k) => k.name === name);
  if (!kind?.kept) throw new EditError('bin.notAlone', { name });
  return kind;
}

/** The record of a kind, wherever its list is. @throws EditError, MissingError */
export const recordOf = (project: Project, kind: string, id: Id): NamedRecord =>
  must(recordsOf(project, deletable(kind)), id, kind);

/** The project with one record of a list in the bin, alone. */
export function recordToBin(project: Project, kind: string, id: Id, ctx: Ids): Project {
  const of = deletable(kind);
  const record = recordOf(project, kind, id);
  return {
    ...project,
    [of.list]: recordsOf(project, of).filter((r) => r !== record),
    bin: [...project.bin, binned(kind as never, record as never, {} as never, ctx)],
  };
}

/** The project with something from the bin put back, with its mounts, children and keys as far as these still exist. */
export function putBack(project: Project, item: BinItem): Project {
  const p: Project = { ...project, bin: project.bin.filter((b) => b !== item) };
  switch (item.kind) {
    case 'part':
      return withRecord(withPartKept(p, item.kept), 'parts', item.record);
    case 'bone':
      return withBone(p, item.record, item.kept);
    case 'colourway': {
      // Swatches that went meanwhile take their changes with them.
      const changes = item.record.changes.filter((c) =>
        find(p.palettes, c.palette)?.swatches.some((s) => s.byte === c.byte),
      );
      return withRecord(p, 'colourways', { ...item.record, changes });
    }
    default:
      return withRecord(p, deletable(item.kind).list, item.record);
  }
}

/** At the end of its list, under a name that is free there. */
function withRecord<R extends NamedRecord>(project: Project, list: string, record: R): Project {
  const among = (project as unknown as Record<string, readonly NamedRecord[]>)[list]!;
  const named = record.name === undefined ? record : { ...record, name: freeAmong(among, record) };
  return { ...project, [list]: [...among, named] };
}

function withPartKept(p: Project, kept: KeptOfPart): Project {
  const mounts = kept.mounts.map((m) => (m.bone !== null && !find(p.rig.bones, m.bone) ? { ...m, bone: null } : m));
  return {
    ...p,
    references: [...p.references, ...kept.references],
    rig: { ...p.rig, mounts: [...p.rig.mounts, ...mounts] },
  };
}

function withBone(p: Project, record: Bone, kept: KeptOfBone): Project {
  const parent = find(p.rig.bones, record.parent) ? record.parent : null;
  const bone: Bone = { ...record, name: freeAmong(p.rig.bones, record), parent };
  const bones = [...p.rig.bones, bone];
  let rig: Project['rig'] = {
    ...p.rig,
    attachments: [...p.rig.attachments, ...kept.attachments],
    bones,
    mounts: p.rig.mounts.map((m) =>
      m.bone === null && kept.mounts.includes(m.id) ? hungOn(m, bone.id, { ...p.rig, bones }) : m,
    ),
  };
  for (const c of kept.children) if (find(rig.bones, c)?.parent === parent) rig = reparentKeepingPlace(rig, c, bone.id);
  // What steered it comes back too, where that makes no circle with what was made since.
  const whole = kept.constraints.filter((c) => [c.bone, ...constraintTargets(c)].every((b) => find(rig.bones, b)));
  const steered = { ...rig, constraints: [...rig.constraints, ...whole] };
  if (solveOrder(steered)) rig = steered;
  const clips = p.clips.map((c) => ({
    ...c,
    lanes: [...c.lanes, ...kept.lanes.filter((l) => l.clip === c.id).map((l) => l.lane)],
  }));
  return { ...p, rig, clips };
}

/** What a thing in the bin was called. */
export const binName = (project: Project, id: Id): string => {
  const record = find(project.bin, id)?.record as NamedRecord | undefined;
  return record?.name ?? 'something';
};
