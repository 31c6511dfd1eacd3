import type { Axis } from '@sphalerite/core/math';
import type { Blob as StoredBlob, Reference } from '@sphalerite/core/model';
import type { Outline } from '@sphalerite/core/sculpt';

export const PLANE_AXIS: Record<Reference['plane'], Axis> = { front: 2, side: 0, top: 1 };
/** Points along each side of a cube's place that are looked at; half of them make it filled. */
const FINE = 4;

/** How far a pixel's colour is from that of the first, summed over red, green and blue. */
const awayFromCorner = (data: Uint8ClampedArray, i: number): number =>
  Math.abs(data[i]! - data[0]!) + Math.abs(data[i + 1]! - data[1]!) + Math.abs(data[i + 2]! - data[2]!);

/** A reference picture as an outline in whole cubes: what is not see-through, or differs from its corner where all is solid. */
export async function outlineOf(r: Reference, { type, bytes }: StoredBlob): Promise<Outline> {
  const picture = await createImageBitmap(new Blob([bytes], { type }));
  const w = Math.max(1, Math.round(r.size[0])),
    h = Math.max(1, Math.round(r.size[1]));
  const canvas = document.createElement('canvas');
  canvas.width = w * FINE;
  canvas.height = h * FINE;
  const g = canvas.getContext('2d', { willReadFrequently: true })!;
  g.imageSmoothingEnabled = false;
  g.drawImage(picture, 0, 0, w * FINE, h * FINE);
  picture.close();
  const { data } = g.getImageData(0, 0, w * FINE, h * FINE);
  let solid = true;
  for (let i = 3; i < data.length; i += 4) if (data[i]! < 250) solid = false;
  const filled = new Uint8Array(w * h);
  for (let y = 0; y < h; y++) {
    for (let x = 0; x < w; x++) {
      let n = 0;
      for (let k = 0; k < FINE * FINE; k++) {
        const i = ((y * FINE + Math.floor(k / FINE)) * w * FINE + x * FINE + (k % FINE)) * 4;
        if (solid ? awayFromCorner(data, i) > 48 : data[i + 3]! >= 128) n++;
      }
      if (2 * n >= FINE * FINE) filled[x + (r.plane === 'top' ? y : h - 1 - y) * w] = 1;
    }
  }
  return { axis: PLANE_AXIS[r.plane], at: [Math.round(r.at[0]), Math.round(r.at[1])], size: [w, h], filled };
}
