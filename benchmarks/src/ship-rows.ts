import { QUIET_JOB, deliver, gatherShipped, PLAIN_PROFILE, countsOf } from '@sphalerite/core/files';
import { finish, seededRandom } from '@sphalerite/core/math';
import { Atlas, everyWay, openSurfaceSteps, packSkyline } from '@sphalerite/core/mesh';
import { type Project, deliveryOf, idsFrom, makeProject } from '@sphalerite/core/model';
import { type VoxelGrid, byteTable } from '@sphalerite/core/voxel';
import { type Row, SECOND, median, ms } from './rows';
import { boathouse, walledPlan } from './scenes';
import { textbookGreedy } from './textbook-greedy';

const ONE = everyWay(byteTable(() => 0));
const WISHES = { padding: 1, powersOfTwo: false, most: 1e5 };

/** A grid as the only part of a project. */
function projectOf(grid: VoxelGrid): Project {
  const p = makeProject('bench', 'Bench', idsFrom('bench'), 'prop', [...grid.bounds.size]);
  const part = p.parts[0]!;
  return {
    ...p,
    parts: [{ ...part, bounds: grid.bounds, pivot: [0, 0, 0], layers: [{ ...part.layers[0]!, grid }] }],
  };
}

/** Texels of an atlas of a grid's rectangles regardless of colour, and of one that keeps each by itself. */
function atlas(name: string, grid: VoxelGrid): Row {
  const surface = finish(openSurfaceSteps(grid, ONE, true));
  const mine = new Atlas();
  const each = new Int32Array(surface.regions * 2);
  for (let r = 0; r < surface.regions; r++) {
    const [wide, high] = [surface.spans[r * 4 + 2]!, surface.spans[r * 4 + 3]!];
    mine.add(wide, high, surface.texels![r]!);
    each.set([wide + 2, high + 2], r * 2);
  }
  const packed = mine.packed(WISHES)!;
  let area = 0;
  for (let i = 0; i < each.length; i += 2) area += each[i]! * each[i + 1]!;
  const width = Math.ceil(Math.sqrt(area) * 1.02);
  const theirs = width * packSkyline(each, width).height,
    ours = packed.width * packed.height;
  return {
    name: `atlas of ${name}`,
    ours: `${ours.toLocaleString('en')} texels`,
    theirs: `${theirs.toLocaleString('en')} with every rectangle by itself`,
    ratio: theirs / ours,
    goal: '≥ 4',
    ok: theirs / ours >= 4,
  };
}

function packing(): Row {
  const random = seededRandom(32);
  const sizes = Int32Array.from({ length: 64_000 }, () => 3 + Math.floor(random() * random() * 30));
  let area = 0;
  for (let i = 0; i < sizes.length; i += 2) area += sizes[i]! * sizes[i + 1]!;
  const width = Math.ceil(Math.sqrt(area));
  let height = 0;
  const time = median(5, () => void (height = packSkyline(sizes, width).height));
  const used = area / (width * height);
  return {
    name: '32,000 rectangles packed',
    ours: `${ms(time)}, ${(100 * used).toFixed(1)} % used`,
    theirs: '100 ms, 95 %',
    ratio: time / 100,
    goal: '≤ 100 ms, ≥ 95 %',
    ok: time <= 100 && used >= 0.95,
  };
}

/** Deliveries of the boathouse, gathered and written; and how many triangles each way of merging takes. */
export async function shipRows(): Promise<Row[]> {
  const house = boathouse();
  const greedy = 2 * textbookGreedy(house.readBox(house.bounds), house.bounds);
  const plain = median(5, () => void textbookGreedy(house.readBox(house.bounds), house.bounds));
  const rows: Row[] = [];
  for (const id of ['phone', 'headset'] as const) {
    const times: number[] = [];
    let bytes = 0;
    for (let n = 0; n < 3; n++) {
      // Cells of its own each time: nothing that was merged before is known again.
      const p = projectOf(boathouse());
      const profile = { ...deliveryOf(p, id)!, collider: { ...PLAIN_PROFILE.collider, shape: 'none' as const } };
      const wide = { ...profile, picture: { ...profile.picture, most: 8192 } };
      const from = performance.now();
      const made = await deliver(p, { subject: { of: 'rig' }, profile: wide, colourway: null }, QUIET_JOB);
      times.push(performance.now() - from);
      bytes = made.files[0]!.bytes.length;
    }
    const time = times.sort((a, b) => a - b)[1]!;
    rows.push({
      name: `GLB of the boathouse, ${id}`,
      ours: `${ms(time)}, ${Math.ceil(bytes / 1024).toLocaleString('en')} KB`,
      theirs: `${ms(5 * plain)}, ${SECOND}`,
      ratio: time / (5 * plain),
      goal: '≤ 1',
      ok: time <= 5 * plain,
    });
  }
  const model = gatherShipped(
    projectOf(house),
    { of: 'rig' },
    {
      ...PLAIN_PROFILE,
      mesh: { ...PLAIN_PROFILE.mesh, merge: 'all' },
      picture: { ...PLAIN_PROFILE.picture, most: 8192 },
      collider: { ...PLAIN_PROFILE.collider, shape: 'none' },
    },
  );
  const { triangles } = countsOf(model);
  rows.push({
    name: 'triangles of the boathouse, all merged',
    ours: triangles.toLocaleString('en'),
    theirs: `${greedy.toLocaleString('en')} textbook greedy by colour`,
    ratio: triangles / greedy,
    goal: '≤ 1',
    ok: triangles <= greedy,
  });
  return [...rows, atlas('the boathouse', house), atlas('a walled plan', walledPlan()), packing()];
}
