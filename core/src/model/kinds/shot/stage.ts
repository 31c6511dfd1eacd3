import * as z from 'zod';
import { finite, hex, unit } from '../fields';

/** What things stand on: nothing, what catches their shadow alone, a coloured floor, a mirror, water, or a floor that bends up behind them. */
export const GROUND_KINDS = ['none', 'shadow', 'colour', 'mirror', 'water', 'backdrop'] as const;
export type GroundKind = (typeof GROUND_KINDS)[number];

/** Where outlines are drawn besides around everything: where one part meets another, or one swatch another. */
export const OUTLINE_INSIDE = ['none', 'parts', 'colours'] as const;

/** What is shown around things, and how they are drawn. */
export interface ShotStage {
  readonly ground: { readonly kind: GroundKind; readonly colour: string };
  /** How wide the edges of cubes catch light as if they were rounded, in cubes; 0 has them sharp. */
  readonly edges: number;
  /** Width in thousandths of the picture’s height; 0 has none. */
  readonly outline: {
    readonly width: number;
    readonly colour: string;
    readonly inside: (typeof OUTLINE_INSIDE)[number];
  };
  /** Steps that light falls into on surfaces; 0 is true light. */
  readonly toon: number;
}

export const DEFAULT_STAGE: ShotStage = {
  ground: { kind: 'colour', colour: '#cfc8bb' },
  edges: 0,
  outline: { width: 0, colour: '#2a2521', inside: 'none' },
  toon: 0,
};

export const makeStage = (more: Partial<ShotStage>): ShotStage => ({ ...DEFAULT_STAGE, ...more });

export const stageSchema = z.strictObject({
  ground: z.strictObject({ kind: z.enum(GROUND_KINDS), colour: hex }),
  edges: unit,
  outline: z.strictObject({ width: finite.min(0).max(50), colour: hex, inside: z.enum(OUTLINE_INSIDE) }),
  toon: z.int().min(0).max(16),
});
