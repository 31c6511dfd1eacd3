import type { MeshScene, MeshShape } from '../../codec';
import { type Mat4, type Vec3, transformPoint } from '../../math';
import { FINE } from './soup';

/** Triangles of one node in the space of all, nine numbers each. */
export interface Placed {
  readonly node: number;
  readonly corners: Float64Array;
  readonly origins: readonly { readonly shape: MeshShape; readonly first: number }[];
}

/**
 * All triangles of a scene by the node they are of; those that are nowhere are left out. A node that is mirrored has its faces turned.
 *
 * @returns with how many were left out
 */
export function placedTriangles(
  scene: MeshScene,
  worlds: readonly Mat4[],
): { readonly placed: Placed[]; readonly lost: number } {
  let lost = 0;
  const placed = scene.nodes.flatMap((n, node): Placed[] => {
    if (n.role === 'collider' || n.shapes.length === 0) return [];
    const m = worlds[node]!;
    const mirrored = determinant(m) < 0;
    const corners: number[] = [],
      origins: { shape: MeshShape; first: number }[] = [];
    for (const shape of n.shapes) {
      const world = new Float64Array(shape.positions.length);
      for (let i = 0; i < world.length; i += 3)
        world.set(transformPoint(m, [shape.positions[i]!, shape.positions[i + 1]!, shape.positions[i + 2]!]), i);
      for (let i = 0; i < shape.triangles.length; i += 3) {
        let whole = true;
        for (let k = 0; k < 9; k++) {
          const v = world[shape.triangles[i + Math.floor(k / 3)]! * 3 + (k % 3)]!;
          whole &&= Math.abs(v) < 1e12;
          corners.push(v);
        }
        if (whole) origins.push({ shape: mirrored ? turnedShape(shape) : shape, first: i });
        else {
          corners.length -= 9;
          lost++;
        }
        if (whole && mirrored)
          for (let a = 0; a < 3; a++) {
            const o = corners.length - 6 + a,
              kept = corners[o]!;
            corners[o] = corners[o + 3]!;
            corners[o + 3] = kept;
          }
      }
    }
    return origins.length > 0 ? [{ node, corners: Float64Array.from(corners), origins }] : [];
  });
  return { placed, lost };
}

const turnedShapes = new WeakMap<MeshShape, MeshShape>();
function turnedShape(shape: MeshShape): MeshShape {
  let t = turnedShapes.get(shape);
  if (!t) {
    const triangles = shape.triangles.slice();
    for (let i = 0; i < triangles.length; i += 3)
      [triangles[i + 1], triangles[i + 2]] = [triangles[i + 2]!, triangles[i + 1]!];
    turnedShapes.set(shape, (t = { ...shape, triangles }));
  }
  return t;
}

export const determinant = (m: Mat4): number =>
  m[0]! * (m[5]! * m[10]! - m[6]! * m[9]!) -
  m[4]! * (m[1]! * m[10]! - m[2]! * m[9]!) +
  m[8]! * (m[1]! * m[6]! - m[2]! * m[5]!);

export interface Extents {
  readonly lo: Vec3;
  readonly hi: Vec3;
}
export function extentsOf(placed: readonly Placed[]): Extents {
  const lo: [number, number, number] = [Infinity, Infinity, Infinity],
    hi: [number, number, number] = [-Infinity, -Infinity, -Infinity];
  for (const { corners } of placed)
    for (let i = 0; i < corners.length; i++) {
      const a = i % 3,
        v = corners[i]!;
      if (v < lo[a]!) lo[a] = v;
      if (v > hi[a]!) hi[a] = v;
    }
  return { lo, hi };
}

/** From the space of a scene to cubes: `p` stands at `p · cubes + shift`. Its middle is in the middle of a cube or between two, its foot on the ground. */
export interface Scaling {
  readonly cubes: number;
  readonly shift: Vec3;
}
export function scalingOf({ lo, hi }: Extents, cubes: number): Scaling {
  const shift = lo.map((v, a) => {
    const wide = Math.max(1, Math.round((hi[a]! - v) * cubes));
    const middle = ((v + hi[a]!) / 2) * cubes;
    return (a === 1 ? wide / 2 : wide % 2 === 0 ? 0 : 0.5) - middle;
  });
  return { cubes, shift: shift as unknown as Vec3 };
}

const awayFromZero = (v: number): number => Math.sign(v) * Math.round(Math.abs(v));

/** Corners on the lattice, from the lowest corner of the cells that hold them, a cell to spare on every side. */
export function onLattice(
  corners: Float64Array,
  { lo, hi }: Extents,
  { cubes, shift }: Scaling,
): { readonly min: Vec3; readonly size: Vec3; readonly fine: Int32Array } {
  const middle = lo.map((v, a) => (v + hi[a]!) / 2),
    at = middle.map((v, a) => Math.round((v * cubes + shift[a]!) * 2) * (FINE / 2));
  const fine = new Int32Array(corners.length),
    least = [Infinity, Infinity, Infinity],
    most = [-Infinity, -Infinity, -Infinity];
  for (let i = 0; i < corners.length; i++) {
    const a = i % 3,
      // From the middle, so that both sides of what is symmetric are rounded alike.
      v = at[a]! + awayFromZero((corners[i]! - middle[a]!) * cubes * FINE);
    fine[i] = v;
    if (v < least[a]!) least[a] = v;
    if (v > most[a]!) most[a] = v;
  }
  const min = least.map((v) => Math.floor(v / FINE) - 1) as unknown as Vec3,
    size = most.map((v, a) => Math.ceil(v / FINE) + 1 - min[a]!) as unknown as Vec3;
  for (let i = 0; i < fine.length; i++) fine[i]! -= min[i % 3]! * FINE;
  return { min, size, fine };
}
