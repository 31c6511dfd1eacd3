import * as z from 'zod';
import type { Exporter } from '../../exporter';
import { fileName } from '../../file-name';
import { inPieces } from '../../job';
import { PROJECT_EXTENSION, writeProjectSteps } from '../../project-file';

/** The whole project, to keep or pass on. */
export const projectExporter: Exporter<'project', object> = {
  id: 'project',
  name: 'Project file',
  noun: 'project file (.sphal)',
  about: '.sphal, to keep or pass on',
  takes: 'project',
  extensions: [PROJECT_EXTENSION],
  type: 'application/octet-stream',
  options: z.strictObject({}),
  plan: ({ parts, rig, clips, shots }) => ({
    counts: { parts: parts.length, bones: rig.bones.length, clips: clips.length, shots: shots.length },
    notes: [],
  }),
  async write(project, _, job) {
    const bytes = await inPieces(writeProjectSteps(project), job);
    return { files: [{ name: fileName(project.name) + PROJECT_EXTENSION, bytes }], notes: [] };
  },
};
