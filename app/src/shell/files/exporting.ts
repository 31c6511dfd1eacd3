import { type ExportOrder, type ExportPlan, type Written, type WrittenFile } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { type JobOptions, sharedPool } from '../../workers/pool';

/** Hands bytes to the browser as a download. */
export function download({ name, bytes }: WrittenFile, type = 'application/octet-stream'): void {
  const url = URL.createObjectURL(new Blob([bytes], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
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
