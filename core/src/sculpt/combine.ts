import {
  type Box,
  type Mat4,
  type Vec3,
  boxEnd,
  floor,
  intersectBoxes,
  invertMat,
  mulMat,
  placedExtent,
  sub,
  transformPoint,
  uniteBoxes,
  vec3Of,
} from '../math';
import { MAX_EDGE, VoxelGrid } from '../voxel';

export const COMBININGS = ['unite', 'subtract', 'intersect'] as const;
/** All of both; the first without the others; what is in all of them. */
export type Combining = (typeof COMBININGS)[number];

/** Cubes where they stand. */
export interface Body {
  readonly grid: VoxelGrid;
  /** From its lattice to the world. */
  readonly matrix: Mat4;
  /** What its bytes are in the result; null where they stay. */
  readonly bytes: Uint8Array | null;
}

/** How bodies meet on the lattice of the first. */
export interface Meeting {
  /** Each cube of the first is cut into so many along an edge, so that cubes meet cubes. */
  readonly factor: number;
  /** From each body's lattice to the result's. */
  readonly matrices: readonly Mat4[];
  /** Whether a body's cubes fall on whole ones of the result; what do not are looked up, cell by cell. */
  readonly exact: readonly boolean[];
  /** The box of the result, larger than a part perhaps. */
  readonly box: Box | null;
}

/** Cubes are cut no finer than this to meet. */
const FINEST = 4;
const NEAR = 1e-4;
const isWhole = (v: number): boolean => Math.abs(v - Math.round(v)) < NEAR;

/** The edge of a body's cubes on another lattice; null where it stands turned by no quarter, or squeezed. */
function edgeOf(m: Mat4): number | null {
  const linear = [0, 1, 2].map((c) => [m[c * 4]!, m[c * 4 + 1]!, m[c * 4 + 2]!].map(Math.abs));
  const edges = linear.map((column) => Math.max(...column));
  const square = linear.every((column, c) => column.filter((v) => v > edges[c]! * NEAR).length === 1);
  return square && edges.every((e) => Math.abs(e - edges[0]!) < NEAR * edges[0]!) ? edges[0]! : null;
}
/** Whether cubes meet cubes when those of the lattice are cut by a factor. */
function meets(m: Mat4, factor: number): boolean {
  const edge = edgeOf(m);
  return (
    edge !== null && edge * factor > 0.5 && isWhole(edge * factor) && [12, 13, 14].every((i) => isWhole(m[i]! * factor))
  );
}

/** How bodies meet on the first one's lattice: by the least cutting with which the most of them fall on whole cubes. */
export function meetingOf(bodies: readonly Body[], op: Combining): Meeting {
  const back = invertMat(bodies[0]!.matrix),
    on = bodies.map((b) => mulMat(back, b.matrix));
  const fits = Array.from({ length: FINEST }, (_, k) => on.filter((m) => meets(m, k + 1)).length),
    factor = fits.indexOf(Math.max(...fits)) + 1;
  const finer: Mat4 = [factor, 0, 0, 0, 0, factor, 0, 0, 0, 0, factor, 0, 0, 0, 0, 1];
  const matrices = on.map((m) => mulMat(finer, m)),
    exact = matrices.map((m) => meets(m, 1));
  const boxes = bodies.map((b, i) => boxOn(matrices[i]!, b.grid));
  const box =
    op === 'unite' ? boxes.reduce((all, b) => (all && b ? uniteBoxes(all, b) : (all ?? b)), null) : (boxes[0] ?? null);
  return { factor, matrices, exact, box };
}

function boxOn(m: Mat4, grid: VoxelGrid): Box | null {
  const content = grid.contentBox();
  if (!content) return null;
  const { lo, hi } = placedExtent(m, content);
  const min = vec3Of(lo.map((v) => Math.floor(v + NEAR)));
  return { min, size: sub(vec3Of(hi.map((v) => Math.ceil(v - NEAR))), min) };
}

/** Boxes of at most 256 along an edge that fill a larger one, all about alike. */
export function tilesOf({ min, size }: Box): Box[] {
  const cuts = size.map((s) => {
    const n = Math.ceil(s / MAX_EDGE);
    return Array.from({ length: n + 1 }, (_, i) => Math.round((s * i) / n));
  });
  const out: Box[] = [];
  for (let k = 1; k < cuts[2]!.length; k++)
    for (let j = 1; j < cuts[1]!.length; j++)
      for (let i = 1; i < cuts[0]!.length; i++) {
        const at: Vec3 = [cuts[0]![i - 1]!, cuts[1]![j - 1]!, cuts[2]![k - 1]!];
        const end: Vec3 = [cuts[0]![i]!, cuts[1]![j]!, cuts[2]![k]!];
        out.push({ min: [min[0] + at[0], min[1] + at[1], min[2] + at[2]], size: sub(end, at) });
      }
  return out;
}

/**
 * Bodies united, or others taken from the first or kept in common with it, on the first one's lattice; its own colours go before
 * theirs. Cube for cube where they meet exactly; else a cell is what is found under its middle.
 *
 * @returns grids of at most 256 along an edge that together are the result, those that are empty missing
 */
export function combined(bodies: readonly Body[], op: Combining, meeting = meetingOf(bodies, op)): VoxelGrid[] {
  if (!meeting.box) return [];
  return tilesOf(meeting.box).flatMap((tile) => {
    const own = onTile(bodies[0]!, meeting, 0, tile);
    const others = bodies.slice(1).map((b, i) => onTile(b, meeting, i + 1, tile));
    const grid = joined(own, others, op, tile),
      box = grid.contentBox();
    return box ? [grid.withBounds(box)] : [];
  });
}

function joined(own: VoxelGrid, others: readonly VoxelGrid[], op: Combining, tile: Box): VoxelGrid {
  if (op === 'unite')
    return VoxelGrid.empty(tile).edit((d) => {
      // What is set later goes before: the first one's colours last.
      for (const g of [...others].reverse()) g.forEach((x, y, z, v) => d.set(x, y, z, v));
      own.forEach((x, y, z, v) => d.set(x, y, z, v));
    });
  if (op === 'subtract')
    return own.edit((d) => {
      for (const g of others) g.forEach((x, y, z) => d.set(x, y, z, 0));
    });
  return own.edit((d) => {
    own.forEach((x, y, z) => {
      if (others.some((g) => g.get(x, y, z) === 0)) d.set(x, y, z, 0);
    });
  });
}

/** A body's cells on the part of the result's lattice that a box holds. */
function onTile({ grid, bytes }: Body, { matrices, exact }: Meeting, i: number, tile: Box): VoxelGrid {
  const m = matrices[i]!,
    byte = (v: number): number => (bytes ? bytes[v]! : v);
  const end = boxEnd(tile);
  const reach = boxOn(m, grid),
    box = reach && intersectBoxes(tile, reach);
  if (!box || box.size.some((s) => s <= 0)) return VoxelGrid.empty(tile);
  if (exact[i]) {
    const edge = Math.round(edgeOf(m)!);
    return VoxelGrid.empty(tile).edit((d) =>
      grid.forEach((x, y, z, v) => {
        const a = transformPoint(m, [x, y, z]),
          b = transformPoint(m, [x + 1, y + 1, z + 1]);
        const at = a.map((p, k) => Math.round(Math.min(p, b[k]!)));
        const [x0, y0, z0] = at as unknown as Vec3;
        for (let w = Math.max(z0, tile.min[2]); w < Math.min(z0 + edge, end[2]); w++)
          for (let u = Math.max(y0, tile.min[1]); u < Math.min(y0 + edge, end[1]); u++)
            for (let t = Math.max(x0, tile.min[0]); t < Math.min(x0 + edge, end[0]); t++) d.set(t, u, w, byte(v));
      }),
    );
  }
  const back = invertMat(m),
    last = boxEnd(box);
  return VoxelGrid.empty(tile).edit((d) => {
    for (let z = box.min[2]; z < last[2]; z++)
      for (let y = box.min[1]; y < last[1]; y++)
        for (let x = box.min[0]; x < last[0]; x++) {
          const v = grid.get(...floor(transformPoint(back, [x + 0.5, y + 0.5, z + 0.5])));
          if (v !== 0) d.set(x, y, z, byte(v));
        }
  });
}

/** A body's cubes on another lattice, cube for cube where they meet it, else looked up; null where there are none, or too many. */
export function onLattice(body: Body, home: Mat4): VoxelGrid | null {
  const m = mulMat(invertMat(home), body.matrix),
    box = boxOn(m, body.grid);
  if (!box || box.size.some((s) => s > MAX_EDGE)) return null;
  const grid = onTile(body, { matrices: [m], exact: [meets(m, 1)], factor: 1, box }, 0, box),
    content = grid.contentBox();
  return content && grid.withBounds(content);
}
