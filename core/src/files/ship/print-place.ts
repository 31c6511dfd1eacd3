import type { SolidModel } from './solid';
import { type SolidPlace, solidExtent } from './solid-mesh';

/** Millimetres, Z up, standing on the bed. */
export function printPlace(model: SolidModel): SolidPlace {
  const { lo, hi } = solidExtent(model);
  const { printHeight: height } = model;
  return { up: 'z', unit: height > 0 ? height / (hi[1] - lo[1]) : model.metresPerUnit * 1000, onBed: true };
}
