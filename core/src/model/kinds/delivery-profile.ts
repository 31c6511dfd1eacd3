import * as z from 'zod';
import type { Id } from '../ids';
import { mention, own } from '../marks';
import { finite, name } from './fields';
import type { LooseJson, RecordKind } from './record-kind';

export const UP_AXES = ['+y', '+z'] as const;
export const FORWARD_AXES = ['+z', '-z', '+x', '-x', '+y', '-y'] as const;
export const ORIGINS = ['pivot', 'base', 'centre', 'corner'] as const;
/** The ready profiles that the program brings along. */
export const READY_DELIVERIES = ['phone', 'desktop', 'headset', 'print'] as const;
export type ReadyDelivery = (typeof READY_DELIVERIES)[number];

const text = z.string().max(120);
const about = (title: string, description: string) => ({ title, description });
const whole = z.int().min(0).max(1e9);

/** Every group of wishes of a delivery, each field with what it is without a word said; titles and descriptions are shown in forms and helps. */
export const deliveryGroups = {
  place: z.strictObject({
    up: z.enum(UP_AXES).default('+y').meta(about('Up', 'the axis that points up there')),
    forward: z.enum(FORWARD_AXES).default('+z').meta(about('Forward', 'the axis that a figure faces along there')),
    unitsPerMetre: finite
      .positive()
      .max(1e6)
      .default(1)
      .meta(about('Units a metre', 'how many units of the target a metre has')),
    origin: z.enum(ORIGINS).default('pivot').meta(about('Origin', 'what stands at its zero')),
  }),
  names: z.strictObject({
    prefix: text.default('').meta(about('Prefix', 'before every name')),
    letters: z
      .enum(['as they are', 'small_letters', 'small-letters', 'JoinedWords'])
      .default('as they are')
      .meta(about('Letters', 'how names are spelt')),
    left: text.default(' left').meta(about('Left', 'behind names of the left side')),
    right: text.default(' right').meta(about('Right', 'behind names of the right side')),
    collider: text
      .default('{name} collider {n}')
      .meta(about('Colliders', 'names of colliders: {name} is what they stand for, {n} counts them')),
  }),
  mesh: z.strictObject({
    merge: z
      .enum(['colour', 'slot', 'all'])
      .default('colour')
      .meta(
        about(
          'Merge',
          'flat faces of one colour; of one slot, in its commonest colour; or all, with their colours in a picture',
        ),
      ),
    as: z
      .enum(['parts', 'bones', 'skin', 'one'])
      .default('parts')
      .meta(about('As', 'a mesh for each part, one for each bone, one with a rigid skin, or one object without bones')),
    watertight: z
      .boolean()
      .default(false)
      .meta(about('Watertight', 'no open edge and no gap where colours meet; more triangles where there are many')),
    dropHidden: z
      .boolean()
      .default(false)
      .meta(about('Drop hidden', 'without faces that another part hides in every clip, which opens the mesh')),
    weld: z
      .boolean()
      .default(false)
      .meta(
        about(
          'Weld',
          'one vertex for each position and texture coordinate, without normals: readers shade flat by themselves',
        ),
      ),
    floors: text.default('').meta(about('Floors', 'slot of faces that look up, where swatches say none')),
    walls: text.default('').meta(about('Walls', 'slot of faces that look sideways, likewise')),
    ceilings: text.default('').meta(about('Ceilings', 'slot of faces that look down, likewise')),
  }),
  picture: z.strictObject({
    layout: z
      .enum(['strip', 'atlas', 'tiling'])
      .default('strip')
      .meta(about('Layout', 'a palette strip, a packed atlas, or coordinates in whole cubes for pictures that repeat')),
    padding: z.int().min(0).max(32).default(2).meta(about('Padding', 'texels around each image of an atlas')),
    powersOfTwo: z.boolean().default(true).meta(about('Powers of two', 'edges of an atlas are 16, 32, 64 …')),
    most: z.int().min(16).max(8192).default(1024).meta(about('At most', 'longest edge of an atlas, in texels')),
    second: z.boolean().default(false).meta(about('Second set', 'coordinates for baked light, without overlaps')),
    cubes: finite
      .positive()
      .max(4096)
      .default(16)
      .meta(about('Cubes a picture', 'how many cubes a picture that repeats is long')),
  }),
  collider: z.strictObject({
    shape: z
      .enum(['one box', 'boxes', 'convex', 'exact', 'none'])
      .default('boxes')
      .meta(about('Collider', 'what things bump into')),
    of: z.enum(['parts', 'whole']).default('parts').meta(about('Of', 'each part by itself, or the whole at rest')),
    tolerance: finite.min(0).max(32).default(1).meta(about('Within', 'cubes by which it may differ from the cubes')),
    moves: z.enum(['static', 'moving']).default('static').meta(about('Moves', 'whether physics moves it')),
  }),
  looks: z.strictObject({
    clips: z.boolean().default(true).meta(about('Clips', 'an animation for each clip that goes into files')),
    colourways: z
      .enum(['variants', 'files', 'none'])
      .default('variants')
      .meta(about('Colourways', 'as material variants of one file, as files of their own, or left out')),
    seeThrough: z
      .enum(['blend', 'mask'])
      .default('blend')
      .meta(about('See-through', 'blended with what is behind, or cut out where it is thin')),
  }),
  /** For solids. */
  print: z.strictObject({
    height: finite.min(0).max(100_000).default(100).meta(about('Height in mm', '0 for its real size')),
    wall: finite.min(0).max(1000).default(1.2).meta(about('Thinnest wall in mm', 'thinner ones are told')),
  }),
  budget: z.strictObject({
    triangles: whole.default(0).meta(about('Triangles', 'at most; 0 for no limit')),
    bones: whole.default(0).meta(about('Bones', 'at most; 0 for no limit')),
    draws: whole.default(0).meta(about('Draw calls', 'at most; 0 for no limit')),
    texture: whole.default(0).meta(about('Texture edge', 'in texels, at most; 0 for no limit')),
    kilobytes: whole.default(0).meta(about('Kilobytes', 'of all files, at most; 0 for no limit')),
  }),
};
export type DeliveryGroup = keyof typeof deliveryGroups;
const values = Object.fromEntries(
  Object.entries(deliveryGroups).map(([key, group]) => [key, (group as z.ZodObject).prefault({})]),
) as unknown as { [K in DeliveryGroup]: z.ZodPrefault<(typeof deliveryGroups)[K]> };

/** How files are made for one place they go to. */
export type DeliveryValues = { readonly [K in DeliveryGroup]: Readonly<z.infer<(typeof deliveryGroups)[K]>> };
export const deliveryValues = z.strictObject(values) as unknown as z.ZodType<DeliveryValues>;
/** Upright, in metres, merged by colour, with boxes to bump into. */
export const PLAIN_DELIVERY: DeliveryValues = deliveryValues.parse({});

/** A saved way to export: files made with it again have the same names. */
export interface DeliveryProfile extends DeliveryValues {
  readonly id: Id;
  readonly name: string;
  /** The ready profile that it stands in for, changed; null for one's own. */
  readonly ready: ReadyDelivery | null;
  /** Exporters that are used, by their ids. */
  readonly formats: readonly string[];
  /** Options of exporters, by exporter; each reads its own with a schema of its own. */
  readonly options: Readonly<Record<string, Readonly<Record<string, string | number | boolean>>>>;
  /** Pictures that repeat, by slot: a ready one's name, or a blob. */
  readonly tiles: readonly { readonly slot: string; readonly picture: string | null; readonly blob: Id | null }[];
}

export const deliveryFields = {
  ...values,
  formats: z.array(z.string().max(40)).max(64).default(['glb']),
  options: z.record(z.string().max(40), z.record(z.string().max(40), z.union([text, finite, z.boolean()]))).default({}),
};

export const deliveryProfileKind: RecordKind<'delivery profile', 'deliveryProfiles', DeliveryProfile> = {
  name: 'delivery profile',
  plural: 'delivery profiles',
  list: 'deliveryProfiles',
  most: 256,
  schema: z.strictObject({
    id: own('delivery profile'),
    name,
    ready: z.enum(READY_DELIVERIES).nullable(),
    ...deliveryFields,
    tiles: z
      .array(z.strictObject({ slot: text, picture: z.string().max(40).nullable(), blob: mention('blob').nullable() }))
      .max(256),
  }) as unknown as z.ZodType<DeliveryProfile>,
  since: 7,
  upgrades: {
    // Axes and names stood side by side, and nothing else was said, up to format 9.
    9: ({ id, name: title, up, forward, unitsPerMetre, origin, prefix, suffixes, options }): LooseJson => ({
      ...PLAIN_DELIVERY,
      id,
      name: title,
      ready: null,
      formats: ['glb'],
      options: options ?? {},
      tiles: [],
      place: { up, forward, unitsPerMetre, origin },
      names: { ...PLAIN_DELIVERY.names, prefix, ...(suffixes as object) },
    }),
  },
  kept: z.strictObject({}),
};
