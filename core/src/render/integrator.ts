import { type Area, type Traced, makeTraced } from './film';
import { Path } from './path';
import type { TraceScene } from './trace-scene';

/** How light is followed. */
export interface TraceOptions {
  /** Most times that a path is scattered. */
  readonly bounces: number;
  /** Whether lights are aimed for, met by bounces, or both, weighed by their chances: the mean is the same. */
  readonly strategy: 'both' | 'lights' | 'bounces';
}
export const TRACE_DEFAULTS: TraceOptions = { bounces: 6, strategy: 'both' };

/** Pixels are traced in squares so wide: paths of neighbours meet the same things, which are at hand then. */
const BLOCK = 8;

/**
 * Unidirectional path tracing (Kajiya 1986) of an area of the picture. Each sample's chances follow from pixel and sample
 * number alone, so that a picture is the same however it is shared among workers.
 *
 * @param first – number of the first sample, so that later passes add new ones
 */
export function traceArea(
  scene: TraceScene,
  area: Area,
  first: number,
  samples: number,
  options: TraceOptions = TRACE_DEFAULTS,
): Traced {
  const out = makeTraced(area, samples);
  const path = new Path(scene, options);
  const { width, height } = area;
  for (let y = 0; y < height; y += BLOCK)
    for (let x = 0; x < width; x += BLOCK)
      for (let j = y; j < Math.min(height, y + BLOCK); j++)
        for (let i = x; i < Math.min(width, x + BLOCK); i++)
          for (let s = first; s < first + samples; s++) {
            path.follow(area.x + i, area.y + j, s);
            path.addTo(out, j * width + i);
          }
  return out;
}
