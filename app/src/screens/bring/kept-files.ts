import type { GivenFile } from '@sphalerite/core/files';
import { MAX_BLOB, type Project, blobId, blobTypeOf } from '@sphalerite/core/model';
import { type MakingFile, keepingHow } from '@sphalerite/core/project';
import type { Arrival } from '../../stores/arrivals';
import { useNotices } from '../../stores/notices';
import { say } from '../../words';

/** What comes, with the files and wishes it was made of, so that it can be made again. */
export async function withHow(
  project: Project,
  { importer, find }: Arrival,
  wishes: Readonly<Record<string, unknown>>,
): Promise<Project> {
  const large = find.files.find((f) => f.bytes.length > MAX_BLOB);
  if (large) {
    useNotices().say(say('bring.notKept', { name: large.name, megabytes: MAX_BLOB / 1048576 }));
    return project;
  }
  const options = JSON.parse(JSON.stringify(wishes)) as Record<string, unknown>;
  return keepingHow(project, { importer, options }, await keptFiles(find.files));
}

/** Files as a project keeps them, named by what is in them; the browser sums them, off this thread. */
const keptFiles = (files: readonly GivenFile[]): Promise<MakingFile[]> =>
  Promise.all(
    files.map(async ({ name, bytes }) => ({
      name,
      blob: { id: await sum(bytes), type: blobTypeOf(bytes), bytes },
    })),
  );

/** Browsers lend their sums to pages that came over a safe way only. */
async function sum(bytes: Uint8Array<ArrayBuffer>): Promise<string> {
  const { subtle } = crypto as { subtle?: SubtleCrypto };
  if (!subtle) return blobId(bytes);
  return [...new Uint8Array(await subtle.digest('SHA-256', bytes))]
    .map((b) => b.toString(16).padStart(2, '0'))
    .join('');
}
