import { VoxelGrid } from '@sphalerite/core/voxel';

/** A toothed wheel in the plane of X and Y, two cubes thick. */
export function ringStamp(
  radius: number,
  hole: number,
  teeth: number,
  tone: number,
  light: number,
  dark: number,
): VoxelGrid {
  const wide = radius + 2;
  return VoxelGrid.empty({ min: [-wide, -wide, 0], size: [2 * wide, 2 * wide, 2] }).edit((d) => {
    for (let y = -wide; y < wide; y++)
      for (let x = -wide; x < wide; x++) {
        const [u, v] = [x + 0.5, y + 0.5],
          r = Math.hypot(u, v),
          tooth = Math.cos(Math.atan2(v, u) * teeth) > 0.1 ? 1.6 : 0;
        if (r > radius - 0.4 + tooth || r < hole - 0.4) continue;
        const rim = r > radius - 1.6 ? light : r < hole + 1 ? dark : tone;
        d.set(x, y, 0, tone);
        d.set(x, y, 1, rim);
      }
  });
}

/** An egg of half axes, lit from above. */
export function ballStamp(
  [a, b, c]: readonly [number, number, number],
  tone: number,
  light: number,
  dark: number,
): VoxelGrid {
  return VoxelGrid.empty({ min: [-a, 0, -c], size: [2 * a, 2 * b, 2 * c] }).edit((d) => {
    for (let z = -c; z < c; z++)
      for (let y = 0; y < 2 * b; y++)
        for (let x = -a; x < a; x++) {
          const at = ((x + 0.5) / a) ** 2 + ((y + 0.5 - b) / b) ** 2 + ((z + 0.5) / c) ** 2;
          if (at <= 1) d.set(x, y, z, y > 1.5 * b ? light : y < 0.5 * b ? dark : tone);
        }
  });
}
