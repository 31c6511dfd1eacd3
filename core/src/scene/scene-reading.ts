import { type Extent, type Steps, type Vec3, invertMat, length, mulMat, transformPoint, uniteExtents } from '../math';
import {
  type Id,
  type Placement,
  type Project,
  type Scene,
  cellOfScene,
  composite,
  must,
  placementsOf,
} from '../model';
import type { VoxelGrid } from '../voxel';
import { Columns } from './columns';
import { type DrawInstance, type DrawList, instanceExtent, pickInstance } from './draw-list';
import { gather } from './gather';

/** What an artist would want to know of a scene before it goes out; each with the placements that it is about. */
export type SceneFinding =
  /** Parts of the same cubes and colours, which could be one: those that come first are kept. */
  | { readonly code: 'alike'; readonly keep: Id; readonly parts: readonly Id[]; readonly placements: readonly Id[] }
  /** Groups that hold the same things in the same places, each by itself. */
  | { readonly code: 'alikeGroups'; readonly placements: readonly Id[] }
  /** Their cubes are not as large as most others; `edge` in project units. */
  | { readonly code: 'otherCubes'; readonly edge: number; readonly placements: readonly Id[] }
  /** Nothing lies under it or touches it; `by` project units above what is below. */
  | { readonly code: 'floats'; readonly by: number; readonly placements: readonly Id[] }
  /** Cubes of the second that stand in the first. */
  | { readonly code: 'within'; readonly cubes: number; readonly placements: readonly [Id, Id] };

/** Pairs that are looked into cube by cube; the rest of a heap tells nothing more. */
const MOST_PAIRS = 4000;
/** What is farther than this above what is below hangs in the air, in cubes of its own. */
const GAP = 0.6;

/** {@link readScene} in one go. */
export function readScene(project: Project, id: Id): SceneFinding[] {
  const steps = readSceneSteps(project, id);
  for (;;) {
    const s = steps.next();
    if (s.done) return s.value;
  }
}

/** Parts that could be linked, cubes of other sizes, and what floats or stands in something else. */
export function* readSceneSteps(project: Project, id: Id): Steps<SceneFinding[]> {
  const scene = must(project.scenes, id, 'scene');
  const all = gather(project, { of: 'scene', scene: id }),
    own = all.filter((i) => i.source.copy === 0);
  yield 0.1;
  const out: SceneFinding[] = [...alike(project, scene), ...alikeGroups(scene), ...otherCubes(project, scene, own)];
  yield 0.2;
  const bodies = topBodies(scene, own);
  const columns = new Columns(all);
  for (const [n, body] of bodies.entries()) {
    const by = gapBelow(body, columns);
    if (by > 0) out.push({ code: 'floats', by, placements: [body.id] });
    if (n % 32 === 31) yield 0.2 + (0.4 * n) / bodies.length;
  }
  out.push(...(yield* within(bodies)));
  return out;
}

function alike(project: Project, scene: Scene): SceneFinding[] {
  const users = new Map<Id, Id[]>();
  for (const p of placementsOf(scene))
    if (p.shows.kind === 'part') users.set(p.shows.part, [...(users.get(p.shows.part) ?? []), p.id]);
  const parts = project.parts.filter((p) => users.has(p.id) && composite(p).count > 0);
  const groups: Id[][] = [];
  const first = new Map<string, { readonly id: Id; readonly grid: VoxelGrid; readonly group: Id[] }[]>();
  for (const p of parts) {
    const grid = composite(p),
      key = `${p.palette} ${p.cell} ${p.pivot.join()} ${grid.count} ${grid.contentBox()!.min.join()} ${grid.contentBox()!.size.join()}`;
    const known = first.get(key)?.find((o) => sameCells(o.grid, grid));
    if (known) known.group.push(p.id);
    else {
      const group = [p.id];
      groups.push(group);
      first.set(key, [...(first.get(key) ?? []), { id: p.id, grid, group }]);
    }
  }
  return groups.flatMap(([keep, ...others]): SceneFinding[] =>
    others.length === 0
      ? []
      : [{ code: 'alike', keep: keep!, parts: others, placements: others.flatMap((o) => users.get(o)!) }],
  );
}

/** Groups of the same things; of those that lie in such groups nothing more is told. */
function alikeGroups(scene: Scene): SceneFinding[] {
  const inside = new Map<Id, Placement[]>();
  for (const p of placementsOf(scene))
    if (p.parent !== null) inside.set(p.parent, [...(inside.get(p.parent) ?? []), p]);
  const repeated = new Set(scene.repeats.map((r) => r.placement));
  const round = (v: readonly number[]): string => v.map((x) => Math.round(x * 1e6) / 1e6 || 0).join();
  /** What a group holds, however its things are named and ordered; null where it is nothing, or is made by a repeat. */
  const held = new Map<Id, string | null>();
  const of = (group: Id): string | null => {
    const known = held.get(group);
    if (known !== undefined) return known;
    const things = (inside.get(group) ?? []).map((p) => {
      const within = inside.has(p.id) ? of(p.id) : '';
      if (within === null || repeated.has(p.id)) return null;
      return JSON.stringify([p.shows, round(p.t), round(p.q), round(p.s), p.colourway, p.hidden, within]);
    });
    const key = things.length === 0 || things.includes(null) ? null : things.sort().join(' ');
    held.set(group, key);
    return key;
  };
  const byKey = new Map<string, Placement[]>();
  for (const p of placementsOf(scene)) {
    const key = p.shows.kind === 'group' ? of(p.id) : null;
    if (key !== null) byKey.set(key, [...(byKey.get(key) ?? []), p]);
  }
  const alike = (id: Id | null): boolean => id !== null && (byKey.get(held.get(id) ?? '')?.length ?? 0) > 1;
  return [...byKey.values()]
    .filter((list) => list.length > 1 && !list.every((p) => alike(p.parent)))
    .map((list): SceneFinding => ({ code: 'alikeGroups', placements: list.map((p) => p.id) }));
}

/** Whether two grids hold the same cells, however large their volumes are. */
function sameCells(a: VoxelGrid, b: VoxelGrid): boolean {
  const box = a.contentBox()!;
  const [x, y] = [a.readBox(box), b.readBox(box)];
  return x.every((v, i) => v === y[i]);
}

function otherCubes(project: Project, scene: Scene, own: DrawList): SceneFinding[] {
  const common = cellOfScene(project, scene.id);
  const bySize = new Map<number, Set<Id>>();
  for (const { matrix, source, geometry } of own) {
    if (geometry.kind !== 'grid') continue;
    const edge = Math.round(length([matrix[0]!, matrix[1]!, matrix[2]!]) * 1000) / 1000;
    if (Math.abs(edge / common - 1) < 0.005) continue;
    const set = bySize.get(edge) ?? new Set();
    set.add(source.path[0]!);
    bySize.set(edge, set);
  }
  return [...bySize].map(([edge, ids]): SceneFinding => ({ code: 'otherCubes', edge, placements: [...ids] }));
}

interface Body {
  readonly id: Id;
  readonly list: DrawInstance[];
  readonly extent: Extent;
}
/** What stands by itself, with all that hangs on it: of a group each that hangs on it. */
function topBodies(scene: Scene, own: DrawList): Body[] {
  const above = new Map(placementsOf(scene).map((p) => [p.id, p]));
  const topOf = (id: Id): Id => {
    const p = above.get(id)!,
      parent = p.parent === null ? undefined : above.get(p.parent);
    return parent && parent.shows.kind !== 'group' ? topOf(parent.id) : id;
  };
  const bodies = new Map<Id, DrawInstance[]>();
  for (const i of own) {
    const top = topOf(i.source.path[0]!);
    bodies.set(top, [...(bodies.get(top) ?? []), i]);
  }
  return [...bodies].flatMap(([id, list]) => {
    const extent = list.reduce<Extent | null>((all, i) => uniteExtents(all, instanceExtent(i)), null);
    return extent ? [{ id, list, extent }] : [];
  });
}

/** How far a body hangs in the air; 0 where it stands on the floor, on something, or touches anything beside it. */
function gapBelow({ list, extent }: Body, columns: Columns): number {
  if (extent.lo[1] <= 0.05) return 0;
  const mine = new Set(list),
    edge = length([list[0]!.matrix[0]!, list[0]!.matrix[1]!, list[0]!.matrix[2]!]);
  // Beside a wall, or hung from above: a box that touches its box is enough.
  const by = edge * GAP;
  const around = columns.around({
    lo: [extent.lo[0] - by, extent.lo[1], extent.lo[2] - by],
    hi: [extent.hi[0] + by, extent.hi[1], extent.hi[2] + by],
  });
  const below = [...around].filter((i) => !mine.has(i));
  if (below.some((i) => near(instanceExtent(i), extent, by))) return 0;
  let best = extent.lo[1];
  for (const f of [0.1, 0.5, 0.9])
    for (const g of [0.1, 0.5, 0.9]) {
      const from: Vec3 = [
        extent.lo[0] + (extent.hi[0] - extent.lo[0]) * f,
        extent.lo[1] + 0.01,
        extent.lo[2] + (extent.hi[2] - extent.lo[2]) * g,
      ];
      const hit = pickInstance(below, from, [0, -1, 0]);
      if (hit) best = Math.min(best, hit.t - 0.01);
    }
  return best > edge * GAP ? Math.round(best * 100) / 100 : 0;
}
const near = (a: Extent | null, b: Extent, by: number): boolean =>
  a !== null && [0, 1, 2].every((k) => a.lo[k]! <= b.hi[k]! + by && b.lo[k]! <= a.hi[k]! + by);

/** Pairs whose cubes stand in one another, the worst first. What hangs on one body meets it as it is meant to. */
function* within(bodies: readonly Body[]): Steps<SceneFinding[]> {
  const found: Extract<SceneFinding, { code: 'within' }>[] = [];
  const order = [...bodies].sort((a, b) => a.extent.lo[0] - b.extent.lo[0]);
  let pairs = 0;
  for (const [i, a] of order.entries()) {
    for (let j = i + 1; j < order.length && order[j]!.extent.lo[0] < a.extent.hi[0] - 1e-6; j++) {
      const b = order[j]!;
      if (![1, 2].every((k) => a.extent.lo[k]! < b.extent.hi[k]! - 1e-6 && b.extent.lo[k]! < a.extent.hi[k]! - 1e-6))
        continue;
      if (++pairs > MOST_PAIRS) break;
      const [small, large] = sizeOf(a) <= sizeOf(b) ? [a, b] : [b, a];
      const cubes = cubesWithin(small, large);
      if (cubes > 0) found.push({ code: 'within', cubes, placements: [large.id, small.id] });
    }
    if (i % 16 === 15) yield 0.6 + (0.4 * i) / order.length;
  }
  return found.sort((a, b) => b.cubes - a.cubes);
}
const sizeOf = (b: Body): number =>
  b.list.reduce((n, i) => n + (i.geometry.kind === 'grid' ? i.geometry.grid.count : 0), 0);

/** Cubes of one body whose middles lie in another. */
function cubesWithin(small: Body, large: Body): number {
  let n = 0;
  for (const s of small.list)
    for (const l of large.list) {
      if (s.geometry.kind !== 'grid' || l.geometry.kind !== 'grid') continue;
      const [e, f] = [instanceExtent(s), instanceExtent(l)];
      if (!e || !f || ![0, 1, 2].every((k) => e.lo[k]! < f.hi[k]! && f.lo[k]! < e.hi[k]!)) continue;
      const m = mulMat(invertMat(l.matrix), s.matrix),
        grid = l.geometry.grid;
      s.geometry.grid.forEach((x, y, z) => {
        const p = transformPoint(m, [x + 0.5, y + 0.5, z + 0.5]);
        if (grid.get(Math.floor(p[0]), Math.floor(p[1]), Math.floor(p[2])) !== 0) n++;
      });
    }
  return n;
}
