import {
  type Blob,
  type Id,
  LISTED_KINDS,
  type Project,
  MAX_BLOB,
  blobTypeOf,
  eachMarked,
  find,
  hasMarked,
  makeBlob,
  recordsOf,
} from '../model';
import { EditError } from './edit-error';

/**
 * The project with a file among its blobs, and its id; the same project when it has it already.
 *
 * @throws EditError when it is of no type that a project keeps, or too large
 */
export function withBlob(
  project: Project,
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
): { readonly project: Project; readonly blob: Id } {
  const type = blobTypeOf(bytes);
  if (!type) throw new EditError('blobs.noPicture', { name });
  if (bytes.length > MAX_BLOB) throw new EditError('blobs.tooLarge', { name, megabytes: MAX_BLOB / 1048576 });
  const blob = makeBlob(type, bytes);
  return { blob: blob.id, project: withBlobs(project, [blob]) };
}

/** The project with blobs that it may have already. */
export function withBlobs(project: Project, blobs: readonly Blob[]): Project {
  const fresh = blobs.filter((b) => !find(project.blobs, b.id));
  return fresh.length === 0 ? project : { ...project, blobs: [...project.blobs, ...fresh] };
}

const NAMING = ['ref', 'mention'] as const;
/** The lists whose records may name blobs. */
const naming = LISTED_KINDS.filter((k) => hasMarked(k.schema, NAMING));

/** The project without blobs that nothing in it or in its bin names any more; the same one when there are none. */
export function withoutLooseBlobs(before: Project, project: Project): Project {
  if (project.blobs.length === 0 || naming.every((k) => recordsOf(before, k) === recordsOf(project, k))) return project;
  const named = new Set<unknown>();
  for (const kind of naming) {
    for (const record of recordsOf(project, kind))
      eachMarked(kind.schema, NAMING, record, (mark, id) => {
        if ('of' in mark && mark.of === 'blob') named.add(id);
      });
  }
  const blobs = project.blobs.filter((b) => named.has(b.id));
  return blobs.length === project.blobs.length ? project : { ...project, blobs };
}
