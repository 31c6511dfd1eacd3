import * as z from 'zod';
import type { Transform } from '../../math';
import type { Id } from '../ids';
import { mention, own } from '../marks';
import { name, transform } from './fields';
import type { RecordKind } from './record-kind';

/** A pose on the shelf: offsets from rest of the bones it knows. */
export interface SavedPose {
  readonly id: Id;
  readonly name: string;
  readonly bones: readonly { readonly bone: Id; readonly offset: Transform }[];
}

export const poseKind: RecordKind<'pose', 'poses', SavedPose> = {
  name: 'pose',
  plural: 'poses',
  list: 'poses',
  most: 1024,
  schema: z.strictObject({
    id: own('pose'),
    name,
    bones: z.array(z.strictObject({ bone: mention('bone'), offset: z.strictObject(transform) })).max(4096),
  }),
  since: 5,
  upgrades: {},
};
