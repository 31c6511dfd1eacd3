import * as z from 'zod';
import { COLLIDERS, PLAIN_MAKING, type ShipMaking } from './ship-model';

/** Options of how a surface is made, the same for every exporter of meshes. */
export const meshOptions = {
  closed: z.boolean().default(false).meta({
    title: 'Watertight',
    description: 'no open edge and no gap where colours meet; more triangles where there are many',
  }),
};
/** Options of what things bump into, for exporters that can hold it. */
export const colliderOptions = {
  collider: z
    .enum(COLLIDERS)
    .default('boxes')
    .meta({ title: 'Collider', description: 'what things bump into, part by part' }),
  tolerance: z
    .number()
    .min(0)
    .max(32)
    .default(1)
    .meta({ title: 'Tolerance in cubes', description: 'by which its boxes may differ from the part' }),
};

/** What the options of an exporter say of it; those without any make plain surfaces and no colliders. */
export const makingOf = (options: unknown): ShipMaking => ({
  ...PLAIN_MAKING,
  ...(options as Partial<ShipMaking> | null),
});
