import { type Project, makeId } from '@sphalerite/core/model';
import { startHistory } from '@sphalerite/core/project';
import { EMPTY_VIEW } from './view-state';
import { CONTENT_TABLES, type HeadRow, db } from './database';
import { projectPicture } from '../workers/thumbnails';
import { ProjectWriter } from './project-store';

export const freshId = (): string => makeId(Math.random);

/** Puts a project on the shelf as it is; its id must be new. */
export async function putOnShelf(project: Project): Promise<void> {
  await new ProjectWriter(project.id, 1).save(
    startHistory(project, EMPTY_VIEW, Date.now()),
    await projectPicture(project),
  );
}

export const listShelf = async (): Promise<HeadRow[]> =>
  (await db.heads.toArray()).sort((a, b) => b.modified - a.modified);

export const setBinned = async (id: string, binned: number | null): Promise<void> => {
  await db.heads.update(id, { binned });
};

export const setThumbnail = async (id: string, thumbnail: Blob): Promise<void> => {
  await db.heads.update(id, { thumbnail });
};

/** The present state of a project on the shelf, without opening it for work. */
export async function readFromShelf(id: string): Promise<Project> {
  const h = await new ProjectWriter(id, 0).load();
  return h.entries[h.now]!.project;
}

/** For good, with its history. */
export async function removeFromShelf(id: string): Promise<void> {
  await db.transaction('rw', CONTENT_TABLES, async () => {
    await db.heads.delete(id);
    for (const table of [db.entries, db.records, db.grids, db.bricks] as const)
      await table.where('project').equals(id).delete();
  });
}

export async function getSetting<T>(key: string, fallback: T): Promise<T> {
  return ((await db.settings.get(key))?.value as T | undefined) ?? fallback;
}
let settingsUnderWay = 0;
/** Whether a setting is still being written. */
export const settingsPending = (): boolean => settingsUnderWay > 0;
export async function putSetting(key: string, value: unknown): Promise<void> {
  settingsUnderWay++;
  try {
    await db.settings.put({ key, value });
  } finally {
    settingsUnderWay--;
  }
}
