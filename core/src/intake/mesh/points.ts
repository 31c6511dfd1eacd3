import type { Points } from '../../codec';
import type { Steps, Vec3 } from '../../math';
import type { Palette, Swatch } from '../../palette';
import { VoxelGrid } from '../../voxel';
import { IntakeError, MOST_CUBES } from '../picture';
import { common } from './lattice';
import { Looks } from './looks';
import type { MeshOptions } from './mesh';
import { matchedTo, swatchesOf } from './swatches';

/** What came of points. */
export interface PointsBody {
  readonly grid: VoxelGrid;
  readonly swatches: readonly Swatch[];
  readonly ours: boolean;
  readonly colours: number;
  /** How far apart they are where each is a cube; null where they lie anyhow and cubes were laid over them. */
  readonly exact: number | null;
  readonly count: number;
}

/** Different numbers along an axis, rising; null when there are more than a lattice of cubes has. */
function different(positions: Float64Array, axis: number): number[] | null {
  const all = Float64Array.from({ length: positions.length / 3 }, (_, i) => positions[i * 3 + axis]!).sort();
  const tiny = (all.at(-1)! - all[0]!) / 1e5,
    out = [all[0]!];
  for (const v of all) {
    if (v - out.at(-1)! > tiny) out.push(v);
    if (out.length > MOST_CUBES) return null;
  }
  return out;
}

/** How far apart points are along the lattice that all of them lie on; null when they lie on none. */
function spacing(positions: Float64Array): number | null {
  const along = [0, 1, 2].map((a) => different(positions, a));
  if (along.some((p) => p === null)) return null;
  const gaps = along.flatMap((p) => p!.slice(1).map((v, i) => v - p![i]!));
  const long = Math.max(...along.map((p) => p!.at(-1)! - p![0]!));
  // One cube by itself is as large as its unit.
  if (gaps.length === 0) return 1;
  const rough = common(gaps, long / (MOST_CUBES * 8));
  if (!(rough > 0) || long / rough > MOST_CUBES) return null;
  const cell = long / Math.round(long / rough);
  const off = along.some((p) => p!.some((v) => Math.abs((v - p![0]!) / cell - Math.round((v - p![0]!) / cell)) > 0.05));
  return off ? null : cell;
}

/**
 * Points as cubes: one each where they lie on a lattice, the last of several in one; else cubes as high as is wished, each as the mean of
 * the points in it.
 *
 * @throws IntakeError when they reach further than a part
 */
export function* pointsSteps(
  { positions, colours }: Points,
  options: MeshOptions,
  palette: Palette | null,
): Steps<PointsBody> {
  const up = options.up === 'z';
  const placed = up
    ? positions.map((v, i) => (i % 3 === 0 ? v : i % 3 === 1 ? positions[i + 1]! : -positions[i - 1]! + 0))
    : positions;
  if (placed.some((v) => !Number.isFinite(v))) throw new IntakeError('codec.damaged');
  const exact = options.cubes === 'ignored' ? null : spacing(placed);
  yield 0.3;
  const lo = [Infinity, Infinity, Infinity],
    hi = [-Infinity, -Infinity, -Infinity];
  placed.forEach((v, i) => {
    if (v < lo[i % 3]!) lo[i % 3] = v;
    if (v > hi[i % 3]!) hi[i % 3] = v;
  });
  const high = hi[1]! - lo[1]! || Math.max(hi[0]! - lo[0]!, hi[2]! - lo[2]!) || 1;
  const cell = exact ?? high / options.height;
  const size = lo.map((v, a) => {
    const wide = (hi[a]! - v) / cell;
    return exact === null ? Math.max(1, Math.ceil(wide - 1e-9)) : Math.round(wide) + 1;
  }) as unknown as Vec3;
  if (Math.max(...size) > MOST_CUBES)
    throw new IntakeError('mesh.tooLarge', {
      wide: Math.max(...size),
      most: Math.floor((options.height * MOST_CUBES) / Math.max(...size)),
    });
  const cells = new Int32Array(size[0] * size[1] * size[2]),
    sums = exact === null ? new Float64Array(cells.length * 4) : null;
  const looks = new Looks([], []);
  const n = placed.length / 3;
  for (let i = 0; i < n; i++) {
    const [x, y, z] = [0, 1, 2].map((a) => {
      const at = (placed[i * 3 + a]! - lo[a]!) / cell;
      return Math.min(size[a]! - 1, exact === null ? Math.floor(at) : Math.round(at));
    }) as [number, number, number];
    const c = x + size[0] * (y + size[1] * z);
    if (sums) {
      for (let k = 0; k < 3; k++) sums[c * 4 + k]! += colours[i * 3 + k]!;
      sums[c * 4 + 3]!++;
    } else cells[c] = looks.place(colours[i * 3]!, colours[i * 3 + 1]!, colours[i * 3 + 2]!, '', 1, 0.8, 0, 0) + 1;
  }
  if (sums)
    for (let c = 0; c < cells.length; c++) {
      const m = sums[c * 4 + 3]!;
      if (m === 0) continue;
      const [r, g, b] = [0, 1, 2].map((k) => Math.round(sums[c * 4 + k]! / m)) as [number, number, number];
      cells[c] = looks.place(r, g, b, '', 1, 0.8, 0, 0) + 1;
    }
  yield 0.7;
  const used = new Float64Array(looks.count);
  for (const l of cells) if (l > 0) used[l - 1]!++;
  const ours = options.colours === 'palette' && palette !== null && palette.swatches.length > 0;
  const dyed = ours ? matchedTo(palette, looks, used) : swatchesOf(looks, used, exact === null ? options.most : 255);
  const bytes = Uint8Array.from(cells, (l) => (l > 0 ? dyed.bytes[l - 1]! : 0));
  // On the ground, its middle in the middle.
  const min: Vec3 = [-(size[0] >> 1), 0, -(size[2] >> 1)];
  return {
    grid: VoxelGrid.fromDense({ min, size }, bytes),
    swatches: dyed.swatches,
    ours,
    colours: looks.count,
    exact,
    count: n,
  };
}
