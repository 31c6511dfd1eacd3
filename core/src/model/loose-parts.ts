import { partsInUse } from './kept-aside';
import type { Part, Project } from './kinds';

/** The parts in use that hang on no bone, hidden ones included, in their order. */
export function looseParts({ parts, rig }: Pick<Project, 'parts' | 'rig'>): Part[] {
  const hung = new Set(rig.mounts.flatMap((m) => (m.bone === null ? [] : m.part)));
  return partsInUse(parts).filter((p) => !hung.has(p.id));
}
