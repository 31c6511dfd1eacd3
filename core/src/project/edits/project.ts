import { type Id, type Kind, type Target, must } from '../../model';
import { binName, putBack, recordOf, recordToBin } from '../bin';
import { EditError, defineEdit } from '../edit';

export const renameProjectEdit = defineEdit<{ name: string }>({
  name: 'renameProject',
  label: (a) => `Rename the project to ${a.name}`,
  touches: () => [],
  run(project, a) {
    const name = a.name.trim();
    if (name === '' || name.length > 120) throw new EditError('name.length');
    return name === project.name ? project : { ...project, name };
  },
});

export const setProjectEdit = defineEdit<{ kind?: Kind; metresPerUnit?: number; target?: Partial<Target> }>({
  name: 'setProject',
  risky: (a) => a.kind !== undefined,
  label: () => 'Change the project',
  touches: () => [],
  run(project, a) {
    if (a.metresPerUnit !== undefined && !(a.metresPerUnit > 0)) throw new EditError('project.cube');
    const target = { ...project.target, ...a.target };
    if (Object.values(target).some((v) => !(v >= 0))) throw new EditError('project.target');
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
    return putBack(project, must(project.bin, a.item, 'thing in the bin'));
  },
});

/** To the bin, whatever kind of record it is that stands in a list by itself. */
export const deleteRecordEdit = defineEdit<{ kind: string; id: Id }>({
  name: 'deleteRecord',
  label: (a, p) => `Delete ${a.kind} ${recordOf(p, a.kind, a.id).name ?? ''}`,
  touches: (a) => [a.id],
  run: (project, a, ctx) => recordToBin(project, a.kind, a.id, ctx),
});
