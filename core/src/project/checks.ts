import { type Id, type Project, composite, constraintTargets, sideSuffix } from '../model';

/** Steps of the work that a finding leads to. */
export type CheckStep = 'build' | 'rig' | 'animate';

/** Something that would trouble an artist later, in plain words, with where to mend it. */
export interface Finding {
  readonly text: string;
  readonly step: CheckStep;
  /** The record it is about. */
  readonly id: Id;
}

const quoted = (r: { name: string; side: Parameters<typeof sideSuffix>[0] }): string => `“${r.name}${sideSuffix(r.side)}”`;

/** Parts on no bone or on two, bones that carry nothing. */
export function checkRig(project: Project): Finding[] {
  const { bones, mounts, constraints } = project.rig;
  const controls = new Set(constraints.flatMap(constraintTargets));
  const out: Finding[] = [];
  for (const part of project.parts) {
    const on = mounts.filter((m) => m.part === part.id && m.bone !== null).length;
    if (bones.length > 0 && on === 0) out.push({ text: `${quoted(part)} hangs on no bone, so no clip moves it.`, step: 'rig', id: part.id });
    if (on > 1) out.push({ text: `${quoted(part)} hangs on ${on} bones.`, step: 'rig', id: part.id });
  }
  for (const b of bones) {
    // A control carries nothing: it steers.
    if (!mounts.some((m) => m.bone === b.id) && !bones.some((o) => o.parent === b.id) && !controls.has(b.id)) out.push({ text: `${quoted(b)} carries nothing.`, step: 'rig', id: b.id });
  }
  return out;
}

/** All that a game file would leave out or that would stand still in it. */
export function checkProject(project: Project): Finding[] {
  return [
    ...checkRig(project),
    ...project.parts.filter((p) => composite(p).count === 0).map((p): Finding => ({ text: `${quoted(p)} is empty and stays out of the file.`, step: 'build', id: p.id })),
    ...project.clips.filter((c) => c.lanes.length === 0).map((c): Finding => ({ text: `Clip “${c.name}” has no keys and stays out of the file.`, step: 'animate', id: c.id })),
  ];
}
