import * as z from 'zod';
import type { Id } from '../ids';
import { own } from '../marks';
import { finite, name } from './fields';
import type { RecordKind } from './record-kind';

export const UP_AXES = ['+y', '+z'] as const;
export const FORWARD_AXES = ['+z', '-z', '+x', '-x', '+y', '-y'] as const;
export const ORIGINS = ['pivot', 'base', 'centre', 'corner'] as const;

/** How files are made for one place they go to; exports with the same profile write the same names. */
export interface DeliveryProfile {
  readonly id: Id;
  readonly name: string;
  readonly up: (typeof UP_AXES)[number];
  readonly forward: (typeof FORWARD_AXES)[number];
  readonly unitsPerMetre: number;
  readonly origin: (typeof ORIGINS)[number];
  readonly prefix: string;
  /** What is put behind the names of left and right ones. */
  readonly suffixes: { readonly left: string; readonly right: string };
  /** Options of exporters, by exporter; each reads its own with a schema of its own. */
  readonly options: Readonly<Record<string, Readonly<Record<string, string | number | boolean>>>>;
}

const text = z.string().max(120);
export const deliveryProfileKind: RecordKind<'delivery profile', 'deliveryProfiles', DeliveryProfile> = {
  name: 'delivery profile',
  plural: 'delivery profiles',
  list: 'deliveryProfiles',
  most: 256,
  schema: z.strictObject({
    id: own('delivery profile'),
    name,
    up: z.enum(UP_AXES),
    forward: z.enum(FORWARD_AXES),
    unitsPerMetre: finite.positive().max(1e6),
    origin: z.enum(ORIGINS),
    prefix: text,
    suffixes: z.strictObject({ left: text, right: text }),
    options: z.record(z.string().max(40), z.record(z.string().max(40), z.union([text, finite, z.boolean()]))),
  }),
  since: 7,
  upgrades: {},
  kept: z.strictObject({}),
  about:
    '`{id, name, up, forward, unitsPerMetre, origin (pivot, base, centre, corner), prefix, suffixes {left, right}, options}`; `options` are those of each exporter, by its id',
};
