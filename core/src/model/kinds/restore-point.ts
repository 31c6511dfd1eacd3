import * as z from 'zod';
import type { Id } from '../ids';
import { apart, own } from '../marks';
import { finite, name } from './fields';
import { type Project, projectSchema } from './project';
import type { RecordKind } from './record-kind';

/** The project as it was at a moment that is worth going back to, whatever becomes of the history. */
export interface RestorePoint {
  readonly id: Id;
  readonly name: string;
  /** Milliseconds since 1970. */
  readonly at: number;
  /** Made by itself before a step that is hard to take back later; only the newest of these are kept. */
  readonly auto: boolean;
  /** Without restore points of its own. */
  readonly project: Project;
}

export const restorePointKind: RecordKind<'restore point', 'restorePoints', RestorePoint> = {
  name: 'restore point',
  plural: 'restore points',
  list: 'restorePoints',
  most: 512,
  schema: z.strictObject({
    id: own('restore point'),
    name,
    at: finite.min(0),
    auto: z.boolean(),
    project: apart(
      'project',
      z.lazy(() => projectSchema),
    ),
  }),
  since: 9,
  upgrades: {},
  kept: z.strictObject({}),
};
