import { FORMAT_VERSION } from '@sphalerite/core/model';
import { type History, type HistoryEntry, originalOf, summarize } from '@sphalerite/core/project';
import type { Table } from 'dexie';
import { CONTENT_TABLES, PIECE_TABLES, type StepRow, db, rowsOf } from './database';
import { KeyBook, PIECES } from './key-book';
import { SavePlan } from './save-plan';
import { GoneError, TakenOverError } from './storage-errors';
import type { ViewState } from './view-state';

export type Step = HistoryEntry<ViewState>;

/** Bricks that go ahead of the save that needs them, a transaction for so many: a megabyte. */
const AHEAD = 256;

/** What of a stored history has not been read yet; its steps stay in the database until it has. */
export interface Unread {
  readonly present: Step;
  readonly earlier: ReadonlySet<number>;
  readonly later: ReadonlySet<number>;
}

/**
 * Writes the history of one project to the browser's database, one piece of work after another. A save is worked out
 * without the database and goes out in one transaction, so that a busy page holds it up as little as can be.
 */
export class ProjectWriter {
  readonly book = new KeyBook();
  /** By the step as it was recorded. */
  private readonly seqs = new WeakMap<Step, number>();
  /** Steps that are stored as they are; one that got other restore points is written anew under its number. */
  private readonly written = new WeakSet<Step>();
  /** Numbers of the steps that are stored. */
  private stored = new Set<number>();
  private nextSeq = 1;
  private unread: Unread | null = null;
  private tail: Promise<unknown> = Promise.resolve();

  constructor(
    readonly projectId: string,
    readonly epoch: number,
  ) {}

  /** Brings the database up to `history`, in one transaction. Gives the bytes of cells and rows written. */
  save(history: History<ViewState>, thumbnail: Uint8Array<ArrayBuffer> | null = null): Promise<number> {
    return this.inTurn(() => this.saveNow(history, thumbnail));
  }

  /** Goes on where a stored history stands. */
  async resume(unread: Unread, presentSeq: number): Promise<void> {
    await this.countOn();
    this.knows(unread.present, presentSeq);
    this.stored = new Set([...unread.earlier, presentSeq, ...unread.later]);
    this.nextSeq = Math.max(...this.stored) + 1;
    this.unread = unread;
  }

  /**
   * The rest of the history has been read and stands in `history`, which will be saved from now on. Steps that could not
   * be read are left alone.
   */
  allRead(steps: ReadonlyMap<Step, number>, history: History<ViewState>): void {
    if (!this.unread) return;
    const read = new Set(steps.values());
    for (const [step, seq] of steps) this.knows(step, seq);
    if (history.entries.some((e) => originalOf(e) === this.unread!.present))
      for (const seq of [...this.unread.earlier, ...this.unread.later]) if (!read.has(seq)) this.stored.delete(seq);
    this.unread = null;
  }

  /** Numbers go on behind the highest that are stored. */
  private async countOn(): Promise<void> {
    for (const [i, piece] of PIECES.entries()) {
      const last = (await rowsOf(PIECE_TABLES[i] as Table, this.projectId).last()) as { id: number } | undefined;
      this.book.next[piece] = (last?.id ?? 0) + 1;
    }
  }

  /** Runs `work` when what was asked for before is done, whether that went well or not. */
  inTurn<T>(work: () => Promise<T>): Promise<T> {
    const turn = this.tail.then(work, work);
    this.tail = turn.catch(() => undefined);
    return turn;
  }

  private knows(step: Step, seq: number): void {
    this.seqs.set(originalOf(step), seq);
    this.written.add(step);
  }
  private seqOf = (step: Step): number | undefined => this.seqs.get(originalOf(step));

  private async saveNow(history: History<ViewState>, thumbnail: Uint8Array<ArrayBuffer> | null): Promise<number> {
    const plan = new SavePlan(this.projectId, this.book);
    const fresh: [Step, StepRow][] = [];
    let seq = this.nextSeq;
    for (const step of history.entries)
      if (!this.written.has(step)) fresh.push([step, this.stepRow(step, this.seqOf(step) ?? seq++, plan)]);
    const seqOf = (step: Step): number => this.seqOf(step) ?? fresh.find(([s]) => s === step)![1].seq;
    const gone = this.outdated(history);
    const present = history.entries[history.now]!;
    const head = {
      id: this.projectId,
      ...summaryOf(present),
      modified: Date.now(),
      now: seqOf(present),
      epoch: this.epoch,
      format: FORMAT_VERSION,
    };
    await this.writeAhead(plan);
    await db.transaction('rw', [...CONTENT_TABLES, db.thumbnails], async () => {
      const before = await this.checkRight();
      await Promise.all([
        db.brickRows.bulkPut(plan.bricks),
        db.gridRows.bulkPut(plan.grids),
        db.recordRows.bulkPut(plan.records),
        db.fileRows.bulkPut(plan.files),
        db.steps.bulkPut(fresh.map(([, row]) => row)),
        db.steps.bulkDelete(gone.map((s) => [this.projectId, s])),
        db.heads.put({ ...head, binned: before?.binned ?? null }),
        ...(thumbnail ? [db.thumbnails.put({ id: this.projectId, png: thumbnail })] : []),
      ]);
    });
    // Only a transaction that went through may be remembered.
    plan.commit();
    for (const [step, row] of fresh) {
      this.knows(step, row.seq);
      this.stored.add(row.seq);
    }
    for (const s of gone) this.stored.delete(s);
    this.nextSeq = seq;
    return plan.bytes + fresh.reduce((n, [, row]) => n + JSON.stringify(row).length, 0);
  }

  /**
   * The head, when this writer may still write; to be asked first in every transaction that writes.
   *
   * @throws TakenOverError, GoneError
   */
  async checkRight(): Promise<{ readonly binned: number | null } | undefined> {
    const head = await db.heads.get(this.projectId);
    if (head && head.epoch !== this.epoch) throw new TakenOverError();
    if (!head && this.stored.size > 0) throw new GoneError();
    return head;
  }

  /** Much work in cells is written before the rows that need it, so that no one transaction is long. */
  private async writeAhead(plan: SavePlan): Promise<void> {
    while (plan.bricks.length > AHEAD) {
      const some = plan.bricks.splice(0, AHEAD);
      await db.transaction('rw', [db.heads, db.brickRows], async () => {
        await this.checkRight();
        await db.brickRows.bulkPut(some);
      });
    }
  }

  private stepRow(step: Step, seq: number, plan: SavePlan): StepRow {
    return {
      project: this.projectId,
      seq,
      format: FORMAT_VERSION,
      label: step.label,
      at: step.at,
      where: step.where,
      viewBefore: { ...step.viewBefore },
      viewAfter: { ...step.viewAfter },
      bytes: step.bytes,
      root: plan.root(step.project),
    };
  }

  /** Numbers of stored steps that are in `history` no more. */
  private outdated(history: History<ViewState>): number[] {
    const kept = new Set(history.entries.map(this.seqOf));
    const waiting = (seq: number): boolean => {
      if (!this.unread || !history.entries[0] || originalOf(history.entries[0]) !== this.unread.present) return false;
      return this.unread.earlier.has(seq) || (history.entries.length === 1 && this.unread.later.has(seq));
    };
    return [...this.stored].filter((seq) => !kept.has(seq) && !waiting(seq));
  }
}

/** What the head says of a project; counted once for each. */
const summaries = new WeakMap<object, { name: string; kind: string; cubes: number }>();
function summaryOf({ project }: Step): { name: string; kind: string; cubes: number } {
  let s = summaries.get(project);
  if (!s) {
    const { name, kind, cubes } = summarize(project);
    summaries.set(project, (s = { name, kind, cubes }));
  }
  return s;
}

/** How many rows of pieces a project has stored; for tests and figures. */
export const pieceCounts = (project: string): Promise<number[]> =>
  Promise.all(PIECE_TABLES.map((t) => rowsOf(t as Table, project).count()));
