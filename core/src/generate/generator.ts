import * as z from 'zod';
import type { Vec3 } from '../math';
import { type Swatch, makeSwatch, tones } from '../palette';
import type { VoxelGrid } from '../voxel';

/** A part that was made up. */
export interface GrownPart {
  readonly name: string;
  readonly grid: VoxelGrid;
}
/** What came of a seed. */
export interface Grown {
  readonly parts: readonly GrownPart[];
  readonly swatches: readonly Swatch[];
}

/** Something that can be made up: the same for the same wishes, on every machine. */
export interface Generator<O = unknown> {
  readonly id: string;
  /** What one would call what comes of it. */
  readonly name: string;
  /** What it is good for, in a line. */
  readonly about: string;
  readonly options: z.ZodType<O>;
  make(options: O): Grown;
}

/** What fields of options say of themselves. */
export const about = (title: string, description: string) => ({ title, description });
export const seedOption = z.int().min(0).max(999_999).default(1).meta(about('Seed', 'another number, another one'));
export const colourOption = (title: string, description: string, preset: string) =>
  z
    .string()
    .regex(/^#[0-9a-f]{6}$/)
    .default(preset)
    .meta({ ...about(title, description), format: 'colour' });
export const sizeOption = (title: string, description: string, least: number, most: number, preset: number) =>
  z.int().min(least).max(most).default(preset).meta(about(title, description));
export const shareOption = (title: string, description: string, preset: number) =>
  z.number().min(0).max(1).default(preset).meta(about(title, description));

/** A palette that is filled while something grows: tones of a colour, from dark to light. */
export class Paint {
  readonly swatches: Swatch[] = [];

  /** @returns the bytes of the tones */
  tones(name: string, colour: string, steps: number, more: Partial<Swatch> = {}): number[] {
    return tones(colour, steps).map((c, i) => this.one(steps > 1 ? `${name} ${i + 1}` : name, c, more));
  }
  one(name: string, colour: string, more: Partial<Swatch> = {}): number {
    return this.swatches[this.swatches.push(makeSwatch(this.swatches.length + 1, name, colour, more)) - 1]!.byte;
  }
}

/** The lowest corner of a box that stands on the ground with its middle over the origin. */
export const grounded = ([x, , z]: Vec3): Vec3 => [-(x >> 1), 0, -(z >> 1)];
