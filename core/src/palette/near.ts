import { hexToLinear } from './linear';
import type { Palette, Swatch } from './swatch';

/** A colour in OKLab (Björn Ottosson, 2020): lightness 0–1 and two opponent axes. */
export function oklab(hex: string): readonly [number, number, number] {
  const [r, g, b] = hexToLinear(hex);
  const l = Math.cbrt(0.4122214708 * r + 0.5363325363 * g + 0.0514459929 * b);
  const m = Math.cbrt(0.2119034982 * r + 0.6806995451 * g + 0.1073969566 * b);
  const s = Math.cbrt(0.0883024619 * r + 0.2817188376 * g + 0.6299787005 * b);
  return [
    0.2104542553 * l + 0.793617785 * m - 0.0040720468 * s,
    1.9779984951 * l - 2.428592205 * m + 0.4505937099 * s,
    0.0259040371 * l + 0.7827717662 * m - 0.808675766 * s,
  ];
}

/** Distance of two colours in OKLab; 0.02 can just be told apart side by side. */
export function colourDistance(a: string, b: string): number {
  const p = oklab(a),
    q = oklab(b);
  return Math.hypot(p[0] - q[0], p[1] - q[1], p[2] - q[2]);
}

/** Pairs of swatches that are hard to tell apart and have the same surface, nearest first. */
export function nearDuplicates(palette: Palette, within = 0.02): { a: Swatch; b: Swatch; distance: number }[] {
  const out: { a: Swatch; b: Swatch; distance: number }[] = [];
  const list = palette.swatches;
  list.forEach((a, i) =>
    list.slice(i + 1).forEach((b) => {
      const distance = colourDistance(a.colour, b.colour);
      if (
        distance <= within &&
        a.emissive === b.emissive &&
        a.opacity === b.opacity &&
        a.metalness === b.metalness &&
        a.helper === b.helper &&
        a.slot === b.slot
      )
        out.push({ a, b, distance });
    }),
  );
  return out.sort((p, q) => p.distance - q.distance);
}
