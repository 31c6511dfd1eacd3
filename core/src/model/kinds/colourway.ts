import * as z from 'zod';
import type { Colourway } from '../../palette';
import { own, ref } from '../marks';
import { byte, name } from './fields';
import { swatchSchema } from './palette';
import type { RecordKind } from './record-kind';

const look = swatchSchema
  .pick({ colour: true, emissive: true, roughness: true, metalness: true, opacity: true })
  .partial();

export const colourwayKind: RecordKind<'colourway', 'colourways', Colourway> = {
  name: 'colourway',
  plural: 'colourways',
  list: 'colourways',
  most: 256,
  schema: z.strictObject({
    id: own('colourway'),
    name,
    changes: z.array(z.strictObject({ palette: ref('palette'), byte, look })).max(64 * 255),
  }) as unknown as z.ZodType<Colourway>,
  since: 3,
  upgrades: {},
  kept: z.strictObject({}),
};
