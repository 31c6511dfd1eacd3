import type { LooseJson, Shot } from '@sphalerite/core/model';
import type { FilmLight, LightTile, Traced } from '@sphalerite/core/render';
import Dexie, { type EntityTable, type Table, type Transaction } from 'dexie';
import { copyOldRows } from './old-database';
import type { ViewState } from './view-state';

/** What the shelf shows of a project, and where its writing stands. */
export interface HeadRow {
  id: string;
  name: string;
  kind: string;
  modified: number;
  binned: number | null;
  cubes: number;
  /** Number of the step that is now. */
  now: number;
  /** Raised when another window takes over; every write checks it. */
  epoch: number;
  /** The format version it was written in; missing before format 6. */
  format?: number;
}

/** The picture of a project on the shelf, apart from its head, which is written with every save. */
export interface ThumbnailRow {
  id: string;
  /** Bytes of the PNG; a Blob in rows written before format 6. */
  png: Uint8Array<ArrayBuffer> | Blob;
}

/** One history step; `root` names the records of the project after it. */
export interface StepRow {
  project: string;
  seq: number;
  format: number;
  label: string;
  at: number;
  where: string;
  viewBefore: ViewState;
  viewAfter: ViewState;
  bytes: number;
  /** The project with row numbers in place of records, grids and files. Read through `rootOf`: older formats had another. */
  root: LooseJson;
}

/** An immutable piece of a project, found by identity. Numbers count on within a project. */
export interface RecordRow {
  project: string;
  id: number;
  format: number;
  json: unknown;
}

/**
 * The bricks of a layer: all of them, or what differs from grid `base`. Each four numbers are brick
 * coordinates and a brick: its key, or minus the value for one filled with a single value, or 0 for none.
 */
export interface GridRow {
  project: string;
  id: number;
  base: number | null;
  /** Deltas since the last full table. */
  depth: number;
  bounds: { min: readonly number[]; size: readonly number[] };
  table: Int32Array;
}

export interface BrickRow {
  project: string;
  id: number;
  cells: Uint8Array<ArrayBuffer>;
}

/** The bytes of a blob. */
export interface FileRow {
  project: string;
  id: number;
  bytes: Uint8Array<ArrayBuffer>;
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

/** Pictures that a shot becomes, while they are being made: with the project as it was when they were asked for. */
export interface TakeRow {
  id: string;
  project: string;
  shot: string;
  title: string;
  count: number;
  /** Whether it waits to be told to go on. */
  stopped: boolean;
  /** How much of it was made when it was stopped. */
  made?: number;
  /** Whether it is one large picture; missing in those begun before it was told. */
  large?: boolean;
  /** The project file. */
  file: Uint8Array<ArrayBuffer>;
}
/** One of its pictures that is made. */
export interface TakeFrameRow {
  take: string;
  index: number;
  png: Uint8Array<ArrayBuffer>;
}
/** A tile of a large picture that is traced, while pieces near it need it. */
export interface TakeTileRow {
  take: string;
  index: number;
  traced: Traced;
}
/** A finished piece of one. */
export interface TakePieceRow {
  take: string;
  index: number;
  piece: LightTile;
}

/** A single picture that is being traced, with the project as it was; its tiles are kept beside it. */
export interface TracingRow {
  id: string;
  project: string;
  shot: Shot;
  /** The project file. */
  file: Uint8Array<ArrayBuffer>;
  seconds: number;
  stopped: boolean;
}
/** A picture that was traced: its light and what it was made from. */
export interface PictureRow {
  id: string;
  project: string;
  at: number;
  shot: Shot;
  seconds: number;
  calmed: number;
  png: Uint8Array<ArrayBuffer>;
  light: FilmLight;
}

type RowKey = [project: string, id: number];

class Database extends Dexie {
  heads!: EntityTable<HeadRow, 'id'>;
  thumbnails!: EntityTable<ThumbnailRow, 'id'>;
  steps!: Table<StepRow, RowKey>;
  recordRows!: Table<RecordRow, RowKey>;
  gridRows!: Table<GridRow, RowKey>;
  brickRows!: Table<BrickRow, RowKey>;
  fileRows!: Table<FileRow, RowKey>;
  settings!: EntityTable<SettingRow, 'key'>;
  readyRigs!: EntityTable<ReadyRigRow, 'id'>;
  takes!: EntityTable<TakeRow, 'id'>;
  takeFrames!: Table<TakeFrameRow, RowKey>;
  takeTiles!: Table<TakeTileRow, RowKey>;
  takePieces!: Table<TakePieceRow, RowKey>;
  tracings!: EntityTable<TracingRow, 'id'>;
  pictures!: EntityTable<PictureRow, 'id'>;

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
    // Keys that are known before they are written let a save go out in one piece.
    this.version(3)
      .stores({
        thumbnails: 'id',
        steps: '[project+seq]',
        recordRows: '[project+id]',
        gridRows: '[project+id]',
        brickRows: '[project+id]',
      })
      .upgrade((tx: Transaction) => copyOldRows(tx));
    this.version(4).stores({ entries: null, records: null, grids: null, bricks: null });
    this.version(5).stores({ fileRows: '[project+id]' });
    this.version(6).stores({ takes: 'id', takeFrames: '[take+index]' });
    this.version(7).stores({ takeTiles: '[take+index]', takePieces: '[take+index]' });
    this.version(8).stores({ tracings: 'id', pictures: 'id, project' });
  }
}

export const db = new Database();
/** What holds the pieces of projects, each found by project and number. */
export const PIECE_TABLES = [db.recordRows, db.gridRows, db.brickRows, db.fileRows] as const;
export const CONTENT_TABLES = [db.heads, db.steps, ...PIECE_TABLES];

/** Every row of a project in a table whose key begins with it. */
export const rowsOf = <T>(table: Table<T, RowKey>, project: string) =>
  table.where(':id').between([project, Dexie.minKey], [project, Dexie.maxKey]);
