import {
  type BinItem,
  type Part,
  type PartJson,
  type Project,
  RECORD_LISTS,
  type Reference,
  type Rig,
  gridsOf,
  layerKey,
  partFromJson,
  partToJson,
} from '@sphalerite/core/model';
import type { Brick, VoxelGrid } from '@sphalerite/core/voxel';
import { type ReturnedGrid, openReturned, pictureFromHome } from './packed';

type ListName = keyof typeof RECORD_LISTS;
interface Named {
  readonly id: string;
}

/** A list after an edit: its ids in order, and those records that are new or changed, without cells. */
interface ListPatch {
  readonly order: readonly string[];
  readonly changed: readonly Named[];
}

/** What an edit changed in a project, on its way from a worker: whatever is not named stays the very record it was. */
export interface ProjectPatch {
  readonly fields: Readonly<Record<string, unknown>>;
  readonly rig: Rig | null;
  readonly lists: Partial<Record<ListName, ListPatch>>;
  readonly grids: Readonly<Record<string, ReturnedGrid>>;
}

/** The difference between two projects, record by record of every kind. */
export function makePatch(before: Project, after: Project, pack: (grid: VoxelGrid) => ReturnedGrid): ProjectPatch {
  const fields: Record<string, unknown> = {};
  const lists: ProjectPatch['lists'] = {};
  const grids: Record<string, ReturnedGrid> = {};
  const withoutCells = (part: Part): PartJson => {
    for (const { id, grid } of gridsOf(part)) grids[layerKey(part.id, id)] ??= pack(grid);
    return partToJson(part);
  };
  for (const [name, value] of Object.entries(after)) {
    if (name === 'rig' || value === before[name as keyof Project]) continue;
    if (!(name in RECORD_LISTS)) {
      fields[name] = value;
      continue;
    }
    const list = value as readonly Named[];
    const old = new Set(before[name as ListName] as readonly Named[]);
    lists[name as ListName] = {
      order: list.map((r) => r.id),
      changed: list.filter((r) => !old.has(r)).map((r) => recordToJson(name as ListName, r, withoutCells)),
    };
  }
  return { fields, rig: after.rig === before.rig ? null : after.rig, lists, grids };
}

/**
 * The project after, from the one before and a patch.
 *
 * @param known – bricks of `before` by their session numbers
 */
export function openPatch(before: Project, patch: ProjectPatch, known: ReadonlyMap<number, Brick>): Project {
  const withCells = (json: PartJson): Part =>
    partFromJson(json, (part, layer) => openReturned(patch.grids[layerKey(part.id, layer)]!, known));
  const lists: Record<string, readonly Named[]> = {};
  for (const [name, { order, changed }] of Object.entries(patch.lists) as [ListName, ListPatch][]) {
    const records = new Map((before[name] as readonly Named[]).map((r) => [r.id, r]));
    for (const json of changed) records.set(json.id, recordFromJson(name, json, withCells, before));
    lists[name] = order.map((id) => records.get(id)!);
  }
  return { ...before, ...patch.fields, ...lists, rig: patch.rig ?? before.rig } as Project;
}

function recordToJson(list: ListName, record: Named, withoutCells: (part: Part) => PartJson): Named {
  if (list === 'parts' || list === 'stamps') return withoutCells(record as Part);
  const item = record as BinItem;
  return list === 'bin' && item.kind === 'part'
    ? ({ ...item, part: withoutCells(item.part) } as unknown as Named)
    : record;
}

function recordFromJson(list: ListName, json: Named, withCells: (json: PartJson) => Part, before: Project): Named {
  if (list === 'parts' || list === 'stamps') return withCells(json as PartJson);
  if (list === 'references') return pictureFromHome(json as Reference, before);
  const item = json as BinItem;
  if (list !== 'bin' || item.kind !== 'part') return json;
  return {
    ...item,
    part: withCells(item.part as unknown as PartJson),
    references: item.references.map((r) => pictureFromHome(r, before)),
  } as Named;
}
