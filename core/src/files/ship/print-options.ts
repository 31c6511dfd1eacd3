import * as z from 'zod';
import type { SolidModel } from './solid';
import { type SolidPlace, solidExtent } from './solid-mesh';

/** How large something is printed. */
export const heightOption = z
  .number()
  .min(0)
  .max(100_000)
  .default(100)
  .meta({ title: 'Height in mm', description: '0 for its real size' });

/** Millimetres, Z up, standing on the bed. */
export function printPlace(model: SolidModel, height: number): SolidPlace {
  const { lo, hi } = solidExtent(model);
  return { up: 'z', unit: height > 0 ? height / (hi[1] - lo[1]) : model.metresPerUnit * 1000, onBed: true };
}
