import { KeyTable } from './key-table';

/**
 * Parts of a cube that corners of triangles are rounded to. With it all that is asked about a triangle and the middle of a cell is a
 * whole number below 2^53, so that no rounding ever decides, what is mirrored decides alike, and nearly equal corners are one.
 */
export const FINE = 256;

/** Triangles of one body on that lattice, from the lowest corner of its cells. */
export interface Soup {
  /** Three a corner, each corner once. */
  readonly points: Int32Array;
  /** Three corners a triangle. */
  readonly triangles: Uint32Array;
  /** Of each triangle which one it was. */
  readonly from: Uint32Array;
  /** 1 where its second and third corner were exchanged, so that it faces the other way. */
  readonly turned: Uint8Array;
  /** Cells along each axis of the box that holds it. */
  readonly size: readonly [number, number, number];
}

const key = (x: number, y: number, z: number): number => ((x + 65536) * 262144 + y + 65536) * 131072 + z + 65536;

/**
 * Triangles with their corners united; those of which two corners are one are left out.
 *
 * @param corners – nine numbers a triangle, on the lattice
 */
export function soupOf(corners: Int32Array, size: readonly [number, number, number]): Soup {
  const n = corners.length / 9,
    table = new KeyTable(n),
    points: number[] = [];
  const triangles = new Uint32Array(n * 3),
    from = new Uint32Array(n);
  let kept = 0;
  const corner = (i: number): number => {
    const [x, y, z] = [corners[i]!, corners[i + 1]!, corners[i + 2]!];
    const before = table.size,
      at = table.place(key(x, y, z));
    if (at === before) points.push(x, y, z);
    return at;
  };
  for (let t = 0; t < n; t++) {
    const a = corner(t * 9),
      b = corner(t * 9 + 3),
      c = corner(t * 9 + 6);
    if (a === b || b === c || c === a) continue;
    triangles[kept * 3] = a;
    triangles[kept * 3 + 1] = b;
    triangles[kept * 3 + 2] = c;
    from[kept++] = t;
  }
  return {
    points: Int32Array.from(points),
    triangles: triangles.subarray(0, kept * 3),
    from: from.subarray(0, kept),
    turned: new Uint8Array(kept),
    size,
  };
}
