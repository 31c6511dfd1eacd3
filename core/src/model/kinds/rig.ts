import * as z from 'zod';
import type { Quat, Transform, Vec3 } from '../../math';
import type { Id } from '../ids';
import { own, ref } from '../marks';
import { type Side, hex, name, quat, side, transform, unit, vec3 } from './fields';
import type { LooseJson, RecordKind } from './record-kind';

export interface Bone {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly parent: Id | null;
  /** Local to the parent, in project units. */
  readonly rest: Transform;
  /** Of its lane, as hex; null for that of its side. */
  readonly colour: string | null;
  /** Whether it goes into exported files; a control may stay at home. */
  readonly ships: boolean;
}

/** Places a part on a bone; a point p of the part stands at World(bone) · T·R·S(cell) · T(−pivot) · p. */
export interface Mount extends Transform {
  readonly id: Id;
  readonly part: Id;
  /** Null while the part lies unmounted, at the rig's origin. */
  readonly bone: Id | null;
  /** The set of alternates it is one of; null for a part that is always there. */
  readonly alternateSet: Id | null;
}

/** Mounts of which one is worn at a time, or none: heads, mouths, held things. */
export interface AlternateSet {
  readonly id: Id;
  readonly name: string;
  /** The mount that is there at rest. */
  readonly worn: Id | null;
}

interface ConstraintBase {
  readonly id: Id;
  /** The bone that is steered; for a chain its tip. */
  readonly bone: Id;
  readonly on: boolean;
  /** How much of it counts, 0–1. */
  readonly amount: number;
}
/** Bends the bones above so that the tip's joint reaches the goal. */
export interface IkConstraint extends ConstraintBase {
  readonly kind: 'ik';
  readonly goal: Id;
  /** The chain bends towards it. */
  readonly pole: Id | null;
  /** Bones above the tip that bend. */
  readonly links: number;
  /** To which side it bends at rest when it is straight and has no pole, in rig space at rest. */
  readonly bend: Vec3;
  /** Whether the tip keeps the goal's turn, as a foot on the ground. */
  readonly hold: boolean;
}
/** Adds another bone's turn from rest to this one's. */
export interface MatchConstraint extends ConstraintBase {
  readonly kind: 'match';
  readonly target: Id;
  readonly axes: readonly [boolean, boolean, boolean];
}
/** Points an axis of the bone at another. */
export interface LookConstraint extends ConstraintBase {
  readonly kind: 'look';
  readonly target: Id;
  /** Of the bone itself, length 1. */
  readonly axis: Vec3;
}
/** Keeps the bone's turn in the world, whatever it hangs on does. */
export interface UprightConstraint extends ConstraintBase {
  readonly kind: 'upright';
}
/** Holds the angles from rest (YXZ, degrees). */
export interface LimitConstraint extends ConstraintBase {
  readonly kind: 'limit';
  readonly min: Vec3;
  readonly max: Vec3;
}
export type Constraint = IkConstraint | MatchConstraint | LookConstraint | UprightConstraint | LimitConstraint;

/** A named place with a direction on a bone (its own +Z), for effects and for wearables to meet: a flame, a grip, a seat. */
export interface Attachment {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly bone: Id;
  readonly t: Vec3;
  readonly q: Quat;
}

export interface Rig {
  readonly bones: readonly Bone[];
  readonly mounts: readonly Mount[];
  /** In the order in which they count where several steer one bone. */
  readonly constraints: readonly Constraint[];
  readonly attachments: readonly Attachment[];
  readonly alternateSets: readonly AlternateSet[];
}

/** What a bone has before it is coloured or kept out of exports. */
export const PLAIN_BONE = { colour: null, ships: true } as const;
/** A skeleton of nothing. */
export const EMPTY_RIG: Rig = { bones: [], mounts: [], constraints: [], attachments: [], alternateSets: [] };

export const boneSchema = z.strictObject({
  id: own('bone'),
  name,
  side,
  parent: ref('bone').nullable(),
  rest: z.strictObject(transform),
  colour: hex.nullable(),
  ships: z.boolean(),
});
export const mountSchema = z.strictObject({
  id: own('mount'),
  part: ref('part'),
  bone: ref('bone').nullable(),
  alternateSet: ref('set of alternates').nullable(),
  ...transform,
});
const alternateSet = z.strictObject({ id: own('set of alternates'), name, worn: ref('mount').nullable() });
const steered = { id: own('constraint'), bone: ref('bone'), on: z.boolean(), amount: unit };
export const constraintSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...steered,
    kind: z.literal('ik'),
    goal: ref('bone'),
    pole: ref('bone').nullable(),
    links: z.int().min(1).max(32),
    bend: vec3,
    hold: z.boolean(),
  }),
  z.strictObject({
    ...steered,
    kind: z.literal('match'),
    target: ref('bone'),
    axes: z.tuple([z.boolean(), z.boolean(), z.boolean()]),
  }),
  z.strictObject({ ...steered, kind: z.literal('look'), target: ref('bone'), axis: vec3 }),
  z.strictObject({ ...steered, kind: z.literal('upright') }),
  z.strictObject({ ...steered, kind: z.literal('limit'), min: vec3, max: vec3 }),
]);
export const attachmentSchema = z.strictObject({
  id: own('attachment point'),
  name,
  side,
  bone: ref('bone'),
  t: vec3,
  q: quat,
});

/** Bones whose parents form a circle. */
function flaw({ bones }: Rig): string | null {
  const parent = new Map(bones.map((b) => [b.id, b.parent]));
  for (const b of bones) {
    let steps = 0;
    for (let at: Id | null = b.id; at !== null; at = parent.get(at) ?? null)
      if (++steps > bones.length) return `has a circle in the bones above "${b.name}"`;
  }
  return null;
}

const mountOf5 = ({ slot, ...mount }: LooseJson): LooseJson => ({ ...mount, alternateSet: slot });
const listOf = (json: LooseJson, field: string): LooseJson[] => (json[field] ?? []) as LooseJson[];

export const rigKind: RecordKind<'rig', null, Rig> = {
  name: 'rig',
  plural: 'rigs',
  list: null,
  most: 1,
  schema: z.strictObject({
    bones: z.array(boneSchema).max(4096),
    mounts: z.array(mountSchema).max(16384),
    constraints: z.array(constraintSchema).max(4096),
    attachments: z.array(attachmentSchema).max(4096),
    alternateSets: z.array(alternateSet).max(1024),
  }),
  since: 1,
  upgrades: {
    // Constraints and attachment points came with format 4.
    3: (r) => ({ constraints: [], attachments: [], ...r }),
    // Sets of alternates (then "slots"), lane colours and what stays at home came with format 5.
    4: (r) => ({
      slots: [],
      ...r,
      bones: listOf(r, 'bones').map((b) => ({ ...PLAIN_BONE, ...b })),
      mounts: listOf(r, 'mounts').map((m) => ({ slot: null, ...m })),
    }),
    5: ({ slots, ...r }) => ({ ...r, alternateSets: slots, mounts: listOf(r, 'mounts').map(mountOf5) }),
  },
  flaw,
};
