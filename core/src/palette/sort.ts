import { toOklch } from './colour';
import type { Palette, Swatch } from './swatch';

export const SORTS = ['hue', 'light', 'vivid', 'name', 'use'] as const;
export type SwatchSort = (typeof SORTS)[number];

/** Bytes of a palette in another order; greys come first by hue. `uses` counts cubes by byte. */
export function sortedBytes(palette: Palette, by: SwatchSort, uses: ArrayLike<number> = []): number[] {
  const key = (s: Swatch): readonly (number | string)[] => {
    const { l, c, h } = toOklch(s.colour);
    switch (by) {
      case 'hue':
        return c < 0.03 ? [-1, l] : [Math.floor(h / 18), l];
      case 'light':
        return [l];
      case 'vivid':
        return [-c];
      case 'name':
        return [s.name.toLowerCase()];
      case 'use':
        return [-(uses[s.byte] ?? 0)];
    }
  };
  const rows = palette.swatches.map((s, i) => ({ byte: s.byte, i, key: key(s) }));
  return rows
    .sort((a, b) => {
      for (let k = 0; k < a.key.length; k++) {
        const p = a.key[k]!,
          q = b.key[k]!;
        if (p !== q) return p < q ? -1 : 1;
      }
      return a.i - b.i;
    })
    .map((r) => r.byte);
}
