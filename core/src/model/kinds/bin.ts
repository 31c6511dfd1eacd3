import * as z from 'zod';
import type { Id } from '../ids';
import { apart, mention, own } from '../marks';
import { type Lane, laneOf5, laneOf7, laneSchema } from './clip';
import { finite } from './fields';
import { RECORD_KINDS } from './list';
import type { LooseJson, RecordKind } from './record-kind';
import { type Reference, referenceOf6 } from './reference';
import {
  type Attachment,
  type Bone,
  type Constraint,
  type Mount,
  PLAIN_BONE,
  attachmentSchema,
  boneSchema,
  constraintSchema,
} from './rig';

/** What the bin keeps beside a part: where it was mounted, and the pictures that stood behind it. */
export interface KeptOfPart {
  readonly mounts: readonly Mount[];
  readonly references: readonly Reference[];
}
/** What the bin keeps beside a bone. */
export interface KeptOfBone {
  readonly children: readonly Id[];
  readonly mounts: readonly Id[];
  readonly lanes: readonly { readonly clip: Id; readonly lane: Lane }[];
  readonly constraints: readonly Constraint[];
  readonly attachments: readonly Attachment[];
}

interface Binned<Name extends string, R, Kept> {
  readonly id: Id;
  readonly kind: Name;
  /** When it was deleted, in milliseconds since 1970. */
  readonly at: number;
  readonly record: R;
  readonly kept: Kept;
}
type BinnedOf<K> =
  K extends RecordKind<infer Name, string, infer R>
    ? Binned<Name, R, Name extends 'part' ? KeptOfPart : Readonly<Record<string, never>>>
    : never;
/** Something deleted, with all that is needed to put it back as it was. */
export type BinItem = BinnedOf<(typeof RECORD_KINDS)[number]> | Binned<'bone', Bone, KeptOfBone>;

const item = (name: string, record: z.ZodType, kept: z.ZodType) =>
  z.strictObject({
    id: own('thing in the bin'),
    kind: z.literal(name),
    at: finite,
    record: apart(name, record),
    kept,
  });
const keptOfBone = z.strictObject({
  children: z.array(mention('bone')),
  mounts: z.array(mention('mount')),
  lanes: z.array(z.strictObject({ clip: mention('clip'), lane: laneSchema })),
  constraints: z.array(constraintSchema).max(4096),
  attachments: z.array(attachmentSchema).max(4096),
});

const binSchema = z.discriminatedUnion('kind', [
  item('bone', boneSchema, keptOfBone),
  ...RECORD_KINDS.flatMap((k: RecordKind) => (k.kept ? [item(k.name, k.schema, k.kept)] : [])),
]) as unknown as z.ZodType<BinItem>;

const list = (json: LooseJson, field: string): LooseJson[] => (json[field] ?? []) as LooseJson[];
const when =
  (kind: string, change: (json: LooseJson) => LooseJson) =>
  (json: LooseJson): LooseJson =>
    json['kind'] === kind ? change(json) : json;
const withMounts = (json: LooseJson, change: (m: LooseJson) => LooseJson): LooseJson => ({
  ...json,
  mounts: list(json, 'mounts').map(change),
});
const lanesOf5 = (json: LooseJson): LooseJson => ({
  ...json,
  lanes: list(json, 'lanes').map((l) => ({ ...l, lane: laneOf5(l['lane'] as LooseJson) })),
});

export const binKind: RecordKind<'bin', 'bin', BinItem> = {
  name: 'bin',
  plural: 'things in the bin',
  list: 'bin',
  most: 4096,
  schema: binSchema,
  since: 1,
  upgrades: {
    1: when('part', (b) => ({ references: [], ...b })),
    3: when('bone', (b) => ({ constraints: [], attachments: [], ...b })),
    4: (b) =>
      b['kind'] === 'part'
        ? withMounts(b, (m) => ({ slot: null, ...m }))
        : when('bone', (o) => ({ ...o, bone: { ...PLAIN_BONE, ...(o['bone'] as LooseJson) } }))(b),
    5: (b) =>
      b['kind'] === 'part'
        ? withMounts(b, ({ slot, ...m }) => ({ ...m, alternateSet: slot }))
        : when('bone', lanesOf5)(b),
    // Up to format 6 what was deleted stood under its kind, and what was kept with it beside it.
    6: (b, found) => {
      const { id, kind, at, [String(kind)]: record, ...rest } = b;
      const kept =
        kind === 'part' ? { ...rest, references: list(rest, 'references').map((r) => referenceOf6(r, found)) } : rest;
      return { id, kind, at, record, kept };
    },
    7: when('bone', (b) => {
      const kept = b['kept'] as LooseJson;
      return {
        ...b,
        kept: { ...kept, lanes: list(kept, 'lanes').map((l) => ({ ...l, lane: laneOf7(l['lane'] as LooseJson) })) },
      };
    }),
  },
};
