import { paletteExporter } from '../../palette-exporter';
import { paletteToStrip } from '../../palette-file';

/** A picture of one pixel a swatch. */
export const paletteStripExporter = paletteExporter(
  {
    id: 'palette-strip',
    name: 'Palette, PNG strip',
    noun: 'palette as a PNG strip',
    about: 'a picture of one pixel a swatch',
    extensions: ['.palette.png', '.png'],
    type: 'image/png',
  },
  false,
  paletteToStrip,
);
