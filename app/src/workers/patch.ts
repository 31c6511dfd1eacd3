import {
  type Carrier,
  type LooseJson,
  type NamedRecord,
  type Opener,
  type Project,
  type RecordKind,
  type Rig,
  LISTED_KINDS,
  eachMarked,
  projectKind,
  recordFromJson,
  recordToJson,
  recordsOf,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import { AT_HOME, type ReturnedGrid, openReturned } from './packed';

/** A list after an edit: its ids in order, and those records that are new or changed, as JSON. */
interface ListPatch {
  readonly order: readonly string[];
  readonly changed: readonly LooseJson[];
}

/** What an edit changed in a project, on its way from a worker: whatever is not named stays the very record it was. */
export interface ProjectPatch {
  readonly fields: Readonly<Record<string, unknown>>;
  readonly rig: Rig | null;
  /** By list. */
  readonly lists: Readonly<Record<string, ListPatch>>;
  readonly grids: readonly ReturnedGrid[];
}

const LISTS = new Set<string>(LISTED_KINDS.map((k) => k.list));

/** The difference between two projects, record by record of every kind. */
export function makePatch(before: Project, after: Project, pack: (grid: VoxelGrid) => ReturnedGrid): ProjectPatch {
  const fields: Record<string, unknown> = {};
  for (const [name, value] of Object.entries(after))
    if (name !== 'rig' && !LISTS.has(name) && value !== before[name as keyof Project]) fields[name] = value;
  const grids: ReturnedGrid[] = [];
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
    // A copy of what is new: what is sent is handed over, and the worker goes on using its own.
    bytes: (bytes) => (bytes === AT_HOME ? null : bytes.slice()),
  };
  const lists: Record<string, ListPatch> = {};
  for (const kind of LISTED_KINDS) {
    const was = recordsOf(before, kind),
      is = recordsOf(after, kind);
    if (was === is) continue;
    const old = new Set(was);
    const changed = is.filter((r) => !old.has(r)).map((r) => recordToJson(kind, r, carrier));
    lists[kind.list] = { order: is.map((r) => r.id), changed };
  }
  return { fields, rig: after.rig === before.rig ? null : after.rig, lists, grids };
}

/**
 * The project after, from the one before and a patch.
 *
 * @param known – bricks of `before` by their session numbers
 */
export function openPatch(before: Project, patch: ProjectPatch, known: ReadonlyMap<number, Brick>): Project {
  const grids = patch.grids.map((g) => openReturned(g, known));
  const opener: Opener = {
    cells: (place) => grids[place as number]!,
    bytes: (bytes, at) => (bytes as Uint8Array<ArrayBuffer> | null) ?? bytesAtHome(before, at.at(-1)!),
  };
  const after: Record<string, unknown> = { ...before, ...patch.fields, rig: patch.rig ?? before.rig };
  for (const kind of LISTED_KINDS) {
    const list = patch.lists[kind.list];
    if (list) after[kind.list] = openList(kind, recordsOf(before, kind), list, opener);
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
    const record = recordFromJson<NamedRecord>(kind, json, opener);
    records.set(record.id, record);
  }
  return order.map((id) => records.get(id)!);
}

/** The bytes of a blob that never left the page. */
function bytesAtHome(project: Project, blob: string): Uint8Array<ArrayBuffer> {
  let found: unknown;
  eachMarked(projectKind.schema, ['bytes'], project, (_, bytes, at) => {
    if (at.at(-1) === blob) found = bytes;
  });
  if (!found) throw new Error(`Blob ${blob} is not one of those of the project.`);
  return found as Uint8Array<ArrayBuffer>;
}
