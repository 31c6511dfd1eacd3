import type { Project, Shot } from '@sphalerite/core/model';
import { type Film, addTraced, isExposed, lightOf, makeFilm } from '@sphalerite/core/render';
import { markRaw, toRaw } from 'vue';
import { type TracingRow, db } from '../../storage/database';
import { projectFile } from '../files/exporting';
import { readProject } from '../files/project-files';
import type { Picture } from './picture-growth';

/** How often what has grown of a picture is kept, in milliseconds. */
const EVERY = 10_000;
const plain = <T>(v: T): T => JSON.parse(JSON.stringify(v)) as T;
const tilesOf = (id: string) => db.takeTiles.where(':id').between([id, 0], [id, Infinity]);
/** Where storage is full or blocked a picture is made all the same; it only does not outlive the page. */
const ifThereIsRoom = (done: Promise<unknown>): Promise<unknown> => done.catch(() => undefined);

const claimed = new Set<string>();
/** Claims a picture for this window until it is left: no other goes on with it. Gives whether it is this window's. */
function claim(id: string): Promise<boolean> {
  if (claimed.has(id)) return Promise.resolve(true);
  return new Promise((resolve) => {
    void navigator.locks.request(`picture ${id}`, { ifAvailable: true }, (lock) => {
      if (lock) claimed.add(id);
      resolve(lock !== null);
      return lock ? new Promise(() => undefined) : undefined;
    });
  });
}

/** Keeps a picture while it grows, so that a reload costs no more than a few seconds of it. */
export class GrowingPicture {
  private readonly changed = new Set<number>();
  private last = performance.now();
  private writing: Promise<unknown>;

  constructor(private readonly picture: Picture) {
    this.writing = ifThereIsRoom(this.begin());
  }
  /** Tile `index` has grown. */
  grew(index: number): void {
    this.changed.add(index);
    if (performance.now() - this.last < EVERY) return;
    this.last = performance.now();
    this.writing = this.writing.then(() => ifThereIsRoom(this.write()));
  }
  /** It is paused: all of it is kept. */
  async pause(): Promise<void> {
    await this.writing;
    await ifThereIsRoom(this.write());
    await ifThereIsRoom(db.tracings.update(this.picture.id, { stopped: true, seconds: this.picture.seconds }));
  }
  /** It is done, and kept otherwise. */
  async end(): Promise<void> {
    await this.writing;
    await ifThereIsRoom(forgetTracing(this.picture.id));
  }

  private async begin(): Promise<void> {
    const { id, project, shot, seconds } = this.picture;
    await claim(id);
    const known = await db.tracings.get(id);
    const file = known?.file ?? (await projectFile(project));
    await db.tracings.put({ id, project: project.id, shot: plain(shot), file, seconds, stopped: false });
  }
  private async write(): Promise<void> {
    const { id, film, seconds } = this.picture,
      now = [...this.changed];
    this.changed.clear();
    // One after another: many at once would hold up the page.
    for (const index of now) await db.takeTiles.put({ take: id, index, traced: toRaw(film.tiles[index]!) });
    await db.tracings.update(id, { seconds });
  }
}

export async function forgetTracing(id: string): Promise<void> {
  await db.tracings.delete(id);
  await tilesOf(id).delete();
}

/** Pictures that were not done when the page was left, with all that was kept of them; not those that another window has. */
export async function unfinishedPictures(): Promise<{ picture: Picture; stopped: boolean }[]> {
  const rows = await db.tracings.toArray().catch((): TracingRow[] => []);
  const found: { picture: Picture; stopped: boolean }[] = [];
  for (const { id, shot, file, seconds, stopped } of rows) {
    if (!(await claim(id))) continue;
    const project: Project = await readProject(file);
    const film = makeFilm(...shot.output.size);
    for (const { traced } of await tilesOf(id).toArray()) addTraced(film, traced);
    found.push({ picture: pictureOf({ id, project, shot, film: markRaw(film), seconds, done: false }), stopped });
  }
  return found;
}

function pictureOf(p: Pick<Picture, 'id' | 'project' | 'shot' | 'film' | 'seconds' | 'done'>): Picture {
  const samples = p.film.tiles.reduce((n, t) => n + (t?.samples ?? 0), 0);
  return {
    ...{ ...p, project: markRaw(p.project), calm: null, calmed: 0, url: '' },
    share: p.done ? 1 : samples / (p.film.tiles.length * p.shot.output.samples),
  };
}

/** Keeps one that is done: its light as it is shown, and its settings. */
export async function keepPicture(p: Picture, png: Uint8Array<ArrayBuffer>): Promise<void> {
  const { id, project, shot, seconds, calmed } = p;
  const light = toRaw(p.calm ?? lightOf(p.film));
  await ifThereIsRoom(
    db.pictures.put({ id, project: project.id, at: Date.now(), shot: plain(shot), seconds, calmed, png, light }),
  );
}
export const forgetPicture = (id: string): Promise<unknown> => ifThereIsRoom(db.pictures.delete(id));

/** Those of a project that were done before, the newest first. They can be looked at, graded and compared; to become clearer they begin anew. */
export async function keptPictures(project: Project): Promise<Picture[]> {
  const rows = await db.pictures
    .where({ project: project.id })
    .toArray()
    .catch(() => []);
  return rows
    .sort((a, b) => b.at - a.at)
    .map(({ id, shot, seconds, calmed, png, light }) => ({
      ...pictureOf({ id, project, shot, film: markRaw(emptyFilm(shot)), seconds, done: true }),
      ...{ calm: markRaw(light), calmed, url: URL.createObjectURL(new Blob([png], { type: 'image/png' })) },
    }));
}
const emptyFilm = (shot: Shot): Film => makeFilm(...shot.output.size);

/** Whether a picture has its samples still: one that was kept has its light alone. */
export const hasSamples = (p: Picture): boolean => isExposed(p.film);
