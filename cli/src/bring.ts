import { readFileSync } from 'node:fs';
import { basename, resolve } from 'node:path';
import {
  type GivenFile,
  IMPORTERS,
  type ImportJob,
  type Importer,
  QUIET_JOB,
  noteText,
  optionFields,
  optionsFromWords,
  writeProjectFile,
} from '@sphalerite/core/files';
import { type Project, blobTypeOf, makeBlob } from '@sphalerite/core/model';
import { apply, bringPartsEdit, editContext, keepingHow, summarize } from '@sphalerite/core/project';
import { Refusal } from '@sphalerite/core/words';
import { CliError, writeWhole } from './io';

export interface BringWishes {
  readonly as: string;
  readonly out: string;
  readonly option: readonly string[];
  readonly json?: boolean;
}

/** What makes parts of files. */
const WAYS = IMPORTERS.filter((i) => optionFields(i.options).length > 0);

/** What each way takes, for the help. */
export const waysHelp = (): string =>
  WAYS.map((w) =>
    [
      `${w.id}: ${w.does.toLowerCase()} (${w.extensions.join(' ')})`,
      ...optionFields(w.options).map(
        (f) => `  --option ${f.key}=${f.choices.join('|') || String(f.preset || '…')}  ${f.about}`,
      ),
    ].join('\n'),
  ).join('\n');

/** No page here: what only browsers decode is told. */
const JOB: ImportJob = { ...QUIET_JOB, pictureSize: () => Promise.reject(new Error('There is no page here.')) };

function read(file: string): GivenFile {
  try {
    return { name: basename(file), bytes: new Uint8Array(readFileSync(file)) };
  } catch {
    throw new CliError(`${file}: there is no such file, or it cannot be read.`);
  }
}

/** Makes a project file of pictures and the like: nothing is written before all of them are made. */
export async function bringCommand(files: readonly string[], wishes: BringWishes): Promise<void> {
  const way = WAYS.find((w) => w.id === wishes.as);
  if (!way) throw new CliError(`There is no way "${wishes.as}". Ways are: ${WAYS.map((w) => w.id).join(', ')}.`);
  let options: unknown;
  try {
    options = optionsFromWords(way.options, wishes.option);
  } catch (e) {
    if (e instanceof RangeError) throw new CliError(e.message);
    throw e;
  }
  const given = files.map(read);
  let whole: Project | null = null;
  for (const find of finds(way, given)) {
    const project = await parts(way, find, options);
    whole = whole ? apply(whole, bringPartsEdit, { source: project, into: null }, editContext(find.title)) : project;
  }
  if (!whole) throw new CliError('Give at least one file.');
  writeWhole(wishes.out, writeProjectFile(whole));
  const s = summarize(whole);
  if (wishes.json) console.log(JSON.stringify({ out: resolve(wishes.out), ...s }, null, 2));
  else
    console.log(
      `${wishes.out}: ${s.parts.length} ${s.parts.length === 1 ? 'part' : 'parts'}, ${s.cubes.toLocaleString('en')} cubes, ${s.swatches} swatches`,
    );
}

function finds(way: Importer, given: readonly GivenFile[]): ReturnType<Importer['inspect']> {
  try {
    return way.inspect(given);
  } catch (e) {
    if (e instanceof Refusal) throw new CliError(e.message);
    throw e;
  }
}

/** As JSON has it: without what was not said. */
const plain = (options: unknown): Record<string, unknown> =>
  JSON.parse(JSON.stringify(options)) as Record<string, unknown>;

async function parts(way: Importer, find: Parameters<Importer['run']>[0], options: unknown): Promise<Project> {
  try {
    const { brought, notes } = await way.run(find, options, JOB, null);
    for (const n of notes) console.error(`note: ${noteText(n)}`);
    if (brought.kind !== 'parts') throw new CliError(`${find.title}: no part comes of it.`);
    const kept = find.files.map(({ name, bytes }) => ({ name, blob: makeBlob(blobTypeOf(bytes), bytes) }));
    return keepingHow(brought.project, { importer: way.id, options: plain(options) }, kept);
  } catch (e) {
    if (e instanceof Refusal) throw new CliError(`${find.title}: ${e.message}`);
    throw e;
  }
}
