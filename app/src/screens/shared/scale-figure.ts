import type { Extent, Vec3 } from '@sphalerite/core/math';
import type { Figure } from '../../viewport/overlay';

export const FIGURES = ['none', 'adult', 'child', 'door', 'metre'] as const;
export type FigureKind = (typeof FIGURES)[number];
export const FIGURE_NAMES: Record<FigureKind, string> = {
  none: 'none',
  adult: 'adult 1.72 m',
  child: 'child 1.10 m',
  door: 'door 2.00 m',
  metre: 'cube of 1 m',
};

type Piece = readonly [min: Vec3, size: Vec3];
/** Metres, standing at the origin. */
const person = (h: number): Piece[] => [
  [
    [-0.1 * h, 0, -0.05 * h],
    [0.08 * h, 0.47 * h, 0.1 * h],
  ],
  [
    [0.02 * h, 0, -0.05 * h],
    [0.08 * h, 0.47 * h, 0.1 * h],
  ],
  [
    [-0.12 * h, 0.47 * h, -0.07 * h],
    [0.24 * h, 0.35 * h, 0.14 * h],
  ],
  [
    [-0.19 * h, 0.42 * h, -0.04 * h],
    [0.06 * h, 0.4 * h, 0.08 * h],
  ],
  [
    [0.13 * h, 0.42 * h, -0.04 * h],
    [0.06 * h, 0.4 * h, 0.08 * h],
  ],
  [
    [-0.065 * h, 0.84 * h, -0.07 * h],
    [0.13 * h, 0.16 * h, 0.14 * h],
  ],
];
const PIECES: Record<Exclude<FigureKind, 'none'>, Piece[]> = {
  adult: person(1.72),
  child: person(1.1),
  door: [
    [
      [-0.5, 0, -0.05],
      [0.07, 2.06, 0.1],
    ],
    [
      [0.43, 0, -0.05],
      [0.07, 2.06, 0.1],
    ],
    [
      [-0.5, 2.0, -0.05],
      [1, 0.07, 0.1],
    ],
  ],
  metre: [
    [
      [-0.5, 0, -0.5],
      [1, 1, 1],
    ],
  ],
};

/** A figure beside everything there is, on the same ground, in project units of `metres` each. */
export function figureBeside(kind: FigureKind, e: Extent | null, metres: number): Figure | null {
  if (kind === 'none') return null;
  const k = 1 / metres;
  const pieces = PIECES[kind];
  const left = Math.min(...pieces.map(([m]) => m[0]));
  const at: Vec3 = e ? [e.hi[0] + 2 - left * k, e.lo[1], (e.lo[2] + e.hi[2]) / 2] : [8 - left * k, 0, 0];
  return {
    boxes: pieces.map(([m, s]) => ({
      min: [at[0] + m[0] * k, at[1] + m[1] * k, at[2] + m[2] * k],
      size: [s[0] * k, s[1] * k, s[2] * k],
    })),
  };
}
