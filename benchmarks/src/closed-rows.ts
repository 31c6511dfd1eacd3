import { readFileSync } from 'node:fs';
import { readProjectFile } from '@sphalerite/core/files';
import { finish } from '@sphalerite/core/math';
import { boxCoverSteps, closedSurfaceSteps, everyWay } from '@sphalerite/core/mesh';
import { composite } from '@sphalerite/core/model';
import { type VoxelGrid, byteTable } from '@sphalerite/core/voxel';
import { type Row, SECOND, median, ms } from './rows';
import { boathouse, walledPlan } from './scenes';
import { textbookGreedy } from './textbook-greedy';

const ONE = everyWay(byteTable(() => 0));
const triangles = (grid: VoxelGrid): number => finish(closedSurfaceSteps(grid, ONE)).directions.length;
const greedy = (grid: VoxelGrid): number => 2 * textbookGreedy(grid.readBox(grid.bounds), grid.bounds);

function fewest(name: string, grids: readonly VoxelGrid[], goal: number): Row {
  const sum = (of: (g: VoxelGrid) => number): number => grids.reduce((n, g) => n + of(g), 0);
  const ours = sum(triangles),
    theirs = sum(greedy);
  return {
    name: `watertight triangles, ${name}`,
    ours: ours.toLocaleString('en'),
    theirs: `${theirs.toLocaleString('en')} textbook greedy by colour, open`,
    ratio: ours / theirs,
    goal: `≤ ${goal}`,
    ok: ours / theirs <= goal,
  };
}

/** Closed surfaces with colours in a picture, against merging by colour, which leaves edges open. */
export function closedRows(): Row[] {
  const tamsin = readProjectFile(readFileSync(new URL('../../content/out/tamsin.sphal', import.meta.url))).result;
  const house = boathouse();
  const time = median(3, () => void triangles(house));
  const plain = median(5, () => void greedy(house));
  let boxes = 0;
  const covering = median(3, () => (boxes = finish(boxCoverSteps(house, 2)).boxes.length));
  return [
    fewest('a walled plan of 64 × 64 × 8', [walledPlan()], 0.45),
    fewest(
      'Tamsin, part by part',
      tamsin.parts.map(composite).filter((g) => g.count > 0),
      0.13,
    ),
    {
      name: 'watertight surface of the boathouse',
      ours: ms(time),
      theirs: `${ms(plain)} textbook greedy by colour`,
      ratio: plain / time,
      goal: '≥ 0.2',
      ok: time < 5 * plain,
    },
    {
      name: 'boxes for the boathouse, tolerance 2',
      ours: `${boxes} in ${ms(covering)}`,
      theirs: `48 in ${ms(5 * plain)}, ${SECOND}`,
      ratio: covering / (5 * plain),
      goal: '≤ 48, ≤ 1',
      ok: boxes <= 48 && covering <= 5 * plain,
    },
  ];
}
