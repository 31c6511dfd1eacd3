import { type Box, boxesEqual } from '@sphalerite/core/math';
import {
  type BinItem,
  FORMAT_VERSION,
  type Part,
  type Project,
  RECORD_LISTS,
  type RecordKind,
  checkVersion,
  upgradeRecord,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import { type GridRow, type RecordRow, type RootRow, type StepRow, db } from './database';
import { brickKeysOf, readGrid } from './grid-rows';
import type { KeyBook } from './key-book';
import type { Step } from './project-writer';
import { type StoredPart, gridKeysOf, listNames } from './save-plan';
import { sharedWith } from './share';
import { UnreadableError } from './storage-errors';

/** Every record that a root names. */
export const recordKeysOf = (root: RootRow): number[] => [root.rig, ...listNames().flatMap((n) => root.lists[n] ?? [])];

type List = Partial<Record<string, { readonly keys: readonly number[]; readonly records: readonly object[] }>>;

/**
 * Turns stored steps of one project back into projects. Rows are fetched as they are needed and what several steps share
 * is shared again, so that a history takes up what it did before it was stored; best in the order they were made in.
 */
export class ProjectReader {
  private readonly records = new Map<number, object>();
  private readonly grids = new Map<number, VoxelGrid>();
  private readonly bricks = new Map<number, Brick>();
  /** The grid read last for a layer: the next full table of that layer is nearly the same. */
  private readonly lastGrid = new Map<string, VoxelGrid>();
  private lastLists: List = {};
  private lastFields: Record<string, unknown> = {};
  private lastShown: object = {};
  private lastProject: object = {};
  /** The record read last under an id: the next one is likely to be nearly the same. */
  private readonly lastRecords = new Map<string, object>();

  constructor(
    private readonly project: string,
    private readonly book: KeyBook,
  ) {}

  /** Reads some steps. @throws UnreadableError when rows are missing or damaged, FormatError when they are newer */
  async steps(rows: readonly StepRow[]): Promise<Step[]> {
    for (const row of rows) checkVersion(row.format);
    const records = await this.fetchRecords(new Set(rows.flatMap((r) => recordKeysOf(r.root))));
    const grids = await this.fetchGrids(new Set([...records.values()].flatMap((r) => gridKeysOf(r.json))));
    await this.fetchBricks(new Set([...grids.values()].flatMap(brickKeysOf)));
    return rows.map(({ root, label, at, where, viewBefore, viewAfter, bytes, format }) => {
      const shown = sharedWith(this.lastShown, { label, where, viewBefore, viewAfter });
      this.lastShown = shown;
      return { ...shown, at, bytes, project: this.revive(root, format, records, grids) };
    });
  }

  private async fetchRecords(keys: Set<number>): Promise<Map<number, RecordRow>> {
    const wanted = [...keys].filter((k) => !this.records.has(k));
    const rows = await db.recordRows.bulkGet(wanted.map((id) => [this.project, id]));
    return new Map(wanted.map((k, i) => [k, rows[i] ?? missing('a record')]));
  }

  private async fetchGrids(keys: Set<number>): Promise<Map<number, GridRow>> {
    const found = new Map<number, GridRow>();
    for (let wanted = [...keys]; wanted.length > 0;) {
      wanted = wanted.filter((k) => !this.grids.has(k) && !found.has(k));
      const rows = await db.gridRows.bulkGet(wanted.map((id) => [this.project, id]));
      const bases: number[] = [];
      for (const [i, k] of wanted.entries()) {
        const row = rows[i] ?? missing('a layer');
        found.set(k, row);
        if (row.base !== null) bases.push(row.base);
      }
      wanted = [...new Set(bases)];
    }
    return found;
  }

  private async fetchBricks(keys: Set<number>): Promise<void> {
    const wanted = [...keys].filter((k) => !this.bricks.has(k));
    const rows = await db.brickRows.bulkGet(wanted.map((id) => [this.project, id]));
    for (const [i, k] of wanted.entries()) {
      const { cells } = rows[i] ?? missing('some cubes');
      this.bricks.set(k, cells);
      this.book.bricks.set(cells, k);
    }
  }

  private revive(
    root: RootRow,
    format: number,
    records: ReadonlyMap<number, RecordRow>,
    grids: ReadonlyMap<number, GridRow>,
  ): Project {
    const record = (kind: RecordKind, key: number): object => this.record(kind, key, records, grids);
    const lists: Record<string, readonly object[]> = {};
    const fields = upgradeRecord('project', root.fields, format) as Record<string, unknown>;
    for (const name of listNames()) {
      const kind = RECORD_LISTS[name];
      const keys = root.lists[name];
      lists[name] = keys
        ? this.list(name, keys, (k) => record(kind, k))
        : (((fields[name] ?? []) as unknown[]).map((r) => upgradeRecord(kind, r, format)) as object[]);
    }
    this.lastFields = sharedWith(this.lastFields, fields);
    // Made from the one before, all of them have one shape, which engines keep much smaller.
    const project = { ...this.lastProject };
    this.lastProject = Object.assign(project, this.lastFields, lists, { rig: record('rig', root.rig) });
    return project as unknown as Project;
  }

  /** A list of the same records as in the step before is that very list. */
  private list(name: string, keys: readonly number[], record: (key: number) => object): readonly object[] {
    const last = this.lastLists[name];
    if (last && last.keys.length === keys.length && keys.every((k, i) => k === last.keys[i])) return last.records;
    const records = keys.map(record);
    this.lastLists[name] = { keys, records };
    return records;
  }

  private record(
    kind: RecordKind,
    key: number,
    records: ReadonlyMap<number, RecordRow>,
    grids: ReadonlyMap<number, GridRow>,
  ): object {
    const known = this.records.get(key);
    if (known) return known;
    const row = records.get(key) ?? missing(`a ${kind}`);
    const json = upgradeRecord(kind, row.json, row.format) as object;
    const name = `${kind} ${(json as { id?: string }).id ?? ''}`;
    const read = kind === 'part' ? this.part(json, grids) : kind === 'bin' ? this.binned(json, grids) : json;
    const revived = sharedWith(this.lastRecords.get(name), read);
    this.lastRecords.set(name, revived);
    this.records.set(key, revived);
    // A row of an older format stays as it is; what was made of it is written anew when a step needs it.
    if (row.format === FORMAT_VERSION) this.book.records.set(revived, key);
    return revived;
  }

  private binned(json: object, grids: ReadonlyMap<number, GridRow>): object {
    const item = json as BinItem;
    return item.kind === 'part' ? { ...item, part: this.part(item.part, grids) } : item;
  }

  private part(json: object, grids: ReadonlyMap<number, GridRow>): Part {
    const p = json as StoredPart;
    const cells = <T extends { id: string; grid: number }>(of: T): Omit<T, 'grid'> & { grid: VoxelGrid } => {
      const grid = this.grid(of.grid, of.id, grids);
      this.lastGrid.set(of.id, grid);
      return { ...of, grid };
    };
    return { ...p, layers: p.layers.map(cells), regions: p.regions && cells(p.regions) };
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
  throw new UnreadableError(`What is stored of this project is damaged: ${what} of it cannot be found.`);
}
