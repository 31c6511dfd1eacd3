import { chunksOf, everyWay, meshChunk, openSurfaceSteps } from '@sphalerite/core/mesh';
import { finish, seededRandom } from '@sphalerite/core/math';
import { current, startHistory, undo } from '@sphalerite/core/project';
import { idsFrom, makeProject } from '@sphalerite/core/model';
import { GridHit, type RayGrid, intersectGrid, rayGridOf } from '@sphalerite/core/render';
import { type VoxelGrid, byteTable } from '@sphalerite/core/voxel';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH, SAH } from 'three-mesh-bvh';
import { apartRows } from './apart-rows';
import { paintRows } from './paint-rows';
import { closedRows } from './closed-rows';
import { intakeRows } from './intake-rows';
import { shipRows } from './ship-rows';
import { motionRows } from './motion-rows';
import { renderRows } from './render-rows';
import { rigRows } from './rig-rows';
import { regionRows } from './region-rows';
import { sceneRows } from './scene-rows';
import { boathouse, terrain } from './scenes';
import { storageRows } from './storage-rows';
import { textbookGreedy } from './textbook-greedy';

export interface Row {
  readonly name: string;
  readonly ours: string;
  readonly theirs: string;
  readonly ratio: number;
  readonly goal: string;
  readonly ok: boolean;
}

/** A second is told in what the textbook mesher takes for the boathouse in the same run: a fifth of one, on the machine that goals are for. */
export const SECOND = 'a second by the textbook mesher';

/** Median milliseconds of several runs, after one that is not counted. */
export function median(runs: number, f: () => void): number {
  f();
  const times = Array.from({ length: runs }, () => {
    const t = performance.now();
    f();
    return performance.now() - t;
  });
  return times.sort((a, b) => a - b)[runs >> 1]!;
}
/** The same of two ways, taken in turn, so that what else the machine does slows both. */
export function inTurn(rounds: number, ours: () => void, theirs: () => void): readonly [number, number] {
  const rates = [ours, theirs].map((f) => ({ f, times: [median(1, f)] }));
  for (let i = 1; i < rounds; i++) for (const { f, times } of rates) times.push(median(1, f));
  const [a, b] = rates.map(({ times }) => times.sort((x, y) => x - y)[rounds >> 1]!);
  return [a!, b!];
}
/** Bytes in use, after what nobody holds has been let go. */
export function heapBytes(): number {
  // Once is not enough: buffers are let go one round after the objects that held them.
  for (let i = 0; i < 4; i++) globalThis.gc?.();
  const m = process.memoryUsage();
  return m.heapUsed + m.arrayBuffers;
}
export const ms = (v: number): string => `${v.toFixed(v < 10 ? 2 : 0)} ms`;

function merging(name: string, grid: VoxelGrid, goal: number): Row[] {
  const dense = grid.readBox(grid.bounds);
  let ourQuads = 0,
    theirQuads = 0;
  const ours = median(5, () => {
    ourQuads = 0;
    for (const c of chunksOf(grid)) ourQuads += meshChunk(grid, c[0], c[1], c[2])?.quads.length ?? 0;
  });
  const theirs = median(1, () => (theirQuads = textbookGreedy(dense, grid.bounds)));
  const more = ourQuads / theirQuads - 1;
  return [
    {
      name: `merge faces, ${name}`,
      ours: ms(ours),
      theirs: `${ms(theirs)} textbook greedy`,
      ratio: theirs / ours,
      goal: `≥ ${goal}×`,
      ok: theirs / ours >= goal,
    },
    {
      name: `merge faces, quads, ${name}`,
      ours: ourQuads.toLocaleString('en'),
      theirs: `${theirQuads.toLocaleString('en')} textbook greedy`,
      ratio: ourQuads / theirQuads,
      goal: '≤ 1.03',
      ok: more <= 0.03,
    },
  ];
}

/** Rays as a picture asks for them: from an eye through pixels, then bounces from where those met, all from empty space. */
function pathRays(grid: RayGrid, e: number): Float64Array {
  const random = seededRandom(3);
  const out: number[] = [];
  const met = new GridHit();
  const eye = [e * 1.35, e * 1.1, e * 1.5] as const;
  for (let v = 0; v < 100; v++) {
    for (let u = 0; u < 100; u++) {
      let [x, y, z] = eye as readonly number[] as [number, number, number];
      let d = [(u / 100) * e - x, (v / 100) * e * 0.7 - y, e * 0.5 - z];
      for (let bounce = 0; bounce < 3; bounce++) {
        const l = Math.hypot(...d);
        d = d.map((n) => n / l);
        out.push(x, y, z, d[0]!, d[1]!, d[2]!);
        const t = intersectGrid(grid, Float64Array.of(x, y, z, ...d, 0, Infinity), met);
        if (t === Infinity) break;
        const n = [0, 0, 0];
        n[met.axis] = met.sign;
        [x, y, z] = [x + d[0]! * t + n[0]! * 1e-3, y + d[1]! * t + n[1]! * 1e-3, z + d[2]! * t + n[2]! * 1e-3];
        d = [random() * 2 - 1, random() * 2 - 1, random() * 2 - 1].map((c, a) => c + n[a]! * 1.2);
      }
    }
  }
  return Float64Array.from(out);
}

function rays(name: string, grid: VoxelGrid, goal: number): Row {
  const surface = finish(openSurfaceSteps(grid, everyWay(byteTable((b) => b))));
  const g = new BufferGeometry();
  g.setAttribute(
    'position',
    new BufferAttribute(
      Float32Array.from(surface.positions, (v) => v / 2),
      3,
    ),
  );
  g.setIndex(new BufferAttribute(surface.triangles, 1));
  const bvh = new MeshBVH(g, { strategy: SAH, maxLeafSize: 4 } as never);
  const ray = rayGridOf(grid)!;
  const list = pathRays(ray, grid.bounds.size[0]);
  const N = list.length / 6;
  const distances = new Float64Array(N);
  const met = new GridHit();
  const along = Float64Array.of(0, 0, 0, 0, 0, 0, 0, Infinity);
  const walk = (): void => {
    for (let i = 0, k = 0; i < N * 6; i += 6) {
      for (let n = 0; n < 6; n++) along[n] = list[i + n]!;
      distances[k++] = intersectGrid(ray, along, met);
    }
  };
  const r = new Ray(new Vector3(), new Vector3());
  let differ = 0;
  const [ours, theirs] = inTurn(9, walk, () => {
    differ = 0;
    for (let i = 0, k = 0; i < N * 6; i += 6, k++) {
      r.origin.set(list[i]!, list[i + 1]!, list[i + 2]!);
      r.direction.set(list[i + 3]!, list[i + 4]!, list[i + 5]!);
      const t = bvh.raycastFirst(r, DoubleSide)?.distance ?? Infinity;
      if (Math.abs(t - distances[k]!) > 1e-2) differ++;
    }
  });
  const hits = distances.reduce((n, t) => n + (t < Infinity ? 1 : 0), 0);
  if (differ > N / 500) throw new Error(`The two ways disagree on ${differ} of ${N} rays.`);
  const rate = (t: number): string => `${(N / t / 1000).toFixed(2)} M rays/s`;
  return {
    name: `grid rays, ${name} (${Math.round((100 * hits) / N)} % hit)`,
    ours: rate(ours),
    theirs: `${rate(theirs)} three-mesh-bvh`,
    ratio: theirs / ours,
    goal: `≥ ${goal}×`,
    ok: theirs / ours >= goal,
  };
}

/** 10,000 single edits at 256³ kept as values, against what a flat table of 4,096 bricks a version would take. */
function undoStorage(): Row[] {
  const edge = 256,
    steps = 10_000;
  const base = terrain();
  const random = seededRandom(11);
  const places = Array.from(
    { length: steps },
    () => [Math.floor(random() * edge), Math.floor(random() * edge), Math.floor(random() * edge)] as const,
  );
  const project = makeProject('b', 'Bench', idsFrom('bench'), 'prop', [16, 16, 16]);
  const at = (grid: VoxelGrid): typeof project => ({
    ...project,
    parts: [{ ...project.parts[0]!, bounds: base.bounds, layers: [{ ...project.parts[0]!.layers[0]!, grid }] }],
  });
  // A first round that is not counted, as for every row: the code is compiled before the clock runs.
  for (const [x, y, z] of places) base.edit((d) => d.set(x, y, z, 9));
  const before = heapBytes();
  let h = startHistory(at(base), null, 0, Infinity);
  const entries = [...h.entries];
  let grid = base;
  const t0 = performance.now();
  const versions: VoxelGrid[] = [];
  for (const [x, y, z] of places) {
    grid = grid.edit((d) => d.set(x, y, z, 1 + ((d.get(x, y, z) + 1) % 200)));
    versions.push(grid);
  }
  const perEdit = ((performance.now() - t0) * 1000) / steps;
  for (const v of versions) entries.push({ ...entries[0]!, project: at(v) });
  h = { ...h, entries, now: steps };
  const used = heapBytes() - before;
  const step =
    median(5, () => {
      let k = h;
      for (let i = 0; i < 100; i++) k = undo(k);
      if (current(k) === current(h)) throw new Error('undo did nothing');
    }) / 100;
  const flat = 4096 * 8 * steps + 4300 * steps;
  return [
    {
      name: 'undo of 10,000 edits at 256³, memory',
      ours: `${(used / 1048576).toFixed(0)} MB`,
      theirs: `${(flat / 1048576).toFixed(0)} MB flat table of bricks (computed)`,
      ratio: flat / used,
      goal: '≤ 60 MB',
      ok: used <= 60 * 1048576,
    },
    {
      name: 'one edit at 256³, new grid',
      ours: `${perEdit.toFixed(1)} µs`,
      theirs: '–',
      ratio: 10 / perEdit,
      goal: '≤ 10 µs',
      ok: perEdit <= 10,
    },
    { name: 'one step of undo', ours: ms(step), theirs: '–', ratio: 1 / step, goal: '< 1 ms', ok: step < 1 },
  ];
}

/** Every row by a short name, made when asked for. */
export const ROWS: Readonly<Record<string, () => Row[] | Promise<Row[]>>> = {
  merge: () => [...merging('boathouse', boathouse(), 10), ...merging('terrain', terrain(), 20)],
  rays: () => [rays('boathouse', boathouse(), 10), rays('terrain', terrain(), 12)],
  closed: closedRows,
  ship: shipRows,
  intake: intakeRows,
  undo: undoStorage,
  storage: storageRows,
  regions: regionRows,
  paint: paintRows,
  apart: apartRows,
  rig: rigRows,
  motion: motionRows,
  scene: sceneRows,
  trace: renderRows,
};
