import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import * as z from 'zod';
import type { Id } from '../ids';
import { bytes, own } from '../marks';
import type { RecordKind } from './record-kind';

export const PICTURE_TYPES = ['image/png', 'image/jpeg', 'image/webp'] as const;
export type PictureType = (typeof PICTURE_TYPES)[number];
/** What is kept to be read again by an importer, of whatever kind it is. */
const OTHER = 'application/octet-stream';
export const BLOB_TYPES = [...PICTURE_TYPES, OTHER] as const;
export type BlobType = (typeof BLOB_TYPES)[number];
/** Bytes that one blob may hold. */
export const MAX_BLOB = 64 * 1024 * 1024;

/** A file that the project holds as it is: a picture to work from, a surrounding, what parts were made of. Kept once, however many name it. */
export interface Blob {
  /** SHA-256 of the bytes, as hex. */
  readonly id: Id;
  readonly type: BlobType;
  readonly bytes: Uint8Array<ArrayBuffer>;
}

const HEADS: readonly (readonly [PictureType, RegExp])[] = [
  ['image/png', /^\x89PNG\r\n\x1a\n/],
  ['image/jpeg', /^\xff\xd8\xff/],
  ['image/webp', /^RIFF[^]{4}WEBP/],
];
/** What picture a file is by its first bytes; null for one that cannot be shown everywhere, and for what is none. */
export function pictureTypeOf(data: Uint8Array): PictureType | null {
  const head = String.fromCharCode(...data.subarray(0, 16));
  return HEADS.find(([, start]) => start.test(head))?.[0] ?? null;
}

export const blobTypeOf = (data: Uint8Array): BlobType => pictureTypeOf(data) ?? OTHER;

export const blobId = (data: Uint8Array): Id => bytesToHex(sha256(data));
export const makeBlob = (type: BlobType, data: Uint8Array<ArrayBuffer>): Blob => ({
  id: blobId(data),
  type,
  bytes: data,
});

export const blobKind: RecordKind<'blob', 'blobs', Blob> = {
  name: 'blob',
  plural: 'blobs',
  list: 'blobs',
  most: 4096,
  schema: z.strictObject({ id: own('blob'), type: z.enum(BLOB_TYPES), bytes: bytes() }),
  since: 7,
  upgrades: {},
  whileNamed: true,
  flaw: ({ type, bytes: data }) =>
    data instanceof Uint8Array && data.length > 0 && blobTypeOf(data) !== type ? `is no ${type}` : null,
};
