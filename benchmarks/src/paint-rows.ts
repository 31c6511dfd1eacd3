import { type Finish, applyFinish, forOcclusion } from '@sphalerite/core/paint';
import { READY_PALETTES, nearestBytes } from '@sphalerite/core/palette';
import { type VoxelGrid, byteCounts, mapBytes } from '@sphalerite/core/voxel';
import { type Row, median, ms } from './rows';
import { boathouse, terrain } from './scenes';

const E = 256;

/** Occlusion by its definition over dense cells: every cube of the half ball before every open face. */
function plainOcclusion(grid: VoxelGrid, reach: number): number {
  const { min, size } = grid.bounds;
  const pad = {
    min: [min[0] - reach, min[1] - reach, min[2] - reach] as const,
    size: [size[0] + 2 * reach, size[1] + 2 * reach, size[2] + 2 * reach] as const,
  };
  const cells = grid.readBox(pad);
  const [nx, ny] = pad.size;
  const steps = [1, -1, nx, -nx, nx * ny, -nx * ny];
  const balls = [
    [1, 0, 0],
    [-1, 0, 0],
    [0, 1, 0],
    [0, -1, 0],
    [0, 0, 1],
    [0, 0, -1],
  ].map(([a, b, c]) => {
    const list: number[] = [];
    for (let z = -reach; z <= reach; z++)
      for (let y = -reach; y <= reach; y++)
        for (let x = -reach; x <= reach; x++) {
          if (x * a! + y * b! + z * c! >= 1 && x * x + y * y + z * z <= (reach + 0.5) ** 2)
            list.push(x + y * nx + z * nx * ny);
        }
    return Int32Array.from(list);
  });
  let sum = 0;
  grid.forEach((x, y, z) => {
    const i = x - pad.min[0] + (y - pad.min[1] + (z - pad.min[2]) * ny) * nx;
    let open = 0,
      shut = 0;
    for (let axis = 0; axis < 3; axis++) {
      let most = -1;
      for (let d = axis * 2; d < axis * 2 + 2; d++) {
        if (cells[i + steps[d]!] !== 0) continue;
        let n = 0;
        for (const o of balls[d]!) if (cells[i + o] !== 0) n++;
        most = Math.max(most, n / balls[d]!.length);
      }
      if (most >= 0) {
        open++;
        shut += most;
      }
    }
    if (open > 0) sum += shut / open;
  });
  return sum;
}

function occlusion(name: string, grid: VoxelGrid): Row {
  let sum = 0;
  const ours = median(3, () => {
    sum = 0;
    forOcclusion(grid, 4, (_x, _y, _z, shut) => (sum += shut));
  });
  let plain = 0;
  const theirs = median(1, () => (plain = plainOcclusion(grid, 4)));
  if (Math.abs(sum - plain) > 1e-6 * plain) throw new Error(`The two ways disagree: ${sum} and ${plain}.`);
  return {
    name: `occlusion, reach 4, ${name}`,
    ours: ms(ours),
    theirs: `${ms(theirs)} every cube of the half ball`,
    ratio: theirs / ours,
    goal: '≥ 1.5×',
    ok: theirs / ours >= 1.5,
  };
}

/** Another palette on a noisy 256³: every cube to its nearest swatch. */
function remap(): Row {
  const grid = terrain();
  const near = nearestBytes(READY_PALETTES[1]!.swatches, READY_PALETTES[2]!.swatches);
  let count = 0;
  const ours = median(3, () => (count = mapBytes(grid, near).count));
  let plainCount = 0;
  const theirs = median(1, () => {
    plainCount = grid.edit((d) => grid.forEach((x, y, z, v) => d.set(x, y, z, near[v]!))).count;
  });
  if (count !== plainCount) throw new Error(`The two ways disagree: ${count} and ${plainCount} cubes.`);
  return {
    name: 'other bytes for all cubes of the terrain',
    ours: ms(ours),
    theirs: `${ms(theirs)} cell by cell`,
    ratio: theirs / ours,
    goal: '≥ 3×',
    ok: theirs / ours >= 3,
  };
}

/** Who uses what, after one cube has changed. */
function counting(): Row {
  const grid = terrain();
  byteCounts(grid);
  let at = 0;
  const ours = median(9, () => {
    const g = grid.edit((d) => d.set(100, 40, at++, 7));
    byteCounts(g);
  });
  const theirs = median(3, () => {
    const counts = new Uint32Array(256);
    for (const v of grid.readBox({ min: [0, 0, 0], size: [E, E, E] })) counts[v]!++;
  });
  return {
    name: 'swatches counted anew after an edit, terrain',
    ours: ms(ours),
    theirs: `${ms(theirs)} all cells`,
    ratio: theirs / ours,
    goal: '≥ 10×',
    ok: theirs / ours >= 10,
  };
}

/** A live preview's work on a part of a common size. */
function finish(): Row {
  const grid = boathouse();
  const planks: Finish = {
    kind: 'planks',
    ramp: [11, 12, 13, 14],
    seed: 3,
    long: 14,
    wide: 3,
    gap: 0,
    joint: 0,
    grain: 0.15,
    sides: 'each',
    upright: false,
  };
  const palette = { id: 'p', name: '', swatches: READY_PALETTES[1]!.swatches };
  const ours = median(
    3,
    () =>
      void applyFinish(grid, grid, planks, { half: [0, 0, 0], cell: 1 }, palette, {
        within: null,
        only: null,
        box: grid.bounds,
      }),
  );
  const theirs = median(3, () => void grid.edit((d) => grid.forEach((x, y, z, v) => d.set(x, y, z, (v % 4) + 11))));
  return {
    name: `planks with grain on the boathouse (${grid.count.toLocaleString('en')} cubes)`,
    ours: ms(ours),
    theirs: `${ms(theirs)} only setting as many cubes`,
    ratio: theirs / ours,
    goal: '≥ 0.1×',
    ok: theirs / ours >= 0.1,
  };
}

export const paintRows = (): Row[] => [
  occlusion('boathouse', boathouse()),
  occlusion('terrain', terrain()),
  remap(),
  counting(),
  finish(),
];
