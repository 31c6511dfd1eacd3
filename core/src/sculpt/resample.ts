import { type Axis, type Box, type Vec3, boxEnd, mapVec, vec3Of } from '../math';
import { VoxelGrid } from '../voxel';

/** Each cube becomes k³; coordinates are multiplied, so that the origin stays where it is. */
export function refined(grid: VoxelGrid, k: number): VoxelGrid {
  const box = refinedBox(grid.bounds, k);
  return VoxelGrid.empty(box).edit((d) =>
    grid.forEach((x, y, z, v) => d.fillBox({ min: [x * k, y * k, z * k], size: [k, k, k] }, v)),
  );
}
export const refinedBox = (b: Box, k: number): Box => ({
  min: mapVec(b.min, (v) => v * k),
  size: mapVec(b.size, (v) => v * k),
});

/** The box of blocks of k³ that cover `b`. */
export function coarsenedBox(b: Box, k: number): Box {
  const e = boxEnd(b);
  const lo = b.min.map((v) => Math.floor(v / k));
  return { min: vec3Of(lo), size: mapVec(lo, (v, i) => Math.ceil(e[i]! / k) - v) };
}

/**
 * Blocks of k³ become one cube: filled when at least half of the block is, in the colour most of its cubes have
 * (the lowest byte of several). A refined grid comes back as it was.
 */
export function coarsened(grid: VoxelGrid, k: number): VoxelGrid {
  const box = coarsenedBox(grid.bounds, k);
  const counts = new Map<number, Map<number, number>>();
  const [nx, ny] = box.size;
  grid.forEach((x, y, z, v) => {
    const i =
      Math.floor(x / k) - box.min[0] + nx * (Math.floor(y / k) - box.min[1] + ny * (Math.floor(z / k) - box.min[2]));
    let c = counts.get(i);
    if (!c) counts.set(i, (c = new Map()));
    c.set(v, (c.get(v) ?? 0) + 1);
  });
  return VoxelGrid.empty(box).edit((d) => {
    for (const [i, c] of counts) {
      let all = 0,
        best = 0,
        most = 0;
      for (const [v, n] of c) {
        all += n;
        if (n > most || (n === most && v < best)) [best, most] = [v, n];
      }
      if (2 * all >= k ** 3)
        d.set(
          box.min[0] + (i % nx),
          box.min[1] + (Math.floor(i / nx) % ny),
          box.min[2] + Math.floor(i / (nx * ny)),
          best,
        );
    }
  });
}

/** How the cells of one axis change on the way to another size: where each new cell looks, which old ones appear twice or not at all. */
export interface RowPlan {
  readonly from: readonly number[];
  readonly doubled: readonly number[];
  readonly lost: readonly number[];
}

/** New row i looks at the old row under its middle, so that a symmetric row stays symmetric. */
export function rowPlan(oldSize: number, newSize: number): RowPlan {
  const from = Array.from({ length: newSize }, (_, i) => {
    // From both ends alike, so that halves mirror each other.
    const j = Math.floor(((2 * Math.min(i, newSize - 1 - i) + 1) * oldSize) / (2 * newSize));
    return 2 * i + 1 <= newSize ? j : oldSize - 1 - j;
  });
  const times = new Map<number, number>();
  for (const f of from) times.set(f, (times.get(f) ?? 0) + 1);
  const rows = Array.from({ length: oldSize }, (_, i) => i);
  return { from, doubled: rows.filter((r) => (times.get(r) ?? 0) > 1), lost: rows.filter((r) => !times.has(r)) };
}

/** The cells of `box` resampled to `size`, standing at `min`. Whole factors double every row alike. */
export function resampled(grid: VoxelGrid, box: Box, size: Vec3, min: Vec3): VoxelGrid {
  const plans = ([0, 1, 2] as Axis[]).map((a) => rowPlan(box.size[a], size[a]).from);
  const cells = grid.readBox(box);
  const [nx, ny] = box.size;
  const out = new Uint8Array(size[0] * size[1] * size[2]);
  for (let z = 0, i = 0; z < size[2]; z++) {
    for (let y = 0; y < size[1]; y++) {
      for (let x = 0; x < size[0]; x++, i++) out[i] = cells[plans[0]![x]! + nx * (plans[1]![y]! + ny * plans[2]![z]!)]!;
    }
  }
  return VoxelGrid.fromDense({ min, size }, out);
}

/** Places that use the fine grain: blocks of 2³ (aligned to the lattice) that are neither empty nor of one colour throughout. */
export interface Grain {
  readonly mixed: readonly Vec3[];
  /** Blocks that hold anything. */
  readonly blocks: number;
}
export function grainOf(grid: VoxelGrid): Grain {
  const first = new Map<string, { at: Vec3; value: number; count: number; mixed: boolean }>();
  grid.forEach((x, y, z, v) => {
    const at: Vec3 = [x >> 1, y >> 1, z >> 1];
    const key = at.join();
    const b = first.get(key);
    if (!b) first.set(key, { at, value: v, count: 1, mixed: false });
    else {
      b.count++;
      if (b.value !== v) b.mixed = true;
    }
  });
  const blocks = [...first.values()];
  return { mixed: blocks.filter((b) => b.mixed || b.count < 8).map((b) => b.at), blocks: blocks.length };
}
