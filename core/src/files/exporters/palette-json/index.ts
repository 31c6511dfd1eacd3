import { strToU8 } from 'fflate';
import { paletteExporter } from '../../palette-exporter';
import { paletteToJson } from '../../palette-file';

/** Everything about a palette but its bytes. */
export const paletteJsonExporter = paletteExporter(
  {
    id: 'palette-json',
    name: 'Palette, everything',
    noun: 'palette as JSON',
    about: 'JSON: colours, surfaces, slots',
    extensions: ['.palette.json', '.json'],
    type: 'application/json',
  },
  true,
  (p) => strToU8(paletteToJson(p)),
);
