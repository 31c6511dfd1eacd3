import { type Axis, type Box, type Vec3, add, intersectBoxes, scale } from '../math';
import { BRICK, BRICK_CELLS, CellSet, VoxelGrid, type GridDraft } from '../voxel';
import { mirrorFaces } from './mirror';
import { type Symmetry, forTurned } from './symmetry';

export const FACE_REACHES = ['face', 'colour', 'plane'] as const;
/** How far a face reaches: connected by edges, connected and of one colour, or every face in the plane. */
export type FaceReach = (typeof FACE_REACHES)[number];

export const axisOf = (normal: Vec3): Axis => (normal[0] !== 0 ? 0 : normal[1] !== 0 ? 1 : 2);

/**
 * The cells whose face towards `normal` is exposed and belongs to the same flat face as that of `cell`.
 * Empty when that face is covered or the cell is empty.
 */
export function faceRegion(grid: VoxelGrid, cell: Vec3, normal: Vec3, reach: FaceReach): Vec3[] {
  const axis = axisOf(normal);
  const u = ((axis + 1) % 3) as Axis,
    v = ((axis + 2) % 3) as Axis;
  const { min, size } = grid.bounds;
  const colour = grid.get(...cell);
  const open = (c: Vec3): boolean => {
    const value = grid.get(...c);
    return (
      value !== 0 &&
      (reach !== 'colour' || value === colour) &&
      grid.get(c[0] + normal[0], c[1] + normal[1], c[2] + normal[2]) === 0
    );
  };
  if (!open(cell)) return [];
  const at = (iu: number, iv: number): Vec3 => {
    const c: [number, number, number] = [cell[0], cell[1], cell[2]];
    c[u] = min[u] + iu;
    c[v] = min[v] + iv;
    return c;
  };
  const out: Vec3[] = [];
  if (reach === 'plane') {
    for (let iv = 0; iv < size[v]; iv++)
      for (let iu = 0; iu < size[u]; iu++) if (open(at(iu, iv))) out.push(at(iu, iv));
    return out;
  }
  const seen = new Uint8Array(size[u] * size[v]);
  const queue = [cell[u] - min[u] + (cell[v] - min[v]) * size[u]];
  seen[queue[0]!] = 1;
  while (queue.length > 0) {
    const i = queue.pop()!;
    const iu = i % size[u],
      iv = (i - iu) / size[u];
    out.push(at(iu, iv));
    for (const [nu, nv] of [
      [iu - 1, iv],
      [iu + 1, iv],
      [iu, iv - 1],
      [iu, iv + 1],
    ] as const) {
      if (nu < 0 || nv < 0 || nu >= size[u] || nv >= size[v]) continue;
      const n = nu + nv * size[u];
      if (seen[n] || !open(at(nu, nv))) continue;
      seen[n] = 1;
      queue.push(n);
    }
  }
  return out;
}

/** What an extrusion does, in plain data. */
export interface Extrusion {
  readonly cell: Vec3;
  /** Outward normal of the face that was taken hold of: one of the six unit directions. */
  readonly normal: Vec3;
  readonly reach: FaceReach;
  /** Layers pulled out (positive) or pushed in (negative). */
  readonly layers: number;
  /** Palette byte of new cubes, or null to keep the colour of the cube each grows from. */
  readonly value: number | null;
  readonly symmetry: Symmetry;
}

/**
 * The layer after a face was pulled or pushed. The face is the one seen; pulled cubes stop at others. Mirrored, the
 * faces that really stand opposite are taken; turned copies repeat what the first did.
 */
export function extrude(layer: VoxelGrid, seen: VoxelGrid, e: Extrusion, limit: Box = layer.bounds): VoxelGrid {
  const pull = (d: GridDraft): void => {
    for (const face of mirrorFaces(e.cell, e.normal, e.symmetry.mirror)) {
      for (const cell of faceRegion(seen, face.cell, face.normal, e.reach)) {
        if (e.layers < 0) {
          for (let i = 0; i < -e.layers; i++) d.set(...add(cell, scale(face.normal, -i)), 0);
          continue;
        }
        const value = e.value ?? seen.get(...cell);
        for (let i = 1; i <= e.layers; i++) {
          const c = add(cell, scale(face.normal, i));
          if (seen.get(...c) !== 0) break;
          d.set(...c, value);
        }
      }
    }
  };
  const once = layer.edit(pull, limit);
  const r = e.symmetry.radial;
  if (!r || once === layer) return once;
  // What a slice at the edge of the volume would lose must still reach its copies.
  const changed = changedCells(layer, once);
  const box = changed.tight!;
  const inside = intersectBoxes(limit, layer.bounds);
  return once.edit((d) => {
    for (let k = 1; k < r.count; k++) {
      forTurned(box, r, k, inside, (to, from) => {
        if (!changed.has(from[0], from[1], from[2])) return;
        const value = once.get(...from);
        if (value === 0 || seen.get(...to) === 0) d.set(to[0], to[1], to[2], value);
      });
    }
  }, limit);
}

/** The cells at which two grids of the same bounds differ. */
export function changedCells(before: VoxelGrid, after: VoxelGrid): CellSet {
  const set = new CellSet(after.bounds);
  for (const [bx, by, bz] of after.changedBricks(before)) {
    const a = before.brickAt(bx, by, bz),
      b = after.brickAt(bx, by, bz);
    for (let i = 0; i < BRICK_CELLS; i++) {
      if ((a ? a[i] : 0) !== (b ? b[i] : 0))
        set.addRun(
          bx * BRICK + (i & 15),
          bx * BRICK + (i & 15) + 1,
          by * BRICK + ((i >> 4) & 15),
          bz * BRICK + (i >> 8),
        );
    }
  }
  return set;
}

/** The cells of a set with their values, as a grid around them; null when nothing of it is filled. */
export function cutOut(grid: VoxelGrid, set: CellSet): VoxelGrid | null {
  const box = set.tight;
  if (!box) return null;
  const out = VoxelGrid.empty(box).edit((d) => set.forEach((x, y, z) => d.set(x, y, z, grid.get(x, y, z))));
  return out.count > 0 ? out : null;
}
