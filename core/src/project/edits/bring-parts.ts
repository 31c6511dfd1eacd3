import { composeTransform } from '../../math';
import {
  type Id,
  type Part,
  type Project,
  clipKind,
  composite,
  freeName,
  groupsOfParts,
  mapIds,
  must,
  partKind,
  rigKind,
} from '../../model';
import { appended } from '../../palette';
import { gatherRig, listExtent } from '../../scene';
import { byteTable, mapBytes } from '../../voxel';
import { say } from '../../words';
import { freeAmong, freshIds, withImportsOf, withPalettes } from '../bringing';
import { EditError, defineEdit } from '../edit';

/**
 * Parts that were made of a picture, a mesh or the like, as a small project of their own, come to stand beside what is there, on the
 * bones and with the clips that came with them.
 *
 * @param into – the palette that takes their colours; null for one of their own, or the equal one that is there
 */
export const bringPartsEdit = defineEdit<{ source: Project; into: Id | null }>({
  name: 'bringParts',
  label: (a) => say('label.bringParts', { n: a.source.parts.length, name: a.source.parts[0]?.name ?? '' }),
  touches: () => [],
  run(project, { source, into }, ctx) {
    if (source.parts.length === 0) throw new EditError('bringIn.nothing', { source: source.name });
    const own = into === null ? null : united(project, source, into);
    const { palettes, ids } = own
      ? { palettes: own.palettes, ids: withPalette(freshIds(ctx.newId), into!) }
      : withPalettes(
          project,
          source,
          source.parts.map((p) => p.palette),
          freshIds(ctx.newId),
        );
    // The empty part that a project begins with gives way.
    const only = project.parts.length === 1 ? project.parts[0]! : null;
    const gone = only && composite(only).count === 0 && project.rig.mounts.every((m) => m.bone === null) ? only : null;
    const kept = gone ? [] : project.parts;
    const here = groupsOfParts(kept),
      groups = new Map(groupsOfParts(source.parts).map((g) => [g, freeName(g, here)]));
    const parts = source.parts.reduce<readonly Part[]>((all, p) => {
      const recoloured = own ? { ...p, layers: p.layers.map((l) => ({ ...l, grid: mapBytes(l.grid, own.table) })) } : p;
      const part = mapIds(partKind.schema, recoloured, ids);
      return [...all, { ...part, name: freeAmong(all, part), group: part.group && groups.get(part.group)! }];
    }, kept);
    const shift = { t: [beside(project, source), 0, 0] as const, q: [0, 0, 0, 1] as const, s: [1, 1, 1] as const };
    const rig = mapIds(rigKind.schema, { ...source.rig, constraints: [] }, ids);
    return {
      ...withImportsOf(project, source, source.parts, ids),
      palettes,
      parts,
      rig: {
        ...project.rig,
        bones: rig.bones.reduce(
          (all, b) => [
            ...all,
            { ...b, name: freeAmong(all, b), rest: b.parent === null ? composeTransform(shift, b.rest) : b.rest },
          ],
          project.rig.bones,
        ),
        mounts: [
          ...project.rig.mounts.filter((m) => m.part !== gone?.id),
          ...rig.mounts.map((m) => (m.bone === null ? { ...m, ...composeTransform(shift, m) } : m)),
        ],
        attachments: rig.attachments.reduce(
          (all, t) => [...all, { ...t, name: freeAmong(all, t) }],
          project.rig.attachments,
        ),
        alternateSets: rig.alternateSets.reduce(
          (all, s) => [...all, { ...s, name: freeAmong(all, s) }],
          project.rig.alternateSets,
        ),
      },
      clips: source.clips.reduce((all, c) => {
        const clip = mapIds(clipKind.schema, c, ids);
        return [...all, { ...clip, name: freeAmong(all, clip) }];
      }, project.clips),
    };
  },
});

const withPalette =
  (ids: ReturnType<typeof freshIds>, palette: Id): ReturnType<typeof freshIds> =>
  (old, of) =>
    of === 'palette' ? palette : ids(old, of);

/** The project's palettes with the colours of another project in one of them, and which byte each gets there. */
function united(project: Project, source: Project, into: Id) {
  const target = must(project.palettes, into, 'palette'),
    theirs = must(source.palettes, source.parts[0]!.palette, 'palette');
  const { swatches, bytes, left } = appended(target, theirs.swatches);
  if (left > 0) throw new EditError('bringIn.paletteFull', { palette: target.name, now: left });
  const to = new Map(theirs.swatches.map((s, i) => [s.byte, bytes[i]!]));
  return {
    palettes: project.palettes.map((p) => (p === target ? { ...p, swatches } : p)),
    table: byteTable((b) => to.get(b) ?? b),
  };
}

/** How far to the side new parts stand, so that they stand in nothing. */
function beside(project: Project, source: Project): number {
  const there = listExtent(gatherRig(project)),
    come = listExtent(gatherRig(source));
  return there && come ? Math.ceil(there.hi[0]) + 2 - Math.floor(come.lo[0]) : 0;
}

/** What of a project is none of some parts: without bones and clips, each where it stands. */
export function withoutParts(source: Project, gone: ReadonlySet<Id>): Project {
  const parts = source.parts.filter((p) => !gone.has(p.id));
  return {
    ...source,
    parts,
    rig: {
      ...source.rig,
      bones: [],
      attachments: [],
      constraints: [],
      alternateSets: [],
      mounts: source.rig.mounts.flatMap((m) => (gone.has(m.part) ? [] : [{ ...m, bone: null, alternateSet: null }])),
    },
    clips: [],
  };
}
