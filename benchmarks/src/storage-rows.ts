import { EMPTY_VIEW } from '../../app/src/storage/view-state';
import { seededRandom } from '@sphalerite/core/math';
import { type Project, idsFrom, makeProject } from '@sphalerite/core/model';
import { startHistory } from '@sphalerite/core/project';
import { VoxelGrid } from '@sphalerite/core/voxel';
import { type Row, heapBytes, ms } from './rows';
import { terrain } from './scenes';

const EDITS = 10_000;
const mb = (bytes: number): string => `${(bytes / 1048576).toFixed(0)} MB`;

/** A project whose only layer has these cells. */
function around(project: Project, grid: VoxelGrid): Project {
  const part = project.parts[0]!;
  return { ...project, parts: [{ ...part, bounds: grid.bounds, layers: [{ ...part.layers[0]!, grid }] }] };
}

/** 10,000 single cubes at 256³, saved one by one or nearly, let go, and read back: the memory and the wait. */
export async function storageRows(): Promise<Row[]> {
  // The database has to stand before the one that opens it is loaded.
  // @ts-expect-error – the package does not export the types of this entry
  await import('fake-indexeddb/auto');
  const { openStored } = await import('../../app/src/storage/open-stored');
  const { ProjectWriter } = await import('../../app/src/storage/project-writer');
  const project = makeProject('bench', 'Bench', idsFrom('bench'), 'prop', [16, 16, 16]);
  const edge = 256;

  async function store(): Promise<number> {
    const random = seededRandom(11);
    const place = (): number => Math.floor(random() * edge);
    let grid = terrain();
    const before = heapBytes();
    let h = startHistory(around(project, grid), EMPTY_VIEW, 0);
    const entries = [...h.entries];
    for (let i = 0; i < EDITS; i++) {
      const [x, y, z] = [place(), place(), place()];
      grid = grid.edit((d) => d.set(x, y, z, 1 + ((d.get(x, y, z) + 1) % 200)));
      entries.push({ ...entries[0]!, label: 'Add in Body', bytes: 5500, project: around(project, grid) });
    }
    const used = heapBytes() - before;
    const writer = new ProjectWriter('bench', 1);
    for (let now = 0; now <= EDITS; now += 250) {
      h = { ...h, entries: entries.slice(0, now + 1), now };
      await writer.save(h);
    }
    return used;
  }

  const fresh = await store();
  const before = heapBytes();
  let t = performance.now();
  const { history, rest } = await openStored('bench', 1);
  const present = performance.now() - t;
  t = performance.now();
  const whole = (await rest())(history);
  const all = performance.now() - t;
  const withTerrain = heapBytes() - before;
  // The terrain that the edits were made on is there with or without a history.
  const bare = heapBytes();
  const ground = terrain();
  const base = heapBytes() - bare;
  const used = withTerrain - base;
  const grids = whole.entries.slice(0, 200).map((e) => e.project.parts[0]!.layers[0]!.grid);
  const start = heapBytes();
  const apart = grids.map((g) => VoxelGrid.fromBricks(g.bounds, g.bricks()));
  const each = (heapBytes() - start) / apart.length;
  if (whole.entries.length !== EDITS + 1 || ground.count === 0) throw new Error('The history did not come back whole.');
  return [
    {
      name: '10,000 edits at 256³, reloaded, memory',
      ours: mb(used),
      theirs: `${mb(fresh)} before the reload; ${mb(each * EDITS)} with every grid read whole`,
      ratio: (each * EDITS) / used,
      goal: '≤ 60 MB',
      ok: used <= 60 * 1048576,
    },
    {
      name: 'the present of that history, read',
      ours: ms(present),
      theirs: `${ms(all)} for the steps before it, read while one works`,
      ratio: all / present,
      goal: 'the present first',
      ok: present < all,
    },
  ];
}
