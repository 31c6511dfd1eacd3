import type { Project, Shot } from '@sphalerite/core/model';
import type { Traced } from '@sphalerite/core/render';
import { sharedPool } from '../../workers/pool';

/**
 * Traces a shot on every worker at once. `grown` is given what each of them added and the share of the whole that
 * stands.
 * @throws JobCancelled when `abort` is used meanwhile
 */
export async function traceOnAll(
  project: Project,
  shot: Shot,
  size: readonly [number, number],
  abort: AbortController,
  grown: (share: number, traced: Traced | undefined) => void,
): Promise<void> {
  const pool = sharedPool();
  const lanes = pool.size;
  const shares = new Array<number>(lanes).fill(0);
  await Promise.all(
    Array.from({ length: lanes }, (_, lane) =>
      pool.run(
        'trace',
        (sent) => ({
          project: sent.packProject(project),
          shot: JSON.parse(JSON.stringify(shot)) as Shot,
          size,
          lane,
          lanes,
        }),
        {
          signal: abort.signal,
          worker: lane,
          onProgress(share, traced) {
            if (abort.signal.aborted) return;
            shares[lane] = share;
            grown(shares.reduce((a, b) => a + b, 0) / lanes, traced);
          },
        },
      ),
    ),
  );
}
