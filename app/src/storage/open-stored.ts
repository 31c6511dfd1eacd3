import { checkLinks, checkVersion } from '@sphalerite/core/model';
import { DEFAULT_HISTORY_BUDGET, type History, joinSteps } from '@sphalerite/core/project';
import { type StepRow, db, rowsOf } from './database';
import { ProjectReader } from './project-reader';
import { whole } from './row-names';
import { ProjectWriter, type Step, type Unread } from './project-writer';
import { UnreadableError } from './storage-errors';
import type { ViewState } from './view-state';
import { say } from '../words';

/** A stored project, with its present read and its other steps still to come. */
export interface OpenedProject {
  readonly writer: ProjectWriter;
  /** The present alone. */
  readonly history: History<ViewState>;
  /** What could not be read, in sentences. */
  readonly notes: readonly string[];
  /** Reads all other steps. What it gives puts them around the history as it stands by then. */
  rest(): Promise<(history: History<ViewState>) => History<ViewState>>;
}

/** Steps read at a time; between them the page goes on. */
const CHUNK = 64;

/** Opens a project of the database: the present first. @throws UnreadableError, FormatError with a sentence */
export async function openStored(id: string, epoch: number): Promise<OpenedProject> {
  const head = await db.heads.get(id);
  const seqs = (await rowsOf(db.steps, id).primaryKeys()).map(([, seq]) => seq).sort((a, b) => a - b);
  if (!head || seqs.length === 0) throw new UnreadableError(say('shelf.gone'));
  if (head.format !== undefined) checkVersion(head.format);
  const writer = new ProjectWriter(id, epoch);
  // Holds all that was read by its number; let go once everything has been.
  let reader: ProjectReader | null = new ProjectReader(id, writer.book);
  const wanted = seqs.includes(head.now) ? head.now : seqs.at(-1)!;
  const [present, presentSeq] = await nearestReadable(reader, id, seqs, wanted);
  const unread: Unread = {
    present,
    earlier: new Set(seqs.filter((s) => s < presentSeq)),
    later: new Set(seqs.filter((s) => s > presentSeq)),
  };
  await writer.resume(unread, presentSeq);
  const rest = async (): Promise<(h: History<ViewState>) => History<ViewState>> => {
    const numbers = new Map<Step, number>();
    const from = reader ?? new ProjectReader(id, writer.book);
    const earlier = await readSteps(from, id, [...unread.earlier], numbers);
    const later = await readSteps(from, id, [...unread.later], numbers);
    reader = null;
    return (h) => {
      const joined = joinSteps(h, present, earlier, later);
      writer.allRead(numbers, joined);
      return joined;
    };
  };
  return {
    writer,
    history: { entries: [present], now: 0, budget: DEFAULT_HISTORY_BUDGET },
    notes: presentSeq === wanted ? [] : [say('storage.lastDamaged', { label: present.label })],
    rest,
  };
}

/** The history as it is stored, whole. */
export async function loadStored(
  id: string,
  epoch: number,
): Promise<{ writer: ProjectWriter; history: History<ViewState> }> {
  const { writer, history, rest } = await openStored(id, epoch);
  return { writer, history: (await rest())(history) };
}

/** The step `wanted`, or the nearest to it that can be read. */
async function nearestReadable(
  reader: ProjectReader,
  id: string,
  seqs: readonly number[],
  wanted: number,
): Promise<[Step, number]> {
  let reason: unknown;
  for (const seq of [...seqs].sort((a, b) => Math.abs(a - wanted) - Math.abs(b - wanted))) {
    try {
      const [step] = await reader.steps([(await db.steps.get([id, seq]))!]);
      whole(() => checkLinks(step!.project));
      return [step!, seq];
    } catch (e) {
      reason ??= e;
      if (!(e instanceof UnreadableError)) break;
    }
  }
  throw reason;
}

/** All steps of `seqs` that can be read, in that order; what is damaged is left out and left where it is. */
async function readSteps(
  reader: ProjectReader,
  id: string,
  seqs: readonly number[],
  numbers: Map<Step, number>,
): Promise<Step[]> {
  const all: Step[] = [];
  const take = async (rows: StepRow[]): Promise<void> => {
    for (const [i, step] of (await reader.steps(rows)).entries()) {
      numbers.set(step, rows[i]!.seq);
      all.push(step);
    }
  };
  for (let i = 0; i < seqs.length; i += CHUNK) {
    const found = await db.steps.bulkGet(seqs.slice(i, i + CHUNK).map((seq) => [id, seq]));
    const rows = found.filter((r) => r !== undefined);
    const whole = await take(rows).then(
      () => true,
      () => false,
    );
    if (whole) continue;
    for (const row of rows) {
      if (![...numbers.values()].includes(row.seq)) await take([row]).catch(() => undefined);
    }
  }
  return all;
}
