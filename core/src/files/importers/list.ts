import type { Importer } from '../importer';
import { deliveryImporter } from './delivery';
import { grownImporters } from './grown';
import { heightsImporter } from './height';
import { meshImporter } from './mesh';
import { paletteImporter } from './palette';
import { piecesImporter } from './pieces';
import { pictureImporter } from './picture';
import { projectImporter } from './project';
import { referenceImporter } from './reference';
import { slicesImporter } from './slices';
import { surroundingsImporter } from './surroundings';

/** Every use for files that are given, in the order in which they are offered. */
export const IMPORTERS: readonly Importer[] = [
  projectImporter,
  piecesImporter,
  deliveryImporter,
  pictureImporter,
  heightsImporter,
  meshImporter,
  slicesImporter,
  referenceImporter,
  paletteImporter,
  surroundingsImporter,
  ...grownImporters,
];

export const importerOf = (id: string): Importer | undefined => IMPORTERS.find((i) => i.id === id);
