import type { Id } from './ids';
import { find } from './records';
import type { Mount, Project, Rig, Slot } from './types';

/** Whether a mount is there: always, or as what its slot wears. */
export const isWorn = (rig: Pick<Rig, 'slots'>, mount: Mount): boolean =>
  mount.slot === null || find(rig.slots, mount.slot)?.worn === mount.id;

/** The mounts of a slot, in the order of the rig. */
export const mountsOf = (rig: Rig, slot: Id): Mount[] => rig.mounts.filter((m) => m.slot === slot);

const withSlots = (project: Project, slots: readonly Slot[]): Project => ({
  ...project,
  rig: { ...project.rig, slots },
});

/** The project with other mounts worn, by slot; the same one when nothing differs. */
export function wearing(project: Project, worn: ReadonlyMap<Id, Id | null>): Project {
  const differs = (s: Slot): boolean => worn.has(s.id) && worn.get(s.id) !== s.worn;
  return project.rig.slots.some(differs)
    ? withSlots(
        project,
        project.rig.slots.map((s) => (differs(s) ? { ...s, worn: worn.get(s.id)! } : s)),
      )
    : project;
}

/** The project with a part there, though its slot wears another, as it is seen while one works on it. */
export function showingPart(project: Project, part: Id | null): Project {
  const worn = new Map<Id, Id | null>();
  for (const m of project.rig.mounts) if (m.part === part && m.slot !== null) worn.set(m.slot, m.id);
  return worn.size === 0 ? project : wearing(project, worn);
}

/** Slots that wore something that is gone wear the first of what is left. */
export function keepWorn(project: Project): Project {
  const { slots, mounts } = project.rig;
  const lost = (s: Slot): boolean => s.worn !== null && !mounts.some((m) => m.id === s.worn && m.slot === s.id);
  return slots.some(lost)
    ? withSlots(
        project,
        slots.map((s) => (lost(s) ? { ...s, worn: mounts.find((m) => m.slot === s.id)?.id ?? null } : s)),
      )
    : project;
}
