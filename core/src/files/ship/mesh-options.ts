import * as z from 'zod';
import { PLAIN_MESHING, type ShipMeshing } from './ship-model';

/** Options of how a surface is made, the same for every exporter of meshes. */
export const meshOptions = {
  closed: z.boolean().default(false).meta({
    title: 'Watertight',
    description: 'no open edge and no gap where colours meet; more triangles where there are many',
  }),
};

/** What the options of an exporter say of it; those without any make plain surfaces. */
export const meshingOf = (options: unknown): ShipMeshing => ({
  closed: (options as Partial<ShipMeshing> | null)?.closed ?? PLAIN_MESHING.closed,
});
