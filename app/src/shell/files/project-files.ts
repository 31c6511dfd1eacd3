import type { Brought, Find, Imported } from '@sphalerite/core/files';
import type { Project } from '@sphalerite/core/model';
import { freshId, putOnShelf } from '../../storage/shelf';
import type { Jobs } from '../../workers/jobs';
import { NOT_HELD } from '../../workers/held';
import { BrickMirror } from '../../workers/packed';
import { sharedPool } from '../../workers/pool';
import { download, exported } from './exporting';

export async function saveProjectFile(project: Project): Promise<void> {
  const order = { exporter: 'project', subject: { of: 'rig' }, options: {} } as const;
  download((await exported(project, order)).files);
}

/** Things whose files a worker was sent to hold. */
const sent = new WeakSet<Find>();

/** What a worker's importer made of files, unpacked; files that are held stay here too, others are handed over. */
export async function broughtIn(input: Jobs['bringIn']['input'], signal?: AbortSignal): Promise<Imported> {
  if (input.held === undefined || !sent.has(input.find)) {
    const imported = await asked(input, signal);
    sent.add(input.find);
    return imported;
  }
  // Large files are not copied again with every wish.
  const files = input.find.files.map((f) => ({ name: f.name, bytes: new Uint8Array(0) }));
  return asked({ ...input, again: true, find: { title: input.find.title, files } }, signal).catch((e: unknown) => {
    if ((e as Error).message !== NOT_HELD) throw e;
    return asked(input, signal);
  });
}

async function asked(input: Jobs['bringIn']['input'], signal?: AbortSignal): Promise<Imported> {
  const transfer = input.held === undefined ? input.find.files.map((f) => f.bytes.buffer) : [];
  const options = { transfer, ...(signal ? { signal } : {}) };
  const { brought, notes } = await sharedPool().run('bringIn', () => input, options);
  if (brought.kind !== 'project' && brought.kind !== 'parts') return { brought, notes };
  const mirror = new BrickMirror();
  mirror.receive(brought.bricks);
  const project = mirror.openProject(brought.project);
  return {
    brought: brought.kind === 'parts' ? { kind: 'parts', project, facts: brought.facts } : { kind: 'project', project },
    notes,
  };
}

/** The project in a file's bytes. */
export async function readProject(bytes: Uint8Array<ArrayBuffer>, name = ''): Promise<Project> {
  const find = { title: name, files: [{ name, bytes }] };
  const { brought } = await broughtIn({ importer: 'project', find, options: {}, place: null });
  return (brought as Extract<Brought, { kind: 'project' }>).project;
}

/** Puts a project that was read on the shelf, under a fresh id. Gives the id. */
export async function shelve(project: Project, keepId = false): Promise<string> {
  const id = keepId ? project.id : freshId();
  await putOnShelf({ ...project, id });
  return id;
}
