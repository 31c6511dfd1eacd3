import type { Id, Placement, Project } from '../../model';
import { say } from '../../words';
import { type RecordName, withRecordsOf } from '../bringing';
import { type EditContext, EditError, defineEdit } from '../edit';
import { type BringAt, bringRigEdit, partsOfSameName, replacePartsEdit } from './bring-in';
import { assetOf, embedProjectEdit } from './assets';
import { bringPartsEdit, withoutParts } from './bring-parts';

/** What of another project comes, and how. */
export interface TakenPieces {
  readonly source: Project;
  /** Parts, clips, scenes, palettes, stamps and delivery profiles. */
  readonly pieces: readonly RecordName[];
  /** Parts of the source that take the place of those here of the same name and side. */
  readonly inPlace: readonly Id[];
  /** Its bones, hung at `at`, with the parts on them and what steers them; without them parts stand beside. */
  readonly bones: boolean;
  readonly at: BringAt;
  /** All of it as one asset, for scenes. */
  readonly whole: boolean;
}

/** Takes pieces of another project over, with all that they name. Names that are taken get a number; equal palettes are shared. */
export const bringPiecesEdit = defineEdit<TakenPieces>({
  name: 'bringPieces',
  risky: (a) => a.bones || a.inPlace.length > 0,
  label: (a) => say('label.bringPieces', { source: a.source.name }),
  touches: () => [],
  run(project, { source, pieces, inPlace, bones, at, whole }, ctx) {
    const of = (kind: string): Id[] => pieces.filter((p) => p.kind === kind).map((p) => p.id);
    const clips = of('clip'),
      pairs = partsOfSameName(project, source).filter((o) => inPlace.includes(o.by.id)),
      parts = of('part').filter((id) => !pairs.some((o) => o.by.id === id));
    if (clips.length > 0 && !bones) throw new EditError('pieces.clipsNeedBones', { source: source.name });
    if (pieces.length === 0 && pairs.length === 0 && !bones && !whole)
      throw new EditError('bringIn.nothing', { source: source.name });
    let p = project;
    if (whole) p = embedProjectEdit.run(p, { project: source, revision: '' }, ctx);
    if (pairs.length > 0)
      p = replacePartsEdit.run(p, { source, pairs: pairs.map((o) => ({ part: o.part.id, by: o.by.id })) }, ctx);
    if (bones) p = bringRigEdit.run(p, { source, at, parts, clips }, ctx);
    else if (parts.length > 0) p = bringPartsEdit.run(p, { source: onlyParts(source, parts), into: null }, ctx);
    const others = pieces.filter((o) => o.kind !== 'part' && o.kind !== 'clip');
    return others.length > 0 ? withRecordsOf(p, withFigureApart(source, of('scene'), ctx), others, ctx.newId) : p;
  },
});

/** A figure that stands in scenes of its own project stands in those of another as that project. */
function withFigureApart(source: Project, scenes: readonly Id[], ctx: EditContext): Project {
  const isFigure = (p: Placement): boolean => p.shows.kind === 'rig';
  if (!source.scenes.some((s) => scenes.includes(s.id) && s.placements.flat().some(isFigure))) return source;
  const asset = assetOf(source, ctx.newId(), source.name, '');
  const apart = (p: Placement): Placement =>
    p.shows.kind === 'rig' ? { ...p, shows: { ...p.shows, kind: 'asset', asset: asset.id } } : p;
  return {
    ...source,
    assets: [...source.assets, asset],
    scenes: source.scenes.map((s) => ({ ...s, placements: s.placements.map((group) => group.map(apart)) })),
  };
}

const onlyParts = (source: Project, parts: readonly Id[]): Project =>
  withoutParts(source, new Set(source.parts.filter((p) => !parts.includes(p.id)).map((p) => p.id)));
