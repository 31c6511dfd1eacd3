import type { Exporter } from '../exporter';
import { glbExporter } from './glb';
import { paletteHexExporter } from './palette-hex';
import { paletteJsonExporter } from './palette-json';
import { paletteStripExporter } from './palette-strip';
import { pngExporter } from './png';
import { projectExporter } from './project';

/** Every kind of file that is written, in the order in which they are offered. */
export const EXPORTERS: readonly Exporter[] = [
  glbExporter,
  projectExporter,
  paletteJsonExporter,
  paletteHexExporter,
  paletteStripExporter,
  pngExporter,
];

export const exporterOf = (id: string): Exporter | undefined => EXPORTERS.find((e) => e.id === id);
