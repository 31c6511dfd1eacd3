import type { Vec3 } from '@sphalerite/core/math';
import type { CellSet } from '@sphalerite/core/voxel';

/** Triangles and outlines of the surface of a set of cells, in its lattice; lifted a little off the cubes. */
export interface SetSurface {
  readonly triangles: number[];
  readonly lines: number[];
}
const LIFT = 0.015;
/** Above this many cells only the surface is drawn, not the line of every step. */
const MOST_LINED = 400_000;

/** Works on whole rows: the cells exposed on a side are the set without the set moved to that side. */
export function setSurface(wanted: CellSet): SetSurface {
  const triangles: number[] = [],
    lines: number[] = [];
  const box = wanted.tight;
  if (!box) return { triangles, lines };
  const set = wanted.within(box);
  const lined = set.count < MOST_LINED;
  for (const axis of [0, 1, 2] as const) {
    for (const sign of [1, -1] as const) {
      const step = (a: number, by: number): Vec3 => [a === 0 ? by : 0, a === 1 ? by : 0, a === 2 ? by : 0];
      const open = set.minus(set.moved(step(axis, -sign)));
      const at = (x: number, y: number, z: number): number[] => {
        const p = [x, y, z];
        p[axis]! += sign > 0 ? 1 + LIFT : -LIFT;
        return p;
      };
      const [u, v] = ([0, 1, 2] as const).filter((a) => a !== axis) as [number, number];
      open.runs((x0, x1, y, z) => {
        // Faces across X are one cell each; the others run along X.
        for (const [from, to] of axis === 0
          ? Array.from({ length: x1 - x0 }, (_, i) => [x0 + i, x0 + i + 1] as const)
          : [[x0, x1] as const]) {
          const a = at(from, y, z),
            length = axis === 0 ? 1 : to - from;
          const corner = (du: number, dv: number): number[] =>
            a.map((c, i) => c + (i === u ? du * (u === 0 ? length : 1) : i === v ? dv : 0));
          const [p, q, r, s] = [corner(0, 0), corner(1, 0), corner(1, 1), corner(0, 1)];
          triangles.push(...p, ...q, ...r, ...p, ...r, ...s);
        }
      });
      if (!lined) continue;
      for (const side of [u, v]) {
        const along = side === u ? v : u;
        for (const way of [1, -1]) {
          open.minus(open.moved(step(side, -way))).runs((x0, x1, y, z) => {
            // Borders along X come as runs, the others cell by cell.
            for (const [from, to] of along === 0
              ? [[x0, x1] as const]
              : Array.from({ length: x1 - x0 }, (_, i) => [x0 + i, x0 + i + 1] as const)) {
              const a = at(from, y, z);
              if (way > 0) a[side]! += 1;
              const b = [...a];
              b[along]! += along === 0 ? to - from : 1;
              lines.push(...a, ...b);
            }
          });
        }
      }
    }
  }
  return { triangles, lines };
}
