import { type Project, makeId } from '@sphalerite/core/model';
import { startHistory } from '@sphalerite/core/project';
import { EMPTY_VIEW } from './view-state';
import { CONTENT_TABLES, type HeadRow, PIECE_TABLES, db, rowsOf } from './database';
import { projectPicture } from '../workers/thumbnails';
import { holdProject } from './lock';
import { openStored } from './open-stored';
import { ProjectWriter } from './project-writer';
import type { Table } from 'dexie';
import { say } from '../words';

export const freshId = (): string => makeId(Math.random);

export type ShelfRow = HeadRow & { readonly thumbnail: Blob | null };

/** Puts a project on the shelf as it is; its id must be new. */
/** Writes a project as a new one, with its picture: the one that is there already, or one that is drawn. */
export async function putOnShelf(
  project: Project,
  { picture, modified = Date.now() }: { picture?: Uint8Array<ArrayBuffer>; modified?: number } = {},
): Promise<void> {
  const shown = picture ?? (await projectPicture(project));
  await new ProjectWriter(project.id, 1).save(startHistory(project, EMPTY_VIEW, modified), shown);
  await db.heads.update(project.id, { modified });
}

/** What stands on the shelf, the latest work first. */
export async function listShelf(): Promise<ShelfRow[]> {
  const heads = (await db.heads.toArray()).sort((a, b) => b.modified - a.modified);
  const pictures = await db.thumbnails.bulkGet(heads.map((h) => h.id));
  return heads.map((h, i) => ({ ...h, thumbnail: asBlob(pictures[i]?.png) }));
}

export const setBinned = async (id: string, binned: number | null): Promise<void> => {
  await db.heads.update(id, { binned });
};

const asBlob = (png: Uint8Array<ArrayBuffer> | Blob | undefined): Blob | null =>
  png === undefined ? null : png instanceof Blob ? png : new Blob([png], { type: 'image/png' });

export const setThumbnail = async (id: string, png: Uint8Array<ArrayBuffer>): Promise<void> => {
  await db.thumbnails.put({ id, png });
};

/** The present state of a project on the shelf, without opening it for work. */
export async function readFromShelf(id: string): Promise<Project> {
  const { history } = await openStored(id, 0);
  return history.entries[0]!.project;
}

/** A project is held by another window, so that nothing may be done to it from here. */
export class HeldError extends Error {
  override readonly name = 'HeldError';
}

/**
 * Runs `work` on a project that no window has open, and keeps it from being opened meanwhile.
 *
 * @param doing – what it is, as in "deleted"
 * @throws HeldError when a window has it open
 */
export async function whileHeld<T>(id: string, doing: string, work: (epoch: number) => Promise<T>): Promise<T> {
  const hold = await holdProject(id, false, () => undefined);
  if (!hold.writable) {
    const name = (await db.heads.get(id))?.name ?? 'This project';
    throw new HeldError(say('shelf.held', { name, doing }));
  }
  try {
    return await work(hold.epoch);
  } finally {
    hold.release();
  }
}

/** For good, with its history. @throws HeldError while a window has it open */
export const removeFromShelf = (id: string): Promise<void> =>
  whileHeld(id, 'deleted', () =>
    db.transaction('rw', [...CONTENT_TABLES, db.thumbnails, db.pictures], async () => {
      await db.heads.delete(id);
      await db.thumbnails.delete(id);
      await db.pictures.where({ project: id }).delete();
      for (const table of [db.steps, ...PIECE_TABLES]) await rowsOf(table as Table, id).delete();
    }),
  );
