import { chunksOf, meshChunk, surfaceOf } from '@sphalerite/core/mesh';
import { seededRandom } from '@sphalerite/core/math';
import { current, startHistory, undo } from '@sphalerite/core/project';
import { idsFrom, makeProject } from '@sphalerite/core/model';
import { intersectGrid, rayGridOf } from '@sphalerite/core/render';
import { type VoxelGrid } from '@sphalerite/core/voxel';
import { BufferAttribute, BufferGeometry, DoubleSide, Ray, Vector3 } from 'three';
import { MeshBVH, SAH } from 'three-mesh-bvh';
import { boathouse, terrain } from './scenes';
import { textbookGreedy } from './textbook-greedy';

export interface Row {
  readonly name: string;
  readonly ours: string;
  readonly theirs: string;
  readonly ratio: number;
  readonly goal: string;
  readonly ok: boolean;
}

/** Median milliseconds of several runs, after one that is not counted. */
function median(runs: number, f: () => void): number {
  f();
  const times = Array.from({ length: runs }, () => {
    const t = performance.now();
    f();
    return performance.now() - t;
  });
  return times.sort((a, b) => a - b)[runs >> 1]!;
}
const ms = (v: number): string => `${v.toFixed(v < 10 ? 2 : 0)} ms`;

function merging(name: string, grid: VoxelGrid, goal: number): Row[] {
  const dense = grid.readBox(grid.bounds);
  let ourQuads = 0, theirQuads = 0;
  const ours = median(5, () => {
    ourQuads = 0;
    for (const c of chunksOf(grid)) ourQuads += meshChunk(grid, c[0], c[1], c[2])?.quads.length ?? 0;
  });
  const theirs = median(1, () => (theirQuads = textbookGreedy(dense, grid.bounds)));
  const more = ourQuads / theirQuads - 1;
  return [
    { name: `merge faces, ${name}`, ours: ms(ours), theirs: `${ms(theirs)} textbook greedy`, ratio: theirs / ours, goal: `≥ ${goal}×`, ok: theirs / ours >= goal },
    { name: `merge faces, quads, ${name}`, ours: ourQuads.toLocaleString('en'), theirs: `${theirQuads.toLocaleString('en')} textbook greedy`, ratio: ourQuads / theirQuads, goal: '≤ 1.03', ok: more <= 0.03 },
  ];
}

function rays(name: string, grid: VoxelGrid, goal: number): Row {
  const surface = surfaceOf(grid);
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(surface.positions, 3));
  g.setIndex(new BufferAttribute(surface.indices, 1));
  const bvh = new MeshBVH(g, { strategy: SAH, maxLeafSize: 4 } as never);
  const ray = rayGridOf(grid)!;
  const random = seededRandom(3);
  const e = grid.bounds.size[0];
  const N = 20_000;
  const list = Float64Array.from({ length: N * 6 }, () => 0);
  for (let i = 0; i < N; i++) {
    // Half from outside towards the middle, half from within in any direction, as bounces are.
    const out = i % 2 === 0;
    const o = out ? [random() * e, e * 1.3, random() * e * 2 - e / 2] : [random() * e, random() * e, random() * e];
    const d = out ? [e / 2 - o[0]! + (random() - 0.5) * e, e * 0.3 - o[1]!, e / 2 - o[2]! + (random() - 0.5) * e] : [random() - 0.5, random() - 0.5, random() - 0.5];
    const l = Math.hypot(...d);
    list.set([...o, ...d.map((v) => v / l)], i * 6);
  }
  let hits = 0;
  const ours = median(5, () => {
    hits = 0;
    for (let i = 0; i < N * 6; i += 6) if (intersectGrid(ray, list[i]!, list[i + 1]!, list[i + 2]!, list[i + 3]!, list[i + 4]!, list[i + 5]!, 0, Infinity) < Infinity) hits++;
  });
  const r = new Ray(new Vector3(), new Vector3());
  const theirs = median(1, () => {
    for (let i = 0; i < N * 6; i += 6) {
      r.origin.set(list[i]!, list[i + 1]!, list[i + 2]!);
      r.direction.set(list[i + 3]!, list[i + 4]!, list[i + 5]!);
      bvh.raycastFirst(r, DoubleSide);
    }
  });
  const rate = (t: number): string => `${(N / t / 1000).toFixed(2)} M rays/s`;
  return { name: `grid rays, ${name} (${Math.round((100 * hits) / N)} % hit)`, ours: rate(ours), theirs: `${rate(theirs)} three-mesh-bvh`, ratio: theirs / ours, goal: `≥ ${goal}×`, ok: theirs / ours >= goal };
}

/** 10,000 single edits at 256³ kept as values, against what a flat table of 4,096 bricks a version would take. */
function undoStorage(): Row[] {
  const edge = 256, steps = 10_000;
  const base = terrain();
  const random = seededRandom(11);
  const places = Array.from({ length: steps }, () => [Math.floor(random() * edge), Math.floor(random() * edge), Math.floor(random() * edge)] as const);
  const heap = (): number => {
    // Once is not enough: buffers are let go one round after the objects that held them.
    for (let i = 0; i < 4; i++) globalThis.gc?.();
    const m = process.memoryUsage();
    return m.heapUsed + m.arrayBuffers;
  };
  const project = makeProject('b', 'Bench', idsFrom('bench'), 'prop', [16, 16, 16]);
  const at = (grid: VoxelGrid): typeof project => ({ ...project, parts: [{ ...project.parts[0]!, bounds: base.bounds, layers: [{ ...project.parts[0]!.layers[0]!, grid }] }] });
  // A first round that is not counted, as for every row: the code is compiled before the clock runs.
  for (const [x, y, z] of places) base.edit((d) => d.set(x, y, z, 9));
  const before = heap();
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
  const used = heap() - before;
  const step = median(5, () => {
    let k = h;
    for (let i = 0; i < 100; i++) k = undo(k);
    if (current(k) === current(h)) throw new Error('undo did nothing');
  }) / 100;
  const flat = 4096 * 8 * steps + 4300 * steps;
  return [
    { name: 'undo of 10,000 edits at 256³, memory', ours: `${(used / 1048576).toFixed(0)} MB`, theirs: `${(flat / 1048576).toFixed(0)} MB flat table of bricks (computed)`, ratio: flat / used, goal: '≤ 60 MB', ok: used <= 60 * 1048576 },
    { name: 'one edit at 256³, new grid', ours: `${perEdit.toFixed(1)} µs`, theirs: '–', ratio: 10 / perEdit, goal: '≤ 10 µs', ok: perEdit <= 10 },
    { name: 'one step of undo', ours: ms(step), theirs: '–', ratio: 1 / step, goal: '< 1 ms', ok: step < 1 },
  ];
}

/** Every row by a short name, made when asked for. */
export const ROWS: Readonly<Record<string, () => Row[]>> = {
  merge: () => [...merging('boathouse', boathouse(), 10), ...merging('terrain', terrain(), 20)],
  rays: () => [rays('boathouse', boathouse(), 10), rays('terrain', terrain(), 20)],
  undo: undoStorage,
};
