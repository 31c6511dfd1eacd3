import * as z from 'zod';
import { type Importer, oneEach } from '../../importer';
import { inPieces } from '../../job';
import { PROJECT_EXTENSION, readProjectSteps } from '../../project-file';

/** A whole project, onto the shelf. */
export const projectImporter: Importer<object> = {
  id: 'project',
  does: 'Put the project on the shelf',
  extensions: [PROJECT_EXTENSION],
  needs: 'nothing',
  options: z.strictObject({}),
  accepts: (head, name) => (head[0] === 0x50 && head[1] === 0x4b) || name.toLowerCase().endsWith(PROJECT_EXTENSION),
  inspect: oneEach,
  async run({ files }, _, job) {
    const { result, notes } = await inPieces(readProjectSteps(files[0]!.bytes), job);
    return { brought: { kind: 'project', project: result }, notes };
  },
};
