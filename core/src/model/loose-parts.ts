import { partsInUse } from './kept-aside';
import type { Part, Project } from './kinds';
import { usersOfParts } from './placements';

/** The parts in use that hang on no bone and stand in no scene, hidden ones included, in their order. */
export function looseParts({ parts, rig, scenes }: Pick<Project, 'parts' | 'rig' | 'scenes'>): Part[] {
  const hung = new Set(rig.mounts.flatMap((m) => (m.bone === null ? [] : m.part))),
    placed = usersOfParts(scenes);
  return partsInUse(parts).filter((p) => !hung.has(p.id) && !placed.has(p.id));
}
