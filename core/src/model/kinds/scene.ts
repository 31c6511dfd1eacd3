import * as z from 'zod';
import type { Quat, Transform, Vec3 } from '../../math';
import type { Id } from '../ids';
import { apart, mention, own, ref } from '../marks';
import { finite, hex, name, quat, ticks, transform, vec3 } from './fields';
import type { LooseJson, RecordKind } from './record-kind';

/** What a placement shows. A group shows nothing itself; what hangs on it moves with it. */
export type Shown =
  | { readonly kind: 'group' }
  | { readonly kind: 'part'; readonly part: Id }
  /** The project's own rig, at a time of a clip; null is its rest pose. */
  | { readonly kind: 'rig'; readonly clip: Id | null; readonly time: number }
  | { readonly kind: 'cube'; readonly cube: Id }
  /** Another project; the clip is one of that project's. */
  | { readonly kind: 'asset'; readonly asset: Id; readonly clip: Id | null; readonly time: number };

/** Something that stands in a scene, in its parent's space. */
export interface Placement extends Transform {
  readonly id: Id;
  readonly name: string;
  readonly parent: Id | null;
  readonly layer: Id;
  readonly hidden: boolean;
  readonly shows: Shown;
  /** A look of its own; null for the scene's. */
  readonly colourway: Id | null;
}

export interface SceneLayer {
  readonly id: Id;
  readonly name: string;
  readonly colour: string;
  readonly hidden: boolean;
  readonly locked: boolean;
}

/** One copy that is not as the repeat has it: left out, or moved, turned and sized about where it would stand. */
export interface RepeatException extends Transform {
  /** Counted from 1; 0 is the placement itself, which is no copy. */
  readonly copy: number;
  readonly gone: boolean;
}
/** Something else that a scatter may put down, and how often for each time that it puts down its own. */
export interface ScatterSource {
  readonly shows: Shown;
  readonly weight: number;
}
/** By how much copies differ from each other; the same for the same seed. */
export interface Variation {
  readonly seed: number;
  /** Most that one is turned either way, in degrees. */
  readonly turn: number;
  readonly sizes: readonly [number, number];
  /** Most that one leans, in degrees. */
  readonly lean: number;
}
/** All alike. */
export const NO_VARIATION: Variation = { seed: 1, turn: 0, sizes: [1, 1], lean: 0 };
interface RepeatBase {
  readonly id: Id;
  /** The placement that is repeated, with all that hangs on it. */
  readonly placement: Id;
  readonly exceptions: readonly RepeatException[];
  readonly vary: Variation;
}
/** Copies that follow their placement for as long as they stay a repeat; how many and how far can always be changed. */
export type Repeat = RepeatBase &
  /** Along three axes; every second one, as on a chess board, may show something else. */
  (
    | { readonly kind: 'line'; readonly counts: Vec3; readonly step: Vec3; readonly second: Shown | null }
    /** One mirror image across a plane of the parent's space, square to an axis, `at` project units from its middle. */
    | { readonly kind: 'mirror'; readonly axis: 0 | 1 | 2; readonly at: number }
    /** Around the parent's upright axis, the first included. */
    | { readonly kind: 'ring'; readonly count: number; readonly degrees: number; readonly turning: boolean }
    /** Evenly along straight ways between points in the parent's space, from the first to the last; `facing` turns each the way it goes. */
    | {
        readonly kind: 'path';
        readonly count: number;
        readonly points: readonly Vec3[];
        readonly closed: boolean;
        readonly facing: boolean;
      }
    /** Over a rectangle about the placement, `area` project units wide and deep. */
    | {
        readonly kind: 'scatter';
        readonly count: number;
        readonly area: readonly [number, number];
        /** Least way between the middles of two; fewer come where there is no room. */
        readonly apart: number;
        /** What they stand on, from above; null where they stand as high as the placement. */
        readonly on: Id | null;
        /** What they keep off: no middle of a copy lies under or over it. */
        readonly off: readonly Id[];
        readonly sources: readonly ScatterSource[];
      }
  );

/** A light that stands in the scene and shines along its own −Z. */
export interface Lamp {
  readonly id: Id;
  readonly name: string;
  readonly kind: 'point' | 'spot' | 'panel';
  readonly parent: Id | null;
  readonly layer: Id;
  readonly hidden: boolean;
  readonly t: Vec3;
  readonly q: Quat;
  readonly colour: string;
  readonly strength: number;
  /** Across, in project units; larger is softer. */
  readonly size: number;
  /** Of a spot's cone, in degrees. */
  readonly angle: number;
}

/** Parts, rigs, terrain cubes and other projects standing together. */
export interface Scene {
  readonly id: Id;
  readonly name: string;
  readonly layers: readonly SceneLayer[];
  /** In groups of up to {@link GROUP}, in order; where a group ends means nothing. */
  readonly placements: readonly (readonly Placement[])[];
  readonly repeats: readonly Repeat[];
  readonly lamps: readonly Lamp[];
}

/** Placements that stand in one group: changing one writes that group's list anew, and none of the others. */
export const GROUP = 64;
/** Placements that one scene may hold. */
export const MAX_PLACEMENTS = 100_000;

const count = z.int().min(1).max(10_000);
const shown = z.discriminatedUnion('kind', [
  z.strictObject({ kind: z.literal('group') }),
  // A part that is in the bin shows nothing until it is back.
  z.strictObject({ kind: z.literal('part'), part: mention('part') }),
  z.strictObject({ kind: z.literal('rig'), clip: mention('clip').nullable(), time: ticks }),
  z.strictObject({ kind: z.literal('cube'), cube: ref('terrain cube') }),
  z.strictObject({
    kind: z.literal('asset'),
    asset: ref('asset'),
    // It belongs to the asset, so that nothing of this project need bear its id.
    clip: z.string().max(64).nullable(),
    time: ticks,
  }),
]);
const placementSchema = z.strictObject({
  id: own('placement'),
  name: z.string().max(120),
  parent: ref('placement').nullable(),
  layer: ref('scene layer'),
  hidden: z.boolean(),
  shows: shown,
  colourway: mention('colourway').nullable(),
  ...transform,
});
const exception = z.strictObject({ copy: z.int().min(1).max(100_000), gone: z.boolean(), ...transform });
const repeated = {
  id: own('repeat'),
  placement: ref('placement'),
  exceptions: z.array(exception).max(10_000),
  vary: z.strictObject({
    seed: z.int(),
    turn: finite.min(0).max(360),
    sizes: z.tuple([finite.positive(), finite.positive()]),
    lean: finite.min(0).max(90),
  }),
};
const repeatSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...repeated,
    kind: z.literal('line'),
    counts: z.tuple([count, count, count]),
    step: vec3,
    second: shown.nullable(),
  }),
  z.strictObject({
    ...repeated,
    kind: z.literal('mirror'),
    axis: z.union([z.literal(0), z.literal(1), z.literal(2)]),
    at: finite,
  }),
  z.strictObject({ ...repeated, kind: z.literal('ring'), count, degrees: finite, turning: z.boolean() }),
  z.strictObject({
    ...repeated,
    kind: z.literal('path'),
    count,
    points: z.array(vec3).min(2).max(1024),
    closed: z.boolean(),
    facing: z.boolean(),
  }),
  z.strictObject({
    ...repeated,
    kind: z.literal('scatter'),
    count,
    area: z.tuple([finite.positive(), finite.positive()]),
    apart: finite.min(0),
    on: mention('placement').nullable(),
    off: z.array(mention('placement')).max(256),
    sources: z.array(z.strictObject({ shows: shown, weight: finite.min(0).max(1000) })).max(64),
  }),
]);
const lampSchema = z.strictObject({
  id: own('lamp'),
  name,
  kind: z.enum(['point', 'spot', 'panel']),
  parent: ref('placement').nullable(),
  layer: ref('scene layer'),
  hidden: z.boolean(),
  t: vec3,
  q: quat,
  colour: hex,
  strength: finite.min(0).max(1e6),
  size: finite.min(0).max(1e4),
  angle: finite.min(1).max(180),
});

/** Copies that a repeat makes, the first included. */
export function copiesIn(r: Repeat): number {
  if (r.kind === 'line') return r.counts.reduce((a, b) => a * b, 1);
  return r.kind === 'mirror' ? 2 : r.count;
}

/** Placements whose parents form a circle, or more copies than a scene may hold. */
function flaw(scene: Scene): string | null {
  const all = scene.placements.flat();
  if (all.length > MAX_PLACEMENTS) return `has more than ${MAX_PLACEMENTS.toLocaleString('en')} placements`;
  if (scene.repeats.reduce((n, r) => n + copiesIn(r), 0) > MAX_PLACEMENTS)
    return `repeats more than ${MAX_PLACEMENTS.toLocaleString('en')} times`;
  const parent = new Map(all.map((p) => [p.id, p.parent]));
  const whole = new Set<Id>();
  for (const { id } of all) {
    const above = new Set<Id>();
    for (let at: Id | null = id; at !== null && !whole.has(at); at = parent.get(at) ?? null) {
      if (above.has(at)) return 'has a circle in its tree';
      above.add(at);
    }
    for (const a of above) whole.add(a);
  }
  return null;
}

const listOf = (json: LooseJson, list: string): LooseJson[] => json[list] as LooseJson[];
/** What differed among scattered copies lay in the scatter itself. */
function repeatOf12({ seed, turn, sizes, lean, ...r }: LooseJson): LooseJson {
  if (r['kind'] === 'scatter') return { ...r, off: [], vary: { seed, turn, sizes, lean } };
  return { ...r, ...(r['kind'] === 'line' ? { second: null } : {}), vary: NO_VARIATION };
}
const repeatOf11 = (r: LooseJson): LooseJson => ({
  exceptions: [],
  ...(r['kind'] === 'scatter' ? { apart: 0, on: null, lean: 0, sources: [] } : {}),
  ...r,
});

export const sceneKind: RecordKind<'scene', 'scenes', Scene> = {
  name: 'scene',
  plural: 'scenes',
  list: 'scenes',
  most: 256,
  schema: z.strictObject({
    id: own('scene'),
    name,
    layers: z
      .array(z.strictObject({ id: own('scene layer'), name, colour: hex, hidden: z.boolean(), locked: z.boolean() }))
      .min(1)
      .max(256),
    placements: z.array(apart('group of placements', z.array(apart('placement', placementSchema)).max(GROUP))),
    repeats: z.array(repeatSchema).max(4096),
    lamps: z.array(lampSchema).max(16_384),
  }) as unknown as z.ZodType<Scene>,
  since: 7,
  upgrades: {
    // Exceptions, and what scatters keep to, came with format 12.
    11: (s) => ({ ...s, repeats: listOf(s, 'repeats').map(repeatOf11) }),
    // Every repeat may vary its copies from format 13 on.
    12: (s) => ({ ...s, repeats: listOf(s, 'repeats').map(repeatOf12) }),
  },
  flaw,
  kept: z.strictObject({}),
};
