import {
  type Carrier,
  type LooseJson,
  type NamedRecord,
  type Opener,
  type Project,
  type RecordKind,
  type Rig,
  LISTED_KINDS,
  recordFromJson,
  recordToJson,
  recordsOf,
} from '@sphalerite/core/model';
import type { VoxelGrid } from '@sphalerite/core/voxel';

/** A list after a change: its ids in order, and those records that are new or changed, as JSON. */
interface ListPatch {
  readonly order: readonly string[];
  readonly changed: readonly LooseJson[];
}

/** What differs between two projects, on its way to or from a worker: whatever is not named stays the very record it was. */
export interface ProjectPatch<Grid> {
  readonly fields: Readonly<Record<string, unknown>>;
  readonly rig: Rig | null;
  /** By list. */
  readonly lists: Readonly<Record<string, ListPatch>>;
  /** In JSON a grid stands as its place here. */
  readonly grids: readonly Grid[];
}

const LISTS = new Set<string>(LISTED_KINDS.map((k) => k.list));

/**
 * The difference between two projects, record by record of every kind.
 *
 * @param before – null gives the whole of `after`
 * @param bytes – what goes along for the bytes of a blob
 */
export function makePatch<Grid>(
  before: Project | null,
  after: Project,
  pack: (grid: VoxelGrid) => Grid,
  bytes: (bytes: Uint8Array<ArrayBuffer>) => unknown,
): ProjectPatch<Grid> {
  const fields: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(after))
    if (name !== 'rig' && !LISTS.has(name) && value !== before?.[name as keyof Project]) fields[name] = value;
  const grids: Grid[] = [];
  const places = new Map<VoxelGrid, number>();
  const carrier: Carrier = {
    cells(grid) {
      let place = places.get(grid);
      if (place === undefined) {
        places.set(grid, (place = grids.length));
        grids.push(pack(grid));
      }
      return place;
    },
    bytes,
  };
  const lists: Record<string, ListPatch> = {};
  for (const kind of LISTED_KINDS) {
    const was = before ? recordsOf(before, kind) : [],
      is = recordsOf(after, kind);
    if (before && was === is) continue;
    const old = new Map(was.map((r) => [r.id, r]));
    const changed = is
      .filter((r) => old.get(r.id) !== r)
      .map((r) => recordToJson(kind, r, withPieces(carrier, kind, old.get(r.id))));
    lists[kind.list] = { order: is.map((r) => r.id), changed };
  }
  return { fields, rig: after.rig === before?.rig ? null : after.rig, lists, grids };
}

/** What stands apart in a record, in order; of a scene with thousands of placements a change touches few of its pieces. */
function piecesOf(kind: RecordKind, record: NamedRecord | undefined): object[] {
  const out: object[] = [];
  if (record)
    recordToJson(kind, record, {
      cells: (grid) => grid,
      bytes: (b) => b,
      piece: (piece) => out.push(piece),
    });
  return out;
}
/** Lets pieces of the record before stand by their number among them, from 1. */
function withPieces(carrier: Carrier, kind: RecordKind, before: NamedRecord | undefined): Carrier {
  if (!before) return carrier;
  const places = new Map(piecesOf(kind, before).map((piece, i) => [piece, i + 1]));
  return { ...carrier, piece: (piece) => places.get(piece) ?? null };
}

/**
 * The project after, from the one before and a patch.
 *
 * @param before – null for the patch of a whole project
 * @param open – a grid of the patch
 * @param bytes – the bytes of a blob, from what stands for them and the ids around it
 */
export function openPatch<Grid>(
  before: Project | null,
  patch: ProjectPatch<Grid>,
  open: (grid: Grid) => VoxelGrid,
  bytes: Opener['bytes'],
): Project {
  const grids = patch.grids.map(open);
  const opener: Opener = { cells: (place) => grids[place as number]!, bytes };
  const after: Record<string, unknown> = { ...before, ...patch.fields, rig: patch.rig ?? before?.rig };
  for (const kind of LISTED_KINDS) {
    const list = patch.lists[kind.list];
    if (list) after[kind.list] = openList(kind, before ? recordsOf(before, kind) : [], list, opener);
  }
  return after as unknown as Project;
}

function openList(
  kind: RecordKind,
  before: readonly NamedRecord[],
  { order, changed }: ListPatch,
  opener: Opener,
): readonly NamedRecord[] {
  const records = new Map(before.map((r) => [r.id, r]));
  for (const json of changed) {
    const pieces = piecesOf(kind, records.get(json['id'] as string));
    const record = recordFromJson<NamedRecord>(kind, json, { ...opener, piece: (k) => pieces[k - 1]! });
    records.set(record.id, record);
  }
  return order.map((id) => records.get(id)!);
}
