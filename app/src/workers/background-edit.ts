import { type Project, eachMarked, projectKind } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { type Brick, type VoxelGrid, brickId, isUniformBrick } from '@sphalerite/core/voxel';
import { openPatch } from './patch';
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
  return openPatch(before, patch, known);
}
