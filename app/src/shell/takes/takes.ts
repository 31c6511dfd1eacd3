import { type WrittenFile, planOf, readProjectFile, writeProjectFile } from '@sphalerite/core/files';
import type { Project, Shot } from '@sphalerite/core/model';
import { takeProblem } from '@sphalerite/core/takes';
import { nanoid } from 'nanoid';
import { defineStore } from 'pinia';
import { computed, markRaw, ref } from 'vue';
import { download } from '../files/exporting';
import { type TakeRow, db } from '../../storage/database';
import { useNotices } from '../../stores/notices';
import { say } from '../../words';
import { makePictures, takeFiles } from './making';
import { JobCancelled } from '../../workers/protocol';

/** Pictures that a shot becomes, being made or finished. */
export interface Take {
  readonly id: string;
  /** Of the project that it is of. */
  readonly project: string;
  readonly title: string;
  readonly shot: Shot;
  readonly count: number;
  made: number;
  /** Seconds until all are made, as far as can be told. */
  left: number;
  state: 'making' | 'stopped' | 'done';
  /** What came of it, and an address of its first file. */
  files: readonly WrittenFile[];
  url: string;
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
    const row: TakeRow = {
      ...{ id: nanoid(), project: project.id, at: Date.now() },
      shot: JSON.parse(JSON.stringify(shot)),
      file: writeProjectFile(project),
    };
    try {
      await db.takes.put(row);
    } catch {
      // Without room to keep it, it is made all the same; it only does not outlive the page.
    }
    await make(row, project);
  }

  /** Goes on with what was under way when the page was left. */
  async function resume(): Promise<void> {
    if (asked) return;
    asked = true;
    for (const row of await db.takes
      .orderBy('id')
      .toArray()
      .catch(() => [])) {
      try {
        void make(row, readProjectFile(row.file).result);
      } catch {
        await forget(row.id);
      }
    }
  }

  async function make(row: TakeRow, project: Project): Promise<void> {
    const shot = row.shot as Shot,
      plan = planOf(project, shot);
    const title = `${project.name} ${shot.name}`;
    const known = takes.value.find((t) => t.id === row.id);
    const take = known ?? begun(row, title, shot, plan.count);
    take.state = 'making';
    const abort = new AbortController();
    aborts.set(row.id, abort);
    try {
      const pngs = await makePictures(take, plan, project, abort.signal, keep);
      take.files = markRaw(await takeFiles(title, shot, plan, pngs, abort.signal));
      const [first] = take.files;
      take.url = first ? URL.createObjectURL(new Blob([first.bytes])) : '';
      take.state = 'done';
      await forget(row.id);
      download(take.files);
    } catch (e) {
      abort.abort();
      take.state = 'stopped';
      if (!(e instanceof JobCancelled)) notices.fail(e);
    } finally {
      aborts.delete(row.id);
    }
  }
  function begun({ id, project }: TakeRow, title: string, shot: Shot, count: number): Take {
    takes.value.unshift({
      ...{ id, project, title, shot: markRaw(shot), count },
      ...{ made: 0, left: 0, state: 'making', files: [], url: '' },
    });
    return takes.value[0]!;
  }

  let full = false;
  /** Keeps a picture; where the disk is full it stays in memory alone, which is said once. */
  async function keep(take: string, index: number, png: Uint8Array<ArrayBuffer>): Promise<void> {
    try {
      await db.takeFrames.put({ take, index, png });
    } catch {
      if (!full) notices.say(say('take.notKept'), { kind: 'error' });
      full = true;
    }
  }

  /** Stops; what is made stays, and it can go on. */
  const stop = (id: string): void => aborts.get(id)?.abort();
  async function goOn(id: string): Promise<void> {
    const row = await db.takes.get(id);
    if (row) await make(row, readProjectFile(row.file).result);
  }
  /** Throws away what was made of a take. */
  async function drop(id: string): Promise<void> {
    stop(id);
    takes.value = takes.value.filter((t) => t.id !== id);
    await forget(id);
  }
  async function forget(id: string): Promise<void> {
    await db.takes.delete(id);
    await db.takeFrames.where(':id').between([id, 0], [id, Infinity]).delete();
  }
  const save = (take: Take): void => download(take.files);

  return { takes, making, start, resume, stop, goOn, drop, save };
});
