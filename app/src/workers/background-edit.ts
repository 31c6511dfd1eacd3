import { type Project, eachMarked, projectKind } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { type Brick, type VoxelGrid, brickId, isUniformBrick } from '@sphalerite/core/voxel';
import { AT_HOME, type BrickMirror, type ReturnedGrid, openReturned } from './packed';
import { type ProjectPatch, makePatch, openPatch } from './patch';
import type { WorkerPool } from './pool';

/** How an edit is run, so that it gives the same project wherever it runs. */
export interface EditRun {
  /** Of the ids it makes. */
  readonly seed: string;
  /** Milliseconds since 1970. */
  readonly now: number;
  readonly signal?: AbortSignal;
}

/** Every brick of a project by its session number. */
export function bricksOf(project: Project): Map<number, Brick> {
  const bricks = new Map<number, Brick>();
  eachMarked(projectKind.schema, ['cells'], project, (_, grid) => {
    for (const { brick } of (grid as VoxelGrid).bricks()) if (!isUniformBrick(brick)) bricks.set(brickId(brick), brick);
  });
  return bricks;
}

/**
 * Runs any edit in a worker and gives the project after it, in which everything that the edit left alone is the very
 * record it was.
 *
 * @throws EditError as the edit would, JobCancelled when the signal says so
 */
export async function editInBackground<A>(
  pool: WorkerPool,
  before: Project,
  edit: Edit<A>,
  args: A,
  { seed, now, signal }: EditRun,
): Promise<Project> {
  const known = bricksOf(before);
  const patch = await pool.run(
    'edit',
    (pack) => ({ project: pack.packProject(before, 'edited'), edit: edit.name, args, seed, now }),
    signal ? { signal } : {},
  );
  return takeBack(before, patch, known);
}

/** What an edit changed, for the way back. What is new is copied: what is sent is handed over, and the worker goes on. */
export const giveBack = (before: Project, after: Project, mirror: BrickMirror): ProjectPatch<ReturnedGrid> =>
  makePatch(
    before,
    after,
    (grid) => mirror.packBack(grid),
    (bytes) => (bytes === AT_HOME ? null : bytes.slice()),
  );

/** The project after, with bricks and bytes that never left the page. @param known – bricks of `before` by their session numbers */
export const takeBack = (
  before: Project,
  patch: ProjectPatch<ReturnedGrid>,
  known: ReadonlyMap<number, Brick>,
): Project =>
  openPatch(
    before,
    patch,
    (grid) => openReturned(grid, known),
    (bytes, at) => (bytes as Uint8Array<ArrayBuffer> | null) ?? bytesAtHome(before, at.at(-1)!),
  );

function bytesAtHome(project: Project, blob: string): Uint8Array<ArrayBuffer> {
  let found: unknown;
  eachMarked(projectKind.schema, ['bytes'], project, (_, bytes, at) => {
    if (at.at(-1) === blob) found = bytes;
  });
  if (!found) throw new Error(`Blob ${blob} is not one of those of the project.`);
  return found as Uint8Array<ArrayBuffer>;
}
