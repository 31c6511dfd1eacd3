import type { Space } from '../../voxel';

/** Rings of cells around what was seen that take its values; what is further in is one for all. */
const RINGS = 4;

/**
 * Gives filled cells near those that have a value that of the nearest one, ring by ring outward; of several as near the least. In place.
 *
 * @param values – 0 where there is none
 * @param start – cells that have one
 * @returns those that got one
 */
export function spread(values: Int32Array, start: Int32Array, filled: Uint8Array, space: Space): number[] {
  const [nx, ny, nz] = space.size,
    [, sy, sz] = space.strides,
    all: number[] = [];
  let front: ArrayLike<number> = start;
  for (let ring = 0; ring < RINGS && front.length > 0; ring++) {
    const next: number[] = [];
    const offer = (i: number, value: number): void => {
      // Negative while this ring is walked: of several the least wins.
      const v = values[i]!;
      if (v > 0 || filled[i] === 0) return;
      if (v === 0) {
        next.push(i);
        values[i] = -value;
      } else if (-value > v) values[i] = -value;
    };
    for (let k = 0; k < front.length; k++) {
      const i = front[k]!,
        value = values[i]!;
      if (value === 0) continue;
      const x = i % nx,
        z = Math.floor(i / sz),
        y = Math.floor((i - z * sz) / sy);
      if (x > 0) offer(i - 1, value);
      if (x < nx - 1) offer(i + 1, value);
      if (y > 0) offer(i - sy, value);
      if (y < ny - 1) offer(i + sy, value);
      if (z > 0) offer(i - sz, value);
      if (z < nz - 1) offer(i + sz, value);
    }
    for (const i of next) {
      values[i] = -values[i]!;
      all.push(i);
    }
    front = next;
  }
  return all;
}
