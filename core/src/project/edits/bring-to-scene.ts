import {
  type Extent,
  type Quat,
  type Transform,
  type Vec3,
  TRANSFORM_IDENTITY,
  add,
  composeTransform,
  rotate,
  sub,
} from '../../math';
import { type Id, type Placement, type Project, must } from '../../model';
import { gatherRig, listExtent } from '../../scene';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';
import { bringPartsEdit } from './bring-parts';
import { placeEdit, sceneName } from './scenes';

/** Where in a scene something from outside comes to stand. */
export interface Site {
  readonly scene: Id;
  readonly layer: Id;
  /** The middle of its foot; against a wall the middle of its back. */
  readonly t: Vec3;
  readonly q: Quat;
  readonly against: boolean;
}

/**
 * Parts that were made of a picture, a mesh or the like come to stand in a scene, as they stand to one another, and on no rig;
 * several hang on a group. For parts without bones: what is rigged comes as a project.
 *
 * @param into – the palette that takes their colours; null for one of their own
 */
export const bringToSceneEdit = defineEdit<{ source: Project; into: Id | null; site: Site }>({
  name: 'bringToScene',
  label: (a, p) =>
    say('label.bringToScene', { n: a.source.parts.length, name: a.source.name, scene: sceneName(p, a.site.scene) }),
  touches: (a) => [a.site.scene],
  run(project, { source, into, site }, ctx) {
    if (source.rig.bones.length > 0) throw new EditError('bringIn.rigged', { source: source.name });
    const all = bringPartsEdit.run(project, { source, into }, ctx);
    const had = new Set(project.parts.map((p) => p.id)),
      fresh = new Set(all.parts.flatMap((p) => (had.has(p.id) ? [] : [p.id])));
    const mounts = all.rig.mounts.filter((m) => fresh.has(m.part));
    const whole = listExtent(gatherRig(all).filter((i) => fresh.has(i.source.part ?? '')));
    const foot = whole ? footOf(whole, site.against) : ([0, 0, 0] as const);
    const at: Transform = { t: site.t, q: site.q, s: [1, 1, 1] };
    const one = mounts.length === 1;
    const parts = mounts.map(({ part, t, q, s }): Parameters<typeof placeEdit.run>[1]['placements'][number] => {
      const own = { t: sub(t, foot), q, s };
      return { shows: { kind: 'part', part }, layer: site.layer, ...(one ? composeTransform(at, own) : own) };
    });
    // What stands in scenes alone hangs on no mount.
    const free = { ...all, rig: { ...all.rig, mounts: all.rig.mounts.filter((m) => !fresh.has(m.part)) } };
    if (one) return placeEdit.run(free, { scene: site.scene, placements: parts }, ctx);
    const group: Partial<Placement> & Pick<Placement, 'shows'> = {
      ...{ ...TRANSFORM_IDENTITY, ...at, layer: site.layer, name: source.name },
      shows: { kind: 'group' },
    };
    const grouped = placeEdit.run(free, { scene: site.scene, placements: [group] }, ctx);
    const parent = must(grouped.scenes, site.scene, 'scene').placements.at(-1)!.at(-1)!.id;
    return placeEdit.run(grouped, { scene: site.scene, placements: parts.map((p) => ({ ...p, parent })) }, ctx);
  },
});

/** Where a body is set down by: the middle of its foot, or of its back. */
const footOf = ({ lo, hi }: Extent, against: boolean): Vec3 => [
  (lo[0] + hi[0]) / 2,
  against ? (lo[1] + hi[1]) / 2 : lo[1],
  against ? lo[2] : (lo[2] + hi[2]) / 2,
];

/** Where something with its anchor elsewhere stands so that its foot is at a site. */
export const standingAt = ({ t, q, against }: Site, extent: Extent | null): Pick<Transform, 't' | 'q'> =>
  extent ? { t: add(t, rotate(q, sub([0, 0, 0], footOf(extent, against)))), q } : { t, q };
