import { type Id, type Kind, type Project, type Target, constraintTargets, find, freeName, must } from '../../model';
import { hungOn, reparentKeepingPlace, solveOrder } from '../../rig';
import { EditError, defineEdit } from '../edit';

export const renameProjectEdit = defineEdit<{ name: string }>({
  name: 'renameProject',
  label: (a) => `Rename the project to ${a.name}`,
  touches: () => [],
  run(project, a) {
    const name = a.name.trim();
    if (name === '' || name.length > 120) throw new EditError('A name needs 1 to 120 characters.');
    return name === project.name ? project : { ...project, name };
  },
});

export const setProjectEdit = defineEdit<{ kind?: Kind; metresPerUnit?: number; target?: Partial<Target> }>({
  name: 'setProject',
  label: () => 'Change the project',
  touches: () => [],
  run(project, a) {
    if (a.metresPerUnit !== undefined && !(a.metresPerUnit > 0))
      throw new EditError('A cube needs a size above zero metres.');
    const target = { ...project.target, ...a.target };
    if (Object.values(target).some((v) => !(v >= 0)))
      throw new EditError('A target is a number of zero or more; zero means no limit.');
    return {
      ...project,
      kind: a.kind ?? project.kind,
      metresPerUnit: a.metresPerUnit ?? project.metresPerUnit,
      target,
    };
  },
});

/** Puts something from the bin back, with its mounts, children and keys as far as these still exist. */
export const restoreEdit = defineEdit<{ item: Id }>({
  name: 'restore',
  label: (a, p) => `Restore ${binName(p, a.item)}`,
  touches: (a) => [a.item],
  run(project, a) {
    const item = must(project.bin, a.item, 'thing in the bin');
    const p: Project = { ...project, bin: project.bin.filter((b) => b.id !== a.item) };
    switch (item.kind) {
      case 'part': {
        const name = freeName(
          item.part.name,
          p.parts.filter((o) => o.side === item.part.side).map((o) => o.name),
        );
        const mounts = item.mounts.map((m) =>
          m.bone !== null && !find(p.rig.bones, m.bone) ? { ...m, bone: null } : m,
        );
        return {
          ...p,
          references: [...p.references, ...item.references],
          parts: [...p.parts, { ...item.part, name }],
          rig: { ...p.rig, mounts: [...p.rig.mounts, ...mounts] },
        };
      }
      case 'bone': {
        const parent = find(p.rig.bones, item.bone.parent) ? item.bone.parent : null;
        const name = freeName(
          item.bone.name,
          p.rig.bones.filter((b) => b.side === item.bone.side).map((b) => b.name),
        );
        let rig = {
          ...p.rig,
          attachments: [...p.rig.attachments, ...item.attachments],
          bones: [...p.rig.bones, { ...item.bone, name, parent }],
          mounts: p.rig.mounts.map((m) =>
            m.bone === null && item.mounts.includes(m.id)
              ? hungOn(m, item.bone.id, { ...p.rig, bones: [...p.rig.bones, { ...item.bone, parent }] })
              : m,
          ),
        } as Project['rig'];
        for (const c of item.children)
          if (find(rig.bones, c)?.parent === parent) rig = reparentKeepingPlace(rig, c, item.bone.id);
        // What steered it comes back too, where that makes no circle with what was made since.
        const whole = item.constraints.filter((c) =>
          [c.bone, ...constraintTargets(c)].every((b) => find(rig.bones, b)),
        );
        const steered = { ...rig, constraints: [...rig.constraints, ...whole] };
        if (solveOrder(steered)) rig = steered;
        const clips = p.clips.map((c) => ({
          ...c,
          lanes: [...c.lanes, ...item.lanes.filter((l) => l.clip === c.id).map((l) => l.lane)],
        }));
        return { ...p, rig, clips };
      }
      case 'clip':
        return {
          ...p,
          clips: [
            ...p.clips,
            {
              ...item.clip,
              name: freeName(
                item.clip.name,
                p.clips.map((c) => c.name),
              ),
            },
          ],
        };
      case 'shot':
        return {
          ...p,
          shots: [
            ...p.shots,
            {
              ...item.shot,
              name: freeName(
                item.shot.name,
                p.shots.map((s) => s.name),
              ),
            },
          ],
        };
      case 'colourway': {
        // Swatches that went meanwhile take their changes with them.
        const changes = item.colourway.changes.filter((c) =>
          find(p.palettes, c.palette)?.swatches.some((s) => s.byte === c.byte),
        );
        return {
          ...p,
          colourways: [
            ...p.colourways,
            {
              ...item.colourway,
              changes,
              name: freeName(
                item.colourway.name,
                p.colourways.map((c) => c.name),
              ),
            },
          ],
        };
      }
    }
  },
});

/** What a thing in the bin was called. */
export function binName(project: Project, id: Id): string {
  const item = find(project.bin, id);
  if (!item) return 'something';
  switch (item.kind) {
    case 'part':
      return item.part.name;
    case 'bone':
      return item.bone.name;
    case 'clip':
      return item.clip.name;
    case 'shot':
      return item.shot.name;
    case 'colourway':
      return item.colourway.name;
  }
}
