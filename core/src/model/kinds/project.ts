import * as z from 'zod';
import type { Vec3 } from '../../math';
import type { Id } from '../ids';
import { apart, mention } from '../marks';
import { type BinItem, binKind } from './bin';
import { finite, name, vec3 } from './fields';
import { RECORD_KINDS } from './list';
import type { RecordKind } from './record-kind';
import { type Rig, rigKind } from './rig';

export const KINDS = ['character', 'creature', 'wearable', 'prop', 'scene', 'terrain cube'] as const;
export type Kind = (typeof KINDS)[number];

/** What the finished thing should keep to; 0 means no limit. */
export interface Target {
  /** Height in metres. */
  readonly height: number;
  /** Triangles as shipped. */
  readonly faces: number;
  readonly bones: number;
  /** Draw calls as shipped. */
  readonly draws: number;
  /** Longer edge of the texture in pixels. */
  readonly texture: number;
}
export const NO_TARGET: Target = { height: 0, faces: 0, bones: 0, draws: 0, texture: 0 };

/** What of a ready rig cannot be changed by accident; parts are free. */
export interface Seal {
  /** The ready rig it came from. */
  readonly rig: string;
  /** Joints stay within `range` project units, along each axis, of where they stood when it was sealed. */
  readonly bones: readonly { readonly bone: Id; readonly at: Vec3; readonly range: number }[];
  readonly clips: readonly Id[];
}

type ListOf<K> =
  K extends RecordKind<string, infer List extends string, infer R> ? { readonly [L in List]: readonly R[] } : never;
type Both<U> = (U extends unknown ? (of: U) => void : never) extends (of: infer I) => void ? I : never;
/** The lists of records, one a kind. */
export type Lists = Both<ListOf<(typeof RECORD_KINDS)[number]>>;

/** All the work on one asset: a frozen value. Every edit gives a new one. */
export interface Project extends Lists {
  readonly id: Id;
  readonly name: string;
  readonly kind: Kind;
  /** Metres in a project unit; a cube of a part is `cell` units. */
  readonly metresPerUnit: number;
  readonly target: Target;
  readonly rig: Rig;
  /** Null when every part of the rig may be changed. */
  readonly seal: Seal | null;
  readonly bin: readonly BinItem[];
}

const limit = z.int().min(0).max(1e9);
const targetSchema = z.strictObject({
  height: finite.min(0).max(1e5),
  faces: limit,
  bones: limit,
  draws: limit,
  texture: limit,
});
const sealSchema = z.strictObject({
  rig: name,
  bones: z.array(z.strictObject({ bone: mention('bone'), at: vec3, range: finite.min(0) })).max(4096),
  clips: z.array(mention('clip')).max(1024),
});

/** Every kind that stands in a list, the bin included. */
export const LISTED_KINDS: readonly RecordKind<string, string>[] = [
  ...(RECORD_KINDS as unknown as readonly RecordKind<string, string>[]),
  binKind as unknown as RecordKind<string, string>,
];

export const projectSchema = z.strictObject({
  id: z.string().regex(/^[A-Za-z0-9_-]{1,40}$/),
  name,
  kind: z.enum(KINDS),
  metresPerUnit: finite.positive().max(1e4),
  target: targetSchema,
  rig: apart('rig', rigKind.schema),
  seal: sealSchema.nullable(),
  ...Object.fromEntries(LISTED_KINDS.map((k) => [k.list, z.array(apart(k.name, k.schema)).max(k.most)])),
}) as unknown as z.ZodType<Project>;

/** What of a project stands in no list. */
export const projectKind: RecordKind<'project', null, Project> = {
  name: 'project',
  plural: 'projects',
  list: null,
  most: 1,
  schema: projectSchema,
  since: 1,
  upgrades: {
    1: (p) => ({ target: NO_TARGET, ...p }),
    4: (p) => ({ seal: null, ...p }),
    16: (p) => ({ ...p, target: { ...NO_TARGET, ...(p['target'] as Target) } }),
  },
};

/** Empty lists of every kind. */
export const emptyLists = (): Lists => Object.fromEntries(RECORD_KINDS.map((k) => [k.list, []])) as unknown as Lists;

/** The records of a kind, in order. */
export const recordsOf = (project: Project, kind: RecordKind<string, string>): readonly NamedRecord[] =>
  (project as unknown as Record<string, readonly NamedRecord[]>)[kind.list]!;
/** What every record in a list has, and most have. */
export interface NamedRecord {
  readonly id: Id;
  readonly name?: string;
  readonly side?: string;
}
