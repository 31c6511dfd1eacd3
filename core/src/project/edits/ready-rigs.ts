import { say } from '../../words';
import { type Id, type Project, looseParts } from '../../model';
import { partsToBin } from '../bin';
import { type EditContext, EditError, defineEdit } from '../edit';
import { sealOf } from '../seal';
import { checkName } from './names';

/** Keeps bones, what steers them, and clips from accident; joints may still move by `range` project units. Parts are free. */
export const sealRigEdit = defineEdit<{ name: string; range: number }>({
  name: 'sealRig',
  label: (a) => `Seal the rig as ${a.name}`,
  touches: () => [],
  run(project, a) {
    if (project.rig.bones.length === 0) throw new EditError('readyRigs.noBones');
    if (!(a.range >= 0)) throw new EditError('readyRigs.range');
    return { ...project, seal: sealOf(project, checkName(a.name), a.range) };
  },
});

export const unsealRigEdit = defineEdit<Record<string, never>>({
  name: 'unsealRig',
  risky: () => true,
  label: () => 'Unseal the rig',
  touches: () => [],
  run: (project) => (project.seal ? { ...project, seal: null } : project),
});

/** To the bin with every part that `which` takes. */
const withoutParts = (project: Project, which: (part: Id) => boolean, ctx: EditContext): Project =>
  partsToBin(
    project,
    project.parts.filter((p) => which(p.id)),
    ctx,
  );

/** Every part to the bin; bones and clips stay, to be filled anew. */
export const emptyRigEdit = defineEdit<Record<string, never>>({
  name: 'emptyRig',
  risky: () => true,
  label: () => 'Empty the rig of its parts',
  touches: () => [],
  run: (project, _a, ctx) => withoutParts(project, () => true, ctx),
});

/** Every part that hangs on no bone to the bin. */
export const deleteUnmountedEdit = defineEdit<Record<string, never>>({
  name: 'deleteUnmounted',
  risky: () => true,
  label: (_a, p) => say('label.deleteUnmounted', { n: looseParts(p).length }),
  touches: () => [],
  run(project, _a, ctx) {
    const loose = new Set(looseParts(project).map((p) => p.id));
    return withoutParts(project, (id) => loose.has(id), ctx);
  },
});
