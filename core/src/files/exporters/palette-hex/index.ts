import { strToU8 } from 'fflate';
import { paletteExporter } from '../../palette-exporter';
import { paletteToHexList } from '../../palette-file';

/** A colour a line, which most programs read. */
export const paletteHexExporter = paletteExporter(
  {
    id: 'palette-hex',
    name: 'Palette, hex list',
    noun: 'palette as a hex list',
    about: 'text: a colour and its name a line',
    extensions: ['.hex.txt', '.hex', '.txt'],
    type: 'text/plain',
  },
  false,
  (p) => strToU8(paletteToHexList(p)),
);
