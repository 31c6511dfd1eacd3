import * as z from 'zod';
import type { Quat, Vec3 } from '../../math';
import type { Id } from '../ids';
import { apart, mention, own } from '../marks';
import { finite, name, positive3, quat, ticks, unit, vec3 } from './fields';
import type { LooseJson, RecordKind } from './record-kind';

export const EASINGS = ['step', 'linear', 'ease', 'curve'] as const;
/** How the value moves from this key to the next: held, straight, slow at both ends, or along a curve of one's own. */
export type Easing = (typeof EASINGS)[number];

/** Ticks in a second; clip times are whole ticks. */
export const TICKS = 1200;

/** Handles of a cubic Bézier from (0, 0) to (1, 1): x1, y1, x2, y2, with both x between 0 and 1. */
export type Curve = readonly [number, number, number, number];

interface KeyBase {
  readonly time: number;
  readonly ease: Easing;
  /** For the easing `curve`. */
  readonly curve?: Curve | undefined;
}
/** A shift from rest, in project units. */
export interface MoveKey extends KeyBase {
  readonly value: Vec3;
}
/** A turn from rest. */
export interface TurnKey extends KeyBase {
  readonly value: Quat;
}
/** A spin about the bone's own axes, after its turn: an axis times radians, so that whole turns count. */
export interface HingeKey extends KeyBase {
  readonly value: Vec3;
}
/** A scale relative to rest. */
export interface ScaleKey extends KeyBase {
  readonly value: Vec3;
}

/** The keys of one bone, each list in order of time. */
export interface Lane {
  readonly bone: Id;
  readonly move: readonly MoveKey[];
  readonly turn: readonly TurnKey[];
  readonly hinge: readonly HingeKey[];
  readonly scale: readonly ScaleKey[];
}

/** What a set of alternates wears from a moment on. */
export interface SwapKey {
  readonly time: number;
  readonly mount: Id | null;
}
export interface SwapLane {
  readonly alternateSet: Id;
  readonly keys: readonly SwapKey[];
}

export const CHANNELS = ['move', 'turn', 'hinge', 'scale'] as const;
export type Channel = (typeof CHANNELS)[number];

/** The ground that the figure goes on in a clip, to check its feet against: level, a slope, or steps that rise along +Z. */
export interface ClipFloor {
  /** Project units, where z is 0. */
  readonly height: number;
  /** Project units up for each along +Z; below zero it goes down. With steps their rise. */
  readonly rise: number;
  /** Length of a step along +Z; 0 for a slope without steps. */
  readonly run: number;
}

export interface Clip {
  readonly id: Id;
  readonly name: string;
  /** In ticks. */
  readonly length: number;
  /** The grid that times are shown and snapped on. */
  readonly fps: number;
  readonly loop: boolean;
  /** Whether it goes into exported files; a clip for trying joints stays at home. */
  readonly ships: boolean;
  /** Null for level ground at the rig's own height. */
  readonly floor: ClipFloor | null;
  readonly lanes: readonly Lane[];
  readonly swaps: readonly SwapLane[];
}

/** What a clip has before parts are swapped in it and its ground is told. */
export const PLAIN_CLIP = { ships: true, floor: null, swaps: [] } as const;

const distance = finite.min(-10_000).max(10_000);
const ease = z.enum(EASINGS);
const keysOf = <T extends z.ZodType>(value: T) =>
  z
    .array(z.strictObject({ time: ticks, ease, value, curve: z.tuple([unit, finite, unit, finite]).optional() }))
    .max(100_000);
export const laneSchema = z.strictObject({
  bone: mention('bone'),
  move: keysOf(vec3),
  turn: keysOf(quat),
  hinge: keysOf(vec3),
  scale: keysOf(positive3),
});
const swapLane = z.strictObject({
  alternateSet: mention('set of alternates'),
  keys: z.array(z.strictObject({ time: ticks, mount: mention('mount').nullable() })).max(100_000),
});

const keysOf5 = (keys: unknown): LooseJson[] =>
  ((keys ?? []) as LooseJson[]).map((k) => (k['ease'] === 'even' ? { ...k, ease: 'linear' } : k));
/** Up to format 5 a linear key was called "even". */
export const laneOf5 = (lane: LooseJson): LooseJson => ({
  ...lane,
  move: keysOf5(lane['move']),
  turn: keysOf5(lane['turn']),
  scale: keysOf5(lane['scale']),
});

/** Up to format 7 no bone could spin. */
export const laneOf7 = (lane: LooseJson): LooseJson => ({ hinge: [], ...lane });

export const clipKind: RecordKind<'clip', 'clips', Clip> = {
  name: 'clip',
  plural: 'clips',
  list: 'clips',
  most: 1024,
  schema: z.strictObject({
    id: own('clip'),
    name,
    length: z.int().min(1).max(1e8),
    fps: finite.min(1).max(240),
    loop: z.boolean(),
    ships: z.boolean(),
    floor: z.strictObject({ height: distance, rise: distance, run: distance.min(0) }).nullable(),
    lanes: z.array(apart('lane', laneSchema, { 7: laneOf7 })).max(4096),
    swaps: z.array(swapLane).max(1024),
  }),
  since: 1,
  upgrades: {
    // Swaps and what stays at home came with format 5.
    4: (c) => ({ ships: true, swaps: [], ...c }),
    5: (c) => ({
      ...c,
      lanes: ((c['lanes'] ?? []) as LooseJson[]).map(laneOf5),
      swaps: ((c['swaps'] ?? []) as LooseJson[]).map(({ slot, ...lane }) => ({ ...lane, alternateSet: slot })),
    }),
    // A number stands for a lane in a row of its own.
    7: (c) => ({
      ...c,
      lanes: ((c['lanes'] ?? []) as (LooseJson | number)[]).map((l) => (typeof l === 'number' ? l : laneOf7(l))),
    }),
    8: (c) => ({ floor: null, ...c }),
  },
  kept: z.strictObject({}),
};
