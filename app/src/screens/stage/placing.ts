import { type Extent, uniteExtents } from '@sphalerite/core/math';
import { type Id, type Placement, type Project, type Scene, find } from '@sphalerite/core/model';
import { addSceneEdit, apply, editContext, placeEdit } from '@sphalerite/core/project';
import { type DrawList, gather, instanceExtent, listExtent } from '@sphalerite/core/scene';
import { useSession } from '../../stores/session';
import { type Landing } from './landing';

type Shown = Placement['shows'];

const extents = new WeakMap<Project, Map<string, Extent | null>>();
/** The box of what would be placed, about its anchor, in project units; remembered for as long as the project stays as it is. */
export function shownExtent(project: Project, shows: Shown): Extent | null {
  let known = extents.get(project);
  if (!known) extents.set(project, (known = new Map()));
  const key = JSON.stringify(shows);
  if (!known.has(key)) {
    const empty = apply({ ...project, scenes: [] }, addSceneEdit, { name: 'One' }, editContext('extent'));
    const scene = empty.scenes[0]!.id;
    const one = apply(empty, placeEdit, { scene, placements: [{ shows }] }, editContext('extent'));
    known.set(key, listExtent(gather(one, { of: 'scene', scene })));
  }
  return known.get(key)!;
}

/** Makes a first scene where the project has none; gives whether there is one. */
export function mustHaveScene(): boolean {
  const session = useSession();
  return session.scene !== null || session.apply(addSceneEdit, { name: 'Scene' });
}
/** The layer that something new lies on. */
export const freeLayer = (scene: Scene): Id =>
  (scene.layers.find((l) => !l.locked && !l.hidden) ?? scene.layers[0]!).id;

/** Puts something down; it is chosen then. In a first scene of the project where there is none. */
export function putDown(shows: Shown, { t, q }: Pick<Landing, 't' | 'q'>): void {
  const session = useSession();
  if (!mustHaveScene()) return;
  const scene = session.scene!;
  session.apply(placeEdit, { scene: scene.id, placements: [{ shows, t, q, layer: freeLayer(scene) }] }, (p) => ({
    placement: find(p.scenes, scene.id)!.placements.flat().at(-1)!.id,
  }));
}

/** What of a list belongs to placements, with what hangs on them and repeats them. */
export function shownOf(scene: Scene, list: DrawList, ids: readonly Id[]): DrawList {
  const parents = new Map(scene.placements.flat().map((p) => [p.id, p.parent]));
  const wanted = new Set(ids);
  const isMine = (id: Id | undefined): boolean => {
    for (let at: Id | null | undefined = id; at; at = parents.get(at)) if (wanted.has(at)) return true;
    return false;
  };
  return list.filter((i) => isMine(i.source.path[0]));
}

export const extentOfList = (list: DrawList): Extent | null =>
  list.reduce<Extent | null>((all, i) => uniteExtents(all, instanceExtent(i)), null);
