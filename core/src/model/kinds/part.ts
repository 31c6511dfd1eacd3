import * as z from 'zod';
import { type Axis, type Box, type Vec3, boxesEqual } from '../../math';
import { VoxelGrid } from '../../voxel';
import type { Id } from '../ids';
import { cells, mention, own, ref } from '../marks';
import { type Side, box, byte, finite, name, side, whole3 } from './fields';
import type { RecordKind } from './record-kind';
import { referenceSchema } from './reference';
import { mountSchema } from './rig';

export interface Layer {
  readonly id: Id;
  readonly name: string;
  readonly hidden: boolean;
  readonly locked: boolean;
  readonly grid: VoxelGrid;
}

/** A share of a part's cubes under a name, before the part is taken apart. */
export interface Region {
  /** Its value in the grid of regions. */
  readonly byte: number;
  readonly name: string;
  readonly side: Side;
}

/** Which region each cube belongs to; 0 is the rest. Cells without a cube may be in a region too. */
export interface Regions {
  readonly id: Id;
  readonly list: readonly Region[];
  readonly grid: VoxelGrid;
}

/** Slots of faces that were picked one by one, over whatever their swatches and directions say. */
export interface FaceSlots {
  readonly list: readonly { readonly byte: number; readonly name: string }[];
  /** For directions in which faces were picked, as in `FACE_DIRECTIONS`: the slot of each cell's face, 0 for none. */
  readonly faces: readonly { readonly id: Id; readonly direction: number; readonly grid: VoxelGrid }[];
}

/** A part that is the mirror image of another: its layers, volume, pivot and mount follow that of its source. */
export interface TwinOf {
  readonly source: Id;
  readonly axis: Axis;
  /** Where the plane between the two stands at rest, in project units. */
  readonly plane: number;
}

/** One cube volume. All its layers share the lattice and `bounds`. */
export interface Part {
  readonly id: Id;
  readonly name: string;
  readonly side: Side;
  readonly hidden: boolean;
  readonly palette: Id;
  /** Edge of a cube in project units. */
  readonly cell: number;
  readonly bounds: Box;
  /** The anchor, in half cubes of the part's lattice. */
  readonly pivot: Vec3;
  /** Bottom to top; the topmost visible cube wins. */
  readonly layers: readonly Layer[];
  /** Null while no cube has been given to a region. */
  readonly regions: Regions | null;
  /** Null while no face was picked. */
  readonly faceSlots: FaceSlots | null;
  readonly twin: TwinOf | null;
  /** The whole and its region that this part was taken from; region 0 is the rest. */
  readonly origin: { readonly whole: Id; readonly region: number } | null;
  /** What its cubes were made of, under which name and with which pivot they came; null when they were built by hand. */
  readonly made: { readonly import: Id; readonly as: string; readonly pivot: Vec3 } | null;
  /** The name under which it lies together with others; null when it lies by itself. A group is there while a part says so. */
  readonly group: string | null;
}

/** What a part has before it is taken apart or follows another. */
export const PLAIN_PART = {
  regions: null,
  faceSlots: null,
  twin: null,
  origin: null,
  made: null,
  group: null,
} as const;

const layer = z.strictObject({
  id: own('layer'),
  name,
  hidden: z.boolean(),
  locked: z.boolean(),
  grid: cells(),
});
const regions = z.strictObject({
  id: own('layer'),
  list: z.array(z.strictObject({ byte, name, side })).max(255),
  grid: cells(),
});
const faceSlots = z.strictObject({
  list: z.array(z.strictObject({ byte, name })).max(255),
  faces: z.array(z.strictObject({ id: own('layer'), direction: z.int().min(0).max(5), grid: cells() })).max(6),
});
const axis = z.union([z.literal(0), z.literal(1), z.literal(2)]);
const fields = {
  name,
  side,
  hidden: z.boolean(),
  palette: ref('palette'),
  cell: finite.positive().max(1e4),
  bounds: box,
  pivot: whole3,
  layers: z.array(layer).min(1).max(64),
  regions: regions.nullable(),
  faceSlots: faceSlots.nullable(),
  twin: z.strictObject({ source: ref('part'), axis, plane: finite }).nullable(),
  origin: z.strictObject({ whole: mention('part'), region: z.int().min(0).max(255) }).nullable(),
  made: z.strictObject({ import: mention('import'), as: name, pivot: whole3 }).nullable(),
  group: name.nullable(),
};

/** Cells of a part that reach beyond its volume, or twins of twins. */
function flaw(part: Part, among: { readonly [list: string]: unknown }): string | null {
  const grids = [...part.layers, ...(part.regions ? [part.regions] : []), ...(part.faceSlots?.faces ?? [])];
  if (grids.some((g) => g.grid instanceof VoxelGrid && !boxesEqual(g.grid.bounds, part.bounds)))
    return 'has a layer of another size than its own';
  const parts = (among['parts'] ?? []) as readonly Part[];
  return part.twin && parts.some((o) => o.id === part.twin!.source && o.twin)
    ? 'follows a part that follows another'
    : null;
}

export const partKind: RecordKind<'part', 'parts', Part> = {
  name: 'part',
  plural: 'parts',
  list: 'parts',
  most: 4096,
  schema: z.strictObject({ id: own('part'), ...fields }),
  since: 1,
  upgrades: {
    // Regions, mirrored twins and where a part was taken from came with format 4.
    3: (p) => ({ regions: null, twin: null, origin: null, ...p }),
    // Picked faces came with format 10.
    9: (p) => ({ faceSlots: null, ...p }),
    // What parts were made of came with format 11.
    10: (p) => ({ made: null, ...p }),
    // Groups came with format 12.
    11: (p) => ({ group: null, ...p }),
  },
  flaw,
  kept: z.strictObject({
    mounts: z.array(mountSchema).max(16384),
    references: z.array(referenceSchema).max(64),
  }),
};

/** Small pieces placed again and again, kept as parts that belong to no rig. */
export const stampKind: RecordKind<'stamp', 'stamps', Part> = {
  ...partKind,
  name: 'stamp',
  plural: 'stamps',
  list: 'stamps',
  most: 1024,
  schema: z.strictObject({ ...fields, id: own('stamp') }),
  since: 2,
  kept: z.strictObject({}),
};
