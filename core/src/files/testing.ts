import type { Project } from '../model';
import { QUIET_JOB, gatherShipped, noteText, runExport } from '.';

/** The project's rig as a GLB, with its notes as sentences; for tests. */
export async function exportGlb(project: Project, options: object = {}) {
  const order = { exporter: 'glb', subject: { of: 'rig' }, options } as const;
  const { files, notes, counts } = await runExport(project, order, QUIET_JOB);
  return { result: files[0]!.bytes, notes: notes.map(noteText), counts };
}
export const planGlb = (project: Project) => gatherShipped(project, { of: 'rig' }).counts;
