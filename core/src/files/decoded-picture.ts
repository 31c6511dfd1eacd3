import { CodecError, type Pixels, decodeJpeg, decodePng, isJpeg, isPng } from '../codec';
import type { GivenFile, ImportJob } from './importer';

/** Kinds that browsers decode, by how they begin. */
const OTHERS: readonly (readonly [type: string, start: RegExp])[] = [
  ['image/webp', /^RIFF.{4}WEBP/s],
  ['image/gif', /^GIF8[79]a/],
  ['image/svg+xml', /^[\s\ufeff\xef\xbb\xbf]*(<\?xml[^]*)?(<!--[^]*|<!DOCTYPE[^]*)?<svg[\s>]/],
];
const otherType = (head: Uint8Array): string | null => {
  const text = String.fromCharCode(...head.subarray(0, 1024));
  return OTHERS.find(([, start]) => start.test(text))?.[0] ?? null;
};

/** Whether a file begins as a picture that can be read somewhere, or is called one that is a text. */
export const looksLikePicture = (head: Uint8Array, name = ''): boolean =>
  isPng(head) || isJpeg(head) || otherType(head) !== null || /\.svg$/i.test(name);

/** Decoded once for as long as the file is held, however often it is made something of. */
const known = new WeakMap<GivenFile, Promise<Pixels>>();

/**
 * The pixels of a picture: PNG and JPEG by ourselves, the same everywhere; other kinds as whoever runs the import decodes them.
 *
 * @throws CodecError when it is none, or damaged
 */
export function decodedPicture(file: GivenFile, job: ImportJob): Promise<Pixels> {
  let pixels = known.get(file);
  if (!pixels) known.set(file, (pixels = decode(file.bytes, job)));
  return pixels;
}

async function decode(bytes: Uint8Array<ArrayBuffer>, job: ImportJob): Promise<Pixels> {
  if (isPng(bytes)) return decodePng(bytes);
  if (isJpeg(bytes)) return decodeJpeg(bytes);
  const type = otherType(bytes);
  if (type === null) throw new CodecError('codec.unknown');
  if (!job.pixels) throw new CodecError('codec.browser');
  return job.pixels(bytes, type).catch(() => {
    throw new CodecError('codec.damaged');
  });
}
