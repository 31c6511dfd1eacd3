import { boxesEqual } from '@sphalerite/core/math';
import {
  type BinItem,
  FORMAT_VERSION,
  type Layer,
  type Part,
  type Project,
  RECORD_LISTS,
  type Regions,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import type { BrickRow, GridRow, RecordRow, RootRow } from './database';
import { planGrid } from './grid-rows';
import type { GridKey, KeyBook } from './key-book';

type ListName = keyof typeof RECORD_LISTS;
const LIST_NAMES = Object.keys(RECORD_LISTS) as ListName[];

export type StoredLayer = Omit<Layer, 'grid'> & { grid: number };
export type StoredPart = Omit<Part, 'layers' | 'regions'> & {
  layers: StoredLayer[];
  regions: (Omit<Regions, 'grid'> & { grid: number }) | null;
};

/**
 * The rows that projects need and the database has not got yet. Records, grids and bricks are immutable and found by
 * identity, so that one cube costs one brick of 4 KB and a few short rows. Worked out at once, without asking the
 * database anything; numbers become known to the book by `commit`, once the rows are safe.
 */
export class SavePlan {
  readonly records: RecordRow[] = [];
  readonly grids: GridRow[] = [];
  readonly bricks: BrickRow[] = [];
  /** Of cells and rows. */
  bytes = 0;
  private readonly newRecords = new Map<object, number>();
  private readonly newBricks = new Map<Brick, number>();
  private readonly newGrids = new Map<VoxelGrid, GridKey>();
  private readonly lastGrid = new Map<string, VoxelGrid>();

  constructor(
    private readonly project: string,
    private readonly book: KeyBook,
  ) {}

  /** The root of a project, with whatever it needs among the rows. */
  root(project: Project): RootRow {
    const fields: Record<string, unknown> = {};
    const lists: RootRow['lists'] = {};
    for (const [name, value] of Object.entries(project)) {
      if (name in RECORD_LISTS) lists[name as ListName] = (value as readonly object[]).map((r) => this.record(r, name));
      else if (name !== 'rig') fields[name] = value;
    }
    return { fields, rig: this.record(project.rig, 'rig'), lists };
  }

  /** Makes the numbers of these rows known: they are stored. */
  commit(): void {
    for (const [k, v] of this.newRecords) this.book.records.set(k, v);
    for (const [k, v] of this.newBricks) this.book.bricks.set(k, v);
    for (const [k, v] of this.newGrids) this.book.grids.set(k, v);
    for (const [k, v] of this.lastGrid) this.book.lastGrid.set(k, v);
  }

  private record(record: object, list: string): number {
    const known = this.newRecords.get(record) ?? this.book.recordKey(record);
    if (known !== undefined) return known;
    const json = this.withoutCells(record, list);
    const id = this.book.next.records++;
    this.records.push({ project: this.project, id, format: FORMAT_VERSION, json });
    this.bytes += JSON.stringify(json).length;
    this.newRecords.set(record, id);
    return id;
  }

  private withoutCells(record: object, list: string): unknown {
    if (list === 'parts' || list === 'stamps') return this.part(record as Part);
    const binned = record as BinItem;
    return list === 'bin' && binned.kind === 'part' ? { ...binned, part: this.part(binned.part) } : record;
  }

  private part(part: Part): StoredPart {
    return {
      ...part,
      layers: part.layers.map((l) => ({ ...l, grid: this.grid(l) })),
      regions: part.regions && { ...part.regions, grid: this.grid(part.regions) },
    };
  }

  private grid(layer: { readonly id: string; readonly grid: VoxelGrid }): number {
    const known = this.gridKey(layer.grid);
    if (known) return known.key;
    const last = this.lastGrid.get(layer.id) ?? this.book.lastGrid.get(layer.id);
    const lastKey = last && boxesEqual(last.bounds, layer.grid.bounds) ? this.gridKey(last) : undefined;
    const row = planGrid(layer.grid, lastKey ? { grid: last!, ...lastKey } : null, (b) => this.brick(b));
    const key = this.book.next.grids++;
    this.grids.push({ project: this.project, id: key, ...row });
    this.bytes += row.table.byteLength;
    this.newGrids.set(layer.grid, { key, depth: row.depth });
    this.lastGrid.set(layer.id, layer.grid);
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
}

/** Every list of records that a project has, in one order. */
export const listNames = (): readonly ListName[] => LIST_NAMES;

/** The grids that a stored record names: those of a part, or of a part in the bin. */
export function gridKeysOf(json: unknown): number[] {
  const held = json as Partial<StoredPart> & { part?: StoredPart };
  const part = held.layers ? (held as StoredPart) : held.part;
  return part ? [...part.layers.map((l) => l.grid), ...(part.regions ? [part.regions.grid] : [])] : [];
}
