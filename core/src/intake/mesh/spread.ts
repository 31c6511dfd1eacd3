import type { Space } from '../../voxel';

/**
 * Gives every filled cell without a value that of the nearest one that has one, cell by cell outward; of several as near the least. In
 * place. Those that no way through filled cells leads to take part too, from any side.
 *
 * @param values – 0 where there is none
 */
export function spread(values: Int32Array, filled: Uint8Array, space: Space): void {
  let front: number[] = [];
  for (let i = 0; i < values.length; i++) if (values[i] !== 0) front.push(i);
  if (front.length === 0) return;
  front = walked(values, front, space, (i) => filled[i] === 1);
  // What hangs on nothing that was seen: through the open.
  if (!filled.some((f, i) => f === 1 && values[i] === 0)) return;
  const through = values.slice();
  const seen: number[] = [];
  for (let i = 0; i < through.length; i++) if (through[i] !== 0) seen.push(i);
  walked(through, seen, space, () => true);
  for (let i = 0; i < values.length; i++) if (filled[i] === 1 && values[i] === 0) values[i] = through[i]!;
}

function walked(values: Int32Array, start: number[], { size, strides }: Space, open: (i: number) => boolean): number[] {
  const [nx, ny, nz] = size,
    [, sy, sz] = strides;
  let front = start;
  while (front.length > 0) {
    const next: number[] = [];
    const offer = (i: number, value: number): void => {
      // Negative while this ring is walked: of several the least wins.
      const v = values[i]!;
      if (v > 0 || !open(i)) return;
      if (v === 0) {
        next.push(i);
        values[i] = -value;
      } else if (-value > v) values[i] = -value;
    };
    for (const i of front) {
      const value = values[i]!,
        x = i % nx,
        y = Math.floor(i / nx) % ny,
        z = Math.floor(i / sz);
      if (x > 0) offer(i - 1, value);
      if (x < nx - 1) offer(i + 1, value);
      if (y > 0) offer(i - sy, value);
      if (y < ny - 1) offer(i + sy, value);
      if (z > 0) offer(i - sz, value);
      if (z < nz - 1) offer(i + sz, value);
    }
    for (const i of next) values[i] = -values[i]!;
    front = next;
  }
  return front;
}
