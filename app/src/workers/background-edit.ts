import {
  type Id,
  type Part,
  type Project,
  gridsOf,
  layerKey,
  must,
  projectFromJson,
  replaceRecord,
} from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { type Brick, brickId, isUniformBrick } from '@sphalerite/core/voxel';
import { type ReturnedGrid, openReturned } from './packed';
import type { WorkerPool } from './pool';

/**
 * Runs an edit of some parts in a worker and gives the project after it. Only these parts are sent, with the rig they hang
 * on and the twins that follow them; the edit may change them, put new ones among them or them in the bin, and change the rig and their reference pictures. @throws EditError as the edit would
 */
export async function editInBackground<A>(
  pool: WorkerPool,
  before: Project,
  parts: readonly Id[],
  edit: Edit<A>,
  args: A,
  seed: string,
  now: number,
  signal?: AbortSignal,
): Promise<Project> {
  const known = new Map<number, Brick>();
  const sources = new Set(
    parts.map((id) => must(before.parts, id, 'part')).flatMap((p) => [p.id, ...(p.twin ? [p.twin.source] : [])]),
  );
  const sent = before.parts.filter((p) => sources.has(p.id) || (p.twin && sources.has(p.twin.source)));
  for (const part of sent)
    for (const { grid } of gridsOf(part))
      for (const { brick } of grid.bricks()) if (!isUniformBrick(brick)) known.set(brickId(brick), brick);
  const went = new Set(sent.map((p) => p.id));
  const slim: Project = {
    ...before,
    parts: sent,
    clips: [],
    shots: [],
    stamps: [],
    bin: [],
    references: before.references.filter((r) => went.has(r.part)),
  };
  const { json, grids } = await pool.run(
    'edit',
    (pack) => ({ project: pack.packProject(slim), edit: edit.name, args, seed, now }),
    signal ? { signal } : {},
  );
  const after = projectFromJson(json as Parameters<typeof projectFromJson>[0], (p: { id: string }, layer) =>
    openReturned((grids as Record<string, ReturnedGrid>)[layerKey(p.id, layer)]!, known),
  );
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  return {
    ...before,
    parts: merged(before.parts, went, after.parts),
    bin: after.bin.length > 0 ? [...before.bin, ...after.bin] : before.bin,
    rig: same(slim.rig, after.rig) ? before.rig : after.rig,
    references: same(slim.references, after.references)
      ? before.references
      : [...before.references.filter((r) => !went.has(r.part)), ...after.references],
  };
}

/** The parts after the edit: those that went come back as they are now, with new ones beside them; all others stay where they are. */
function merged(before: readonly Part[], went: ReadonlySet<Id>, after: readonly Part[]): readonly Part[] {
  if (after.length === went.size && after.every((p) => went.has(p.id))) return after.reduce(replaceRecord, before);
  const first = before.findIndex((p) => went.has(p.id));
  const others = (list: readonly Part[]): Part[] => list.filter((p) => !went.has(p.id));
  return [...others(before.slice(0, first)), ...after, ...others(before.slice(first))];
}
