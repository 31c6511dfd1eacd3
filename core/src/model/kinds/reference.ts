import { toByteArray } from 'base64-js';
import * as z from 'zod';
import type { Id } from '../ids';
import { own, ref } from '../marks';
import { type PictureType, makeBlob } from './blob';
import { finite, name, unit } from './fields';
import type { FoundBlob, LooseJson, RecordKind } from './record-kind';

export const REFERENCE_PLANES = ['front', 'side', 'top'] as const;
/** A picture to work from, standing behind (front), beside (side) or under (top) a part, to whole cubes. */
export interface Reference {
  readonly id: Id;
  readonly name: string;
  readonly part: Id;
  readonly plane: (typeof REFERENCE_PLANES)[number];
  /** The picture itself. */
  readonly blob: Id;
  /** Lower left corner in cubes of the part's lattice: x y, z y or x z. */
  readonly at: readonly [number, number];
  /** Width and height in cubes. */
  readonly size: readonly [number, number];
  /** 0–1. */
  readonly opacity: number;
  readonly hidden: boolean;
}

export const referenceSchema = z.strictObject({
  id: own('reference picture'),
  name,
  part: ref('part'),
  plane: z.enum(REFERENCE_PLANES),
  blob: ref('blob'),
  at: z.tuple([finite, finite]),
  size: z.tuple([finite.positive(), finite.positive()]),
  opacity: unit,
  hidden: z.boolean(),
});

/** Up to format 6 the picture stood in the record as a data address. */
export function referenceOf6(r: LooseJson, found: (blob: FoundBlob) => void): LooseJson {
  const { image, ...rest } = r;
  const [, type, data] = /^data:(image\/(?:png|jpeg|webp));base64,([A-Za-z0-9+/=]*)$/.exec(String(image)) ?? [];
  if (data === undefined) throw new Error('not a picture');
  const blob = makeBlob(type as PictureType, toByteArray(data) as Uint8Array<ArrayBuffer>);
  found(blob);
  return { ...rest, blob: blob.id };
}

export const referenceKind: RecordKind<'reference picture', 'references', Reference> = {
  name: 'reference picture',
  plural: 'reference pictures',
  list: 'references',
  most: 64,
  schema: referenceSchema,
  since: 2,
  upgrades: { 6: referenceOf6 },
};
