import type { Box } from '@sphalerite/core/math';
import type { Project } from '@sphalerite/core/model';
import { type ProjectPatch, makePatch, openPatch } from './patch';
import { BRICK_CELLS, type Brick, VoxelGrid, brickId, isUniformBrick, uniformBrick } from '@sphalerite/core/voxel';

/**
 * A grid as it goes to a worker: where each brick stands and its session number, or minus the value of a uniform
 * one. The bricks themselves go along only when the worker has not had them yet.
 */
export interface PackedGrid {
  readonly bounds: Box;
  /** Four numbers a brick: x, y, z and number. */
  readonly table: Int32Array;
}

/** A project as it goes to a worker: what differs from the one that it was sent before, or all of it the first time. */
export interface PackedProject {
  /** Projects that follow one another; each has its own last one. */
  readonly chain: string;
  /** Whether it is a change of the one before on its chain. */
  readonly follows: boolean;
  /** Bytes stand as numbers of files, or null for those that stay on the page. */
  readonly patch: ProjectPatch<PackedGrid>;
}

/** How much of a project goes along: what is drawn and shipped, what an edit may touch, or all that a file holds. */
export type PackExtent = 'shown' | 'edited' | 'all';

/** Stands in a worker for the bytes of a blob that stayed on the page. */
export const AT_HOME: Uint8Array<ArrayBuffer> = new Uint8Array(0);

/** Bricks, and files that the project holds, on their way to a worker. */
export interface BrickParcel {
  readonly ids: Int32Array;
  readonly cells: Uint8Array;
  readonly files: readonly { readonly id: number; readonly bytes: Uint8Array<ArrayBuffer> }[];
}

const fileIds = new WeakMap<Uint8Array, number>();
let nextFile = 1;
/** A number for a file's bytes that holds for this session. */
function fileId(bytes: Uint8Array): number {
  let id = fileIds.get(bytes);
  if (id === undefined) fileIds.set(bytes, (id = nextFile++));
  return id;
}

/** The same each time, so that it counts as unchanged. */
const NO_BIN: Project['bin'] = [];
const NO_POINTS: Project['restorePoints'] = [];

/** What the sending side knows of one worker's bricks, files and projects. */
export class SentBricks {
  private readonly sent = new Set<number>();
  private waiting: Brick[] = [];
  private tables: ArrayBuffer[] = [];
  private readonly sentFiles = new Set<number>();
  private waitingFiles: Uint8Array<ArrayBuffer>[] = [];
  /** The project that was packed last on each chain. */
  private readonly last = new Map<string, Project>();

  packGrid(grid: VoxelGrid): PackedGrid {
    const entries = [...grid.bricks()];
    const table = new Int32Array(entries.length * 4);
    entries.forEach(({ at, brick }, i) => {
      table.set(at, i * 4);
      if (isUniformBrick(brick)) {
        table[i * 4 + 3] = -brick[0]!;
        return;
      }
      const id = brickId(brick);
      table[i * 4 + 3] = id;
      if (!this.sent.has(id)) {
        this.sent.add(id);
        this.waiting.push(brick);
      }
    });
    this.tables.push(table.buffer);
    return { bounds: grid.bounds, table };
  }

  /**
   * A project for the worker: only records that differ from the one it was sent last on the same chain.
   *
   * @param chain – another for projects that would come in between, such as a part alone
   */
  packProject(whole: Project, extent: PackExtent = 'shown', chain: string = extent): PackedProject {
    const project =
      extent === 'all' ? whole : { ...whole, restorePoints: NO_POINTS, ...(extent === 'shown' ? { bin: NO_BIN } : {}) };
    const before = this.last.get(chain) ?? null;
    const patch = makePatch(
      before,
      project,
      (grid) => this.packGrid(grid),
      (bytes) => (extent === 'all' ? this.packFile(bytes) : null),
    );
    this.last.set(chain, project);
    return { chain, follows: before !== null, patch };
  }

  private packFile(bytes: Uint8Array<ArrayBuffer>): number {
    const id = fileId(bytes);
    if (!this.sentFiles.has(id)) {
      this.sentFiles.add(id);
      this.waitingFiles.push(bytes);
    }
    return id;
  }

  /** The tables that were packed and not sent yet; each is sent once and can be handed over. */
  takeTables(): ArrayBuffer[] {
    const tables = this.tables;
    this.tables = [];
    return tables;
  }

  /** Copies of the bricks that were packed and not sent yet. */
  takeParcel(): BrickParcel {
    const cells = new Uint8Array(this.waiting.length * BRICK_CELLS);
    const ids = new Int32Array(this.waiting.length);
    this.waiting.forEach((b, i) => {
      ids[i] = brickId(b);
      cells.set(b, i * BRICK_CELLS);
    });
    // Copies, since whoever packed them goes on using them.
    const files = this.waitingFiles.map((bytes) => ({ id: fileId(bytes), bytes: bytes.slice() }));
    this.waiting = [];
    this.waitingFiles = [];
    return { ids, cells, files };
  }

  get count(): number {
    return this.sent.size;
  }

  forget(): void {
    this.sent.clear();
    this.sentFiles.clear();
    this.last.clear();
    this.waiting = [];
    this.waitingFiles = [];
    this.tables = [];
  }
}

/**
 * A grid on its way back: bricks that came from the page go by their number and uniform ones by minus their value;
 * each 0 stands for the next of `cells`.
 */
export interface ReturnedGrid {
  readonly bounds: Box;
  readonly table: Int32Array<ArrayBuffer>;
  readonly cells: Uint8Array<ArrayBuffer>;
}

/** The grid that came back; bricks that the page still has are those very ones, so that they are neither stored nor drawn again. */
export function openReturned(packed: ReturnedGrid, known: ReadonlyMap<number, Brick>): VoxelGrid {
  const t = packed.table;
  let fresh = 0;
  return VoxelGrid.fromBricks(
    packed.bounds,
    Array.from({ length: t.length / 4 }, (_, i) => {
      const id = t[i * 4 + 3]!;
      const brick =
        id < 0
          ? uniformBrick(-id)
          : id > 0
            ? known.get(id)
            : packed.cells.slice(fresh * BRICK_CELLS, ++fresh * BRICK_CELLS);
      if (!brick) throw new Error(`Brick ${id} is not one of those that were sent.`);
      return { at: [t[i * 4]!, t[i * 4 + 1]!, t[i * 4 + 2]!] as const, brick };
    }),
  );
}

/** The worker's side: its mirror of bricks, files and projects. */
export class BrickMirror {
  private readonly bricks = new Map<number, Brick>();
  private readonly numbers = new WeakMap<Brick, number>();
  private readonly files = new Map<number, Uint8Array<ArrayBuffer>>();
  private readonly last = new Map<string, Project>();
  private readonly opened = new WeakMap<PackedProject, Project>();

  receive(parcel: BrickParcel): void {
    parcel.ids.forEach((id, i) => {
      const brick = parcel.cells.slice(i * BRICK_CELLS, (i + 1) * BRICK_CELLS);
      this.bricks.set(id, brick);
      this.numbers.set(brick, id);
    });
    for (const { id, bytes } of parcel.files) this.files.set(id, bytes);
  }

  forget(): void {
    this.bricks.clear();
    this.files.clear();
    this.last.clear();
  }

  /** A grid for the way back to the page. */
  packBack(grid: VoxelGrid): ReturnedGrid {
    const entries = [...grid.bricks()];
    const fresh = entries.filter(({ brick }) => !isUniformBrick(brick) && !this.numbers.has(brick));
    const table = new Int32Array(entries.length * 4);
    const cells = new Uint8Array(fresh.length * BRICK_CELLS);
    fresh.forEach(({ brick }, i) => cells.set(brick, i * BRICK_CELLS));
    entries.forEach(({ at, brick }, i) => {
      table.set(at, i * 4);
      table[i * 4 + 3] = isUniformBrick(brick) ? -brick[0]! : (this.numbers.get(brick) ?? 0);
    });
    return { bounds: grid.bounds, table, cells };
  }

  openGrid(packed: PackedGrid): VoxelGrid {
    const t = packed.table;
    return VoxelGrid.fromBricks(
      packed.bounds,
      Array.from({ length: t.length / 4 }, (_, i) => {
        const id = t[i * 4 + 3]!;
        const brick = id < 0 ? uniformBrick(-id) : this.bricks.get(id);
        if (!brick) throw new Error(`Brick ${id} has not been sent to this worker.`);
        return { at: [t[i * 4]!, t[i * 4 + 1]!, t[i * 4 + 2]!] as const, brick };
      }),
    );
  }

  /**
   * The project that was sent. The first call for each has to come in the order they were sent in, since each says only
   * what differs from the one before; records that do not are the very same, with all that was derived from them.
   */
  openProject(packed: PackedProject): Project {
    const known = this.opened.get(packed);
    if (known) return known;
    const before = packed.follows ? this.last.get(packed.chain) : null;
    if (before === undefined) throw new Error(`The project before this one on the way "${packed.chain}" is not here.`);
    const project = openPatch(
      before,
      packed.patch,
      (grid) => this.openGrid(grid),
      (id) => (id === null ? AT_HOME : this.files.get(id as number)!),
    );
    this.last.set(packed.chain, project);
    this.opened.set(packed, project);
    return project;
  }
}
