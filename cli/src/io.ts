import { mkdirSync, readFileSync, renameSync, writeFileSync } from 'node:fs';
import { dirname } from 'node:path';
import { FileError, noteText, readProjectFile } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';

/** Something the person at the command line can mend; shown as one line, exit code 2. */
export class CliError extends Error {}

export function openProject(file: string): Project {
  let bytes: Uint8Array;
  try {
    bytes = readFileSync(file);
  } catch {
    throw new CliError(`${file}: there is no such file, or it cannot be read.`);
  }
  try {
    const { result, notes } = readProjectFile(bytes);
    for (const n of notes) console.error(`note: ${noteText(n)}`);
    return result;
  } catch (e) {
    if (e instanceof FileError) throw new CliError(`${file}: ${e.message}`);
    throw e;
  }
}

/** Writes beside the target and renames, so that a reader never sees half a file. */
export function writeWhole(file: string, bytes: Uint8Array): void {
  try {
    mkdirSync(dirname(file), { recursive: true });
    writeFileSync(`${file}.part`, bytes);
    renameSync(`${file}.part`, file);
  } catch (e) {
    throw new CliError(`${file} cannot be written: ${(e as Error).message}.`);
  }
}
