import type { CellSet } from '@sphalerite/core/voxel';

/** Triangles and outlines of the surface of a set of cells, in its lattice; lifted a little off the cubes. */
export interface SetSurface {
  readonly triangles: number[];
  readonly lines: number[];
}
const LIFT = 0.015;
/** Above this many cells only the surface is drawn, not the line of every step. */
const MOST_LINED = 400_000;

export function setSurface(set: CellSet): SetSurface {
  const triangles: number[] = [], lines: number[] = [];
  const box = set.tight;
  if (!box) return { triangles, lines };
  const lined = set.count < MOST_LINED;
  const quad = (a: number[], b: number[], c: number[], d: number[]): void => void triangles.push(...a, ...b, ...c, ...a, ...c, ...d);
  const line = (a: number[], b: number[]): void => void (lined && lines.push(...a, ...b));
  set.runs((x0, x1, y, z) => {
    for (const [dy, dz] of [[1, 0], [-1, 0], [0, 1], [0, -1]] as const) {
      // Stretches of the run whose neighbour on this side is empty.
      let from = -1;
      for (let x = x0; x <= x1; x++) {
        const open = x < x1 && !set.has(x, y + dy, z + dz);
        if (open && from < 0) from = x;
        if (open || from < 0) continue;
        const at = (px: number, side: number): number[] => (dy !== 0
          ? [px, y + (dy > 0 ? 1 + LIFT : -LIFT), z + side] : [px, y + side, z + (dz > 0 ? 1 + LIFT : -LIFT)]);
        quad(at(from, 0), at(x, 0), at(x, 1), at(from, 1));
        if (lined) {
          line(at(from, 0), at(from, 1));
          line(at(x, 0), at(x, 1));
          for (const side of [0, 1]) edges(set, from, x, y, z, dy, dz, side, (a, b) => line(at(a, side), at(b, side)));
        }
        from = -1;
      }
    }
    for (const [x, dx] of [[x0, -1], [x1 - 1, 1]] as const) {
      const px = dx > 0 ? x + 1 + LIFT : x - LIFT;
      const at = (sy: number, sz: number): number[] => [px, y + sy, z + sz];
      quad(at(0, 0), at(1, 0), at(1, 1), at(0, 1));
      if (!lined) continue;
      const same = (ny: number, nz: number): boolean => set.has(x, ny, nz) && !set.has(x + dx, ny, nz);
      if (!same(y - 1, z)) line(at(0, 0), at(0, 1));
      if (!same(y + 1, z)) line(at(1, 0), at(1, 1));
      if (!same(y, z - 1)) line(at(0, 0), at(1, 0));
      if (!same(y, z + 1)) line(at(0, 1), at(1, 1));
    }
  });
  return { triangles, lines };
}

/** Stretches of a face's long edge where the flat region ends. */
function edges(set: CellSet, from: number, to: number, y: number, z: number, dy: number, dz: number, side: number, emit: (a: number, b: number) => void): void {
  const s = side === 0 ? -1 : 1;
  const ny = dy !== 0 ? y : y + s, nz = dy !== 0 ? z + s : z;
  let start = -1;
  for (let x = from; x <= to; x++) {
    const ends = x < to && !(set.has(x, ny, nz) && !set.has(x, ny + dy, nz + dz));
    if (ends && start < 0) start = x;
    if (!ends && start >= 0) {
      emit(start, x);
      start = -1;
    }
  }
}
