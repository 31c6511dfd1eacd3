import { type Steps, finish } from '../math';
import type { Grade } from '../model';
import { type Coarse, Grading, coarse, isDrawn, spreadStep, spreadSteps } from './grading';
import { drawOutline } from './outline';

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
  /** Its brightness in samples of odd number: how far both halves are apart tells how far even samples have come. */
  readonly odd: Float32Array;
  /** 1 for each sample that met anything. */
  readonly cover: Float32Array;
  /** Linear colour of the first surface, 3 a pixel. */
  readonly albedo: Float32Array;
  /** Its outward normal in the world, 3 a pixel. */
  readonly normal: Float32Array;
  /** Its distance in project units; 0 where nothing was met. */
  readonly depth: Float32Array;
  /** What most samples met: 0 nothing, {@link GROUND}, or 2 and the place of a thing in the list. */
  readonly id: Float32Array;
  /** How many more of them met that than anything else. */
  readonly votes: Float32Array;
}

/** The id of the ground. */
export const GROUND = 1;

/** One that met `id` among those that a pixel has already (the majority as it comes by, Boyer & Moore 1981). */
export function vote({ id, votes }: Pick<Traced, 'id' | 'votes'>, p: number, met: number, times = 1): void {
  if (id[p] === met) votes[p]! += times;
  else if (votes[p]! >= times) votes[p]! -= times;
  else {
    id[p] = met;
    votes[p] = times - votes[p]!;
  }
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
    odd: new Float32Array(pixels),
    cover: new Float32Array(pixels),
    albedo: new Float32Array(pixels * 3),
    normal: new Float32Array(pixels * 3),
    depth: new Float32Array(pixels),
    id: new Float32Array(pixels),
    votes: new Float32Array(pixels),
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

/** The place of one of {@link tileAreas} among the tiles of a film. */
export const tileIndex = (film: Pick<Film, 'width'>, { x, y }: Pick<Area, 'x' | 'y'>): number =>
  (y / TILE) * columnsOf(film.width) + x / TILE;

/** Of a film the tile of one of {@link tileAreas}; null while nothing came of it. */
export const tileOf = (film: Film, area: Area): Traced | null => film.tiles[tileIndex(film, area)] ?? null;

/** Whether two areas share pixels. */
export const meets = (a: Area, b: Area): boolean =>
  a.x < b.x + b.width && b.x < a.x + a.width && a.y < b.y + b.height && b.y < a.y + a.height;

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
  const index = tileIndex(film, more);
  const tile = film.tiles[index];
  if (tile === undefined || (tile && tile.light.length !== more.light.length))
    throw new RangeError(`Samples at ${more.x}, ${more.y} are not those of a tile.`);
  film.tiles[index] = added(tile, more);
}

/** Samples of a tile and more of them. Those that were there are added to in place. @throws RangeError when there is no memory for it */
export function added(tile: Traced | null, more: Traced): Traced {
  const sum = tile ?? makeTraced(more, 0);
  for (const layer of ['light', 'direct', 'squares', 'odd', 'cover', 'albedo', 'normal', 'depth'] as const) {
    const into = sum[layer],
      from = more[layer];
    for (let i = 0; i < into.length; i++) into[i]! += from[i]!;
  }
  for (let i = 0; i < sum.id.length; i++) vote(sum, i, more.id[i]!, more.votes[i]!);
  return { ...sum, samples: sum.samples + more.samples };
}

/** What the eye met first, which lines and steps of light are drawn by. */
export type Guides = Pick<Traced, 'albedo' | 'normal' | 'depth' | 'id'>;
export type LightTile = Pick<Traced, keyof Area | 'samples' | 'light' | 'cover'> & {
  readonly guides?: Guides & Pick<Traced, 'samples'>;
};

/** The light of a film alone, for developing it elsewhere. */
export interface FilmLight {
  readonly width: number;
  readonly height: number;
  readonly tiles: readonly (LightTile | null)[];
}
export const lightOf = ({ width, height, tiles }: Film): FilmLight => ({
  width,
  height,
  tiles: tiles.map(
    (t) =>
      t && { x: t.x, y: t.y, width: t.width, height: t.height, samples: t.samples, light: t.light, cover: t.cover },
  ),
});
/** Light of a film, or what came of it, with what the eye met in it. */
export const guided = (light: FilmLight, film: Film): FilmLight => ({
  ...light,
  tiles: light.tiles.map((t, i) => {
    const f = film.tiles[i];
    return t && f
      ? { ...t, guides: { albedo: f.albedo, normal: f.normal, depth: f.depth, id: f.id, samples: f.samples } }
      : t;
  }),
});

/** Whether any sample was taken yet. */
export const isExposed = (film: Film): boolean => film.tiles.some((t) => t !== null);

/** How a picture is developed, beside its grading. */
export interface Developing {
  readonly grade: Grade;
  /** Whether what covers nothing is see-through. */
  readonly transparent?: boolean;
  /** Takes every n-th pixel of every n-th row, for a quick look; the picture is then ⌈width / n⌉ × ⌈height / n⌉. */
  readonly step?: number;
  /** Of a large picture these rows alone, from the first to before the last; the tiles about them are enough. */
  readonly rows?: readonly [number, number];
  /** Light of the whole picture, spread about: needed for rows alone where light is spread. */
  readonly spread?: Coarse | null;
}
/** Rows about those that are asked for, by which lines are drawn. */
const linesReach = (grade: Grade): number => (isDrawn(grade) ? Math.ceil(grade.outline.width) + 3 : 0);

/** Of finished tiles what counts for some rows of their picture, cut to that. */
export function rowsAbout(tiles: readonly LightTile[], grade: Grade, rows: readonly [number, number]): LightTile[] {
  const reach = linesReach(grade);
  return tiles.flatMap((t) => {
    const from = Math.max(t.y, rows[0] - reach),
      to = Math.min(t.y + t.height, rows[1] + reach);
    return from < to ? [cutTo(t, from - t.y, to - t.y)] : [];
  });
}
function cutTo(t: LightTile, from: number, to: number): LightTile {
  const cut = (a: Float32Array): Float32Array => {
    const row = a.length / t.height;
    return a.slice(from * row, to * row);
  };
  const { guides: g } = t;
  return {
    ...t,
    ...{ y: t.y + from, height: to - from, light: cut(t.light), cover: cut(t.cover) },
    ...(g && {
      guides: { ...g, albedo: cut(g.albedo), normal: cut(g.normal), depth: cut(g.depth), id: cut(g.id) },
    }),
  };
}

/** Light of a part of a picture in squares, as steps leave it, to be spread over the whole of it later. @param height – of the whole */
export function coarseOf({ width, height, light, cover, guides }: LightTile, grade: Grade, tall: number): Coarse {
  const stepped = light.slice();
  if (guides) new Grading(grade, width, height).stepLight(stepped, guides.albedo, cover);
  return coarse(stepped, width, height, spreadStep(tall));
}

/** The film as sRGB bytes, red, green, blue, alpha (not multiplied in). */
export const developFilm = (film: FilmLight, how: Developing): Uint8Array<ArrayBuffer> =>
  finish(developSteps(film, how));

/** {@link developFilm} in pieces. */
export const developSteps = (film: FilmLight, how: Developing): Steps<Uint8Array<ArrayBuffer>> =>
  developed(film, how, (n) => new Uint8Array(n));
/** {@link developSteps} with 65,536 steps from dark to bright. */
export const developDeepSteps = (film: FilmLight, how: Developing): Steps<Uint16Array<ArrayBuffer>> =>
  developed(film, how, (n) => new Uint16Array(n));

function* developed<T extends Uint8Array | Uint16Array>(
  film: FilmLight,
  { grade, transparent = false, step = 1, rows, spread = null }: Developing,
  make: (length: number) => T,
): Steps<T> {
  const tall = Math.ceil(film.height / step),
    reach = linesReach(grade);
  const [top, bottom] = rows ? [Math.max(0, rows[0] - reach), Math.min(tall, rows[1] + reach)] : [0, tall];
  const { light, cover, width, height, guides } = sampled(film, step, isDrawn(grade), [top, bottom]);
  yield 0.1;
  const grading = new Grading(grade, width, tall);
  if (guides) grading.stepLight(light, guides.albedo, cover);
  if (grade.bloom > 0) {
    const about = spread ?? (yield* spreadSteps(coarse(light, width, tall, spreadStep(tall)), tall));
    grading.bloom(light, about, top);
  }
  const out = make(width * height * 4),
    most = out instanceof Uint8Array ? 255 : 65_535;
  for (let y = 0; y < height; y++) {
    if (y % 64 === 0) yield 0.5 + y / height / 2;
    for (let x = 0; x < width; x++) {
      const i = y * width + x;
      const alpha = transparent ? Math.min(1, cover[i]!) : 1;
      if (alpha === 0) continue;
      grading.pixel(light, i, x, top + y, 1 / alpha, out, most);
      out[i * 4 + 3] = Math.round(alpha * most);
    }
  }
  if (guides && grade.outline.width > 0)
    drawOutline({ width, height, ...guides }, { ...grade.outline, width: grade.outline.width / step }, out, most);
  return rows ? (out.subarray((rows[0] - top) * width * 4, (rows[1] - top) * width * 4) as T) : out;
}

/** A part of a picture as one tile, as of one sample. @param part – whole tiles; others are left aside */
export function partOf(film: FilmLight, part: Area, drawn: boolean): LightTile {
  const { x, y, width, height } = part;
  const tiles = film.tiles.map((t) => t && meets(t, part) && { ...t, x: t.x - x, y: t.y - y });
  const { light, cover, guides } = sampled({ width, height, tiles: tiles.map((t) => t || null) }, 1, drawn);
  return { x, y, width, height, samples: 1, light, cover, ...(guides ? { guides: { ...guides, samples: 1 } } : {}) };
}

/** Every n-th pixel of a film as a film of its own; what the eye met only where lines or steps of light are `drawn` by it. */
export function thinned(film: FilmLight, step: number, drawn: boolean): FilmLight {
  const { width, height, light, cover, guides } = sampled(film, step, drawn);
  const tile = {
    ...{ x: 0, y: 0, width, height, samples: 1, light, cover },
    ...(guides ? { guides: { ...guides, samples: 1 } } : {}),
  };
  return { width, height, tiles: [tile] };
}

/** Layers of a film as pictures of linear values, red, green, blue, alpha. @param rows – these alone, from the first to before the last */
export function filmLayers(
  film: FilmLight,
  transparent: boolean,
  rows: readonly [number, number] = [0, film.height],
): Record<'light', Float32Array<ArrayBuffer>> &
  Record<'albedo' | 'normal' | 'depth' | 'id', Float32Array<ArrayBuffer> | null> {
  const { light, cover, guides } = sampled(film, 1, true, rows);
  const spread = (from: Float32Array, stride: number, alpha: boolean): Float32Array<ArrayBuffer> => {
    const out = new Float32Array(cover.length * 4);
    for (let i = 0; i < cover.length; i++) {
      for (let c = 0; c < 3; c++) out[i * 4 + c] = from[i * stride + (stride === 1 ? 0 : c)]!;
      out[i * 4 + 3] = alpha ? Math.min(1, cover[i]!) : 1;
    }
    return out;
  };
  return {
    light: spread(light, 3, transparent),
    albedo: guides && spread(guides.albedo, 3, true),
    normal: guides && spread(guides.normal, 3, true),
    depth: guides && spread(guides.depth, 1, true),
    id: guides && spread(guides.id, 1, true),
  };
}

/** Means of a film as one picture of every n-th pixel: linear light, 3 a pixel, and how much is covered. @param rows – of that picture these alone */
function sampled(
  film: FilmLight,
  step: number,
  drawn: boolean,
  [top, bottom]: readonly [number, number] = [0, Math.ceil(film.height / step)],
): { light: Float32Array; cover: Float32Array; width: number; height: number; guides: Guides | null } {
  const width = Math.ceil(film.width / step),
    height = bottom - top;
  const light = new Float32Array(width * height * 3),
    cover = new Float32Array(width * height);
  const guides: Guides | null =
    drawn && film.tiles.some((t) => t?.guides)
      ? {
          albedo: new Float32Array(light.length),
          normal: new Float32Array(light.length),
          depth: new Float32Array(cover.length),
          id: new Float32Array(cover.length),
        }
      : null;
  for (const tile of film.tiles) {
    if (!tile) continue;
    const k = 1 / tile.samples;
    const last = Math.min(tile.y + tile.height, bottom * step);
    for (let y = Math.max(top, Math.ceil(tile.y / step)) * step; y < last; y += step)
      for (let x = Math.ceil(tile.x / step) * step; x < tile.x + tile.width; x += step) {
        const from = (y - tile.y) * tile.width + x - tile.x,
          to = (y / step - top) * width + x / step;
        for (let c = 0; c < 3; c++) light[to * 3 + c] = tile.light[from * 3 + c]! * k;
        cover[to] = tile.cover[from]! * k;
        if (!guides || !tile.guides) continue;
        const { albedo, normal, depth, id, samples } = tile.guides;
        for (let c = 0; c < 3; c++) {
          guides.albedo[to * 3 + c] = albedo[from * 3 + c]! / samples;
          guides.normal[to * 3 + c] = normal[from * 3 + c]! / samples;
        }
        guides.depth[to] = depth[from]! / samples;
        guides.id[to] = id[from]!;
      }
  }
  return { light, cover, width, height, guides };
}
