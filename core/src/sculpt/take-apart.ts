import {
  AXES,
  FACE_DIRECTIONS,
  type Axis,
  type Box,
  type Vec3,
  boxEnd,
  heaviestTree,
  mapVec,
  uniteBoxes,
  FNV_START,
  fnv1a,
} from '../math';
import { byteTable, CellSet, connectedPieces, piecesSet, type VoxelGrid } from '../voxel';

/** Where two sets of cells touch face to face. */
export interface Contact {
  readonly faces: number;
  /** How many of them look along each axis. */
  readonly along: Vec3;
  /** Middle of these faces, in half cubes. */
  readonly centre: Vec3;
}

/** The faces at which `a` touches `b`; null when they do not touch. */
export function contactOf(a: CellSet, b: CellSet): Contact | null {
  const along: [number, number, number] = [0, 0, 0],
    sum = [0, 0, 0];
  for (const step of FACE_DIRECTIONS) {
    const axis = step.findIndex((v) => v !== 0) as Axis;
    // Cells of a whose neighbour in that direction belongs to b.
    a.intersect(b.moved([-step[0], -step[1], -step[2]])).forEach((x, y, z) => {
      along[axis]++;
      sum[0]! += 2 * x + 1 + step[0];
      sum[1]! += 2 * y + 1 + step[1];
      sum[2]! += 2 * z + 1 + step[2];
    });
  }
  const faces = along[0] + along[1] + along[2];
  return faces === 0 ? null : { faces, along, centre: mapVec(sum, (v) => Math.round(v / faces)) };
}

/** The contacts of every two of up to 255 pieces that share no cell, in one pass over their cells; by `i · n + j` with i < j. */
export function contactsOf(pieces: readonly CellSet[]): ReadonlyMap<number, Contact> {
  const n = pieces.length,
    out = new Map<number, Contact>();
  const boxes = pieces.flatMap((p) => p.tight ?? []);
  if (boxes.length < 2) return out;
  const {
    min,
    size: [nx, ny, nz],
  } = CellSet.ofBoxes(boxes).tight!;
  const labels = new Uint8Array(nx * ny * nz);
  pieces.forEach((p, i) =>
    p.forEach((x, y, z) => {
      labels[x - min[0] + (y - min[1] + (z - min[2]) * ny) * nx] = i + 1;
    }),
  );
  const perAxis = (): readonly [Float64Array, Float64Array, Float64Array] => [
    new Float64Array(n * n),
    new Float64Array(n * n),
    new Float64Array(n * n),
  ];
  const along = perAxis(),
    sums = perAxis();
  const meet = (a: number, b: number, x: number, y: number, z: number, axis: Axis): void => {
    const k = a < b ? (a - 1) * n + b - 1 : (b - 1) * n + a - 1;
    along[axis][k]!++;
    sums[0][k]! += 2 * x + (axis === 0 ? 2 : 1);
    sums[1][k]! += 2 * y + (axis === 1 ? 2 : 1);
    sums[2][k]! += 2 * z + (axis === 2 ? 2 : 1);
  };
  for (let z = 0, i = 0; z < nz; z++)
    for (let y = 0; y < ny; y++)
      for (let x = 0; x < nx; x++, i++) {
        const a = labels[i]!;
        if (a === 0) continue;
        const right = x + 1 < nx ? labels[i + 1]! : 0,
          up = y + 1 < ny ? labels[i + nx]! : 0,
          front = z + 1 < nz ? labels[i + nx * ny]! : 0;
        if (right !== 0 && right !== a) meet(a, right, x, y, z, 0);
        if (up !== 0 && up !== a) meet(a, up, x, y, z, 1);
        if (front !== 0 && front !== a) meet(a, front, x, y, z, 2);
      }
  for (let k = 0; k < n * n; k++) {
    const each: Vec3 = [along[0][k]!, along[1][k]!, along[2][k]!],
      faces = each[0] + each[1] + each[2];
    if (faces > 0)
      out.set(k, { faces, along: each, centre: mapVec(min, (v, c) => Math.round(sums[c][k]! / faces + 2 * v)) });
  }
  return out;
}

/**
 * How much a contact looks like the joint that a piece in box `own` hangs by: its faces, more where they lie at the end of a
 * long piece than along its flank (a forearm that touches the trunk still hangs on its upper arm), and more the higher they
 * are (limbs hang down: of an arm against the trunk the upper arm is what hangs on it). By trial.
 */
function jointLike(contact: Contact, own: Box, all: Box): number {
  const mean = Math.cbrt(own.size[0] * own.size[1] * own.size[2]);
  const atEnds = AXES.reduce<number>((sum, c) => sum + contact.along[c] * (own.size[c] / mean) ** 2, 0);
  return atEnds * (1 + (contact.centre[1] / 2 - all.min[1]) / all.size[1]);
}

/**
 * Which piece each hangs on, by the contacts that are most like joints on the way to the root; −1 for the root and for what
 * nothing joins to it.
 */
export function hangingOn(
  pieces: readonly CellSet[],
  root: number,
): { readonly parent: number; readonly contact: Contact | null }[] {
  const out = pieces.map(() => ({ parent: -1, contact: null as Contact | null }));
  const boxes = pieces.map((p) => p.tight),
    all = boxes.reduce<Box | null>((u, b) => (u && b ? uniteBoxes(u, b) : (u ?? b)), null);
  const arcs = [...contactsOf(pieces)].flatMap(([k, contact]) => {
    const [i, j] = [Math.floor(k / pieces.length), k % pieces.length];
    return [
      { parent: i, child: j, weight: jointLike(contact, boxes[j]!, all!), contact },
      { parent: j, child: i, weight: jointLike(contact, boxes[i]!, all!), contact },
    ];
  });
  for (const { parent, child, contact } of heaviestTree(pieces.length, root, arcs)) out[child] = { parent, contact };
  return out;
}

/**
 * A plug: the piece goes on into the body by so many cubes from every face at which they touch, in the piece's own
 * colours, through cubes of the body that nobody sees: at rest nothing of it shows. Gives the cells to add, with their bytes.
 *
 * @param clearance – cubes by which it is thinner than the cut, all round
 */
export function plugOf(
  grid: VoxelGrid,
  piece: CellSet,
  body: CellSet,
  depth: number,
  clearance = 0,
): readonly (readonly [Vec3, number])[] {
  const found = new Map<string, readonly [Vec3, number]>();
  const buried = (x: number, y: number, z: number): boolean =>
    FACE_DIRECTIONS.every((s) => grid.get(x + s[0], y + s[1], z + s[2]) !== 0);
  for (const step of FACE_DIRECTIONS) {
    let faces = piece.intersect(body.moved([-step[0], -step[1], -step[2]]));
    const beside = FACE_DIRECTIONS.filter((s) => s.every((v, i) => v === 0 || step[i] === 0));
    for (let i = 0; i < clearance; i++) faces = beside.reduce((left, s) => left.intersect(faces.moved(s)), faces);
    faces.forEach((x, y, z) => {
      const value = grid.get(x, y, z);
      for (let k = 1; k <= depth; k++) {
        const c: Vec3 = [x + step[0] * k, y + step[1] * k, z + step[2] * k];
        if (!body.has(...c) || !buried(...c)) break;
        const key = c.join();
        if (!found.has(key)) found.set(key, [c, value]);
      }
    });
  }
  return [...found.values()];
}

/** Pieces that hang together by faces, largest first. */
export function splitByPieces(grid: VoxelGrid): CellSet[] {
  const pieces = connectedPieces(CellSet.filled(grid));
  return Array.from({ length: pieces.sizes.length }, (_, i) => piecesSet(pieces, (p) => p === i));
}

/** A set for each colour, most used first; with `family`, bytes of one ramp are one colour, named by its head. */
export function splitByColour(
  grid: VoxelGrid,
  family?: Uint8Array,
): { readonly byte: number; readonly cells: CellSet }[] {
  const bytes = new Map<number, Uint8Array>();
  grid.forEach((_x, _y, _z, v) => {
    const head = family ? family[v]! : v;
    let table = bytes.get(head);
    if (!table) bytes.set(head, (table = byteTable()));
    table[v] = 1;
  });
  return [...bytes]
    .map(([byte, table]) => ({ byte, cells: CellSet.matching(grid, table) }))
    .sort((a, b) => b.cells.count - a.cells.count || a.byte - b.byte);
}

/**
 * Connected patches of one colour, largest first. Specks of fewer than `least` cubes go with the patch that they touch most, so
 * that an eye stays in its head.
 */
export function splitByPatches(
  grid: VoxelGrid,
  family?: Uint8Array,
  least = 1,
): { readonly byte: number; readonly cells: CellSet }[] {
  const all = splitByColour(grid, family)
    .flatMap(({ byte, cells }) => {
      const pieces = connectedPieces(cells);
      return Array.from({ length: pieces.sizes.length }, (_, i) => ({
        byte,
        cells: piecesSet(pieces, (p) => p === i),
      }));
    })
    .sort((a, b) => b.cells.count - a.cells.count);
  const large = all.filter((p) => p.cells.count >= least);
  let specks = all.slice(large.length);
  if (large.length === 0 || specks.length > MOST_SPECKS) return all;
  // A speck on a speck waits until the lower one has gone to a patch.
  for (let before = -1; specks.length > 0 && specks.length !== before;) {
    before = specks.length;
    specks = specks.filter((speck) => {
      let best = -1,
        most = 0;
      large.forEach((p, i) => {
        const faces = contactOf(speck.cells, p.cells)?.faces ?? 0;
        if (faces > most) [best, most] = [i, faces];
      });
      if (best >= 0) large[best] = { ...large[best]!, cells: large[best]!.cells.union(speck.cells) };
      return best < 0;
    });
  }
  return [...large, ...specks];
}
/** More than these are noise, not specks. */
const MOST_SPECKS = 500;

/** Teeth of a cut: so many cubes wide and deep, every other one standing out, like a chequerboard. */
export interface Teeth {
  readonly width: number;
  readonly depth: number;
}

/**
 * What of a set lies below a plane between two rows of cubes (at `at`, in cubes), and what lies above. With teeth, the lower
 * side reaches up into the upper one; each cell is on exactly one side, so that the two always fit.
 */
export function splitByPlane(
  all: CellSet,
  axis: Axis,
  at: number,
  teeth: Teeth | null = null,
): readonly [low: CellSet, high: CellSet] {
  const box = all.tight;
  if (!box) return [all, all];
  const below = (to: number): CellSet =>
    all.within({
      min: box.min,
      size: mapVec(box.min, (m, i) => (i === axis ? Math.max(0, Math.min(boxEnd(box)[i]!, to) - m) : box.size[i]!)),
    });
  let low = below(at);
  if (teeth && teeth.depth > 0) {
    const reach: Vec3[] = [];
    const [u, v] = axis === 0 ? [1, 2] : axis === 1 ? [0, 2] : [0, 1];
    below(at + teeth.depth)
      .minus(low)
      .forEach((x, y, z) => {
        const c: Vec3 = [x, y, z];
        if (
          ((Math.floor((c[u]! - box.min[u]!) / teeth.width) + Math.floor((c[v]! - box.min[v]!) / teeth.width)) & 1) ===
          0
        )
          reach.push(c);
      });
    low = low.union(CellSet.ofCells(reach));
  }
  return [low, all.minus(low)];
}

/**
 * Which half of a cut becomes a piece of its own: the one away from the joint, that is, from what the whole hangs on. Where neither
 * half touches that, or both as much, the smaller one.
 */
export function awayFrom(
  joint: CellSet,
  halves: readonly [CellSet, CellSet],
): { readonly piece: CellSet; readonly stays: CellSet } {
  const [a, b] = halves;
  const faces = (s: CellSet): number => contactOf(s, joint)?.faces ?? 0;
  const by = faces(a) - faces(b) || a.count - b.count;
  return by > 0 ? { piece: b, stays: a } : { piece: a, stays: b };
}

/** A piece with a name and a side. */
export interface NamedCells {
  readonly name: string;
  readonly side: 'left' | 'right' | 'centre';
  readonly cells: CellSet;
}

/** How alike two pieces must be to be taken for a left and a right one. */
const ALIKE = 0.8;

/** Pieces in the middle that mirror one another across a plane (half cubes) become a left and a right one of one name; +X is left. */
export function withSides<T extends NamedCells>(pieces: readonly T[], half: number): T[] {
  const out = [...pieces];
  for (let i = 0; i < out.length; i++)
    for (let j = i + 1; j < out.length; j++) {
      const a = out[i]!,
        b = out[j]!;
      if (a.side !== 'centre' || b.side !== 'centre' || mirrorShare(a.cells, b.cells, 0, half) < ALIKE) continue;
      const left = a.cells.tight!.min[0] > b.cells.tight!.min[0];
      out[i] = { ...a, side: left ? 'left' : 'right' };
      out[j] = { ...b, name: a.name, side: left ? 'right' : 'left' };
    }
  return out;
}

const forms = new WeakMap<VoxelGrid, string>();

/** What a grid looks like wherever it stands, as a short text: alike for grids that are the same cube for cube. Memoised. */
export function formOf(grid: VoxelGrid): string {
  let form = forms.get(grid);
  if (form === undefined) {
    const box = grid.contentBox();
    let h = FNV_START;
    if (box) for (const v of grid.readBox(box)) h = fnv1a(h, v);
    form = box ? `${box.size.join('×')} ${grid.count} ${(h >>> 0).toString(16)}` : '';
    forms.set(grid, form);
  }
  return form;
}

/** Whether one set is about the mirror image of the other across a plane (half cubes): at least so large a share of both. */
export function mirrorShare(a: CellSet, b: CellSet, axis: Axis, half: number): number {
  let same = 0;
  a.forEach((x, y, z) => {
    const c: [number, number, number] = [x, y, z];
    c[axis] = half - 1 - c[axis]!;
    if (b.has(...c)) same++;
  });
  return same / Math.max(1, a.count, b.count);
}

const sources = new WeakMap<VoxelGrid, Map<number, number[]>>();
/** Larger grids are taken by what is touched alone: looking under every surface would be felt. */
const MOST_UNDER = 300_000;

/**
 * Cells of the surface together with the buried ones under them: a cell that no side shows goes with the surface cell it is
 * nearest to by steps through faces. So whoever paints a surface has the whole of it. Memoised by grid.
 */
export function withUnder(grid: VoxelGrid, cells: CellSet): CellSet {
  const box = grid.contentBox();
  if (!box || grid.count > MOST_UNDER) return cells;
  const [nx, ny, nz] = box.size;
  const at = (x: number, y: number, z: number): number =>
    ((z - box.min[2]) * ny + y - box.min[1]) * nx + x - box.min[0];
  let under = sources.get(grid);
  if (!under) {
    const dense = grid.readBox(box),
      from = new Int32Array(dense.length).fill(-1),
      queue: number[] = [];
    const steps = [1, -1, nx, -nx, nx * ny, -nx * ny];
    for (let i = 0, z = 0; z < nz; z++)
      for (let y = 0; y < ny; y++)
        for (let x = 0; x < nx; x++, i++) {
          if (dense[i] === 0) continue;
          const rim = x === 0 || y === 0 || z === 0 || x === nx - 1 || y === ny - 1 || z === nz - 1;
          if (rim || steps.some((s) => dense[i + s] === 0)) {
            from[i] = i;
            queue.push(i);
          }
        }
    under = new Map();
    for (let k = 0; k < queue.length; k++) {
      const i = queue[k]!,
        source = from[i]!;
      if (source !== i) {
        const list = under.get(source);
        if (list) list.push(i);
        else under.set(source, [i]);
      }
      // A buried cell has all its neighbours inside the box; a rim cell's may be beyond it.
      const x = i % nx,
        y = Math.floor(i / nx) % ny;
      steps.forEach((s, d) => {
        const j = i + s;
        if (j < 0 || j >= dense.length || dense[j] === 0 || from[j] !== -1) return;
        if ((d === 0 && x === nx - 1) || (d === 1 && x === 0) || (d === 2 && y === ny - 1) || (d === 3 && y === 0))
          return;
        from[j] = source;
        queue.push(j);
      });
    }
    sources.set(grid, under);
  }
  const more: Vec3[] = [];
  cells.intersect(CellSet.filled(grid)).forEach((x, y, z) => {
    for (const i of under.get(at(x, y, z)) ?? [])
      more.push([
        box.min[0] + (i % nx),
        box.min[1] + (Math.floor(i / nx) % ny),
        box.min[2] + Math.floor(i / (nx * ny)),
      ]);
  });
  return more.length === 0 ? cells : cells.union(CellSet.ofCells(more));
}
