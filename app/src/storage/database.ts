import Dexie, { type EntityTable, type Table } from 'dexie';
import type { ViewState } from './view-state';

/** What the shelf shows of a project, and where its writing stands. */
export interface HeadRow {
  id: string;
  name: string;
  kind: string;
  modified: number;
  binned: number | null;
  thumbnail: Blob | null;
  cubes: number;
  /** Key of the entry that is now. */
  now: number;
  /** Raised when another window takes over; every write checks it. */
  epoch: number;
}

/** One history step; `root` names the records of the project after it. */
export interface EntryRow {
  project: string;
  seq: number;
  label: string;
  at: number;
  where: string;
  viewBefore: ViewState;
  viewAfter: ViewState;
  bytes: number;
  root: RootJson;
}

/** A project with record numbers in place of its records. */
export interface RootJson {
  fields: unknown;
  palettes: number[];
  parts: number[];
  rig: number;
  clips: number[];
  shots: number[];
  /** Missing in rows written before format 2. */
  stamps?: number[];
  references?: number[];
  bin: number[];
}

/** An immutable piece of a project, found by identity. */
export interface RecordRow {
  id?: number;
  project: string;
  json: unknown;
}

/**
 * The bricks of a layer: all of them, or what differs from grid `base`. Each four numbers are brick
 * coordinates and a brick: its key, or minus the value for one filled with a single value, or 0 for none.
 */
export interface GridRow {
  id?: number;
  project: string;
  base: number | null;
  /** Deltas since the last full table. */
  depth: number;
  bounds: { min: readonly number[]; size: readonly number[] };
  table: Int32Array;
}

export interface BrickRow {
  id?: number;
  project: string;
  cells: Uint8Array;
}

export interface SettingRow {
  key: string;
  value: unknown;
}

/** A ready rig of one's own: a project file, kept apart from the shelf. */
export interface ReadyRigRow {
  id: string;
  name: string;
  kind: string;
  bones: number;
  parts: number;
  clips: string[];
  file: Uint8Array<ArrayBuffer>;
}

class Database extends Dexie {
  heads!: EntityTable<HeadRow, 'id'>;
  entries!: Table<EntryRow, [string, number]>;
  records!: EntityTable<RecordRow, 'id'>;
  grids!: EntityTable<GridRow, 'id'>;
  bricks!: EntityTable<BrickRow, 'id'>;
  settings!: EntityTable<SettingRow, 'key'>;
  readyRigs!: EntityTable<ReadyRigRow, 'id'>;

  constructor() {
    // Strict: a finished write is on the disk, not only in a cache of the browser.
    super('sphalerite', { chromeTransactionDurability: 'strict' });
    this.version(1).stores({
      heads: 'id',
      entries: '[project+seq], project',
      records: '++id, project',
      grids: '++id, project',
      bricks: '++id, project',
      settings: 'key',
    });
    this.version(2).stores({ readyRigs: 'id' });
  }
}

export const db = new Database();
export const CONTENT_TABLES = [db.heads, db.entries, db.records, db.grids, db.bricks];
