import * as z from 'zod';
import { MAX_EDGE } from '../../voxel';

/** Fields that many kinds of record have. Unknown fields are refused everywhere. */
export const finite = z.number().finite();
export const name = z.string().min(1).max(120);
export const vec3 = z.tuple([finite, finite, finite]);
export const whole3 = z.tuple([z.int(), z.int(), z.int()]);
export const quat = z
  .tuple([finite, finite, finite, finite])
  .refine((q) => Math.abs(Math.hypot(...q) - 1) < 1e-3, 'a rotation must have length 1');
export const positive3 = z.tuple([finite.positive(), finite.positive(), finite.positive()]);
export const transform = { t: vec3, q: quat, s: positive3 };
export const hex = z.string().regex(/^#[0-9a-f]{6}$/);
const edge = z.int().min(1).max(MAX_EDGE);
const corner = z.int().min(-1e6).max(1e6);
export const box = z.strictObject({ min: z.tuple([corner, corner, corner]), size: z.tuple([edge, edge, edge]) });
export const unit = finite.min(0).max(1);
export const byte = z.int().min(1).max(255);
/** Ticks of a clip. */
export const ticks = z.int().min(0).max(1e8);

export const SIDES = ['left', 'right', 'centre'] as const;
/** From the character's own point of view; its left is +X. */
export type Side = (typeof SIDES)[number];
export const side = z.enum(SIDES);
