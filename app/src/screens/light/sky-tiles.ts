import { NO_GRADE } from '@sphalerite/core/model';
import { shrunkLight } from '@sphalerite/core/codec';
import { Grading, PAINTED_SKIES, type PaintedSky, type SkyMap, skyTile } from '@sphalerite/core/render';

/** Texels of a tile: the half of the sphere that one looks at, from a little below the horizon up. */
const WIDTH = 48,
  HEIGHT = 24,
  LEAST = 3,
  MOST = 15;

/** A tile of each of the painted surroundings, to choose it by. */
export const SKY_TILES: readonly { readonly kind: PaintedSky; readonly url: string }[] = PAINTED_SKIES.map((kind) => ({
  kind,
  url: tileOf(skyTile(kind, WIDTH, HEIGHT)),
}));

/** A tile of surroundings of any size. */
export function tileOf(map: SkyMap): string {
  const { light } = shrunkLight({ ...map, light: map.light as Float32Array<ArrayBuffer> }, WIDTH, HEIGHT);
  const bytes = new Uint8Array(WIDTH * HEIGHT * 4).fill(255);
  const grading = new Grading(NO_GRADE, WIDTH, HEIGHT);
  for (let i = 0; i < WIDTH * HEIGHT; i++) grading.pixel(light, i, i % WIDTH, Math.floor(i / WIDTH), 1, bytes);
  const canvas = document.createElement('canvas');
  canvas.width = WIDTH;
  canvas.height = MOST - LEAST;
  canvas.getContext('2d')!.putImageData(new ImageData(new Uint8ClampedArray(bytes.buffer), WIDTH, HEIGHT), 0, -LEAST);
  return canvas.toDataURL('image/png');
}
