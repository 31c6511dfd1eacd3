import * as z from 'zod';
import { MAX_EDGE } from '../voxel';
import { type BINNED, EASINGS, KINDS, REFERENCE_PLANES, SIDES } from './types';

/**
 * The project as JSON, at the trust boundaries (project files, storage). A layer's cells stand in
 * separate pictures or packs, so a layer here has no grid. Unknown fields are refused.
 */
const finite = z.number().finite();
const id = z.string().regex(/^[A-Za-z0-9_-]{1,40}$/);
const name = z.string().min(1).max(120);
const vec3 = z.tuple([finite, finite, finite]);
const whole3 = z.tuple([z.int(), z.int(), z.int()]);
const quat = z
  .tuple([finite, finite, finite, finite])
  .refine((q) => Math.abs(Math.hypot(...q) - 1) < 1e-3, 'a rotation must have length 1');
const positive3 = z.tuple([finite.positive(), finite.positive(), finite.positive()]);
const transform = { t: vec3, q: quat, s: positive3 };
const hex = z.string().regex(/^#[0-9a-f]{6}$/);
const edge = z.int().min(1).max(MAX_EDGE);
const box = z.strictObject({ min: whole3, size: z.tuple([edge, edge, edge]) });
const unit = finite.min(0).max(1);

export const swatchSchema = z.strictObject({
  byte: z.int().min(1).max(255),
  name: z.string().max(120),
  colour: hex,
  emissive: finite.min(0).max(1000),
  roughness: unit,
  metalness: unit,
  opacity: unit,
  slot: z.string().max(120),
  helper: z.boolean(),
});
export const paletteSchema = z.strictObject({ id, name, swatches: z.array(swatchSchema).max(255) });
const look = swatchSchema
  .pick({ colour: true, emissive: true, roughness: true, metalness: true, opacity: true })
  .partial();
export const colourwaySchema = z.strictObject({
  id,
  name,
  changes: z.array(z.strictObject({ palette: id, byte: z.int().min(1).max(255), look })).max(64 * 255),
});
export const layerSchema = z.strictObject({ id, name, hidden: z.boolean(), locked: z.boolean() });
export const regionsSchema = z.strictObject({
  id,
  list: z.array(z.strictObject({ byte: z.int().min(1).max(255), name, side: z.enum(SIDES) })).max(255),
});
export const partSchema = z.strictObject({
  id,
  name,
  side: z.enum(SIDES),
  hidden: z.boolean(),
  palette: id,
  cell: finite.positive().max(1e4),
  bounds: box,
  pivot: whole3,
  layers: z.array(layerSchema).min(1).max(64),
  regions: regionsSchema.nullable(),
  twin: z
    .strictObject({ source: id, axis: z.union([z.literal(0), z.literal(1), z.literal(2)]), plane: finite })
    .nullable(),
  origin: z.strictObject({ whole: id, region: z.int().min(0).max(255) }).nullable(),
});
export const boneSchema = z.strictObject({
  id,
  name,
  side: z.enum(SIDES),
  parent: id.nullable(),
  rest: z.strictObject(transform),
  colour: hex.nullable(),
  ships: z.boolean(),
});
export const mountSchema = z.strictObject({
  id,
  part: id,
  bone: id.nullable(),
  alternateSet: id.nullable(),
  ...transform,
});
export const alternateSetSchema = z.strictObject({ id, name, worn: id.nullable() });
const steered = { id, bone: id, on: z.boolean(), amount: unit };
export const constraintSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...steered,
    kind: z.literal('ik'),
    goal: id,
    pole: id.nullable(),
    links: z.int().min(1).max(32),
    bend: vec3,
    hold: z.boolean(),
  }),
  z.strictObject({
    ...steered,
    kind: z.literal('match'),
    target: id,
    axes: z.tuple([z.boolean(), z.boolean(), z.boolean()]),
  }),
  z.strictObject({ ...steered, kind: z.literal('look'), target: id, axis: vec3 }),
  z.strictObject({ ...steered, kind: z.literal('upright') }),
  z.strictObject({ ...steered, kind: z.literal('limit'), min: vec3, max: vec3 }),
]);
export const attachmentSchema = z.strictObject({ id, name, side: z.enum(SIDES), bone: id, t: vec3, q: quat });
export const rigSchema = z.strictObject({
  bones: z.array(boneSchema).max(4096),
  mounts: z.array(mountSchema).max(16384),
  constraints: z.array(constraintSchema).max(4096),
  attachments: z.array(attachmentSchema).max(4096),
  alternateSets: z.array(alternateSetSchema).max(1024),
});
const time = z.int().min(0).max(1e8);
const ease = z.enum(EASINGS);
const key = <T extends z.ZodType>(value: T) =>
  z.array(z.strictObject({ time, ease, value, curve: z.tuple([unit, finite, unit, finite]).optional() })).max(100_000);
export const laneSchema = z.strictObject({ bone: id, move: key(vec3), turn: key(quat), scale: key(positive3) });
export const clipSchema = z.strictObject({
  id,
  name,
  length: z.int().min(1).max(1e8),
  fps: finite.min(1).max(240),
  loop: z.boolean(),
  ships: z.boolean(),
  lanes: z.array(laneSchema).max(4096),
  swaps: z
    .array(
      z.strictObject({ alternateSet: id, keys: z.array(z.strictObject({ time, mount: id.nullable() })).max(100_000) }),
    )
    .max(1024),
});
export const shotSchema = z.strictObject({
  id,
  name,
  camera: z.strictObject({
    kind: z.enum(['perspective', 'orthographic']),
    eye: vec3,
    target: vec3,
    fov: finite.min(1).max(170),
    height: finite.positive(),
  }),
  light: z.strictObject({
    sun: z.strictObject({
      azimuth: finite,
      elevation: finite.min(-90).max(90),
      size: finite.min(0.1).max(90),
      colour: hex,
      strength: finite.min(0).max(1000),
    }),
    sky: z.strictObject({ zenith: hex, horizon: hex, strength: finite.min(0).max(1000) }),
    ground: z.strictObject({ kind: z.enum(['none', 'colour']), colour: hex }),
    glow: finite.min(0).max(1000),
  }),
  clip: id.nullable(),
  colourway: id.nullable(),
  time,
  exposure: finite.min(-20).max(20),
  size: z.tuple([z.int().min(1).max(8192), z.int().min(1).max(8192)]),
  samples: z.int().min(1).max(65536),
});
export const referenceSchema = z.strictObject({
  id,
  name,
  part: id,
  plane: z.enum(REFERENCE_PLANES),
  image: z
    .string()
    .regex(/^data:image\/(png|jpeg|webp);base64,[A-Za-z0-9+/=]*$/)
    .max(12_000_000),
  at: z.tuple([finite, finite]),
  size: z.tuple([finite.positive(), finite.positive()]),
  opacity: unit,
  hidden: z.boolean(),
});
const limit = z.int().min(0).max(1e9);
export const targetSchema = z.strictObject({
  height: finite.min(0).max(1e5),
  faces: limit,
  bones: limit,
  texture: limit,
});
export const poseSchema = z.strictObject({
  id,
  name,
  bones: z.array(z.strictObject({ bone: id, offset: z.strictObject(transform) })).max(4096),
});
export const sealSchema = z.strictObject({
  rig: name,
  bones: z.array(z.strictObject({ bone: id, at: vec3, range: finite.min(0) })).max(4096),
  clips: z.array(id).max(1024),
});
const binned = { id, at: finite };
const kindOf = <K extends (typeof BINNED)[number]>(k: K) => ({ ...binned, kind: z.literal(k) });
export const binItemSchema = z.discriminatedUnion('kind', [
  z.strictObject({
    ...kindOf('part'),
    part: partSchema,
    mounts: z.array(mountSchema),
    references: z.array(referenceSchema).max(64),
  }),
  z.strictObject({
    ...kindOf('bone'),
    bone: boneSchema,
    children: z.array(id),
    mounts: z.array(id),
    lanes: z.array(z.strictObject({ clip: id, lane: laneSchema })),
    constraints: z.array(constraintSchema).max(4096),
    attachments: z.array(attachmentSchema).max(4096),
  }),
  z.strictObject({ ...kindOf('clip'), clip: clipSchema }),
  z.strictObject({ ...kindOf('shot'), shot: shotSchema }),
  z.strictObject({ ...kindOf('colourway'), colourway: colourwaySchema }),
]);

export const projectSchema = z.strictObject({
  formatVersion: z.int(),
  id,
  name,
  kind: z.enum(KINDS),
  metresPerUnit: finite.positive().max(1e4),
  target: targetSchema,
  palettes: z.array(paletteSchema).min(1).max(64),
  parts: z.array(partSchema).max(4096),
  rig: rigSchema,
  clips: z.array(clipSchema).max(1024),
  poses: z.array(poseSchema).max(1024),
  seal: sealSchema.nullable(),
  shots: z.array(shotSchema).max(1024),
  stamps: z.array(partSchema).max(1024),
  references: z.array(referenceSchema).max(64),
  colourways: z.array(colourwaySchema).max(256),
  bin: z.array(binItemSchema).max(4096),
});
export type ProjectJson = z.infer<typeof projectSchema>;
export type PartJson = z.infer<typeof partSchema>;
