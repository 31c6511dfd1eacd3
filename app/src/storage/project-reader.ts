import { type Box, boxesEqual } from '@sphalerite/core/math';
import {
  FORMAT_VERSION,
  type FoundBlob,
  type LooseJson,
  type Mark,
  type Path,
  type Project,
  checkVersion,
  mapMarked,
  parsed,
  projectSchema,
  withFoundBlobs,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import type { Table } from 'dexie';
import { type GridRow, type RecordRow, type StepRow, db } from './database';
import { brickKeysOf, readGrid } from './grid-rows';
import type { KeyBook } from './key-book';
import type { Step } from './project-writer';
import { viewSchema } from './view-state';
import { type Apart, jsonOfRecord, namesOfRecord, namesOfStep, noNames, rootOfStep, whole } from './row-names';
import { sharedWith } from './share';
import { UnreadableError } from './storage-errors';
import { say } from '../words';

/** Rows that were fetched and not read yet. */
interface Fetched {
  readonly records: ReadonlyMap<number, RecordRow>;
  readonly grids: ReadonlyMap<number, GridRow>;
}

/**
 * Turns stored steps of one project back into projects, through the schemas and migrations that files go through. Rows are
 * fetched as they are needed and what several steps share is shared again, so that a history takes up what it did before
 * it was stored; best in the order they were made in.
 */
export class ProjectReader {
  private readonly records = new Map<number, { readonly record: object; readonly found: readonly FoundBlob[] }>();
  private readonly grids = new Map<number, VoxelGrid>();
  private readonly bricks = new Map<number, Brick>();
  private readonly files = new Map<number, Uint8Array<ArrayBuffer>>();
  /** The grid read last for a layer: the next full table of that layer is nearly the same. */
  private readonly lastGrid = new Map<string, VoxelGrid>();
  /** Files that stood in records of older formats. */
  private readonly foundBlobs = new Map<string, FoundBlob>();
  private lastProject: object = {};
  private lastShown: object = {};
  /** The record read last under an id: the next one is likely to be nearly the same. */
  private readonly lastRecords = new Map<string, object>();

  constructor(
    private readonly project: string,
    private readonly book: KeyBook,
  ) {}

  /** Reads some steps. @throws UnreadableError when rows are missing or damaged, FormatError when they are newer */
  async steps(rows: readonly StepRow[]): Promise<Step[]> {
    for (const row of rows) checkVersion(row.format);
    const fetched = await this.fetch(rows);
    return rows.map((row) => {
      const { label, at, where, bytes } = row;
      const viewBefore = viewSchema.parse(row.viewBefore),
        viewAfter = viewSchema.parse(row.viewAfter);
      const shown = sharedWith(this.lastShown, { label, where, viewBefore, viewAfter });
      this.lastShown = shown;
      return { ...shown, at, bytes, project: this.revive(row, fetched) };
    });
  }

  /** All rows that are named, and those that they name in turn. */
  private async fetch(steps: readonly StepRow[]): Promise<Fetched> {
    const records = new Map<number, RecordRow>();
    const names = noNames();
    for (const step of steps) namesOfStep(step, names);
    for (let open = [...names.records]; open.length > 0;) {
      const wanted = new Map(open.filter(([k]) => !this.records.has(k) && !records.has(k)));
      const rows = await this.rows(db.recordRows, [...wanted.keys()], 'a record');
      const next = noNames();
      for (const row of rows) {
        records.set(row.id, row);
        namesOfRecord(row, wanted.get(row.id)!, next);
      }
      for (const k of next.grids) names.grids.add(k);
      for (const k of next.files) names.files.add(k);
      open = [...next.records];
    }
    const grids = await this.fetchGrids(names.grids);
    await this.fetchBricks(new Set([...grids.values()].flatMap(brickKeysOf)));
    const files = [...names.files].filter((k) => !this.files.has(k));
    for (const { id, bytes } of await this.rows(db.fileRows, files, 'a picture')) {
      this.files.set(id, bytes);
      this.book.files.set(bytes, id);
    }
    return { records, grids };
  }

  private async rows<T>(table: Table<T, [string, number]>, keys: readonly number[], what: string): Promise<T[]> {
    const rows = await table.bulkGet(keys.map((id) => [this.project, id]));
    return rows.map((row) => row ?? missing(what));
  }

  private async fetchGrids(keys: Set<number>): Promise<Map<number, GridRow>> {
    const found = new Map<number, GridRow>();
    for (let wanted = [...keys]; wanted.length > 0;) {
      wanted = wanted.filter((k) => !this.grids.has(k) && !found.has(k));
      const bases: number[] = [];
      for (const row of await this.rows(db.gridRows, wanted, 'a layer')) {
        found.set(row.id, row);
        if (row.base !== null) bases.push(row.base);
      }
      wanted = [...new Set(bases)];
    }
    return found;
  }

  private async fetchBricks(keys: Set<number>): Promise<void> {
    const wanted = [...keys].filter((k) => !this.bricks.has(k));
    for (const { id, cells } of await this.rows(db.brickRows, wanted, 'some cubes')) {
      this.bricks.set(id, cells);
      this.book.bricks.set(cells, id);
    }
  }

  private revive(row: StepRow, fetched: Fetched): Project {
    const root = rootOfStep(row);
    // Checked, and taken as it came from the database: objects that a parser puts together take more room.
    whole(() => parsed({ name: 'project', schema: projectSchema }, root));
    const found: FoundBlob[] = [];
    const project = mapMarked(projectSchema, ['apart', 'cells', 'bytes'], root, (mark, value, at, inside) => {
      if (mark.mark !== 'apart') return this.carried(mark, value, at, fetched);
      if (typeof value !== 'number') return inside(value);
      const read = this.record(mark, value, at, inside, fetched);
      found.push(...read.found);
      return read.record;
    });
    const read = withFoundBlobs(
      project as LooseJson,
      found.map((b) => this.sameBlob(b)),
    );
    // Made from the one before, all of them have one shape, which engines keep much smaller.
    this.lastProject = sharedWith(this.lastProject, read);
    return this.lastProject as Project;
  }

  /** Cells and bytes by the numbers of their rows. */
  private carried(mark: Mark, value: unknown, at: Path, fetched: Fetched): unknown {
    if (mark.mark === 'cells') {
      const layer = at.at(-1)!;
      const grid = this.grid(value as number, layer, fetched.grids);
      this.lastGrid.set(layer, grid);
      return grid;
    }
    return value instanceof Uint8Array ? value : (this.files.get(value as number) ?? missing('a picture'));
  }

  private record(
    apart: Apart,
    key: number,
    at: Path,
    inside: (piece: unknown) => unknown,
    fetched: Fetched,
  ): { readonly record: object; readonly found: readonly FoundBlob[] } {
    const known = this.records.get(key);
    if (known) return known;
    const { of, piece } = apart;
    const row = fetched.records.get(key) ?? missing(`a ${of}`);
    const { json: read, found } = jsonOfRecord(row, apart);
    whole(() => parsed({ name: of, schema: piece }, read));
    const json = read as LooseJson;
    const name = `${at.slice(1).join('/')} ${of} ${String(json['id'] ?? json['bone'] ?? '')}`;
    const revived = inside(json) as object;
    const record = Array.isArray(revived) ? revived : sharedWith(this.lastRecords.get(name), revived);
    this.lastRecords.set(name, record);
    // A row of an older format stays as it is; what was made of it is written anew when a step needs it.
    if (row.format === FORMAT_VERSION) this.book.records.set(record, key);
    const out = { record, found };
    this.records.set(key, out);
    return out;
  }

  /** One object for each file, whichever record it was found in. */
  private sameBlob(blob: FoundBlob): FoundBlob {
    const known = this.foundBlobs.get(blob.id) ?? blob;
    this.foundBlobs.set(blob.id, known);
    return known;
  }

  private grid(key: number, layer: string, rows: ReadonlyMap<number, GridRow>): VoxelGrid {
    // Chains of deltas are followed from their full table up, without recursion.
    const chain: GridRow[] = [];
    for (let k: number | null = key; k !== null && !this.grids.has(k); k = chain.at(-1)!.base)
      chain.push(rows.get(k) ?? missing('a layer'));
    for (const row of chain.reverse()) {
      const base = row.base === null ? null : this.grids.get(row.base)!;
      const last = this.lastGrid.get(layer);
      const like = last && boxesEqual(last.bounds, row.bounds as Box) ? last : null;
      const grid = readGrid(row, base, (k) => this.bricks.get(k) ?? missing('some cubes'), like);
      this.grids.set(row.id, grid);
      this.book.grids.set(grid, { key: row.id, depth: row.depth });
    }
    return this.grids.get(key)!;
  }
}

function missing(what: string): never {
  throw new UnreadableError(say('storage.missing', { what }));
}
