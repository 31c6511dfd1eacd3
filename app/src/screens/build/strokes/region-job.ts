import { boxVolume } from '@sphalerite/core/math';
import { type RegionQuery, regionCells } from '@sphalerite/core/sculpt';
import { CellSet, type VoxelGrid } from '@sphalerite/core/voxel';
import { JobCancelled } from '../../../workers/protocol';
import { sharedPool } from '../../../workers/pool';
import type { Job } from '../build-state';

/** Volumes up to this many cells are searched on the spot: a few milliseconds. */
const ON_THE_SPOT = 300_000;

/** The cells a query means; null when it was stopped. */
export async function regionInBackground(
  grid: VoxelGrid,
  query: RegionQuery,
  show: (job: Job | null) => void,
): Promise<CellSet | null> {
  if (boxVolume(grid.bounds) <= ON_THE_SPOT || query.kind === 'face') return regionCells(grid, query);
  const stop = new AbortController();
  const job = { label: 'Looking for cubes', stop: () => stop.abort() };
  show({ ...job, progress: 0 });
  try {
    const { box, words } = await sharedPool().run('region', (sent) => ({ grid: sent.packGrid(grid), query }), {
      signal: stop.signal,
      onProgress: (progress) => show({ ...job, progress }),
    });
    return new CellSet(box, words);
  } catch (e) {
    if (e instanceof JobCancelled) return null;
    throw e;
  } finally {
    show(null);
  }
}
