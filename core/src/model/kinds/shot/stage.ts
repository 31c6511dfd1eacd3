import * as z from 'zod';
import { hex, unit } from '../fields';

/** What things stand on: nothing, what catches their shadow alone, a coloured floor, a mirror, water, or a floor that bends up behind them. */
export const GROUND_KINDS = ['none', 'shadow', 'colour', 'mirror', 'water', 'backdrop'] as const;
export type GroundKind = (typeof GROUND_KINDS)[number];

/** What is shown around things, and how they are drawn. */
export interface ShotStage {
  readonly ground: { readonly kind: GroundKind; readonly colour: string };
  /** How wide the edges of cubes catch light as if they were rounded, in cubes; 0 has them sharp. */
  readonly edges: number;
}

export const DEFAULT_STAGE: ShotStage = {
  ground: { kind: 'colour', colour: '#cfc8bb' },
  edges: 0,
};

export const makeStage = (more: Partial<ShotStage>): ShotStage => ({ ...DEFAULT_STAGE, ...more });

export const stageSchema = z.strictObject({
  ground: z.strictObject({ kind: z.enum(GROUND_KINDS), colour: hex }),
  edges: unit,
});
