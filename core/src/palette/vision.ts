import { type Rgb, bytesHex, fromLinear, hexToLinear } from './linear';
import { colourDistance } from './near';
import type { Palette, Swatch } from './swatch';

export const VISIONS = ['all', 'protan', 'deutan', 'tritan', 'grey'] as const;
/** How a picture is looked at: with all colours, without red, green or blue cones, or by lightness alone. */
export type Vision = (typeof VISIONS)[number];

/**
 * What becomes of linear light, row by row. Protan, deutan, tritan: Machado, Oliveira and Fernandes, "A physiologically-based
 * model for simulation of color vision deficiency", 2009, at full severity. Grey: luminance (ITU-R BT.709).
 */
export const VISION_MATRIX: Readonly<Record<Vision, readonly [Rgb, Rgb, Rgb]>> = {
  all: [
    [1, 0, 0],
    [0, 1, 0],
    [0, 0, 1],
  ],
  protan: [
    [0.152286, 1.052583, -0.204868],
    [0.114503, 0.786281, 0.099216],
    [-0.003882, -0.048116, 1.051998],
  ],
  deutan: [
    [0.367322, 0.860646, -0.227968],
    [0.280085, 0.672501, 0.047413],
    [-0.01182, 0.04294, 0.968881],
  ],
  tritan: [
    [1.255528, -0.076749, -0.178779],
    [-0.078411, 0.930809, 0.147602],
    [0.004733, 0.691367, 0.3039],
  ],
  grey: [
    [0.2126, 0.7152, 0.0722],
    [0.2126, 0.7152, 0.0722],
    [0.2126, 0.7152, 0.0722],
  ],
};

/** A colour as it looks with such a vision. */
export function seenAs(hex: string, vision: Vision): string {
  const c = hexToLinear(hex);
  const [r, g, b] = VISION_MATRIX[vision].map((m) =>
    Math.round(255 * fromLinear(Math.min(1, Math.max(0, m[0] * c[0] + m[1] * c[1] + m[2] * c[2])))),
  );
  return bytesHex(r!, g!, b!);
}

/** Pairs that are plainly different with all colours and can hardly be told apart with such a vision, worst first. */
export function confused(
  palette: Palette,
  vision: Vision,
  within = 0.035,
  apart = 0.08,
): { a: Swatch; b: Swatch; distance: number }[] {
  if (vision === 'all') return [];
  const seen = palette.swatches.map((s) => seenAs(s.colour, vision));
  const out: { a: Swatch; b: Swatch; distance: number }[] = [];
  palette.swatches.forEach((a, i) =>
    palette.swatches.slice(i + 1).forEach((b, j) => {
      const distance = colourDistance(seen[i]!, seen[i + 1 + j]!);
      if (distance < within && colourDistance(a.colour, b.colour) > apart) out.push({ a, b, distance });
    }),
  );
  return out.sort((p, q) => p.distance - q.distance);
}
