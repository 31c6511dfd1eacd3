import quickHull from 'quickhull3d';
import { type Steps, type Vec3, add, length, scale, sub } from '../math';
import { type Space, type VoxelGrid, distancesSquared, spaceOf, withoutCavities } from '../voxel';

/** A convex body around some of a grid's cubes. */
export interface ConvexPiece {
  /** In cubes of the lattice, 3 numbers a vertex. */
  readonly positions: Float32Array;
  /** Three vertices a triangle, counter-clockwise seen from outside. */
  readonly triangles: Uint32Array;
}
/** Convex bodies that stand for a grid. */
export interface ConvexCover {
  readonly pieces: readonly ConvexPiece[];
  /** How far the farthest point of theirs is from the grid's, in cubes. */
  readonly error: number;
}

/** Some cells of a space, with the box around them. */
interface Heap {
  readonly cells: Int32Array;
  readonly lo: Vec3;
  readonly hi: Vec3;
}
interface Hull extends ConvexPiece {
  /** Four numbers a face: a point is inside where n · p ≤ d. */
  readonly planes: readonly (readonly [number, number, number, number])[];
}

function heapOf(cells: Int32Array, { size, strides }: Space): Heap {
  const lo: [number, number, number] = [...size],
    hi: [number, number, number] = [0, 0, 0];
  for (const at of cells) {
    const p = [at % size[0], Math.floor(at / strides[1]) % size[1], Math.floor(at / strides[2])];
    for (const a of [0, 1, 2]) {
      if (p[a]! < lo[a]!) lo[a] = p[a]!;
      if (p[a]! >= hi[a]!) hi[a] = p[a]! + 1;
    }
  }
  return { cells, lo, hi };
}

/** The hull of a heap: of each row of its cells only the ends count. */
function hullOf({ cells }: Heap, { size, strides }: Space): Hull {
  const rows = new Map<number, [number, number]>();
  for (const at of cells) {
    const x = at % size[0],
      row = at - x,
      ends = rows.get(row);
    if (!ends) rows.set(row, [x, x + 1]);
    else {
      if (x < ends[0]) ends[0] = x;
      if (x >= ends[1]) ends[1] = x + 1;
    }
  }
  const corners = new Set<number>();
  const points: Vec3[] = [];
  for (const [row, ends] of rows) {
    const y = Math.floor(row / strides[1]) % size[1],
      z = Math.floor(row / strides[2]);
    for (const x of ends)
      for (const [j, k] of [
        [0, 0],
        [1, 0],
        [0, 1],
        [1, 1],
      ] as const) {
        const key = x + (size[0] + 1) * (y + j + (size[1] + 1) * (z + k));
        if (corners.has(key)) continue;
        corners.add(key);
        points.push([x, y + j, z + k]);
      }
  }
  const faces = quickHull(points.map((p) => [...p]));
  const used = new Map<number, number>();
  const positions: number[] = [],
    triangles: number[] = [];
  const local = (i: number): number => {
    let n = used.get(i);
    if (n === undefined) {
      used.set(i, (n = used.size));
      positions.push(...points[i]!);
    }
    return n;
  };
  const planes = faces.map(([a, b, c]): readonly [number, number, number, number] => {
    triangles.push(local(a!), local(b!), local(c!));
    const [p, q, r] = [points[a!]!, points[b!]!, points[c!]!];
    const [u, v] = [q.map((w, i) => w - p[i]!), r.map((w, i) => w - p[i]!)] as [number[], number[]];
    const n = [u[1]! * v[2]! - u[2]! * v[1]!, u[2]! * v[0]! - u[0]! * v[2]!, u[0]! * v[1]! - u[1]! * v[0]!];
    const l = Math.hypot(...n);
    return [n[0]! / l, n[1]! / l, n[2]! / l, (n[0]! * p[0] + n[1]! * p[1] + n[2]! * p[2]) / l];
  });
  return { positions: Float32Array.from(positions), triangles: Uint32Array.from(triangles), planes };
}

/** What hulls must keep near to. */
interface Body {
  readonly space: Space;
  /** 1 for every cell that is filled. */
  readonly solid: Uint8Array;
  /** How far the farthest point of each cell is from all that are, squared. */
  readonly away: Float32Array;
  readonly tolerance: number;
}
/** Into how many a cell is cut along each axis to look closer. */
const FINE = 4;

/** Whether a hull has a point that is too far from every cube: cells that may hold one are cut finer before they are believed. */
function reachesFar(
  { planes }: Hull,
  { lo, hi }: Heap,
  { space: { strides }, solid, away, tolerance, space }: Body,
): boolean {
  /** Whether a cube so large, by its middle, may be met: its corner nearest to the inside lies behind every face. */
  const meets = (x: number, y: number, z: number, half: number): boolean =>
    planes.every(([a, b, c, d]) => a * x + b * y + c * z - (Math.abs(a) + Math.abs(b) + Math.abs(c)) * half < d - 1e-6);
  const reach = Math.ceil(tolerance) + 1,
    most = (tolerance + 1e-6) ** 2,
    half = 1 / FINE / 2;
  /** Whether every point of a small cube is near enough to one filled cell. */
  const near = (p: Vec3, cell: Vec3): boolean => {
    for (let z = Math.max(0, cell[2] - reach); z <= Math.min(space.size[2] - 1, cell[2] + reach); z++)
      for (let y = Math.max(0, cell[1] - reach); y <= Math.min(space.size[1] - 1, cell[1] + reach); y++)
        for (let x = Math.max(0, cell[0] - reach); x <= Math.min(space.size[0] - 1, cell[0] + reach); x++) {
          if (solid[x + y * strides[1] + z * strides[2]] === 0) continue;
          const [a, b, c] = [x, y, z].map((v, i) => Math.max(0, Math.abs(p[i]! - v - 0.5) + half - 0.5)) as [
            number,
            number,
            number,
          ];
          if (a * a + b * b + c * c <= most) return true;
        }
    return false;
  };
  for (let z = lo[2]; z < hi[2]; z++)
    for (let y = lo[1]; y < hi[1]; y++)
      for (let x = lo[0]; x < hi[0]; x++) {
        if (
          away[x + y * strides[1] + z * strides[2]]! <= tolerance * tolerance ||
          !meets(x + 0.5, y + 0.5, z + 0.5, 0.5)
        )
          continue;
        for (let n = 0; n < FINE ** 3; n++) {
          const p: Vec3 = [
            x + ((n % FINE) + 0.5) / FINE,
            y + ((Math.floor(n / FINE) % FINE) + 0.5) / FINE,
            z + (Math.floor(n / FINE ** 2) + 0.5) / FINE,
          ];
          if (meets(...p, half) && !near(p, [x, y, z])) return true;
        }
      }
  return false;
}

/** What stands in one slice of a heap: how much, and the box around it. */
class Slice {
  n = 0;
  readonly lo = [Infinity, Infinity, Infinity];
  readonly hi = [-Infinity, -Infinity, -Infinity];
  take(lo: readonly number[], hi: readonly number[], n: number): void {
    this.n += n;
    for (let a = 0; a < 3; a++) {
      if (lo[a]! < this.lo[a]!) this.lo[a] = lo[a]!;
      if (hi[a]! > this.hi[a]!) this.hi[a] = hi[a]!;
    }
  }
  get air(): number {
    const { lo, hi } = this;
    return (hi[0]! - lo[0]!) * (hi[1]! - lo[1]!) * (hi[2]! - lo[2]!);
  }
}

/** The plane that leaves least air in the boxes around the two halves of a heap; evener halves lead to fewer pieces. */
function bestCut({ cells, lo, hi }: Heap, { size, strides }: Space): { readonly axis: number; readonly at: number } {
  const slices = [0, 1, 2].map((a) => Array.from({ length: hi[a]! - lo[a]! }, () => new Slice()));
  const p = [0, 0, 0],
    q = [0, 0, 0];
  for (const at of cells) {
    p[0] = at % size[0];
    p[1] = Math.floor(at / strides[1]) % size[1];
    p[2] = Math.floor(at / strides[2]);
    for (let a = 0; a < 3; a++) q[a] = p[a]! + 1;
    for (let a = 0; a < 3; a++) slices[a]![p[a]! - lo[a]!]!.take(p, q, 1);
  }
  let best = { axis: 0, at: lo[0]! + 1 },
    least = Infinity;
  for (let axis = 0; axis < 3; axis++) {
    const list = slices[axis]!;
    const above: Slice[] = [];
    let rest = new Slice();
    for (let k = list.length - 1; k >= 0; k--) {
      const next = new Slice();
      next.take(rest.lo, rest.hi, rest.n);
      next.take(list[k]!.lo, list[k]!.hi, list[k]!.n);
      above[k] = rest = next;
    }
    const below = new Slice();
    for (let k = 1; k < list.length; k++) {
      below.take(list[k - 1]!.lo, list[k - 1]!.hi, list[k - 1]!.n);
      const other = above[k]!;
      if (below.n === 0 || other.n === 0) continue;
      const air = below.air + other.air + 0.005 * Math.abs(below.n - other.n) * (hi[0] - lo[0]);
      if (air < least) [best, least] = [{ axis, at: lo[axis]! + k }, air];
    }
  }
  return best;
}

function halves(heap: Heap, space: Space): [Heap, Heap] {
  const { axis, at: cut } = bestCut(heap, space),
    { size, strides } = space;
  const before = (at: number): boolean =>
    (axis === 0 ? at % size[0] : axis === 1 ? Math.floor(at / strides[1]) % size[1] : Math.floor(at / strides[2])) <
    cut;
  return [
    heapOf(heap.cells.filter(before), space),
    heapOf(
      heap.cells.filter((at) => !before(at)),
      space,
    ),
  ];
}

/**
 * Convex bodies that cover a grid and reach nowhere farther than the tolerance from its cubes, its closed cavities counted in: what is not
 * convex enough is cut in two where that leaves least air, and pieces that go together are joined again. In pieces; the same for the same
 * grid.
 *
 * @param tolerance – in cubes, 0 or more
 */
export function* convexPiecesSteps(grid: VoxelGrid, tolerance: number): Steps<ConvexCover> {
  const content = grid.contentBox();
  if (!content) return { pieces: [], error: 0 };
  const space = spaceOf([content.size[0], content.size[1], content.size[2]]);
  const solid = withoutCavities(grid.readBox(content), space);
  const body: Body = { space, solid, away: distancesSquared(solid, space), tolerance };
  const filled: number[] = [];
  solid.forEach((v, at) => v !== 0 && filled.push(at));
  yield 0.2;
  const open = [heapOf(Int32Array.from(filled), space)];
  let done: { heap: Heap; hull: Hull }[] = [],
    settled = 0;
  for (let heap = open.pop(); heap; heap = open.pop()) {
    const hull = hullOf(heap, space);
    if (heap.cells.length > 1 && reachesFar(hull, heap, body)) open.push(...halves(heap, space));
    else {
      done.push({ heap, hull });
      settled += heap.cells.length;
    }
    yield 0.2 + (0.6 * settled) / filled.length;
  }
  done = yield* rejoined(done, body);
  return {
    pieces: done.map(({ hull: { positions, triangles } }) => ({
      positions: positions.map((v, i) => v + content.min[i % 3]!),
      triangles,
    })),
    error: done.reduce((most, { hull }) => Math.max(most, farthestOf(hull, body)), 0),
  };
}

/** How far a hull's faces are from the body at most, measured at points no more than half a cube apart. */
function farthestOf({ positions, triangles }: Hull, { space: { size, strides }, solid, away }: Body): number {
  let most = 0;
  const look = (p: Vec3): void => {
    const cell = p.map((v, a) => Math.min(size[a]! - 1, Math.max(0, Math.floor(v)))) as unknown as Vec3;
    const reach = Math.ceil(Math.sqrt(away[cell[0] + cell[1] * strides[1] + cell[2] * strides[2]]!));
    // No point of a cell is farther than its farthest.
    if (reach <= most) return;
    let least = Infinity;
    for (let z = Math.max(0, cell[2] - reach); z <= Math.min(size[2] - 1, cell[2] + reach); z++)
      for (let y = Math.max(0, cell[1] - reach); y <= Math.min(size[1] - 1, cell[1] + reach); y++)
        for (let x = Math.max(0, cell[0] - reach); x <= Math.min(size[0] - 1, cell[0] + reach); x++) {
          if (solid[x + y * strides[1] + z * strides[2]] === 0) continue;
          const [dx, dy, dz] = [x, y, z].map((v, a) => Math.max(0, v - p[a]!, p[a]! - v - 1)) as [
            number,
            number,
            number,
          ];
          least = Math.min(least, dx * dx + dy * dy + dz * dz);
        }
    most = Math.max(most, Math.sqrt(least));
  };
  const corner = (i: number): Vec3 => [positions[i * 3]!, positions[i * 3 + 1]!, positions[i * 3 + 2]!];
  for (let t = 0; t < triangles.length; t += 3) {
    const [a, b, c] = [corner(triangles[t]!), corner(triangles[t + 1]!), corner(triangles[t + 2]!)];
    const [ab, ac] = [sub(b, a), sub(c, a)];
    const n = Math.max(1, Math.ceil(2 * Math.max(length(ab), length(ac), length(sub(c, b)))));
    for (let i = 0; i <= n; i++) for (let j = 0; i + j <= n; j++) look(add(a, add(scale(ab, i / n), scale(ac, j / n))));
  }
  return most;
}

/** Pairs whose hull reaches nowhere far are made one, as long as there are any. */
function* rejoined(pieces: { heap: Heap; hull: Hull }[], body: Body): Steps<typeof pieces> {
  const touch = (a: Heap, b: Heap): boolean => [0, 1, 2].every((i) => a.lo[i]! <= b.hi[i]! && b.lo[i]! <= a.hi[i]!);
  let list = [...pieces];
  for (let changed = true; changed;) {
    changed = false;
    for (let i = 0; i < list.length; i++)
      for (let k = list.length - 1; k > i; k--) {
        if (!touch(list[i]!.heap, list[k]!.heap)) continue;
        const cells = new Int32Array(list[i]!.heap.cells.length + list[k]!.heap.cells.length);
        cells.set(list[i]!.heap.cells);
        cells.set(list[k]!.heap.cells, list[i]!.heap.cells.length);
        const heap = heapOf(cells, body.space),
          hull = hullOf(heap, body.space);
        yield 0.8 + 0.2 * (i / list.length);
        if (reachesFar(hull, heap, body)) continue;
        list[i] = { heap, hull };
        list = list.toSpliced(k, 1);
        changed = true;
      }
  }
  return list;
}
