import { say } from '../../words';
import { TRANSFORM_IDENTITY, type Transform, composeTransform } from '../../math';
import {
  type AlternateSet,
  type BinItem,
  type Bone,
  type Clip,
  type Id,
  type Mount,
  type NamedRecord,
  type Part,
  type Project,
  type Rig,
  clipKind,
  mapIds,
  must,
  partKind,
  replaceRecord,
  rigKind,
  withFaceIds,
} from '../../model';
import { binned } from '../bin';
import {
  type Ids,
  type RecordName,
  freeAmong,
  freshIds,
  withImportsOf,
  withPalettes,
  withRecordsOf,
} from '../bringing';
import { type EditContext, EditError, defineEdit } from '../edit';

/** The bone and attachment point that a rig is brought in at; null for the middle of the project. */
export type BringAt = { readonly bone: Id } | { readonly attachment: Id } | null;

/**
 * Brings another project's bones in, with the parts and clips that are wanted, what steers the bones, their sets of alternates and attachment
 * points. Its origin comes onto the joint or the attachment point; sizes are taken cube for cube. Names that are taken get a number.
 */
export const bringRigEdit = defineEdit<{ source: Project; at: BringAt; parts: readonly Id[]; clips: readonly Id[] }>({
  name: 'bringRig',
  risky: () => true,
  label: (a) => `Bring in ${a.source.name}`,
  touches: () => [],
  run(project, { source, at, parts: wanted, clips: wantedClips }, ctx) {
    if (source.rig.bones.length === 0) throw new EditError('bringIn.noBones', { source: source.name });
    const point = at && 'attachment' in at ? must(project.rig.attachments, at.attachment, 'attachment point') : null;
    const under = point?.bone ?? (at && 'bone' in at ? must(project.rig.bones, at.bone, 'bone').id : null);
    const stand: Transform = point ? { ...TRANSFORM_IDENTITY, t: point.t, q: point.q } : TRANSFORM_IDENTITY;
    const taken = source.parts.filter((p) => wanted.includes(p.id));
    const { palettes, ids } = withPalettes(
      project,
      source,
      taken.map((p) => p.palette),
      freshIds(ctx.newId),
    );
    const rig = broughtRig(mapIds(rigKind.schema, source.rig, ids), new Set(taken.map((p) => ids(p.id))), under, stand);
    return {
      ...withImportsOf(project, source, taken, ids),
      palettes,
      parts: taken.reduce<readonly Part[]>((parts, p) => [...parts, broughtPart(p, taken, ids, parts)], project.parts),
      clips: source.clips
        .filter((c) => wantedClips.includes(c.id))
        .reduce<readonly Clip[]>(
          (clips, c) => [...clips, broughtClip(mapIds(clipKind.schema, c, ids), rig, clips)],
          project.clips,
        ),
      rig: {
        bones: named(project.rig.bones, rig.bones),
        mounts: [...project.rig.mounts, ...rig.mounts],
        constraints: [...project.rig.constraints, ...rig.constraints],
        attachments: named(project.rig.attachments, rig.attachments),
        alternateSets: named(project.rig.alternateSets, rig.alternateSets),
      },
    };
  },
});

/** A list with more behind it, under names that are free. */
const named = <R extends NamedRecord>(list: readonly R[], more: readonly R[]): readonly R[] =>
  more.reduce<readonly R[]>((all, r) => [...all, { ...r, name: freeAmong(all, r) }], list);

/** Another project's rig, with ids of here, as it stands under a bone: the mounts of parts that come along, and what these need. */
function broughtRig(theirs: Rig, parts: ReadonlySet<Id>, under: Id | null, stand: Transform): Rig {
  const mounts = theirs.mounts
    .filter((m) => parts.has(m.part))
    .map((m): Mount => (m.bone === null ? { ...m, ...composeTransform(stand, m), bone: under } : m));
  const worn = (id: Id | null): Id | null => (mounts.some((m) => m.id === id) ? id : null);
  return {
    ...theirs,
    bones: theirs.bones.map((b): Bone =>
      b.parent === null ? { ...b, parent: under, rest: composeTransform(stand, b.rest) } : b,
    ),
    mounts,
    alternateSets: theirs.alternateSets
      .filter((s) => mounts.some((m) => m.alternateSet === s.id))
      .map((s): AlternateSet => ({ ...s, worn: worn(s.worn) })),
  };
}

function broughtPart(p: Part, taken: readonly Part[], ids: Ids, among: readonly Part[]): Part {
  const twin = p.twin && taken.some((o) => o.id === p.twin!.source) ? p.twin : null;
  const part = mapIds(partKind.schema, { ...p, regions: null, twin, origin: null }, ids);
  return { ...part, name: freeAmong(among, part) };
}

/** Without swaps of sets of alternates that stay behind. */
const broughtClip = (clip: Clip, rig: Rig, among: readonly Clip[]): Clip => ({
  ...clip,
  name: freeAmong(among, clip),
  swaps: clip.swaps.filter((l) => rig.alternateSets.some((s) => s.id === l.alternateSet)),
});

/** Brings records of any kind that stand in lists, with all that they name: palettes, files, other records. */
export const bringRecordsEdit = defineEdit<{ source: Project; records: readonly RecordName[] }>({
  name: 'bringRecords',
  label: (a) => `Bring in from ${a.source.name}`,
  touches: () => [],
  run: (project, { source, records }, ctx) => withRecordsOf(project, source, records, ctx.newId),
});

/** Parts of a project and those of another that bear the same name on the same side. */
export const partsOfSameName = (project: Project, source: Project): { part: Part; by: Part }[] =>
  project.parts.flatMap((part) =>
    source.parts
      .filter((by) => by.name === part.name && by.side === part.side)
      .slice(0, 1)
      .map((by) => ({ part, by })),
  );

/** Parts take the cubes, size and pivot of others and keep their name, bone and set of alternates; what they were goes to the bin. */
export const replacePartsEdit = defineEdit<{
  source: Project;
  pairs: readonly { readonly part: Id; readonly by: Id }[];
}>({
  name: 'replaceParts',
  risky: () => true,
  label: (a) => say('label.replaceParts', { n: a.pairs.length, source: a.source.name }),
  touches: (a) => a.pairs.map((p) => p.part),
  run(project, { source, pairs }, ctx) {
    if (pairs.length === 0) throw new EditError('bringIn.noNames', { source: source.name });
    const { palettes, ids } = withPalettes(
      project,
      source,
      pairs.map((p) => must(source.parts, p.by, 'part').palette),
      freshIds(ctx.newId),
    );
    let parts = project.parts;
    const bin = [...project.bin],
      whole = withImportsOf(
        project,
        source,
        pairs.map((p) => must(source.parts, p.by, 'part')),
        ids,
      );
    for (const { part: id, by } of pairs) {
      const was = must(parts, id, 'part'),
        is = must(source.parts, by, 'part');
      bin.push(aside(project, was, ctx));
      parts = replaceRecord(parts, {
        ...is,
        id,
        name: was.name,
        side: was.side,
        hidden: was.hidden,
        palette: ids(is.palette, 'palette'),
        layers: is.layers.map((l) => ({ ...l, id: ctx.newId() })),
        regions: null,
        faceSlots: withFaceIds(is.faceSlots, () => ctx.newId()),
        twin: null,
        origin: null,
        made: is.made && { ...is.made, import: ids(is.made.import) },
      });
    }
    return { ...whole, palettes, parts, bin };
  },
});

/** What a part was before it took other cubes, for the bin: with its mounts, under ids of its own. */
export function aside(project: Project, was: Part, ctx: EditContext): BinItem {
  const id = ctx.newId();
  const kept: Part = {
    ...was,
    id,
    layers: was.layers.map((l) => ({ ...l, id: ctx.newId() })),
    regions: null,
    faceSlots: withFaceIds(was.faceSlots, () => ctx.newId()),
    twin: null,
    origin: null,
  };
  const mounts = project.rig.mounts
    .filter((m) => m.part === was.id)
    .map((m) => ({ ...m, id: ctx.newId(), part: id, alternateSet: null }));
  return binned('part', kept, { mounts, references: [] }, ctx);
}
