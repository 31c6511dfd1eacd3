import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';

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
  private used: PieceSets | null = null;

  recordKey(record: object): number | undefined {
    return this.alive('records', this.records.get(record));
  }

  brickKey(brick: Brick): number | undefined {
    return this.alive('bricks', this.bricks.get(brick));
  }

  gridKey(grid: VoxelGrid): GridKey | undefined {
    const known = this.grids.get(grid);
    return this.alive('grids', known?.key) === undefined ? undefined : known;
  }

  fileKey(bytes: Uint8Array): number | undefined {
    return this.alive('files', this.files.get(bytes));
  }

  /** From now on `used` gathers the stored numbers that saves go on using; null stops it. */
  listen(used: PieceSets | null): void {
    this.used = used;
  }

  /** These rows are about to be deleted: whatever they held has to be written anew when it is needed again. */
  letGo(piece: Piece, keys: Iterable<number>): void {
    for (const k of keys) this.gone[piece].add(k);
  }

  private alive(piece: Piece, key: number | undefined): number | undefined {
    if (key === undefined || this.gone[piece].has(key)) return undefined;
    this.used?.[piece].add(key);
    return key;
  }
}
