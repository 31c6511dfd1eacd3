import { FACE_DIRECTIONS, intersectBoxes, type Box, type Vec3 } from '../math';
import type { VoxelGrid } from '../voxel';

/** Longest reach of occlusion in cubes. */
export const MAX_REACH = 16;

/** Rows of the half ball before a face: where they lie from the cube, and how far they go along X to both sides. */
interface Row {
  readonly dy: number;
  readonly dz: number;
  readonly lo: number;
  readonly hi: number;
}

/** Cubes at most `reach` + ½ away that lie before the face, as rows along X. */
function halfBall(reach: number, [nx, ny, nz]: Vec3): Row[] {
  const rows: Row[] = [];
  const far = (reach + 0.5) ** 2;
  for (let dz = -reach; dz <= reach; dz++) {
    for (let dy = -reach; dy <= reach; dy++) {
      const left = far - dy * dy - dz * dz;
      if (left < 0 || dy * ny + dz * nz < (nx === 0 ? 1 : 0)) continue;
      const w = Math.floor(Math.sqrt(left));
      const lo = nx > 0 ? 1 : -w,
        hi = nx < 0 ? -1 : w;
      if (lo <= hi) rows.push({ dy, dz, lo, hi });
    }
  }
  return rows;
}

/**
 * How shut in each exposed cube of a grid is. Of one face: the share of filled cubes among those before it, no farther
 * than `reach` + ½ from the cube's middle; 0 is open, nearly a half the corner of two walls. Of a cube: of each axis the
 * more shut of its open faces, so that thin walls count like thick ones, and the mean of these. Cubes that nothing can be seen of are left out.
 *
 * @param reach – whole cubes, 1 to 16
 * @param box – only cubes in it are visited, all of the grid by default
 */
export function forOcclusion(
  grid: VoxelGrid,
  reach: number,
  visit: (x: number, y: number, z: number, shut: number) => void,
  box: Box = grid.bounds,
): void {
  const content = grid.contentBox();
  if (!content) return;
  const inner = intersectBoxes(content, box);
  if (inner.size.some((s) => s <= 0)) return;
  const r = Math.max(1, Math.min(MAX_REACH, Math.round(reach)));
  const pad: Box = {
    min: [inner.min[0] - r, inner.min[1] - r, inner.min[2] - r],
    size: [inner.size[0] + 2 * r, inner.size[1] + 2 * r, inner.size[2] + 2 * r],
  };
  const cells = grid.readBox(pad);
  const [nx, ny, nz] = pad.size;
  // Filled cubes before each place of a row: any stretch of a row is then one subtraction.
  const step = nx + 1;
  const sums = new Uint16Array(step * ny * nz);
  for (let row = 0; row < ny * nz; row++) {
    let n = 0;
    for (let x = 0, i = row * nx, o = row * step; x < nx; x++) {
      if (cells[i + x] !== 0) n++;
      sums[o + x + 1] = n;
    }
  }
  const sides = FACE_DIRECTIONS.map((d) => {
    const rows = halfBall(r, d);
    return {
      next: d[0] + (d[1] + d[2] * ny) * nx,
      offset: Int32Array.from(rows, (o) => (o.dy + o.dz * ny) * step + o.lo),
      length: Int32Array.from(rows, (o) => o.hi - o.lo + 1),
      total: rows.reduce((n, o) => n + o.hi - o.lo + 1, 0),
    };
  });
  for (let z = r; z < nz - r; z++) {
    for (let y = r; y < ny - r; y++) {
      const row = z * ny + y;
      for (let x = r; x < nx - r; x++) {
        const i = row * nx + x;
        if (cells[i] === 0) continue;
        let open = 0,
          shut = 0,
          axis = -1;
        for (let d = 0; d < 6; d++) {
          // Two faces an axis: the second adds only what it is more.
          if ((d & 1) === 0) axis = -1;
          const side = sides[d]!;
          if (cells[i + side.next] !== 0) continue;
          const at = row * step + x;
          let n = 0;
          for (let k = 0; k < side.offset.length; k++) {
            const o = at + side.offset[k]!;
            n += sums[o + side.length[k]!]! - sums[o]!;
          }
          const share = n / side.total;
          if (axis < 0) {
            open++;
            shut += share;
            axis = share;
          } else if (share > axis) shut += share - axis;
        }
        if (open > 0) visit(x + pad.min[0], y + pad.min[1], z + pad.min[2], shut / open);
      }
    }
  }
}
