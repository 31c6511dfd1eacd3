import * as z from 'zod';
import type { Palette } from '../palette';
import type { Exporter } from './exporter';
import { fileName } from './file-name';
import { note } from './notes';

/** What the exporters of palettes have in common. @param surfaces – whether gloss, metal and glow go along */
export function paletteExporter(
  of: Pick<Exporter, 'id' | 'name' | 'noun' | 'about' | 'extensions' | 'type'>,
  surfaces: boolean,
  bytesOf: (palette: Palette) => Uint8Array,
): Exporter<'palette', object> {
  const plan: Exporter<'palette', object>['plan'] = ({ swatches }) => {
    const count = swatches.filter((s) => s.emissive > 0 || s.metalness > 0 || s.roughness !== 0.8).length;
    return {
      counts: { swatches: swatches.length },
      notes: surfaces || count === 0 ? [] : [note('surfacesLost', '', { n: count })],
    };
  };
  return {
    ...of,
    takes: 'palette',
    options: z.strictObject({}),
    plan,
    write(palette) {
      const bytes = bytesOf(palette) as Uint8Array<ArrayBuffer>;
      const name = fileName(palette.name) + of.extensions[0];
      return Promise.resolve({ files: [{ name, bytes }], notes: plan(palette, {}).notes });
    },
  };
}
