import type { Exporter } from '../exporter';
import { cubesExporter } from './cubes';
import { exrExporter } from './exr';
import { framesExporter } from './frames';
import { gifExporter } from './gif';
import { glbExporter } from './glb';
import { gltfExporter } from './gltf';
import { jpegExporter } from './jpeg';
import { objExporter } from './obj';
import { paletteHexExporter } from './palette-hex';
import { paletteJsonExporter } from './palette-json';
import { paletteStripExporter } from './palette-strip';
import { pngExporter } from './png';
import { plyExporter } from './ply';
import { projectExporter } from './project';
import { slicesExporter } from './slices';
import { spritesExporter } from './sprites';
import { stlExporter } from './stl';
import { threeMfExporter } from './threemf';

/** Every kind of file that is written, in the order in which they are offered. */
export const EXPORTERS: readonly Exporter[] = [
  glbExporter,
  gltfExporter,
  objExporter,
  plyExporter,
  stlExporter,
  threeMfExporter,
  slicesExporter,
  cubesExporter,
  projectExporter,
  paletteJsonExporter,
  paletteHexExporter,
  paletteStripExporter,
  pngExporter,
  jpegExporter,
  exrExporter,
  gifExporter,
  framesExporter,
  spritesExporter,
];

export const exporterOf = (id: string): Exporter | undefined => EXPORTERS.find((e) => e.id === id);
