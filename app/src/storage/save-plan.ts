import { boxesEqual } from '@sphalerite/core/math';
import {
  FORMAT_VERSION,
  type LooseJson,
  type Path,
  type Project,
  mapMarked,
  projectSchema,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import type { BrickRow, FileRow, GridRow, RecordRow } from './database';
import { planGrid } from './grid-rows';
import type { GridKey, KeyBook } from './key-book';
import type { Apart } from './row-names';

/**
 * The rows that projects need and the database has not got yet. Records, grids, bricks and files are immutable and found by
 * identity, so that one cube costs one brick of 4 KB and a few short rows. Worked out at once, without asking the
 * database anything; numbers become known to the book by `commit`, once the rows are safe.
 */
export class SavePlan {
  readonly records: RecordRow[] = [];
  readonly grids: GridRow[] = [];
  readonly bricks: BrickRow[] = [];
  readonly files: FileRow[] = [];
  /** Of cells, files and rows. */
  bytes = 0;
  private readonly newRecords = new Map<object, number>();
  private readonly newBricks = new Map<Brick, number>();
  private readonly newGrids = new Map<VoxelGrid, GridKey>();
  private readonly newFiles = new Map<Uint8Array, number>();
  private readonly lastGrid = new Map<string, VoxelGrid>();

  constructor(
    private readonly project: string,
    private readonly book: KeyBook,
  ) {}

  /** The root of a project, with whatever it needs among the rows. */
  root(project: Project): LooseJson {
    return mapMarked(projectSchema, ['apart', 'cells', 'bytes'], project, (mark, value, at, inside) => {
      switch (mark.mark) {
        case 'apart':
          return this.record(mark, value as object, inside);
        case 'cells':
          return this.grid(value as VoxelGrid, at);
        default:
          return this.file(value as Uint8Array<ArrayBuffer>);
      }
    }) as unknown as LooseJson;
  }

  /** Makes the numbers of these rows known: they are stored. */
  commit(): void {
    for (const [k, v] of this.newRecords) this.book.records.set(k, v);
    for (const [k, v] of this.newBricks) this.book.bricks.set(k, v);
    for (const [k, v] of this.newGrids) this.book.grids.set(k, v);
    for (const [k, v] of this.newFiles) this.book.files.set(k, v);
    for (const [k, v] of this.lastGrid) this.book.lastGrid.set(k, v);
  }

  private record(apart: Apart, record: object, inside: (piece: unknown) => unknown): number {
    const known = this.newRecords.get(record) ?? this.book.recordKey(record, apart);
    if (known !== undefined) return known;
    const json = inside(record);
    const id = this.book.next.records++;
    this.records.push({ project: this.project, id, format: FORMAT_VERSION, json });
    this.bytes += JSON.stringify(json).length;
    this.newRecords.set(record, id);
    return id;
  }

  private grid(grid: VoxelGrid, at: Path): number {
    const known = this.gridKey(grid);
    if (known) return known.key;
    const layer = at.at(-1)!;
    const last = this.lastGrid.get(layer) ?? this.book.lastGrid.get(layer);
    const lastKey = last && boxesEqual(last.bounds, grid.bounds) ? this.gridKey(last) : undefined;
    const row = planGrid(grid, lastKey ? { grid: last!, ...lastKey } : null, (b) => this.brick(b));
    const key = this.book.next.grids++;
    this.grids.push({ project: this.project, id: key, ...row });
    this.bytes += row.table.byteLength;
    this.newGrids.set(grid, { key, depth: row.depth });
    this.lastGrid.set(layer, grid);
    return key;
  }

  private gridKey(grid: VoxelGrid): GridKey | undefined {
    return this.newGrids.get(grid) ?? this.book.gridKey(grid);
  }

  private brick(brick: Brick): number {
    const known = this.newBricks.get(brick) ?? this.book.brickKey(brick);
    if (known !== undefined) return known;
    const id = this.book.next.bricks++;
    this.bricks.push({ project: this.project, id, cells: brick });
    this.bytes += brick.byteLength;
    this.newBricks.set(brick, id);
    return id;
  }

  private file(bytes: Uint8Array<ArrayBuffer>): number {
    const known = this.newFiles.get(bytes) ?? this.book.fileKey(bytes);
    if (known !== undefined) return known;
    const id = this.book.next.files++;
    this.files.push({ project: this.project, id, bytes });
    this.bytes += bytes.byteLength;
    this.newFiles.set(bytes, id);
    return id;
  }
}
