import { type ExportOrder, type ExportPlan, type Written } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { useNotices } from '../../stores/notices';
import { say } from '../../words';
import { type JobOptions, sharedPool } from '../../workers/pool';

/** Bytes in words. */
export const sizeText = (bytes: number): string =>
  bytes < 1e6
    ? `${Math.max(1, Math.round(bytes / 1e3)).toLocaleString('en')} KB`
    : bytes < 1e9
      ? `${(bytes / 1e6).toFixed(1)} MB`
      : `${(bytes / 1e9).toFixed(1)} GB`;

/** A file that is handed to the browser; large ones are not in memory. */
export interface Handed {
  readonly name: string;
  readonly bytes: Uint8Array<ArrayBuffer> | Blob;
}

/** Hands files to the browser as downloads, and says what was written where. */
export function download(files: readonly Handed[], type = 'application/octet-stream'): void {
  for (const { name, bytes } of files) {
    const url = URL.createObjectURL(new Blob([bytes], { type }));
    const a = document.createElement('a');
    a.href = url;
    a.download = name;
    a.click();
    setTimeout(() => URL.revokeObjectURL(url), 10_000);
  }
  const size = sizeText(files.reduce((n, f) => n + (f.bytes instanceof Blob ? f.bytes.size : f.bytes.length), 0));
  if (files[0]) useNotices().say(say('files.written', { n: files.length, name: files[0].name, size }));
}

/** The files of a project that an order asks for, made in a worker. @throws FileError when there is nothing to write */
export const exported = (
  project: Project,
  order: ExportOrder,
  options: JobOptions<'export'> = {},
): Promise<Written & Pick<ExportPlan, 'counts'>> =>
  // What is in the bin goes into nothing but the project's own file.
  sharedPool().run(
    'export',
    (sent) => ({ project: sent.packProject(project, order.exporter === 'project' ? 'all' : undefined), order }),
    options,
  );

/** A project as its own file, with all that is in it. */
export async function projectFile(project: Project): Promise<Uint8Array<ArrayBuffer>> {
  const { files } = await exported(project, { exporter: 'project', subject: { of: 'rig' }, options: {} });
  return files[0]!.bytes;
}
