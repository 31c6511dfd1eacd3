import { TRANSFORM_IDENTITY, type Transform, composeTransform } from '../../math';
import {
  type Bone,
  type Clip,
  type Constraint,
  type Id,
  type Mount,
  type Part,
  type Project,
  type AlternateSet,
  freeName,
  must,
  replaceRecord,
} from '../../model';
import type { Palette } from '../../palette';
import { EditError, defineEdit } from '../edit';
import { binItemOf } from './parts';

type Ids = (old: Id) => Id;

/** A fresh id for each old one, the same every time it is asked for. */
function freshIds(newId: () => Id): Ids {
  const known = new Map<Id, Id>();
  return (old) => known.get(old) ?? known.set(old, newId()).get(old)!;
}

/** The palettes of `parts` among those of the project: equal ones are shared, others come along. */
function withPalettes(
  project: Project,
  source: Project,
  parts: readonly Part[],
  over: Ids,
): { palettes: readonly Palette[]; paletteOf: (id: Id) => Id } {
  let palettes = project.palettes;
  const to = new Map<Id, Id>();
  for (const id of new Set(parts.map((p) => p.palette))) {
    const theirs = must(source.palettes, id, 'palette'),
      ours = palettes.find((o) => JSON.stringify(o.swatches) === JSON.stringify(theirs.swatches));
    if (!ours)
      palettes = [
        ...palettes,
        {
          ...theirs,
          id: over(id),
          name: freeName(
            theirs.name,
            palettes.map((o) => o.name),
          ),
        },
      ];
    to.set(id, ours?.id ?? over(id));
  }
  return { palettes, paletteOf: (id) => to.get(id)! };
}

const free = <R extends { readonly name: string; readonly side: string }>(list: readonly R[], r: R): string =>
  freeName(
    r.name,
    list.filter((o) => o.side === r.side).map((o) => o.name),
  );

/** The bone and attachment point that a rig is brought in at; null for the middle of the project. */
export type BringAt = { readonly bone: Id } | { readonly attachment: Id } | null;

/**
 * Brings another project's bones in, with the parts and clips that are wanted, what steers the bones, their sets of alternates and attachment
 * points. Its origin comes onto the joint or the attachment point; sizes are taken cube for cube. Names that are taken get a number.
 */
export const bringRigEdit = defineEdit<{ source: Project; at: BringAt; parts: readonly Id[]; clips: readonly Id[] }>({
  name: 'bringRig',
  label: (a) => `Bring in ${a.source.name}`,
  touches: () => [],
  run(project, { source, at, parts: wanted, clips: wantedClips }, ctx) {
    if (source.rig.bones.length === 0)
      throw new EditError(`“${source.name}” has no bones. Bring its parts in one by one instead.`);
    const over = freshIds(ctx.newId);
    const point = at && 'attachment' in at ? must(project.rig.attachments, at.attachment, 'attachment point') : null;
    const under = point?.bone ?? (at && 'bone' in at ? must(project.rig.bones, at.bone, 'bone').id : null);
    const stand: Transform = point ? { ...TRANSFORM_IDENTITY, t: point.t, q: point.q } : TRANSFORM_IDENTITY;
    const taken = source.parts.filter((p) => wanted.includes(p.id));
    const { palettes, paletteOf } = withPalettes(project, source, taken, over);
    const bones = [...project.rig.bones],
      parts = [...project.parts],
      clips = [...project.clips];
    for (const b of source.rig.bones) {
      const bone: Bone = {
        ...b,
        id: over(b.id),
        name: free(bones, b),
        parent: b.parent === null ? under : over(b.parent),
        rest: b.parent === null ? composeTransform(stand, b.rest) : b.rest,
      };
      bones.push(bone);
    }
    for (const p of taken) {
      const lead =
        p.twin && taken.some((o) => o.id === p.twin!.source) ? { ...p.twin, source: over(p.twin.source) } : null;
      parts.push({
        ...p,
        id: over(p.id),
        name: free(parts, p),
        palette: paletteOf(p.palette),
        layers: p.layers.map((l) => ({ ...l, id: over(l.id) })),
        regions: null,
        twin: lead,
        origin: null,
      });
    }
    const mounts = source.rig.mounts
      .filter((m) => taken.some((p) => p.id === m.part))
      .map((m): Mount => ({
        ...m,
        ...(m.bone === null ? composeTransform(stand, m) : {}),
        id: over(m.id),
        part: over(m.part),
        bone: m.bone === null ? under : over(m.bone),
        alternateSet: m.alternateSet && over(m.alternateSet),
      }));
    const alternateSets = source.rig.alternateSets
      .filter((s) => mounts.some((m) => m.alternateSet === over(s.id)))
      .map((s): AlternateSet => ({
        id: over(s.id),
        name: freeName(
          s.name,
          project.rig.alternateSets.map((o) => o.name),
        ),
        worn: s.worn !== null && mounts.some((m) => m.id === over(s.worn!)) ? over(s.worn) : null,
      }));
    const constraints = source.rig.constraints.map((c) => remapped(c, over));
    const attachments = source.rig.attachments.map((t) => ({
      ...t,
      id: over(t.id),
      bone: over(t.bone),
      name: free(project.rig.attachments, t),
    }));
    for (const c of source.clips.filter((o) => wantedClips.includes(o.id))) {
      const clip: Clip = {
        ...c,
        id: over(c.id),
        name: freeName(
          c.name,
          clips.map((o) => o.name),
        ),
        lanes: c.lanes.map((l) => ({ ...l, bone: over(l.bone) })),
        swaps: c.swaps
          .filter((l) => alternateSets.some((s) => s.id === over(l.alternateSet)))
          .map((l) => ({
            alternateSet: over(l.alternateSet),
            keys: l.keys.map((k) => ({ ...k, mount: k.mount && over(k.mount) })),
          })),
      };
      clips.push(clip);
    }
    const rig = project.rig;
    return {
      ...project,
      palettes,
      parts,
      clips,
      rig: {
        bones,
        mounts: [...rig.mounts, ...mounts],
        constraints: [...rig.constraints, ...constraints],
        attachments: [...rig.attachments, ...attachments],
        alternateSets: [...rig.alternateSets, ...alternateSets],
      },
    };
  },
});

function remapped(c: Constraint, over: Ids): Constraint {
  const out = { ...c, id: over(c.id), bone: over(c.bone) };
  switch (out.kind) {
    case 'ik':
      return { ...out, goal: over(out.goal), pole: out.pole && over(out.pole) };
    case 'match':
    case 'look':
      return { ...out, target: over(out.target) };
    default:
      return out;
  }
}

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
  label: (a) => `Replace ${a.pairs.length === 1 ? 'a part' : `${a.pairs.length} parts`} by those of ${a.source.name}`,
  touches: (a) => a.pairs.map((p) => p.part),
  run(project, { source, pairs }, ctx) {
    if (pairs.length === 0)
      throw new EditError(
        `No part of “${source.name}” bears the name of one here. Rename them alike, or bring them in beside.`,
      );
    const over = freshIds(ctx.newId);
    const { palettes, paletteOf } = withPalettes(
      project,
      source,
      pairs.map((p) => must(source.parts, p.by, 'part')),
      over,
    );
    let parts = project.parts;
    const bin = [...project.bin];
    for (const { part: id, by } of pairs) {
      const was = must(parts, id, 'part'),
        is = must(source.parts, by, 'part'),
        aside = ctx.newId();
      const kept = binItemOf(
        project,
        {
          ...was,
          id: aside,
          layers: was.layers.map((l) => ({ ...l, id: ctx.newId() })),
          regions: null,
          twin: null,
          origin: null,
        },
        ctx.newId(),
        ctx.now,
      );
      if (kept.kind === 'part')
        bin.push({
          ...kept,
          mounts: project.rig.mounts
            .filter((m) => m.part === id)
            .map((m) => ({ ...m, id: ctx.newId(), part: aside, alternateSet: null })),
        });
      parts = replaceRecord(parts, {
        ...is,
        id,
        name: was.name,
        side: was.side,
        hidden: was.hidden,
        palette: paletteOf(is.palette),
        layers: is.layers.map((l) => ({ ...l, id: ctx.newId() })),
        regions: null,
        twin: null,
        origin: null,
      });
    }
    return { ...project, palettes, parts, bin };
  },
});
