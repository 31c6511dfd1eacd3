import type { MeshShape, MeshSurface } from '../../codec';
import { toLinear } from '../../palette';
import type { Space } from '../../voxel';
import { meetings } from './columns';
import { type Looks, srgbByte } from './looks';
import type { Soup } from './soup';

/** A triangle of a shape. */
export interface Origin {
  readonly shape: MeshShape;
  /** Its first corner among those of the shape. */
  readonly first: number;
}

/** Looks of cells, as pairs that grow. */
export class Sightings {
  cells = new Int32Array(4096);
  looks = new Int32Array(4096);
  count = 0;
  add(cell: number, look: number): void {
    if (this.count === this.cells.length) {
      for (const k of ['cells', 'looks'] as const) {
        const wider = new Int32Array(this.count * 2);
        wider.set(this[k]);
        this[k] = wider;
      }
    }
    this.cells[this.count] = cell;
    this.looks[this.count++] = look;
  }
}

const LINEAR = Float64Array.from({ length: 256 }, (_, i) => toLinear(i / 255));

/**
 * Looks a body over along rows of cells in all three directions, several rows through each cell where there is room for it, and tells
 * which cell shows what: the filled one that is met, or that right behind.
 *
 * @param soup – turned outward
 * @param origins – of each triangle that the soup was made of
 */
export function seen(
  soup: Soup,
  origins: readonly Origin[],
  filled: Uint8Array,
  space: Space,
  looks: Looks,
): Sightings {
  const out = new Sightings();
  const fine = Math.max(1, Math.min(4, Math.floor(256 / Math.max(...soup.size))));
  const corner = new Int32Array(9),
    tint = new Float64Array(4),
    tints = new Float64Array(12);
  const { points, triangles } = soup;
  for (let t = 0; t < triangles.length; t += 3) {
    for (let k = 0; k < 9; k++) corner[k] = points[triangles[t + Math.floor(k / 3)]! * 3 + (k % 3)]! * fine;
    const { shape, first } = origins[soup.from[t / 3]!]!;
    const surface = looks.surfaceOf(shape);
    // A triangle that was turned has its second and third corner exchanged: they are found by where they are.
    const own = cornersOf(soup, t, shape, first);
    tintsOf(shape, own, tints);
    const [ua, va, ub, vb, uc, vc] = uvsOf(shape, own);
    const level = levelOf(corner, surface, looks, ua, va, ub, vb, uc, vc);
    for (const axis of [0, 1, 2] as const) {
      const [i, j] = [(axis + 1) % 3, (axis + 2) % 3] as [0 | 1 | 2, 0 | 1 | 2];
      meetings(corner, axis, space.size[i] * fine, space.size[j] * fine, (m) => {
        const at = Math.floor(m.u / fine) * space.strides[i] + Math.floor(m.v / fine) * space.strides[j];
        const cell = cellAt(Math.floor(m.cell / fine), m.forward, at, axis, filled, space);
        // Where two triangles meet one of them is seen.
        if (cell < 0 || !m.owned) return;
        const c = 1 - m.a - m.b;
        for (let k = 0; k < 4; k++) tint[k] = m.a * tints[k]! + m.b * tints[4 + k]! + c * tints[8 + k]!;
        out.add(cell, looks.at(surface, tint, m.a * ua + m.b * ub + c * uc, m.a * va + m.b * vb + c * vc, level));
      });
    }
  }
  return out;
}

/** The filled cell of a column at a place or right behind the triangle there. */
function cellAt(k: number, forward: boolean, at: number, axis: 0 | 1 | 2, filled: Uint8Array, space: Space): number {
  for (const next of [k, forward ? k - 1 : k + 1]) {
    if (next < 0 || next >= space.size[axis]) continue;
    const cell = at + next * space.strides[axis];
    if (filled[cell] === 1) return cell;
  }
  return -1;
}

const ORDERS = [
  [0, 1, 2],
  [0, 2, 1],
] as const;
/** Corners of the shape in the order in which the soup has them. */
function cornersOf(soup: Soup, t: number, shape: MeshShape, first: number): readonly [number, number, number] {
  const turned = soup.turned[t / 3] === 1 ? 1 : 0;
  const [a, b, c] = ORDERS[turned]!;
  return [shape.triangles[first + a]!, shape.triangles[first + b]!, shape.triangles[first + c]!];
}

function tintsOf({ colours }: MeshShape, corners: readonly [number, number, number], out: Float64Array): void {
  out.fill(1);
  if (!colours) return;
  corners.forEach((v, k) => {
    for (let c = 0; c < 3; c++) out[k * 4 + c] = LINEAR[colours[v * 4 + c]!]!;
    out[k * 4 + 3] = colours[v * 4 + 3]! / 255;
  });
}
function uvsOf({ uvs }: MeshShape, corners: readonly [number, number, number]) {
  const [a, b, c] = corners;
  const at = (i: number): number => (uvs ? uvs[i]! : 0);
  return [at(a * 2), at(a * 2 + 1), at(b * 2), at(b * 2 + 1), at(c * 2), at(c * 2 + 1)] as const;
}

/** How often a surface's picture is halved so that a row of cells sees about a texel. */
function levelOf(
  p: Int32Array,
  surface: MeshSurface,
  looks: Looks,
  ...[ua, va, ub, vb, uc, vc]: [number, number, number, number, number, number]
): number {
  const texels = looks.texelsOf(surface);
  if (!texels) return 0;
  const area = Math.abs((ub - ua) * (vc - va) - (vb - va) * (uc - ua)) * texels[0] * texels[1];
  const [x, y, z] = [p[3]! - p[0]!, p[4]! - p[1]!, p[5]! - p[2]!],
    [u, v, w] = [p[6]! - p[0]!, p[7]! - p[1]!, p[8]! - p[2]!];
  // In squares of the rows that look: the lattice is `fine` times as fine as cells.
  const size = Math.hypot(y * w - z * v, z * u - x * w, x * v - y * u) / (256 * 256);
  if (size === 0 || area === 0) return 0;
  return Math.max(0, Math.min(16, Math.round(0.5 * Math.log2(area / size) - 0.2)));
}

/** What cells show: a look plus one by cell, 0 where nothing was seen; which were seen; and which are cut out for the most part. */
export interface Shown {
  readonly looks: Int32Array;
  readonly seen: Int32Array;
  readonly cut: readonly number[];
}

/**
 * One look for each cell that shows something: most of what is seen of it, or the mean of it all, as light.
 *
 * @param sharp – whether it is the former
 */
export function shownOf(of: Sightings, space: Space, looks: Looks, sharp: boolean): Shown {
  const out = new Int32Array(space.count),
    cut: number[] = [],
    counts = new Map<number, number>();
  const seen = eachCell(of, space, (cell, from, to, order) => {
    counts.clear();
    for (let i = from; i < to; i++) {
      const l = of.looks[order[i]!]!;
      counts.set(l, (counts.get(l) ?? 0) + 1);
    }
    let best = -2,
      most = 0;
    for (const [l, n] of counts) if (n > most || (n === most && l < best)) [best, most] = [l, n];
    if (best === -1) cut.push(cell);
    else out[cell] = (sharp || counts.size === 1 ? best : meanOf(counts, best, looks)) + 1;
  });
  return { looks: out, seen, cut };
}

/** The finish of one look in the mean colour of several. */
function meanOf(counts: ReadonlyMap<number, number>, best: number, looks: Looks): number {
  let [r, g, b, all] = [0, 0, 0, 0];
  for (const [l, n] of counts) {
    if (l < 0) continue;
    const c = looks.colour(l);
    r += n * LINEAR[c >> 16]!;
    g += n * LINEAR[(c >> 8) & 255]!;
    b += n * LINEAR[c & 255]!;
    all += n;
  }
  return looks.withColour(best, srgbByte(r / all), srgbByte(g / all), srgbByte(b / all));
}

/** Sightings cell by cell, in the order in which they were first seen; most cells of a body are inside and have none. */
function eachCell(
  { cells, count }: Sightings,
  space: Space,
  visit: (cell: number, from: number, to: number, order: Int32Array) => void,
): Int32Array {
  const ids = new Int32Array(space.count),
    list = new Int32Array(count);
  let n = 0;
  for (let i = 0; i < count; i++) {
    const c = cells[i]!;
    if (ids[c] !== 0) continue;
    list[n++] = c;
    ids[c] = n;
  }
  const starts = new Int32Array(n + 1);
  for (let i = 0; i < count; i++) starts[ids[cells[i]!]!]!++;
  for (let k = 0; k < n; k++) starts[k + 1]! += starts[k]!;
  const order = new Int32Array(count),
    next = starts.slice();
  for (let i = 0; i < count; i++) order[next[ids[cells[i]!]! - 1]!++] = i;
  for (let k = 0; k < n; k++) visit(list[k]!, starts[k]!, starts[k + 1]!, order);
  return list.subarray(0, n);
}
