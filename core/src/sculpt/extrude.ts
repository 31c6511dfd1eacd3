import { type Axis, type Vec3, add, scale } from '../math';
import type { VoxelGrid } from '../voxel';
import { type MirrorPlanes, mirrorFaces } from './mirror';

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
  const u = ((axis + 1) % 3) as Axis, v = ((axis + 2) % 3) as Axis;
  const { min, size } = grid.bounds;
  const colour = grid.get(...cell);
  const open = (c: Vec3): boolean => {
    const value = grid.get(...c);
    return value !== 0 && (reach !== 'colour' || value === colour) && grid.get(c[0] + normal[0], c[1] + normal[1], c[2] + normal[2]) === 0;
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
    for (let iv = 0; iv < size[v]; iv++) for (let iu = 0; iu < size[u]; iu++) if (open(at(iu, iv))) out.push(at(iu, iv));
    return out;
  }
  const seen = new Uint8Array(size[u] * size[v]);
  const queue = [cell[u] - min[u] + (cell[v] - min[v]) * size[u]];
  seen[queue[0]!] = 1;
  while (queue.length > 0) {
    const i = queue.pop()!;
    const iu = i % size[u], iv = (i - iu) / size[u];
    out.push(at(iu, iv));
    for (const [nu, nv] of [[iu - 1, iv], [iu + 1, iv], [iu, iv - 1], [iu, iv + 1]] as const) {
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
  readonly mirror: MirrorPlanes;
}

/** The layer after a face was pulled or pushed. The face is the one seen; pulled cubes stop at others. */
export function extrude(layer: VoxelGrid, seen: VoxelGrid, e: Extrusion): VoxelGrid {
  return layer.edit((d) => {
    for (const face of mirrorFaces(e.cell, e.normal, e.mirror)) {
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
  });
}
