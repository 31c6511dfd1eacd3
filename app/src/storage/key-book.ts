import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import { type Apart, type Names, noNames } from './row-names';

export const PIECES = ['records', 'grids', 'bricks', 'files'] as const;
/** What is stored under numbers that count on within a project. */
export type Piece = (typeof PIECES)[number];
export type PieceSets = Readonly<Record<Piece, Set<number>>>;
export const pieceSets = (): PieceSets => ({
  records: new Set(),
  grids: new Set(),
  bricks: new Set(),
  files: new Set(),
});

/** Numbers that saves went on using. */
export type Used = Names & { readonly bricks: Set<number> };
export const nothingUsed = (): Used => ({ ...noNames(), bricks: new Set() });

export interface GridKey {
  readonly key: number;
  /** Deltas since the last full table. */
  readonly depth: number;
}

/**
 * Which records, grids, bricks and files in memory are stored already, and under which numbers. What a sweep has let go is
 * known here before its rows are deleted, so that nothing new is ever written on top of it.
 */
export class KeyBook {
  readonly records = new WeakMap<object, number>();
  readonly bricks = new WeakMap<Brick, number>();
  readonly grids = new WeakMap<VoxelGrid, GridKey>();
  readonly files = new WeakMap<Uint8Array, number>();
  /** The grid stored last for a layer, as the base of its next delta. */
  readonly lastGrid = new Map<string, VoxelGrid>();
  /** The numbers that come next. */
  readonly next: Record<Piece, number> = { records: 1, grids: 1, bricks: 1, files: 1 };
  private readonly gone = pieceSets();
  /** Old numbers that saves went on using, while somebody listens. */
  private used: Used | null = null;

  recordKey(record: object, apart: Apart): number | undefined {
    const key = this.alive('records', this.records.get(record));
    if (key !== undefined) this.used?.records.set(key, apart);
    return key;
  }

  brickKey(brick: Brick): number | undefined {
    const key = this.alive('bricks', this.bricks.get(brick));
    if (key !== undefined) this.used?.bricks.add(key);
    return key;
  }

  gridKey(grid: VoxelGrid): GridKey | undefined {
    const known = this.grids.get(grid);
    const key = this.alive('grids', known?.key);
    if (key !== undefined) this.used?.grids.add(key);
    return key === undefined ? undefined : known;
  }

  fileKey(bytes: Uint8Array): number | undefined {
    const key = this.alive('files', this.files.get(bytes));
    if (key !== undefined) this.used?.files.add(key);
    return key;
  }

  /** From now on `used` gathers the stored numbers that saves go on using; null stops it. */
  listen(used: Used | null): void {
    this.used = used;
  }

  /** These rows are about to be deleted: whatever they held has to be written anew when it is needed again. */
  letGo(piece: Piece, keys: Iterable<number>): void {
    for (const k of keys) this.gone[piece].add(k);
  }

  private alive(piece: Piece, key: number | undefined): number | undefined {
    return key === undefined || this.gone[piece].has(key) ? undefined : key;
  }
}
