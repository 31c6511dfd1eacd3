import { byteTable } from '../voxel';
import type { Palette, Swatch } from './swatch';

/** What a colourway may change of a swatch; its name, slot and meaning stay. */
export type SwatchLook = Pick<Swatch, 'colour' | 'emissive' | 'roughness' | 'metalness' | 'opacity'>;
export const LOOKS = [
  'colour',
  'emissive',
  'roughness',
  'metalness',
  'opacity',
] as const satisfies readonly (keyof SwatchLook)[];

/** One swatch of one palette that looks different in a colourway. */
export interface SwatchChange {
  readonly palette: string;
  readonly byte: number;
  readonly look: Partial<SwatchLook>;
}

/** A palette variant of a whole project over the same cubes: only what differs is kept, so that all else follows the palette. */
export interface Colourway {
  readonly id: string;
  readonly name: string;
  readonly changes: readonly SwatchChange[];
}

const recolouredPalettes = new WeakMap<Palette, WeakMap<readonly SwatchChange[], Palette>>();

/** A palette as it is in a colourway; the same one when nothing of it differs. */
export function recoloured(palette: Palette, { changes }: Colourway): Palette {
  if (!changes.some((c) => c.palette === palette.id)) return palette;
  let known = recolouredPalettes.get(palette);
  if (!known) recolouredPalettes.set(palette, (known = new WeakMap()));
  let out = known.get(changes);
  if (!out) {
    const looks = new Map(changes.filter((c) => c.palette === palette.id).map((c) => [c.byte, c.look]));
    out = {
      ...palette,
      swatches: palette.swatches.map((s) => (looks.has(s.byte) ? { ...s, ...looks.get(s.byte) } : s)),
    };
    known.set(changes, out);
  }
  return out;
}

/** A colourway in which one swatch looks so; what equals the palette's own look is not kept. */
export function withLook(way: Colourway, palette: Palette, byte: number, look: Partial<SwatchLook>): Colourway {
  const swatch = palette.swatches.find((s) => s.byte === byte);
  const before = way.changes.find((c) => c.palette === palette.id && c.byte === byte);
  const merged = { ...before?.look, ...look };
  const kept = Object.fromEntries(
    LOOKS.flatMap((k) => (merged[k] !== undefined && merged[k] !== swatch?.[k] ? [[k, merged[k]]] : [])),
  ) as Partial<SwatchLook>;
  const rest = way.changes.filter((c) => c !== before);
  return {
    ...way,
    changes: Object.keys(kept).length > 0 ? [...rest, { palette: palette.id, byte, look: kept }] : rest,
  };
}

/** 1 for each byte that is see-through in the palette's own look or in one of its colourways: cubes behind it need faces. */
export function everTransparent(palette: Palette, ways: readonly Colourway[]): Uint8Array {
  const out = byteTable();
  for (const look of [palette, ...ways.map((w) => recoloured(palette, w))])
    for (const s of look.swatches) if (s.opacity < 1) out[s.byte] = 1;
  return out;
}
