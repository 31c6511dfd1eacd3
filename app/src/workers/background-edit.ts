import { type Id, type Project, layerKey, must, projectFromJson, replaceRecord } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { type Brick, brickId, isUniformBrick } from '@sphalerite/core/voxel';
import { type ReturnedGrid, openReturned } from './packed';
import type { WorkerPool } from './pool';

/**
 * Runs an edit of one part in a worker and gives the project after it. Only that part is sent, with the rig it hangs on;
 * the edit may change the part, the rig and the part's reference pictures. @throws EditError as the edit would
 */
export async function editInBackground<A>(pool: WorkerPool, before: Project, part: Id, edit: Edit<A>, args: A, seed: string, now: number, signal?: AbortSignal): Promise<Project> {
  const known = new Map<number, Brick>();
  for (const l of must(before.parts, part, 'part').layers) for (const { brick } of l.grid.bricks()) if (!isUniformBrick(brick)) known.set(brickId(brick), brick);
  const slim: Project = { ...before, parts: [must(before.parts, part, 'part')], clips: [], shots: [], stamps: [], bin: [], references: before.references.filter((r) => r.part === part) };
  const { json, grids } = await pool.run('edit', (sent) => ({ project: sent.packProject(slim), edit: edit.name, args, seed, now }), signal ? { signal } : {});
  const after = projectFromJson(json as Parameters<typeof projectFromJson>[0], (p: { id: string }, layer) => openReturned((grids as Record<string, ReturnedGrid>)[layerKey(p.id, layer)]!, known));
  const same = (a: unknown, b: unknown): boolean => JSON.stringify(a) === JSON.stringify(b);
  return {
    ...before, parts: replaceRecord(before.parts, after.parts[0]!), rig: same(slim.rig, after.rig) ? before.rig : after.rig,
    references: same(slim.references, after.references) ? before.references : [...before.references.filter((r) => r.part !== part), ...after.references],
  };
}
