import type { Project, Shot } from '@sphalerite/core/model';
import {
  type Area,
  type Film,
  type FilmLight,
  type Had,
  type TraceCamera,
  type Traced,
  bandsOf,
  filmAbout,
  joined,
  tileAreas,
  tileOf,
} from '@sphalerite/core/render';
import { sharedPool } from '../../workers/pool';

/** What is traced, and what of it is there already. */
export interface TraceOrder {
  readonly project: Project;
  readonly shot: Shot;
  readonly size: readonly [number, number];
  /** What is traced before everything else, in pixels. */
  readonly first?: Area | null;
  /** A film to go on with. */
  readonly film?: Film | null;
  /** Whether it rests while a hand is at work in the view. */
  readonly patient?: boolean;
}

/**
 * Traces a shot on every worker at once. `grown` is given what each of them added and the share of the whole that
 * stands.
 * @throws JobCancelled when `abort` is used meanwhile
 */
export async function traceOnAll(
  { project, shot, size, first = null, film = null, patient = false }: TraceOrder,
  abort: AbortController,
  grown: (share: number, traced: Traced | undefined) => void,
): Promise<void> {
  const pool = sharedPool();
  const lanes = pool.size;
  const shares = new Array<number>(lanes).fill(0);
  const areas = film ? tileAreas(...size) : [];
  await Promise.all(
    Array.from({ length: lanes }, (_, lane) =>
      pool.run(
        'trace',
        (sent) => ({
          project: sent.packProject(project),
          shot: JSON.parse(JSON.stringify(shot)) as Shot,
          ...{ size, lane, lanes, first: first && { ...first } },
          had: areas.map((a, i) => (i % lanes === lane ? hadOf(tileOf(film!, a)) : null)),
        }),
        {
          signal: abort.signal,
          worker: lane,
          patient,
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

const hadOf = (t: Traced | null): Had | null =>
  t && { samples: t.samples, light: t.light, direct: t.direct, odd: t.odd };

/** A film without most of its noise, worked out on every worker at once. @throws JobCancelled when it is stopped */
export async function calmed(
  film: Film,
  camera: TraceCamera,
  signal: AbortSignal,
  onProgress: (share: number) => void = () => undefined,
): Promise<FilmLight> {
  const pool = sharedPool(),
    bands = bandsOf(film.width, film.height, pool.size),
    shares = bands.map(() => 0);
  return joined(
    await Promise.all(
      bands.map((band, i) =>
        pool.run('denoise', () => ({ film: filmAbout(film, band), camera, part: band }), {
          signal,
          onProgress(share) {
            shares[i] = share;
            onProgress(shares.reduce((a, b) => a + b, 0) / bands.length);
          },
        }),
      ),
    ),
  );
}
