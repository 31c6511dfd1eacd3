import { type Grade, type Project, type Shot, must } from '@sphalerite/core/model';
import type { FilmLight } from '@sphalerite/core/render';
import { isLarge, takeProblem } from '@sphalerite/core/takes';
import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, markRaw, ref } from 'vue';
import { type Handed, download, projectFile } from '../files/exporting';
import { readProject } from '../files/project-files';
import { db } from '../../storage/database';
import { useNotices } from '../../stores/notices';
import { say } from '../../words';
import { KeptTake } from './kept';
import { filesOfTake } from './making';
import { JobCancelled } from '../../workers/protocol';

/** Pictures that a shot becomes, being made or finished. */
export interface Take {
  readonly id: string;
  /** Of the project that it is of. */
  readonly project: string;
  readonly title: string;
  readonly shot: string;
  readonly large: boolean;
  /** Of a large picture tiles and what else there is to do; otherwise pictures. */
  count: number;
  made: number;
  /** What there is of a large picture, small. */
  shown: { readonly film: FilmLight; readonly grade: Grade; readonly grown: number } | null;
  /** Seconds until all are made, as far as can be told. */
  left: number;
  state: 'making' | 'stopped' | 'done';
  /** What came of it, and an address of its first file. */
  files: readonly Handed[];
  url: string;
}

/** How far one is, in words. */
export function progressOf({ made, count, large, state }: Take): string {
  if (!large) return `${made}/${count}`;
  if (state === 'making' && made === count && count > 0) return say('take.writing');
  return `${Math.floor((100 * made) / Math.max(1, count))} %`;
}

/** Takes under way and finished. They go on whatever else is done, and after a reload from the last finished picture. */
export const useTakes = defineStore('takes', () => {
  const notices = useNotices();
  const takes = ref<Take[]>([]);
  const aborts = new Map<string, AbortController>();
  const making = computed(() => takes.value.filter((t) => t.state === 'making'));
  let asked = false;

  /** Begins with what a shot becomes. */
  async function start(project: Project, shot: Shot): Promise<void> {
    const problem = takeProblem(project, shot);
    if (problem) return void notices.say(say(`take.${problem}`), { kind: 'error' });
    const take = begun({
      ...{ id: nanoid(), project: project.id, shot: shot.id, title: `${project.name} ${shot.name}` },
      ...{ count: 0, large: isLarge(shot.output) },
    });
    try {
      const { id, title, count, large } = take;
      await db.takes.put({
        id,
        title,
        count,
        large,
        project: project.id,
        shot: shot.id,
        stopped: false,
        file: await projectFile(project),
      });
    } catch {
      // Without room to keep it, it is made all the same; it only does not outlive the page.
    }
    await make(take, project, shot);
  }

  /** Goes on with what was under way when the page was left, and shows what was stopped. */
  async function resume(): Promise<void> {
    if (asked) return;
    asked = true;
    const rows = await db.takes.toArray().catch(() => []);
    for (const row of rows) {
      const take = begun({ large: false, ...row });
      take.state = 'stopped';
      take.made = row.made ?? (await keptOf(row.id).frames.indexes()).size;
      if (!row.stopped) void goOn(row.id);
    }
  }

  /** Makes what is missing of a take, in one window alone. */
  async function make(take: Take, project: Project, shot: Shot): Promise<void> {
    const abort = new AbortController();
    aborts.set(take.id, abort);
    take.state = 'making';
    try {
      await navigator.locks.request(`take ${take.id}`, { ifAvailable: true }, async (mine) => {
        if (!mine) throw new JobCancelled();
        take.files = markRaw(await filesOfTake(take, project, shot, keptOf(take.id), abort.signal));
      });
      const [first] = take.files;
      take.url = first && !take.large ? URL.createObjectURL(new Blob([first.bytes])) : '';
      take.state = 'done';
      await forget(take.id);
      download(take.files);
    } catch (e) {
      abort.abort();
      take.state = 'stopped';
      if (!(e instanceof JobCancelled)) notices.fail(e);
      // What was stopped, or cannot be made, does not begin again by itself.
      await db.takes.update(take.id, { stopped: true, made: take.made }).catch(() => 0);
    } finally {
      aborts.delete(take.id);
    }
  }
  function begun(of: Pick<Take, 'id' | 'project' | 'shot' | 'title' | 'count' | 'large'>): Take {
    const { id, project, shot, title, count, large } = of;
    takes.value.unshift({
      ...{ id, project, shot, title, count, large },
      ...{ made: 0, left: 0, shown: null, state: 'making', files: [], url: '' },
    });
    return takes.value[0]!;
  }

  const kepts = new Map<string, KeptTake>();
  /** What is kept of a take; where the disk is full it stays in memory alone, which is said once. */
  function keptOf(id: string): KeptTake {
    const kept = kepts.get(id) ?? new KeptTake(id, () => notices.say(say('take.notKept'), { kind: 'error' }));
    kepts.set(id, kept);
    return kept;
  }

  /** Stops; what is made stays, and it can go on. */
  const stop = (id: string): void => aborts.get(id)?.abort();
  async function goOn(id: string): Promise<void> {
    const take = takes.value.find((t) => t.id === id),
      row = await db.takes.get(id);
    if (!take || !row) return;
    try {
      const project = await readProject(row.file);
      await make(take, project, must(project.shots, row.shot, 'shot'));
    } catch (e) {
      notices.fail(e);
    }
  }
  /** Throws away what was made of a take. */
  async function drop(id: string): Promise<void> {
    stop(id);
    const take = takes.value.find((t) => t.id === id);
    if (take?.url) URL.revokeObjectURL(take.url);
    takes.value = takes.value.filter((t) => t.id !== id);
    await forget(id);
  }
  async function forget(id: string): Promise<void> {
    await db.takes.delete(id);
    await keptOf(id).drop();
    kepts.delete(id);
  }
  const save = (take: Take): void => download(take.files);

  return { takes, making, start, resume, stop, goOn, drop, save };
});
