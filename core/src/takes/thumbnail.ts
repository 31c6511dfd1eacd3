import { type FilmLight, type LightTile, thinned } from '../render';

/** Edge of a thumbnail for publishing, in pixels. */
export const THUMBNAIL_EDGE = 512;

/**
 * The square in the middle of a film, small: means of its light, so that it is developed like a picture of that size.
 *
 * @param edge – of the square in pixels; where the film has fewer it is as large as those are
 * @param drawn – whether lines or steps of light are drawn by what the eye met
 */
export function squareOf(film: FilmLight, edge: number, drawn: boolean): FilmLight {
  const side = Math.min(film.width, film.height),
    size = Math.min(edge, side),
    left = (film.width - side) >> 1,
    top = (film.height - side) >> 1;
  const { light, cover, guides } = thinned(film, 1, drawn).tiles[0]!;
  const at = (v: number): number => Math.floor(((v + 0.5) * size) / side);
  const counts = new Uint32Array(size * size);
  const each = (f: (from: number, to: number) => void): void => {
    for (let y = 0; y < side; y++)
      for (let x = 0; x < side; x++) f((top + y) * film.width + left + x, at(y) * size + at(x));
  };
  each((_, to) => counts[to]!++);
  const means = (from: Float32Array): Float32Array => {
    const stride = from.length / (film.width * film.height),
      out = new Float32Array(size * size * stride);
    each((i, o) => {
      for (let c = 0; c < stride; c++) out[o * stride + c]! += from[i * stride + c]! / counts[o]!;
    });
    return out;
  };
  // An id is not the mean of two.
  const last = (from: Float32Array): Float32Array => {
    const out = new Float32Array(size * size);
    each((i, o) => (out[o] = from[i]!));
    return out;
  };
  const tile: LightTile = {
    ...{ x: 0, y: 0, width: size, height: size, samples: 1, light: means(light), cover: means(cover) },
    ...(guides && {
      guides: {
        ...{ samples: 1, albedo: means(guides.albedo), normal: means(guides.normal), depth: means(guides.depth) },
        id: last(guides.id),
      },
    }),
  };
  return { width: size, height: size, tiles: [tile] };
}
