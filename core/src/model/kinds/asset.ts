import * as z from 'zod';
import type { Id } from '../ids';
import { apart, own } from '../marks';
import { name } from './fields';
import { type Project, projectSchema } from './project';
import type { RecordKind } from './record-kind';

/** Another project, whole, as it was when it was brought in; scenes place it. */
export interface Asset {
  readonly id: Id;
  readonly name: string;
  /** Where it came from, so that it can be brought up to date. */
  readonly source: { readonly project: Id; readonly revision: string };
  readonly project: Project;
}

export const assetKind: RecordKind<'asset', 'assets', Asset> = {
  name: 'asset',
  plural: 'assets',
  list: 'assets',
  most: 256,
  schema: z.strictObject({
    id: own('asset'),
    name,
    source: z.strictObject({ project: z.string().max(64), revision: z.string().max(64) }),
    // Projects hold assets and assets projects.
    project: apart(
      'project',
      z.lazy(() => projectSchema),
    ),
  }),
  since: 7,
  upgrades: {},
  kept: z.strictObject({}),
};
