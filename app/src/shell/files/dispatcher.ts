import {
  type Find,
  type GivenFile,
  IMPORTERS,
  type Imported,
  type Importer,
  type Needs,
  findsIn,
  importerOf,
  noteText,
  optionFields,
} from '@sphalerite/core/files';
import { find, idsFrom, makeProject, must } from '@sphalerite/core/model';
import * as projects from '@sphalerite/core/project';
import { type FileOffer, useArrivals } from '../../stores/arrivals';
import { runCommand } from '../../stores/commands';
import { useDialogs } from '../../stores/dialogs';
import { useNotices } from '../../stores/notices';
import { useSession } from '../../stores/session';
import { JobCancelled } from '../../workers/protocol';
import { usePieces } from '../pieces/pieces-state';
import { placeInHand } from './place';
import { broughtIn, shelve } from './project-files';
import { say } from '../../words';

/** Larger files are not read at all: none of those we know is. */
const MOST_BYTES = 512 * 1024 * 1024;

const MISSING: Readonly<Record<Needs, string>> = {
  nothing: '',
  project: say('bring.needsProject'),
  part: say('bring.needsPart'),
};

/** Whether what an import needs is there. */
function given(needs: Needs): boolean {
  const session = useSession();
  if (needs === 'nothing') return true;
  return session.project !== null && session.writable && (needs === 'project' || session.part !== null);
}
/** Whether there is so much to choose about what comes that it is shown first. */
const isShown = (i: Importer): boolean => optionFields(i.options).length > 0;
/** Whether a use can begin here: what is shown first begins a project of its own where none is open. */
const canUse = (i: Importer): boolean =>
  given(i.needs) || (i.needs === 'project' && isShown(i) && useSession().project === null);

/**
 * The one way in for files, dropped, pasted or chosen anywhere: each is looked at, and what it can be used for here is done,
 * or asked for where there is more than one use.
 *
 * @param as – the importer, where that is settled already
 * @param site – where in a scene they were dropped
 */
export async function takeFiles(files: Iterable<File>, as?: string, site: projects.Site | null = null): Promise<void> {
  const read: GivenFile[] = [];
  for (const f of files) {
    if (f.size > MOST_BYTES) refuse(say('bring.tooLarge', { name: f.name, megabytes: Math.round(f.size / 1048576) }));
    else read.push({ name: f.name, bytes: await bytesOf(f) });
  }
  if (read.length > 0 && joined(read)) return;
  const settled = as === undefined ? null : importerOf(as)!;
  const { found, unknown } = settled
    ? { found: settled.inspect(read).map((find) => ({ find, uses: [settled] })), unknown: [] }
    : findsIn(read, IMPORTERS);
  const known = [...new Set(IMPORTERS.flatMap((i) => i.extensions))].join(', ');
  for (const { name } of unknown) refuse(say('bring.unknown', { name, known }));
  for (const { find, uses } of found) await use(find, uses, site);
}

/** A file's bytes; a drawing becomes a picture here, because no worker can draw one. */
async function bytesOf(f: File): Promise<Uint8Array<ArrayBuffer>> {
  const bytes = new Uint8Array(await f.arrayBuffer());
  if (!/\.svg$/i.test(f.name) && f.type !== 'image/svg+xml') return bytes;
  // What cannot be drawn goes on as it is, and is told of where it is read.
  return (await import('./drawn-svg')).drawnSvg(bytes).catch(() => bytes);
}

/** Files that something which is being brought in still wants go to it. */
function joined(files: readonly GivenFile[]): boolean {
  const arrivals = useArrivals(),
    { waiting } = arrivals;
  const find = waiting && importerOf(waiting.importer)!.joins?.(waiting.find, files);
  if (!find) return false;
  arrivals.waiting = { ...waiting, find };
  return true;
}

const refuse = (text: string): void => void useNotices().say(text, { kind: 'error' });

async function use(find: Find, uses: readonly Importer[], site: projects.Site | null): Promise<void> {
  const open = uses.filter(canUse);
  if (open.length === 0) return refuse(say('bring.cannotHere', { title: find.title, why: MISSING[uses[0]!.needs] }));
  const offersOf = (of: readonly Importer[]): FileOffer[] => of.map((i) => ({ importer: i.id, does: i.does }));
  const shown = offersOf(open.filter(isShown));
  // What is dropped onto a scene is meant to stand in it; in which way can still be chosen where it is shown.
  const stands = shown[0]?.importer ?? open.find((i) => i.id === 'project')?.id;
  const settled = open.length === 1 ? open[0]!.id : site ? stands : undefined;
  const chosen = settled ?? (await useArrivals().ask(find.title, offersOf(open)));
  if (chosen === null) return;
  try {
    if (isShown(importerOf(chosen)!)) return await show(chosen, find, shown, site);
    take(chosen, find, await broughtIn({ importer: chosen, find, options: {}, place: placeInHand() }), site);
  } catch (e) {
    if (e instanceof JobCancelled) return;
    const { message } = e as Error;
    refuse(message.includes(find.title) ? message : `${find.title}: ${message}`);
  }
}

/** Begins with something that is made up of a seed. */
export async function makeUp(id = 'tree'): Promise<void> {
  const importer = importerOf(id)!;
  if (useSession().project !== null && !given('project'))
    return refuse(say('bring.cannotHere', { title: importer.does, why: MISSING.project }));
  useArrivals().waiting = null;
  await show(id, importer.inspect([])[0]!, []);
}

/** Opens what the part in hand was made of, with the wishes that it was made with. */
export async function makeAgain(): Promise<void> {
  const { part, project } = useSession();
  const kept = part?.made && find(project!.imports, part.made.import);
  if (!kept) return refuse(say('again.gone', { part: part?.name ?? '' }));
  const importer = importerOf(kept.importer);
  const options = importer?.options.safeParse(kept.options);
  if (!importer || !options?.success) return refuse(say('again.unknown', { part: part!.name }));
  const files = kept.files.map(({ name, blob }) => ({ name, bytes: must(project!.blobs, blob, 'blob').bytes }));
  const [first] = importer.inspect(files);
  const arrivals = useArrivals();
  arrivals.behind = [];
  arrivals.waiting = {
    importer: importer.id,
    find: { title: first?.title ?? kept.importer, files },
    uses: [],
    again: { part: part!.id, options: options.data as Record<string, unknown> },
  };
  await runCommand('go.bring');
}

/** Opens the screen on which one chooses how something comes in, in a project of its own where none is open. */
async function show(
  importer: string,
  find: Find,
  uses: readonly FileOffer[],
  site: projects.Site | null = null,
): Promise<void> {
  const arrivals = useArrivals();
  const arrival = { importer, find, uses, ...(site ? { site } : {}) };
  if (arrivals.waiting) {
    arrivals.behind = [...arrivals.behind, arrival];
    return;
  }
  if (useSession().project === null) {
    const name = find.title.replace(/\.[^.]+$/, '').slice(0, 60) || 'Untitled';
    const id = await shelve(makeProject('new', name, idsFrom(String(Date.now()))));
    arrivals.shelved++;
    arrivals.waiting = arrival;
    return arrivals.open(id, 'bring');
  }
  arrivals.waiting = arrival;
  await runCommand('go.bring');
}

/** Puts what was brought in where it belongs. */
function take(importer: string, find: Find, { brought, notes }: Imported, site: projects.Site | null): void {
  const notices = useNotices();
  const session = useSession();
  const arrivals = useArrivals();
  const told = notes.map((n) => ` ${noteText(n)}`).join('');
  switch (brought.kind) {
    case 'project':
      if (importer === 'pieces') {
        useDialogs().pieces = 'any';
        return usePieces().begin(brought.project);
      }
      void shelve(brought.project).then((id) => {
        arrivals.shelved++;
        if (site) return arrivals.stand(id, site);
        const action = session.project ? { action: { label: 'Open it', run: () => arrivals.open(id) } } : {};
        notices.say(say('bring.onShelf', { title: find.title, told }), action);
      }, notices.fail);
      return;
    case 'parts':
      throw new Error('Parts are shown before they come in.');
    case 'palette':
      arrivals.palette = brought;
      if (session.where !== 'Build') void runCommand('go.build').catch(notices.fail);
      return;
    case 'surroundings': {
      const { name, bytes } = brought;
      session.apply(projects.surroundShotEdit, { shot: session.shot?.id ?? null, name, bytes }, (p) => ({
        shot: session.shot?.id ?? p.shots.at(-1)!.id,
      }));
      if (session.where !== 'Light') void runCommand('go.light').catch(notices.fail);
      return;
    }
    case 'edit': {
      const edit = Object.values(projects).find(
        (e): e is projects.Edit<unknown> =>
          typeof e === 'object' && 'run' in e && 'name' in e && e.name === brought.edit,
      );
      if (!edit) throw new Error(`There is no edit "${brought.edit}".`);
      if (session.apply(edit, brought.args) && told) notices.say(told.trim());
    }
  }
}
