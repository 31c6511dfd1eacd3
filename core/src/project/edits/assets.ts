import { type Asset, type Id, type Project, changed, freeName, must, placementsOf, replaceRecord } from '../../model';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';

/** What of a project goes along when it is embedded: all that its figure needs, and not what it keeps for itself. */
const embedded = (project: Project): Project => ({
  ...project,
  ...{ scenes: [], assets: [], shots: [], bin: [], restorePoints: [], imports: [], references: [] },
  parts: project.parts.map((p) => (p.made ? { ...p, made: null } : p)),
});

/** A project as it stands in scenes of another. */
export const assetOf = (project: Project, id: Id, name: string, revision: string): Asset => ({
  ...{ id, name, source: { project: project.id, revision } },
  project: embedded(project),
});

/** Takes a whole project into this one, as it is now, to stand in scenes. */
export const embedProjectEdit = defineEdit<{ project: Project; revision: string }>({
  name: 'embedProject',
  label: (a) => say('label.embedProject', { name: a.project.name }),
  touches: () => [],
  run(project, a, ctx) {
    if (a.project.id === project.id) throw new EditError('assets.itself', { name: project.name });
    const shown = new Set(a.project.rig.mounts.map((m) => m.part));
    if (a.project.parts.every((p) => !shown.has(p.id) || p.layers.every((l) => l.grid.count === 0)))
      throw new EditError('assets.empty', { name: a.project.name });
    const names = project.assets.map((o) => o.name);
    const asset = assetOf(a.project, ctx.newId(), freeName(a.project.name, names), a.revision);
    return { ...project, assets: [...project.assets, asset] };
  },
});

/** What differs between an embedded project and another form of it. */
export interface AssetChanges {
  /** Names of parts that are new, gone or of other cubes. */
  readonly parts: readonly string[];
  readonly clips: readonly string[];
  readonly rig: boolean;
  readonly colours: boolean;
}
export function assetChanges({ project: old }: Asset, now: Project): AssetChanges {
  const differing = <T extends { id: Id; name: string }>(
    a: readonly T[],
    b: readonly T[],
    same: (x: T, y: T) => boolean,
  ) => [
    ...b.filter((x) => !a.some((y) => y.id === x.id && same(y, x))).map((x) => x.name),
    ...a.filter((x) => !b.some((y) => y.id === x.id)).map((x) => x.name),
  ];
  const json = (v: unknown): string => JSON.stringify(v);
  return {
    parts: differing(
      old.parts,
      now.parts,
      (a, b) => a.layers.length === b.layers.length && a.layers.every((l, i) => l.grid.equals(b.layers[i]!.grid)),
    ),
    clips: differing(old.clips, now.clips, (a, b) => json(a) === json(b)),
    rig: json(old.rig) !== json(now.rig),
    colours: json([old.palettes, old.colourways]) !== json([now.palettes, now.colourways]),
  };
}
export const isSameAsset = ({ parts, clips, rig, colours }: AssetChanges): boolean =>
  parts.length === 0 && clips.length === 0 && !rig && !colours;

/** Brings an embedded project up to date; what stands stays where it is, at rest where its clip is gone. */
export const refreshAssetEdit = defineEdit<{ asset: Id; project: Project; revision: string }>({
  name: 'refreshAsset',
  label: (a, p) => say('label.refreshAsset', { name: must(p.assets, a.asset, 'asset').name }),
  touches: (a) => [a.asset],
  run(project, a) {
    const asset = must(project.assets, a.asset, 'asset');
    if (a.project.id === project.id) throw new EditError('assets.itself', { name: project.name });
    const clips = new Set(a.project.clips.map((c) => c.id));
    const next: Asset = {
      ...asset,
      source: { project: a.project.id, revision: a.revision },
      project: embedded(a.project),
    };
    const scenes = project.scenes.map((scene) => {
      const lost = placementsOf(scene).flatMap((p) =>
        p.shows.kind === 'asset' && p.shows.asset === a.asset && p.shows.clip !== null && !clips.has(p.shows.clip)
          ? [p.id]
          : [],
      );
      if (lost.length === 0) return scene;
      return {
        ...scene,
        placements: changed(scene.placements, new Set(lost), (p) =>
          p.shows.kind === 'asset' ? { ...p, shows: { ...p.shows, clip: null, time: 0 } } : p,
        ),
      };
    });
    return { ...project, assets: replaceRecord(project.assets, next), scenes };
  },
});

/** Lets an embedded project go that stands in no scene. */
export const removeAssetEdit = defineEdit<{ asset: Id }>({
  name: 'removeAsset',
  label: (a, p) => say('label.removeAsset', { name: must(p.assets, a.asset, 'asset').name }),
  touches: (a) => [a.asset],
  run(project, a) {
    const asset = must(project.assets, a.asset, 'asset');
    const n = project.scenes
      .flatMap(placementsOf)
      .filter((p) => p.shows.kind === 'asset' && p.shows.asset === a.asset).length;
    if (n > 0) throw new EditError('assets.stands', { name: asset.name, n });
    return { ...project, assets: project.assets.filter((o) => o !== asset) };
  },
});
