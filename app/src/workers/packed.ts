import type { Box } from '@sphalerite/core/math';
import {
  type Project,
  type Reference,
  allParts,
  gridsOf,
  layerKey,
  must,
  projectFromJson,
  projectToJson,
} from '@sphalerite/core/model';
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

export interface PackedProject {
  readonly json: unknown;
  readonly grids: Readonly<Record<string, PackedGrid>>;
}

/** How much of a project goes along: what is drawn and shipped, what an edit may touch, or all that a file holds. */
export type PackExtent = 'shown' | 'edited' | 'all';

/** A picture to work from that stayed on the page, by the reference it belongs to. */
const AT_HOME = 'kept:';

/** Bricks on their way to a worker. */
export interface BrickParcel {
  readonly ids: Int32Array;
  readonly cells: Uint8Array;
}

/** What the sending side knows of one worker's bricks. */
export class SentBricks {
  private readonly sent = new Set<number>();
  private waiting: Brick[] = [];
  private tables: ArrayBuffer[] = [];

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

  packProject(project: Project, extent: PackExtent = 'shown'): PackedProject {
    const grids: Record<string, PackedGrid> = {};
    const sent = extent === 'all' ? project : picturesAtHome(extent === 'edited' ? project : { ...project, bin: [] });
    for (const part of allParts(sent))
      for (const { id, grid } of gridsOf(part)) grids[layerKey(part.id, id)] = this.packGrid(grid);
    return { json: projectToJson(sent), grids };
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
    this.waiting = [];
    return { ids, cells };
  }

  get count(): number {
    return this.sent.size;
  }

  forget(): void {
    this.sent.clear();
    this.waiting = [];
    this.tables = [];
  }
}

function picturesAtHome(project: Project): Project {
  const home = (list: readonly Reference[]): readonly Reference[] => list.map((r) => ({ ...r, image: AT_HOME + r.id }));
  return {
    ...project,
    references: home(project.references),
    bin: project.bin.map((b) => (b.kind === 'part' ? { ...b, references: home(b.references) } : b)),
  };
}

/** A reference that came back, with the picture that had stayed on the page. */
export function pictureFromHome(reference: Reference, project: Project): Reference {
  if (!reference.image.startsWith(AT_HOME)) return reference;
  const id = reference.image.slice(AT_HOME.length);
  const all = [...project.references, ...project.bin.flatMap((b) => (b.kind === 'part' ? b.references : []))];
  return { ...reference, image: must(all, id, 'reference picture').image };
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

/** The worker's side: its mirror of the bricks. */
export class BrickMirror {
  private readonly bricks = new Map<number, Brick>();
  private readonly numbers = new WeakMap<Brick, number>();

  receive(parcel: BrickParcel): void {
    parcel.ids.forEach((id, i) => {
      const brick = parcel.cells.slice(i * BRICK_CELLS, (i + 1) * BRICK_CELLS);
      this.bricks.set(id, brick);
      this.numbers.set(brick, id);
    });
  }

  forget(): void {
    this.bricks.clear();
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

  openProject(packed: PackedProject): Project {
    return projectFromJson(packed.json as Parameters<typeof projectFromJson>[0], (part: { id: string }, layer) =>
      this.openGrid(packed.grids[layerKey(part.id, layer)]!),
    );
  }
}
