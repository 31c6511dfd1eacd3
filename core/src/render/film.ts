import { type Steps, finish } from '../math';
import { fromLinear } from '../palette';

/** Edge of a tile in pixels; those at the right and lower edge may be smaller. */
export const TILE = 64;

/** A rectangle of pixels, from the upper left corner of the picture. */
export interface Area {
  readonly x: number;
  readonly y: number;
  readonly width: number;
  readonly height: number;
}

/**
 * What samples came to over an area, summed, row by row from its top. Beside the light stands what the eye met first, which
 * tells edges from noise and figure from ground.
 */
export interface Traced extends Area {
  readonly samples: number;
  /** Linear light, 3 a pixel. */
  readonly light: Float32Array;
  /** Of that light what came without a bounce: glow and sky that the eye sees itself; 3 a pixel. */
  readonly direct: Float32Array;
  /** Squares of the brightness of the rest, sample by sample: they tell how noisy a pixel is. */
  readonly squares: Float32Array;
  /** 1 for each sample that met anything. */
  readonly cover: Float32Array;
  /** Linear colour of the first surface, 3 a pixel. */
  readonly albedo: Float32Array;
  /** Its outward normal in the world, 3 a pixel. */
  readonly normal: Float32Array;
  /** Its distance in project units; 0 where nothing was met. */
  readonly depth: Float32Array;
}

export const makeTraced = ({ x, y, width, height }: Area, samples: number): Traced => {
  const pixels = width * height;
  return {
    x,
    y,
    width,
    height,
    samples,
    light: new Float32Array(pixels * 3),
    direct: new Float32Array(pixels * 3),
    squares: new Float32Array(pixels),
    cover: new Float32Array(pixels),
    albedo: new Float32Array(pixels * 3),
    normal: new Float32Array(pixels * 3),
    depth: new Float32Array(pixels),
  };
};

/** The picture as it grows, in tiles, each with as many samples as it has by now; null for one that has none. */
export interface Film {
  readonly width: number;
  readonly height: number;
  /** Row by row. */
  readonly tiles: (Traced | null)[];
}

const columnsOf = (width: number): number => Math.ceil(width / TILE);

export const makeFilm = (width: number, height: number): Film => ({
  width,
  height,
  tiles: new Array<Traced | null>(columnsOf(width) * columnsOf(height)).fill(null),
});

/** The tiles of a picture, those in its middle first. */
export function tileAreas(width: number, height: number): Area[] {
  const areas: Area[] = [];
  for (let y = 0; y < height; y += TILE)
    for (let x = 0; x < width; x += TILE)
      areas.push({ x, y, width: Math.min(TILE, width - x), height: Math.min(TILE, height - y) });
  const away = (a: Area): number => Math.hypot(a.x + a.width / 2 - width / 2, a.y + a.height / 2 - height / 2);
  return areas.sort((a, b) => away(a) - away(b) || a.y - b.y || a.x - b.x);
}

/** Adds samples of one tile. @throws RangeError when they are not of a whole tile, or when there is no memory for it */
export function addTraced(film: Film, more: Traced): void {
  const index = (more.y / TILE) * columnsOf(film.width) + more.x / TILE;
  const tile = film.tiles[index];
  if (tile === undefined || (tile && tile.light.length !== more.light.length))
    throw new RangeError(`Samples at ${more.x}, ${more.y} are not those of a tile.`);
  const sum = tile ?? makeTraced(more, 0);
  for (const layer of ['light', 'direct', 'squares', 'cover', 'albedo', 'normal', 'depth'] as const) {
    const into = sum[layer],
      from = more[layer];
    for (let i = 0; i < into.length; i++) into[i]! += from[i]!;
  }
  film.tiles[index] = { ...sum, samples: sum.samples + more.samples };
}

/** The light of a film alone, for developing it elsewhere. */
export interface FilmLight {
  readonly width: number;
  readonly height: number;
  readonly tiles: readonly (Pick<Traced, keyof Area | 'samples' | 'light'> | null)[];
}
export const lightOf = ({ width, height, tiles }: Film): FilmLight => ({
  width,
  height,
  tiles: tiles.map(
    (t) => t && { x: t.x, y: t.y, width: t.width, height: t.height, samples: t.samples, light: t.light },
  ),
});

/** Whether any sample was taken yet. */
export const isExposed = (film: Film): boolean => film.tiles.some((t) => t !== null);

/** Rolls bright light off softly: straight up to 0.7, then bent so that it meets 1 only far above. */
const shoulder = (v: number): number => (v <= 0.7 ? v : 0.7 + 0.3 * (1 - Math.exp(-(v - 0.7) / 0.3)));

/**
 * The film as sRGB bytes, red, green, blue, alpha.
 *
 * @param exposure – in stops
 * @param step – takes every n-th pixel of every n-th row, for a quick look; the picture is then ⌈width / n⌉ × ⌈height / n⌉
 */
export const developFilm = (film: FilmLight, exposure = 0, step = 1): Uint8Array<ArrayBuffer> =>
  finish(developSteps(film, exposure, step));

/** {@link developFilm} in pieces. */
export function* developSteps(film: FilmLight, exposure = 0, step = 1): Steps<Uint8Array<ArrayBuffer>> {
  const width = Math.ceil(film.width / step);
  const out = new Uint8Array(width * Math.ceil(film.height / step) * 4);
  for (let i = 3; i < out.length; i += 4) out[i] = 255;
  for (const [n, tile] of film.tiles.entries()) {
    if (n % 16 === 0) yield n / film.tiles.length;
    if (!tile) continue;
    const k = 2 ** exposure / tile.samples;
    const firstX = Math.ceil(tile.x / step) * step,
      firstY = Math.ceil(tile.y / step) * step;
    for (let y = firstY; y < tile.y + tile.height; y += step) {
      for (let x = firstX; x < tile.x + tile.width; x += step) {
        const i = ((y - tile.y) * tile.width + x - tile.x) * 3,
          o = ((y / step) * width + x / step) * 4;
        for (let c = 0; c < 3; c++)
          out[o + c] = Math.round(255 * Math.min(1, fromLinear(shoulder(tile.light[i + c]! * k))));
      }
    }
  }
  return out;
}
