import type { Table } from 'dexie';
import { CONTENT_TABLES, type GridRow, PIECE_TABLES, type RecordRow, type StepRow, db, rowsOf } from './database';
import { brickKeysOf } from './grid-rows';
import { PIECES, type PieceSets, nothingUsed, pieceSets } from './key-book';
import type { ProjectWriter } from './project-writer';
import { type Names, namesOfRecord, namesOfStep, noNames } from './row-names';

/** Rows looked at or deleted at a time, so that a save never waits long. */
const CHUNK = 200;

const chunks = <T>(list: readonly T[]): T[][] =>
  Array.from({ length: Math.ceil(list.length / CHUNK) }, (_, i) => list.slice(i * CHUNK, (i + 1) * CHUNK));

/**
 * Deletes the records, grids, bricks and files of the writer's project that no kept step needs, in many short pieces between
 * which saves go on. What a save uses meanwhile stays; what is deleted, the writer has forgotten before.
 *
 * @throws TakenOverError when another window has the project now, UnreadableError when rows are damaged, so that nobody can
 * say what they need; nothing is deleted then
 */
export async function sweep(writer: ProjectWriter): Promise<void> {
  const { book, projectId } = writer;
  const used = nothingUsed();
  // A save that was worked out before this moment is done when this turn comes; later ones are listened to.
  const limit = await writer.inTurn(async () => {
    book.listen(used);
    return { ...book.next };
  });
  try {
    const live = new Marks(projectId);
    const steps = await rowsOf(db.steps, projectId).primaryKeys();
    for (const some of chunks(steps)) for (const row of await db.steps.bulkGet(some)) if (row) await live.step(row);
    const dead = await writer.inTurn(async () => {
      await live.all(used);
      for (const k of used.bricks) live.seen.bricks.add(k);
      const rows = pieceSets();
      for (const [i, piece] of PIECES.entries()) {
        const keys = await rowsOf(PIECE_TABLES[i] as Table, projectId).primaryKeys();
        for (const [, id] of keys) if (id < limit[piece] && !live.seen[piece].has(id)) rows[piece].add(id);
        book.letGo(piece, rows[piece]);
      }
      return rows;
    });
    // Whatever names others goes before what it names, should this be cut short.
    for (const [i, piece] of PIECES.entries())
      for (const some of chunks([...dead[piece]])) {
        await db.transaction('rw', CONTENT_TABLES, async () => {
          await writer.checkRight();
          await (PIECE_TABLES[i] as Table).bulkDelete(some.map((id) => [projectId, id]));
        });
      }
  } finally {
    book.listen(null);
  }
}

/** What is needed, found by following records to records, grids and files, grids to those they are deltas of, and all to their bricks. */
class Marks {
  readonly seen: PieceSets = pieceSets();
  constructor(private readonly project: string) {}

  async step(row: StepRow): Promise<void> {
    const names = noNames();
    namesOfStep(row, names);
    await this.all(names);
  }

  async all({ records, grids, files }: Names): Promise<void> {
    const found: Names = { records: new Map(), grids: new Set(grids), files: new Set(files) };
    for (let open = records; open.size > 0;) {
      const rows = await this.fresh<RecordRow>(db.recordRows, 'records', open.keys());
      const next = noNames();
      for (const row of rows) namesOfRecord(row, open.get(row.id)!, next);
      for (const k of next.grids) found.grids.add(k);
      for (const k of next.files) found.files.add(k);
      open = next.records;
    }
    for (const k of found.files) this.seen.files.add(k);
    await this.grids(found.grids);
  }

  private async grids(keys: Iterable<number>): Promise<void> {
    for (let wanted: number[] = [...keys]; wanted.length > 0;) {
      const rows = await this.fresh<GridRow>(db.gridRows, 'grids', wanted);
      wanted = [];
      for (const row of rows) {
        for (const k of brickKeysOf(row)) this.seen.bricks.add(k);
        if (row.base !== null) wanted.push(row.base);
      }
    }
  }

  /** Rows of keys that were not seen before. */
  private async fresh<T>(table: unknown, piece: 'records' | 'grids', keys: Iterable<number>): Promise<T[]> {
    const wanted = [...new Set(keys)].filter((k) => !this.seen[piece].has(k));
    const rows: T[] = [];
    for (const some of chunks(wanted)) {
      for (const k of some) this.seen[piece].add(k);
      const found = await (table as Table<T>).bulkGet(some.map((id) => [this.project, id]));
      for (const row of found) if (row) rows.push(row);
    }
    return rows;
  }
}
