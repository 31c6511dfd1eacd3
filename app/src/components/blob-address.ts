import type { Blob as StoredBlob } from '@sphalerite/core/model';

const addresses = new WeakMap<Uint8Array, string>();
const released = new FinalizationRegistry<string>((address) => URL.revokeObjectURL(address));

/** An address under which the page shows a blob of the project; it goes when the blob does. */
export function blobAddress(blob: StoredBlob | undefined): string | undefined {
  if (!blob) return undefined;
  let address = addresses.get(blob.bytes);
  if (address === undefined) {
    address = URL.createObjectURL(new Blob([blob.bytes], { type: blob.type }));
    addresses.set(blob.bytes, address);
    released.register(blob.bytes, address);
  }
  return address;
}
