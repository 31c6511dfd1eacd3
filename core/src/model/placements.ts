import { type Transform, TRANSFORM_IDENTITY, composeTransform } from '../math';
import { findIn } from './groups';
import type { Id } from './ids';
import type { Placement, Project, Scene } from './kinds';

/** All placements of a scene, in their order. */
export const placementsOf = (scene: Scene): Placement[] => scene.placements.flat();

const known = new WeakMap<readonly Scene[], ReadonlyMap<Id, number>>();
/** Placements that show each part, over all scenes: a change of it shows on so many. Counted once for each list of scenes. */
export function usersOfParts(scenes: readonly Scene[]): ReadonlyMap<Id, number> {
  const before = known.get(scenes);
  if (before) return before;
  const users = new Map<Id, number>();
  for (const scene of scenes)
    for (const group of scene.placements)
      for (const { shows } of group) if (shows.kind === 'part') users.set(shows.part, (users.get(shows.part) ?? 0) + 1);
  known.set(scenes, users);
  return users;
}

/** The scene that stands for a project that has no figure: its first; null where it has one, or neither. */
export const sceneByItself = ({ rig, scenes }: Pick<Project, 'rig' | 'scenes'>): Id | null =>
  rig.mounts.length === 0 ? (scenes[0]?.id ?? null) : null;

/** Where a placement stands in the world, through all that it hangs on; the world's own place where it is not there. */
export function worldOfPlacement(scene: Scene, id: Id): Transform {
  let world: Transform = TRANSFORM_IDENTITY;
  // A scene is a tree: what was read or made was checked for that.
  for (
    let at = findIn(scene.placements, id);
    at;
    at = at.parent === null ? undefined : findIn(scene.placements, at.parent)
  )
    world = composeTransform({ t: at.t, q: at.q, s: at.s }, world);
  return world;
}
