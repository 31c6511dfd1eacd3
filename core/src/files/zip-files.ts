import { zipSync } from 'fflate';
import type { WrittenFile } from './exporter';

/** A fixed date, so that equal files give equal bytes. */
const MTIME = new Date(2000, 0, 1);
/** What is packed as well as it can be already. */
const PACKED = /\.(png|jpe?g|webp|glb|zip|3mf|sphal)$/i;

/** Several files as one ZIP, in their order. */
export function zipFiles(name: string, files: readonly WrittenFile[]): WrittenFile {
  const entries = Object.fromEntries(
    files.map((f) => [f.name, [f.bytes, { level: PACKED.test(f.name) ? 0 : 6 }] as const]),
  );
  return {
    name,
    bytes: zipSync(entries as Parameters<typeof zipSync>[0], { mtime: MTIME }) as Uint8Array<ArrayBuffer>,
  };
}
