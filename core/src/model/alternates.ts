import type { Id } from './ids';
import { find } from './records';
import type { Mount, Project, Rig, AlternateSet } from './kinds';

/** Whether a mount is there: always, or as what its set of alternates wears. */
export const isWorn = (rig: Pick<Rig, 'alternateSets'>, mount: Mount): boolean =>
  mount.alternateSet === null || find(rig.alternateSets, mount.alternateSet)?.worn === mount.id;

/** The mounts of a set of alternates, in the order of the rig. */
export const mountsOf = (rig: Rig, alternateSet: Id): Mount[] =>
  rig.mounts.filter((m) => m.alternateSet === alternateSet);

const withAlternateSets = (project: Project, alternateSets: readonly AlternateSet[]): Project => ({
  ...project,
  rig: { ...project.rig, alternateSets },
});

/** The project with other mounts worn, by set of alternates; the same one when nothing differs. */
export function wearing(project: Project, worn: ReadonlyMap<Id, Id | null>): Project {
  const differs = (s: AlternateSet): boolean => worn.has(s.id) && worn.get(s.id) !== s.worn;
  return project.rig.alternateSets.some(differs)
    ? withAlternateSets(
        project,
        project.rig.alternateSets.map((s) => (differs(s) ? { ...s, worn: worn.get(s.id)! } : s)),
      )
    : project;
}

/** The project with a part there, though its set of alternates wears another, as it is seen while one works on it. */
export function showingPart(project: Project, part: Id | null): Project {
  const worn = new Map<Id, Id | null>();
  for (const m of project.rig.mounts) if (m.part === part && m.alternateSet !== null) worn.set(m.alternateSet, m.id);
  return worn.size === 0 ? project : wearing(project, worn);
}

/** sets of alternates that wore something that is gone wear the first of what is left. */
export function keepWorn(project: Project): Project {
  const { alternateSets, mounts } = project.rig;
  const lost = (s: AlternateSet): boolean =>
    s.worn !== null && !mounts.some((m) => m.id === s.worn && m.alternateSet === s.id);
  return alternateSets.some(lost)
    ? withAlternateSets(
        project,
        alternateSets.map((s) =>
          lost(s) ? { ...s, worn: mounts.find((m) => m.alternateSet === s.id)?.id ?? null } : s,
        ),
      )
    : project;
}
