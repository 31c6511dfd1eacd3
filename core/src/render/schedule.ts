import { Certainty, LEAST_SAMPLES } from './certainty';
import { type Area, type Film, type Traced, added, meets, tileAreas } from './film';
import { traceArea } from './integrator';
import type { TraceScene } from './trace-scene';

/** What certainty is told by, of samples that were taken. */
export type Had = Pick<Traced, 'samples' | 'light' | 'direct' | 'odd'>;

/** When a tile is done. */
export interface Until {
  readonly samples: number;
  /** It is done when it is no more uncertain than this; 0 takes all samples. */
  readonly noise: number;
}

/** How a picture is traced. */
export interface Tracing extends Until {
  /** Of all tiles every `lanes`-th, from the `lane`-th on: what one of several workers does. */
  readonly lane: number;
  readonly lanes: number;
  /** What is traced before everything else. */
  readonly first?: Area | null;
  /** What tiles have already, in the order of {@link tileAreas}. */
  readonly had?: readonly (Had | null)[];
}

/** Samples that came, and the share of the work that is done by then. */
export interface Progress {
  readonly traced: Traced;
  readonly share: number;
}

interface Tile {
  readonly area: Area;
  done: number;
  /** How many it is likely to have in the end. */
  needs: number;
  readonly certainty: Certainty | null;
}

function take(t: Tile, had: Had, { samples, noise }: Until): void {
  t.done += had.samples;
  t.certainty?.add(had);
  // What it needs is guessed early, so that the time that is left is told well; it ends by that later.
  if (t.certainty && t.done > 1) t.needs = Math.min(samples, Math.max(t.done, LEAST_SAMPLES, t.certainty.needs(noise)));
}

const begun = (area: Area, { samples, noise }: Until): Tile => ({
  area,
  done: 0,
  needs: noise > 0 ? Math.min(samples, 2 * LEAST_SAMPLES) : samples,
  certainty: noise > 0 ? new Certainty(area.width, area.height) : null,
});

/** Samples of the next pass: thin ones first, so that the picture stands early, then more at a time. */
const passOf = (done: number, most: number): number => Math.min(most - done, done < 4 ? 1 : 4);

/** Traces a picture tile by tile, again and again over all of them, so that all of it stands early; what comes first is finished first. */
export function* traceTiles(scene: TraceScene, how: Tracing): Generator<Progress, void> {
  const { samples, lane, lanes, first = null, had = [] } = how;
  const tiles = tileAreas(scene.width, scene.height).flatMap((area, i): Tile[] => {
    if (i % lanes !== lane) return [];
    const before = had[i],
      tile = begun(area, how);
    if (before) take(tile, before, how);
    return [tile];
  });
  let spent = 0;
  for (const part of first ? [tiles.filter((t) => meets(t.area, first)), tiles] : [tiles])
    for (let left = part; (left = left.filter((t) => t.done < t.needs)).length > 0;)
      for (const t of left) {
        const count = passOf(t.done, samples);
        const traced = traceArea(scene, t.area, t.done, count);
        take(t, traced, how);
        spent += count;
        const rest = tiles.reduce((n, o) => n + o.needs - o.done, 0);
        yield { traced, share: spent / (spent + rest) };
      }
}

/** Traces tiles one after another, each to its end, as {@link traceTiles} does: of pictures that are too large to be looked at as a whole. Yields one after each pass over it, null before it is done. */
export function* traceEach(scene: TraceScene, tiles: readonly Area[], until: Until): Generator<Traced | null, void> {
  for (const area of tiles) {
    const t = begun(area, until);
    let sum: Traced | null = null;
    while (t.done < t.needs) {
      const traced = traceArea(scene, area, t.done, passOf(t.done, until.samples));
      take(t, traced, until);
      sum = added(sum, traced);
      yield t.done < t.needs ? null : sum;
    }
  }
}

/** How many samples a pixel of a film that has few by now is likely to need in the mean. */
export function neededSamples(film: Film, { samples, noise }: Until): number {
  let total = 0,
    pixels = 0;
  for (const t of film.tiles) {
    if (!t) continue;
    const certainty = new Certainty(t.width, t.height);
    certainty.add(t);
    const needs = noise > 0 ? Math.min(samples, Math.max(LEAST_SAMPLES, certainty.needs(noise))) : samples;
    total += needs * t.width * t.height;
    pixels += t.width * t.height;
  }
  return pixels > 0 ? total / pixels : samples;
}
