import { PROJECT_EXTENSION } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { freshId, putOnShelf } from '../storage/shelf';
import { BrickMirror } from '../workers/packed';
import { sharedPool } from '../workers/pool';

/** A name that is safe as a file name on every system. */
export const fileName = (name: string): string =>
  name
    .trim()
    .toLowerCase()
    .replaceAll(/[^a-z0-9]+/g, '-')
    .replaceAll(/^-|-$/g, '') || 'project';

/** Hands bytes to the browser as a download. */
export function download(name: string, data: Uint8Array<ArrayBuffer> | Blob, type = 'application/octet-stream'): void {
  const url = URL.createObjectURL(data instanceof Blob ? data : new Blob([data], { type }));
  const a = document.createElement('a');
  a.href = url;
  a.download = name;
  a.click();
  setTimeout(() => URL.revokeObjectURL(url), 10_000);
}

export async function saveProjectFile(project: Project): Promise<void> {
  const bytes = await sharedPool().run('projectFile', (sent) => ({ project: sent.packProject(project, 'all') }));
  download(fileName(project.name) + PROJECT_EXTENSION, bytes);
}

/** The project in a file's bytes, with what there is to tell. */
export async function readProject(bytes: Uint8Array): Promise<{ project: Project; notes: readonly string[] }> {
  const { project, bricks, notes } = await sharedPool().run('readFile', () => ({ bytes }));
  const mirror = new BrickMirror();
  mirror.receive(bricks);
  return { project: mirror.openProject(project), notes };
}

/** Reads a project file onto the shelf under a fresh id. Gives the id and what there is to tell. */
export async function shelveProjectFile(
  bytes: Uint8Array,
  keepId = false,
): Promise<{ id: string; notes: readonly string[] }> {
  const { project: opened, notes } = await readProject(bytes);
  const id = keepId ? opened.id : freshId();
  await putOnShelf({ ...opened, id });
  return { id, notes };
}
