import { type Extent, type Vec3, type Transform, add, invertQuat, mapVec, placedExtent, rotate } from '../../math';
import { type Id, type Mount, type Project, must } from '../../model';
import { REST_POSE, placeParts, restWorld } from '../../rig';
import { gatherRig, listExtent } from '../../scene';
import { say } from '../../words';
import { EditError, defineEdit } from '../edit';

const heights = new WeakMap<Project, { readonly height: number | null }>();
/** How far the lowest cube of what stands at rest is above the floor, in project units: negative below it. Null for no cubes. Memoised. */
export function heightOverFloor(project: Project): number | null {
  let known = heights.get(project);
  if (!known) heights.set(project, (known = { height: listExtent(gatherRig(project))?.lo[1] ?? null }));
  return known.height;
}

const volumes = new WeakMap<Project, ReadonlyMap<Id, Extent>>();
/** The volume of every part in rig space at rest, hidden parts included; of a part that is there more than once, the first. Memoised. */
export function restVolumes(project: Project): ReadonlyMap<Id, Extent> {
  let known = volumes.get(project);
  if (!known) {
    const all = { ...project, parts: project.parts.map((p) => (p.hidden ? { ...p, hidden: false } : p)) };
    const found = placeParts(all, REST_POSE, 'all').map(
      ({ part, matrix }) => [part.id, placedExtent(matrix, part.bounds)] as const,
    );
    volumes.set(project, (known = new Map(found.reverse())));
  }
  return known;
}

const raised = <T extends Transform>(r: T, by: number): T => ({ ...r, t: add(r.t, [0, by, 0]) });

/**
 * Moves everything up or down until its lowest cube stands on the floor: bones that hang on none, parts that hang on none, and the
 * planes of mirrored twins. Clips are offsets from rest and go along.
 */
export const standOnFloorEdit = defineEdit<Record<string, never>>({
  name: 'standOnFloor',
  label: () => say('label.standOnFloor'),
  touches: () => [],
  run(project) {
    const height = heightOverFloor(project);
    if (height === null) throw new EditError('standing.noCubes');
    const by = -height;
    if (Math.abs(by) < 1e-9) return project;
    const { rig } = project;
    return {
      ...project,
      parts: project.parts.map((p) =>
        p.twin?.axis === 1 ? { ...p, twin: { ...p.twin, plane: p.twin.plane + by } } : p,
      ),
      rig: {
        ...rig,
        bones: rig.bones.map((b) => (b.parent === null ? { ...b, rest: raised(b.rest, by) } : b)),
        mounts: rig.mounts.map((m) => (m.bone === null ? raised(m, by) : m)),
      },
    };
  },
});

/** Moves a part by so much in rig space at rest, wherever it hangs; its bone stays. */
export const shiftPartEdit = defineEdit<{ part: Id; by: Vec3 }>({
  name: 'shiftPart',
  label: (a, p) => `Move ${must(p.parts, a.part, 'part').name}`,
  touches: (a) => [a.part],
  run(project, a) {
    must(project.parts, a.part, 'part');
    if (!a.by.every(Number.isFinite) || a.by.every((v) => v === 0)) return project;
    const world = restWorld(project.rig);
    const shifted = (m: Mount): Mount => {
      const bone = m.bone === null ? null : world.get(m.bone)!;
      const local = bone ? mapVec(rotate(invertQuat(bone.q), a.by), (v, i) => v / bone.s[i]!) : a.by;
      return { ...m, t: add(m.t, local) };
    };
    const mounts = project.rig.mounts.map((m) => (m.part === a.part ? shifted(m) : m));
    return { ...project, rig: { ...project.rig, mounts } };
  },
});
