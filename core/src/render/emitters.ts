import { type Mat4, transformDirection, transformPoint } from '../math';
import type { VoxelGrid } from '../voxel';
import type { TraceSurfaces } from './trace-surfaces';

/** Numbers a glowing face takes in an emitter list: corner, edge u, edge v (u × v points outwards), radiance. */
export const EMITTER_STRIDE = 12;

/** The exposed faces of glowing cubes, in the world, so that light can be aimed for instead of found by chance. */
export function emittersOf(grid: VoxelGrid, surfaces: TraceSurfaces, matrix: Mat4): number[] {
  if (!surfaces.emissive.some((e) => e > 0)) return [];
  const out: number[] = [];
  const ax = transformDirection(matrix, [1, 0, 0]),
    ay = transformDirection(matrix, [0, 1, 0]),
    az = transformDirection(matrix, [0, 0, 1]);
  const axes = [ax, ay, az];
  grid.forEach((x, y, z, value) => {
    const e = surfaces.emissive[value]!;
    if (e === 0) return;
    for (let a = 0; a < 3; a++) {
      for (const s of [1, -1]) {
        const n = [0, 0, 0];
        n[a] = s;
        if (grid.get(x + n[0]!, y + n[1]!, z + n[2]!) !== 0) continue;
        const u = axes[(a + 1) % 3]!,
          v = axes[(a + 2) % 3]!;
        const corner = [x, y, z];
        if (s > 0) corner[a]! += 1;
        // Facing the other way: swap the edges.
        const [eu, ev] = s > 0 ? [u, v] : [v, u];
        const c = surfaces.colour.subarray(value * 3, value * 3 + 3);
        out.push(
          ...transformPoint(matrix, corner as unknown as [number, number, number]),
          ...eu,
          ...ev,
          c[0]! * e,
          c[1]! * e,
          c[2]! * e,
        );
      }
    }
  });
  return out;
}
