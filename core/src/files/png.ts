import { decode, encode } from 'fast-png';
import { FileError } from './file-error';

/** Pixels as red, green, blue, alpha bytes, from the top. */
export const encodePng = (width: number, height: number, rgba: Uint8Array): Uint8Array =>
  encode({ width, height, data: rgba, channels: 4, depth: 8 });

/** The same with 16 bits a colour. */
export const encodeDeepPng = (width: number, height: number, rgba: Uint16Array): Uint8Array<ArrayBuffer> =>
  encode({ width, height, data: rgba, channels: 4, depth: 16 }) as Uint8Array<ArrayBuffer>;

/** One byte a pixel with a palette of up to 256 colours; colour 0 is transparent. */
export const encodeIndexedPng = (
  width: number,
  height: number,
  bytes: Uint8Array,
  palette: readonly (readonly [number, number, number])[],
): Uint8Array =>
  encode({
    width,
    height,
    data: bytes,
    channels: 1,
    depth: 8,
    palette: palette.map(([r, g, b], i) => [r, g, b, i === 0 ? 0 : 255]),
  });

/** The bytes of an indexed picture of exactly this size. @throws FileError */
export function decodeIndexedPng(png: Uint8Array, width: number, height: number, what: string): Uint8Array {
  // The size stands at a fixed place; it is read first, so that a lying header cannot make us allocate.
  const view = new DataView(png.buffer, png.byteOffset, png.byteLength);
  if (png.length < 33 || view.getUint32(0) !== 0x89504e47) throw new FileError('png.none', { what });
  if (view.getUint32(16) !== width || view.getUint32(20) !== height) {
    throw new FileError('png.otherSize', {
      what,
      isWidth: view.getUint32(16),
      isHeight: view.getUint32(20),
      width,
      height,
    });
  }
  if (png[24] !== 8 || png[25] !== 3) throw new FileError('png.notIndexed', { what });
  let decoded;
  try {
    decoded = decode(png);
  } catch {
    throw new FileError('png.damaged', { what });
  }
  if (decoded.data.length !== width * height) throw new FileError('png.tooShort', { what });
  return decoded.data as Uint8Array;
}
