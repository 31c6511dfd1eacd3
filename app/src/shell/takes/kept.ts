import type { Table } from 'dexie';
import { type TakeFrameRow, type TakePieceRow, type TakeTileRow, db } from '../../storage/database';

interface Row {
  take: string;
  index: number;
}

/** What is made of a take, by numbers: kept in storage, and where that is full, in memory. */
export class Kept<T extends Row> {
  private readonly memory = new Map<number, T>();

  /** @param onFull – told whenever storage is full */
  constructor(
    private readonly table: Table<T, [string, number]>,
    private readonly take: string,
    private readonly onFull: () => void,
  ) {}

  async put(index: number, what: Omit<T, 'take' | 'index'>): Promise<void> {
    const row = { ...what, take: this.take, index } as T;
    try {
      await this.table.put(row);
    } catch {
      this.onFull();
      this.memory.set(index, row);
    }
  }
  /** One of them, for the caller alone. */
  async get(index: number): Promise<T | undefined> {
    const held = this.memory.get(index);
    return held ? structuredClone(held) : this.table.get([this.take, index]).catch(() => undefined);
  }
  /** Numbers of all that are kept. */
  async indexes(): Promise<Set<number>> {
    const keys = await this.rows(0, Infinity)
      .primaryKeys()
      .catch(() => []);
    return new Set([...keys.map(([, index]) => index), ...this.memory.keys()]);
  }
  /** Lets go of those from one number to before another. */
  async drop(from = 0, to = Infinity): Promise<void> {
    for (const index of this.memory.keys()) if (index >= from && index < to) this.memory.delete(index);
    await this.rows(from, to).delete();
  }

  private rows(from: number, to: number) {
    return this.table.where(':id').between([this.take, from], [this.take, to]);
  }
}

/** All that is kept of one take. */
export class KeptTake {
  readonly frames: Kept<TakeFrameRow>;
  readonly tiles: Kept<TakeTileRow>;
  readonly pieces: Kept<TakePieceRow>;

  constructor(take: string, onFull: () => void) {
    let told = false;
    const tell = (): void => {
      if (!told) onFull();
      told = true;
    };
    this.frames = new Kept(db.takeFrames, take, tell);
    this.tiles = new Kept(db.takeTiles, take, tell);
    this.pieces = new Kept(db.takePieces, take, tell);
  }
  async drop(): Promise<void> {
    for (const kept of [this.frames, this.tiles, this.pieces]) await kept.drop();
  }
}
