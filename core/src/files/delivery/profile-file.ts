import { strFromU8, strToU8 } from 'fflate';
import * as z from 'zod';
import { type DeliveryProfile, deliveryFields } from '../../model';
import type { WrittenFile } from '../exporter';
import { FileError } from '../file-error';
import { fileName } from '../file-name';

/** What such files end with. */
export const PROFILE_ENDING = '.delivery.json';

const schema = z.strictObject({
  delivery: z.string().min(1).max(120),
  ...deliveryFields,
  tiles: z
    .array(z.strictObject({ slot: z.string().max(120), picture: z.string().max(40) }))
    .max(256)
    .default([]),
});

/** A delivery to be shared, without pictures of the project it is from. */
export function writeProfile({ id: _id, ready: _ready, name, tiles, ...values }: DeliveryProfile): WrittenFile {
  const ready = tiles.flatMap((t) => (t.picture === null ? [] : [{ slot: t.slot, picture: t.picture }]));
  const text = JSON.stringify({ delivery: name, ...values, tiles: ready }, null, 2);
  return { name: fileName(name) + PROFILE_ENDING, bytes: strToU8(`${text}\n`) as Uint8Array<ArrayBuffer> };
}

/** A shared delivery; what it does not say is plain. @throws FileError with the field that is wrong */
export function readProfile(title: string, bytes: Uint8Array): DeliveryProfile {
  const refuse = (reason: string): FileError => new FileError('delivery.damaged', { title, reason });
  let json: unknown;
  try {
    json = JSON.parse(strFromU8(bytes));
  } catch {
    throw refuse('it is not JSON');
  }
  const parsed = schema.safeParse(json);
  if (!parsed.success) {
    const { path, message } = parsed.error.issues[0]!;
    throw refuse(path.length > 0 ? `${path.join(' ')}: ${message}` : message);
  }
  const { delivery, tiles, ...values } = parsed.data;
  return {
    ...(values as unknown as DeliveryProfile),
    id: 'shared',
    ready: null,
    name: delivery,
    tiles: tiles.map((t) => ({ ...t, blob: null })),
  };
}
