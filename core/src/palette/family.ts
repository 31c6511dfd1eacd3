import { sameBytes } from '../voxel';
import type { Palette } from './swatch';

/** What the names of a ramp have in common: all before a comma or a number at the end, in small letters. */
export const stemOf = (name: string): string =>
  name
    .split(',')[0]!
    .replace(/\s*\d+$/, '')
    .trim()
    .toLowerCase();

/** For each byte the swatch that stands for its ramp ("Skin" for "Skin, shade"): the one with the shortest name. */
export function families(palette: Palette): Uint8Array {
  const out = sameBytes();
  const heads = new Map<string, { readonly byte: number; readonly name: string }>();
  for (const s of palette.swatches) {
    const stem = stemOf(s.name),
      head = heads.get(stem);
    if (stem !== '' && (!head || s.name.length < head.name.length)) heads.set(stem, s);
  }
  for (const s of palette.swatches) out[s.byte] = heads.get(stemOf(s.name))?.byte ?? s.byte;
  return out;
}
