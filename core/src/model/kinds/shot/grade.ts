import * as z from 'zod';
import { finite, hex, unit } from '../fields';

/** How light becomes what a screen can show: the open PBR Neutral, rolled off at the top alone, with stronger contrast, or cut off. */
export const TONE_CURVES = ['neutral', 'soft', 'strong', 'none'] as const;
export type ToneCurve = (typeof TONE_CURVES)[number];

/** What is done to a picture after it was traced; it can be changed at any time without tracing again. */
export interface Grade {
  /** In stops; 0 leaves light as it is. */
  readonly exposure: number;
  /** −1 is cold, 1 is warm; 0 leaves colours as they are. */
  readonly warmth: number;
  /** −1 is green, 1 is magenta. */
  readonly tint: number;
  readonly curve: ToneCurve;
  /** −1…1 about middle grey. */
  readonly contrast: number;
  /** −1 is grey. */
  readonly saturation: number;
  /** Share of the light that spreads about what is bright. */
  readonly bloom: number;
  /** How much darker the corners are. */
  readonly vignette: number;
  readonly grain: number;
  /** Lines where things end; a width of 0 draws none. */
  readonly outline: {
    /** In pixels of the picture. */
    readonly width: number;
    readonly colour: string;
    /** Also where colours meet and where things turn. */
    readonly inside: boolean;
  };
  /** Steps that light has from dark to bright, as in a drawing; 0 leaves it as it is. */
  readonly steps: number;
}

export const NO_GRADE: Grade = {
  exposure: 0,
  warmth: 0,
  tint: 0,
  curve: 'soft',
  contrast: 0,
  saturation: 0,
  bloom: 0,
  vignette: 0,
  grain: 0,
  outline: { width: 0, colour: '#2a1d18', inside: false },
  steps: 0,
};

export const makeGrade = (more: Partial<Grade>): Grade => ({ ...NO_GRADE, ...more });

const both = finite.min(-1).max(1);
export const gradeSchema = z.strictObject({
  exposure: finite.min(-20).max(20),
  warmth: both,
  tint: both,
  curve: z.enum(TONE_CURVES),
  contrast: both,
  saturation: both,
  bloom: unit,
  vignette: unit,
  grain: unit,
  outline: z.strictObject({ width: finite.min(0).max(64), colour: hex, inside: z.boolean() }),
  steps: z.int().min(0).max(16),
});
