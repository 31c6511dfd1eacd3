import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import * as z from 'zod';
import type { WrittenFile } from '../exporter';

/** The list of what was written into a folder, kept beside it there. */
export const FOLDER_LIST = '.sphalerite-delivery.json';
const schema = z.object({
  /** Hashes of files, by delivery and name. */
  deliveries: z.record(z.string().max(200), z.record(z.string().max(300), z.string().max(64))),
});
/** What earlier deliveries wrote: hashes of files by name, by delivery. */
export type FolderList = z.infer<typeof schema>;
export const EMPTY_LIST: FolderList = { deliveries: {} };

/** A stored list; an empty one where it cannot be read, so that what it may have held counts as somebody else's. */
export function readFolderList(text: string | null): FolderList {
  if (text === null) return EMPTY_LIST;
  try {
    return schema.parse(JSON.parse(text));
  } catch {
    return EMPTY_LIST;
  }
}

/** What a delivery does to a folder. */
export interface FolderPlan {
  readonly fresh: readonly WrittenFile[];
  readonly changed: readonly WrittenFile[];
  /** Names of those that are there as they would be written. */
  readonly same: readonly string[];
  /** Names that are taken by files which no delivery wrote: never touched. */
  readonly foreign: readonly string[];
  /** Names that this delivery wrote before and writes no longer, for instance since a part was renamed. */
  readonly gone: readonly string[];
  /**
   * The list to keep before anything is written: what is written on the way is ours even if the last of it fails, and is written again
   * then.
   */
  readonly claim: FolderList;
  /** The list to keep once all is written. */
  readonly list: FolderList;
}

/** A file with its SHA-256. */
export interface HashedFile extends WrittenFile {
  readonly hash: string;
}
export const hashed = (file: WrittenFile): HashedFile => ({ ...file, hash: bytesToHex(sha256(file.bytes)) });

/**
 * What is to be done with a folder for a delivery.
 *
 * @param delivery – of which project and profile, the same each time
 * @param there – names of files that stand in the folder, in any case of letters
 */
export function planFolder(
  delivery: string,
  files: readonly HashedFile[],
  list: FolderList,
  there: readonly string[],
): FolderPlan {
  const before = list.deliveries[delivery] ?? {};
  const ours = new Set(Object.values(list.deliveries).flatMap((d) => Object.keys(d).map((n) => n.toLowerCase())));
  const stands = new Set(there.map((n) => n.toLowerCase()));
  const fresh: WrittenFile[] = [],
    changed: WrittenFile[] = [],
    same: string[] = [],
    foreign: string[] = [];
  const after: Record<string, string> = {};
  for (const f of files) {
    const { hash } = f,
      low = f.name.toLowerCase();
    if (stands.has(low) && !ours.has(low)) {
      foreign.push(f.name);
      continue;
    }
    after[f.name] = hash;
    if (!stands.has(low)) fresh.push(f);
    else if (before[f.name] === hash) same.push(f.name);
    else changed.push(f);
  }
  const gone = Object.keys(before).filter((n) => !(n in after) && stands.has(n.toLowerCase()));
  const listed = (mine: Record<string, string>): FolderList => ({
    deliveries: {
      ...list.deliveries,
      // What is gone from the delivery still stands there and is still ours.
      [delivery]: { ...Object.fromEntries(gone.map((n) => [n, before[n]!])), ...mine },
    },
  });
  return {
    fresh,
    changed,
    same,
    foreign,
    gone,
    claim: listed({ ...after, ...Object.fromEntries([...fresh, ...changed].map((f) => [f.name, ''])) }),
    list: listed(after),
  };
}
