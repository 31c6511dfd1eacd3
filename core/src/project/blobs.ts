import {
  type Blob,
  type Id,
  LISTED_KINDS,
  type Project,
  type RecordKind,
  MAX_BLOB,
  pictureTypeOf,
  eachMarked,
  find,
  namedKinds,
  makeBlob,
  recordsOf,
} from '../model';
import { EditError } from './edit-error';

/**
 * The project with a picture among its blobs, and its id; the same project when it has it already.
 *
 * @throws EditError when it is no picture that can be shown everywhere, or too large
 */
export function withBlob(
  project: Project,
  name: string,
  bytes: Uint8Array<ArrayBuffer>,
): { readonly project: Project; readonly blob: Id } {
  const type = pictureTypeOf(bytes);
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
/** Kinds that go when nothing names them, each with those whose records may; what names others of them comes before those. */
const LOOSE = LISTED_KINDS.filter((k) => k.whileNamed).map((kind) => ({
  kind,
  // What is in the bin may be of any kind.
  naming: LISTED_KINDS.filter((k) => k.name === 'bin' || namedKinds(k.schema).has(kind.name)),
}));

/** The project without files, and imports, that nothing in it or in its bin names any more; the same one when there are none. */
export const withoutLoose = (before: Project, project: Project): Project =>
  LOOSE.reduce((p, { kind, naming }) => {
    const records = recordsOf(p, kind);
    if (records.length === 0 || LISTED_KINDS.every((k) => recordsOf(before, k) === recordsOf(p, k))) return p;
    const named = namedIn(p, kind.name, naming);
    const left = records.filter((r) => named.has(r.id));
    return left.length === records.length ? p : { ...p, [kind.list]: left };
  }, project);

function namedIn(project: Project, of: string, naming: readonly RecordKind<string, string>[]): ReadonlySet<unknown> {
  const named = new Set<unknown>();
  for (const kind of naming)
    for (const record of recordsOf(project, kind))
      eachMarked(kind.schema, NAMING, record, (mark, id) => {
        if ('of' in mark && mark.of === of) named.add(id);
      });
  return named;
}
