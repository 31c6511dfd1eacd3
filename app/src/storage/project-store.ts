import { type History, type HistoryEntry, DEFAULT_HISTORY_BUDGET, summarize } from '@sphalerite/core/project';
import {
  type BinItem,
  type Clip,
  EMPTY_RIG,
  type Layer,
  type Mount,
  NO_TARGET,
  PLAIN_BONE,
  PLAIN_CLIP,
  PLAIN_PART,
  type Part,
  type Project,
  type Regions,
  type Rig,
  type Shot,
} from '@sphalerite/core/model';
import type { Palette } from '@sphalerite/core/palette';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import type { ViewState } from './view-state';
import { CONTENT_TABLES, type EntryRow, type RootJson, db } from './database';
import { planGrid, readGrid } from './grid-rows';

/** The project is being written by another window now; this one may only look. */
export class TakenOverError extends Error {
  override readonly name = 'TakenOverError';
  constructor() {
    super('Another window has taken this project over. This one shows it without saving.');
  }
}

type Entry = HistoryEntry<ViewState>;
type StoredLayer = Omit<Layer, 'grid'> & { grid: number };
type StoredPart = Omit<Part, 'layers' | 'regions'> & {
  layers: StoredLayer[];
  regions: (Omit<Regions, 'grid'> & { grid: number }) | null;
};

/**
 * Writes the history of one project to the browser's database. Records, grids and bricks are immutable and
 * found by identity, so that a step writes only what it made: one cube costs one brick of 4 KB and a few short rows.
 */
export class ProjectWriter {
  private readonly recordKeys = new WeakMap<object, number>();
  private readonly brickKeys = new WeakMap<Brick, number>();
  private readonly gridKeys = new WeakMap<VoxelGrid, { key: number; depth: number }>();
  /** The grid stored last for a layer, as the base of its next delta. */
  private readonly lastGrid = new Map<string, VoxelGrid>();
  private readonly seqs = new WeakMap<Entry, number>();
  private stored: readonly Entry[] = [];
  private nextSeq = 1;

  constructor(
    readonly projectId: string,
    public epoch: number,
  ) {}

  /** Brings the database up to `history`, in one transaction. Gives the bytes of cells and rows written. */
  async save(history: History<ViewState>, thumbnail: Blob | null = null): Promise<number> {
    let bytes = 0;
    const written: (() => void)[] = [];
    const run = async (): Promise<void> => {
      const head = await db.heads.get(this.projectId);
      if (head && head.epoch !== this.epoch) throw new TakenOverError();
      const kept = new Set(history.entries);
      const gone = this.stored
        .filter((e) => !kept.has(e))
        .map((e) => [this.projectId, this.seqs.get(e)!] as [string, number]);
      if (gone.length > 0) await db.entries.bulkDelete(gone);
      let seq = this.nextSeq;
      const seqOf = new Map<Entry, number>();
      const memo = new Memo();
      for (const entry of history.entries) {
        if (this.seqs.has(entry)) continue;
        const root = await this.writeProject(entry.project, memo);
        const row: EntryRow = {
          project: this.projectId,
          seq,
          label: entry.label,
          at: entry.at,
          where: entry.where,
          viewBefore: { ...entry.viewBefore },
          viewAfter: { ...entry.viewAfter },
          bytes: entry.bytes,
          root,
        };
        await db.entries.put(row);
        bytes += JSON.stringify(row).length;
        seqOf.set(entry, seq++);
      }
      bytes += memo.bytes;
      const nowEntry = history.entries[history.now]!;
      const now = this.seqs.get(nowEntry) ?? seqOf.get(nowEntry)!;
      const summary = summarize(nowEntry.project);
      await db.heads.put({
        id: this.projectId,
        name: summary.name,
        kind: summary.kind,
        modified: Date.now(),
        binned: head?.binned ?? null,
        thumbnail: thumbnail ?? head?.thumbnail ?? null,
        cubes: summary.cubes,
        now,
        epoch: this.epoch,
      });
      // Only a transaction that went through may be remembered.
      written.push(() => {
        memo.commit(this.recordKeys, this.brickKeys, this.gridKeys, this.lastGrid);
        for (const [e, s] of seqOf) this.seqs.set(e, s);
        this.nextSeq = seq;
        this.stored = history.entries;
      });
    };
    await db.transaction('rw', CONTENT_TABLES, run);
    for (const w of written) w();
    return bytes;
  }

  /** Reads everything that is stored. */
  async load(): Promise<History<ViewState>> {
    const [head, entries, records, grids, bricks] = await db.transaction('r', CONTENT_TABLES, () =>
      Promise.all([
        db.heads.get(this.projectId),
        db.entries.where('project').equals(this.projectId).sortBy('seq'),
        db.records.where('project').equals(this.projectId).toArray(),
        db.grids.where('project').equals(this.projectId).toArray(),
        db.bricks.where('project').equals(this.projectId).toArray(),
      ]),
    );
    if (!head || entries.length === 0) throw new Error('This project is no longer on the shelf.');
    const brickMap = new Map(bricks.map((b) => [b.id, b.cells as Brick]));
    for (const [key, b] of brickMap) if (key !== undefined) this.brickKeys.set(b, key);
    const gridRows = new Map(grids.map((g) => [g.id, g]));
    const gridMap = new Map<number, VoxelGrid>();
    const gridOf = (key: number): VoxelGrid => {
      // Chains of deltas are followed from their full table up, without recursion.
      const chain: number[] = [];
      for (let k: number | null = key; k !== null && !gridMap.has(k); k = gridRows.get(k)!.base) chain.push(k);
      for (const k of chain.reverse()) {
        const row = gridRows.get(k)!;
        const grid = readGrid(row, row.base === null ? null : gridMap.get(row.base)!, (b) => brickMap.get(b)!);
        gridMap.set(k, grid);
        this.gridKeys.set(grid, { key: k, depth: row.depth });
      }
      return gridMap.get(key)!;
    };
    const recordRows = new Map(records.map((r) => [r.id, r.json]));
    const recordMap = new Map<number, object>();
    const recordOf = <T extends object>(key: number, revive: (json: unknown) => T = (j) => j as T): T => {
      let r = recordMap.get(key);
      if (!r) {
        r = revive(recordRows.get(key));
        recordMap.set(key, r);
        this.recordKeys.set(r, key);
      }
      return r as T;
    };
    const revivePart = (json: unknown): Part => {
      const p = json as StoredPart;
      // Parts of format 3 knew neither regions nor twins.
      return {
        ...PLAIN_PART,
        ...p,
        layers: p.layers.map((l) => ({ ...l, grid: gridOf(l.grid) })),
        regions: p.regions ? { ...p.regions, grid: gridOf(p.regions.grid) } : null,
      };
    };
    // Swatches of format 1 knew no helpers.
    const revivePalette = (json: unknown): Palette => {
      const p = json as Palette;
      return { ...p, swatches: p.swatches.map((s) => ({ ...s, helper: s.helper ?? false })) };
    };
    // Shots of format 2 knew no colourways.
    const reviveShot = (json: unknown): Shot => ({ colourway: null, ...(json as object) }) as Shot;
    // Rigs of format 3 knew neither constraints nor attachment points, those of format 4 neither slots nor lane colours.
    const reviveMount = (m: Mount): Mount => ({ ...m, slot: m.slot ?? null });
    const reviveRig = (json: unknown): Rig => {
      const r = { ...EMPTY_RIG, ...(json as object) } as Rig;
      return { ...r, bones: r.bones.map((b) => ({ ...PLAIN_BONE, ...b })), mounts: r.mounts.map(reviveMount) };
    };
    const reviveClip = (json: unknown): Clip => ({ ...PLAIN_CLIP, ...(json as object) }) as unknown as Clip;
    const reviveBin = (json: unknown): BinItem => {
      const b = json as BinItem;
      if (b.kind === 'clip') return { ...b, clip: reviveClip(b.clip) };
      if (b.kind === 'bone')
        return {
          ...b,
          bone: { ...PLAIN_BONE, ...b.bone },
          constraints: b.constraints ?? [],
          attachments: b.attachments ?? [],
        };
      if (b.kind === 'shot') return { ...b, shot: reviveShot(b.shot) };
      // Parts binned before format 2 had no reference pictures.
      return b.kind === 'part'
        ? { ...b, part: revivePart(b.part), mounts: b.mounts.map(reviveMount), references: b.references ?? [] }
        : b;
    };
    const revived = entries.map((row): Entry => {
      const { root } = row;
      const project = {
        // Rows written before format 2 had no target, before format 3 no colourways, before format 5 neither poses nor a seal.
        target: NO_TARGET,
        colourways: [],
        poses: [],
        seal: null,
        ...(root.fields as object),
        palettes: root.palettes.map((k) => recordOf(k, revivePalette)),
        parts: root.parts.map((k) => recordOf(k, revivePart)),
        rig: recordOf(root.rig, reviveRig),
        clips: root.clips.map((k) => recordOf(k, reviveClip)),
        shots: root.shots.map((k) => recordOf(k, reviveShot)),
        stamps: (root.stamps ?? []).map((k) => recordOf(k, revivePart)),
        references: (root.references ?? []).map((k) => recordOf(k)),
        bin: root.bin.map((k) => recordOf(k, reviveBin)),
      } as unknown as Project;
      const entry: Entry = {
        label: row.label,
        at: row.at,
        where: row.where,
        project,
        viewBefore: row.viewBefore,
        viewAfter: row.viewAfter,
        bytes: row.bytes,
      };
      this.seqs.set(entry, row.seq);
      return entry;
    });
    this.stored = revived;
    this.nextSeq = (entries.at(-1)?.seq ?? 0) + 1;
    const now = entries.findIndex((e) => e.seq === head.now);
    return { entries: revived, now: now < 0 ? revived.length - 1 : now, budget: DEFAULT_HISTORY_BUDGET };
  }

  private async writeProject(project: Project, memo: Memo): Promise<RootJson> {
    const { palettes, parts, rig, clips, shots, stamps, references, bin, ...fields } = project;
    const plain = async (r: object): Promise<number> => this.writeRecord(r, r, memo);
    const part = async (p: Part): Promise<StoredPart> => {
      const layers: StoredLayer[] = [];
      for (const l of p.layers) layers.push({ ...l, grid: await this.writeGrid(l, memo) });
      return { ...p, layers, regions: p.regions && { ...p.regions, grid: await this.writeGrid(p.regions, memo) } };
    };
    const all = async <T extends object>(list: readonly T[], write: (r: T) => Promise<number>): Promise<number[]> => {
      const keys: number[] = [];
      for (const r of list) keys.push(this.keyOf(r, memo) ?? (await write(r)));
      return keys;
    };
    return {
      fields,
      palettes: await all(palettes, plain),
      parts: await all(parts, async (p) => this.writeRecord(p, await part(p), memo)),
      rig: this.keyOf(rig, memo) ?? (await plain(rig)),
      clips: await all(clips, plain),
      shots: await all(shots, plain),
      stamps: await all(stamps, async (p) => this.writeRecord(p, await part(p), memo)),
      references: await all(references, plain),
      bin: await all(bin, async (b) =>
        this.writeRecord(b, b.kind === 'part' ? { ...b, part: await part(b.part) } : b, memo),
      ),
    };
  }

  private keyOf(r: object, memo: Memo): number | undefined {
    return memo.records.get(r) ?? this.recordKeys.get(r);
  }

  private async writeRecord(identity: object, json: object, memo: Memo): Promise<number> {
    const key = await db.records.add({ project: this.projectId, json });
    memo.bytes += JSON.stringify(json).length;
    memo.records.set(identity, key!);
    return key!;
  }

  private async writeGrid(layer: { readonly id: string; readonly grid: VoxelGrid }, memo: Memo): Promise<number> {
    const known = memo.grids.get(layer.grid) ?? this.gridKeys.get(layer.grid);
    if (known) return known.key;
    const last = memo.lastGrid.get(layer.id) ?? this.lastGrid.get(layer.id);
    const lastKey = last && (memo.grids.get(last) ?? this.gridKeys.get(last));
    const sameBox = last && last.bounds === layer.grid.bounds;
    const plan = planGrid(
      layer.grid,
      sameBox && lastKey ? { grid: last, ...lastKey } : null,
      (b) => memo.bricks.get(b) ?? this.brickKeys.get(b),
    );
    if (plan.missing.length > 0) {
      const fresh = [...new Set(plan.missing.map((m) => m.brick))];
      const keys = await db.bricks.bulkAdd(
        fresh.map((cells) => ({ project: this.projectId, cells })),
        { allKeys: true },
      );
      fresh.forEach((b, i) => memo.bricks.set(b, keys[i]!));
      for (const m of plan.missing) plan.row.table[m.at] = memo.bricks.get(m.brick)!;
      memo.bytes += fresh.length * 4096;
    }
    const key = await db.grids.add({ project: this.projectId, ...plan.row });
    memo.bytes += plan.row.table.byteLength;
    memo.grids.set(layer.grid, { key: key!, depth: plan.row.depth });
    memo.lastGrid.set(layer.id, layer.grid);
    return key!;
  }
}

/** Keys handed out inside a transaction that may still fail. */
class Memo {
  readonly records = new Map<object, number>();
  readonly bricks = new Map<Brick, number>();
  readonly grids = new Map<VoxelGrid, { key: number; depth: number }>();
  readonly lastGrid = new Map<string, VoxelGrid>();
  bytes = 0;

  commit(
    records: WeakMap<object, number>,
    bricks: WeakMap<Brick, number>,
    grids: WeakMap<VoxelGrid, { key: number; depth: number }>,
    lastGrid: Map<string, VoxelGrid>,
  ): void {
    for (const [k, v] of this.records) records.set(k, v);
    for (const [k, v] of this.bricks) bricks.set(k, v);
    for (const [k, v] of this.grids) grids.set(k, v);
    for (const [k, v] of this.lastGrid) lastGrid.set(k, v);
  }
}

/** Deletes records, grids and bricks that no kept step needs. Run in idle time by whoever holds the lock. */
export async function sweep(projectId: string): Promise<void> {
  await db.transaction('rw', CONTENT_TABLES, async () => {
    const entries = await db.entries.where('project').equals(projectId).toArray();
    const grids = new Map((await db.grids.where('project').equals(projectId).toArray()).map((g) => [g.id, g]));
    const records = await db.records.where('project').equals(projectId).toArray();
    const liveRecords = new Set(
      entries.flatMap(({ root: r }) => [
        ...r.palettes,
        ...r.parts,
        r.rig,
        ...r.clips,
        ...r.shots,
        ...(r.stamps ?? []),
        ...(r.references ?? []),
        ...r.bin,
      ]),
    );
    const liveGrids = new Set<number>();
    const liveBricks = new Set<number>();
    for (const r of records) {
      if (!liveRecords.has(r.id!)) continue;
      const json = r.json as Partial<StoredPart> & { part?: StoredPart };
      const part = json.layers ? json : json.part;
      for (const l of [...(part?.layers ?? []), ...(part?.regions ? [part.regions] : [])]) {
        for (let k: number | null = l.grid; k !== null && !liveGrids.has(k); k = grids.get(k)?.base ?? null) {
          liveGrids.add(k);
          const t = grids.get(k)?.table ?? new Int32Array();
          for (let i = 3; i < t.length; i += 4) if (t[i]! > 0) liveBricks.add(t[i]!);
        }
      }
    }
    await db.records.bulkDelete(records.filter((r) => !liveRecords.has(r.id!)).map((r) => r.id!));
    await db.grids.bulkDelete([...grids.keys()].filter((k): k is number => k !== undefined && !liveGrids.has(k)));
    const bricks = await db.bricks.where('project').equals(projectId).primaryKeys();
    await db.bricks.bulkDelete(bricks.filter((k): k is number => k !== undefined && !liveBricks.has(k)));
  });
}
