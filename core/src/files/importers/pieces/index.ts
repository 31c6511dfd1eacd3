import type { Importer } from '../../importer';
import { projectImporter } from '../project';

/** A project that parts, bones, clips and the like are taken out of; which, is chosen where it arrives. */
export const piecesImporter: Importer<object> = {
  ...projectImporter,
  id: 'pieces',
  does: 'Take parts, bones, clips or colours from it',
  needs: 'project',
};
