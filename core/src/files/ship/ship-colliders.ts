import { type Steps, type Vec3, add, scale, sub } from '../../math';
import { boxCoverSteps, closedSurfaceSteps, convexPiecesSteps, everyWay } from '../../mesh';
import { type VoxelGrid, byteTable } from '../../voxel';
import type { ShipCollider } from './ship-model';
import { colliderName } from './ship-names';
import type { ShipProfile } from './ship-profile';

type Shape = ShipCollider['shape'];
/** In the lattice, before pivot and unit. */
const known = new WeakMap<VoxelGrid, Map<string, readonly Shape[]>>();

/** What stands for a grid where things bump into it, from a pivot, in units of the target. In pieces; memoised for as long as the grid lives. */
export function* colliderShapes(
  grid: VoxelGrid,
  pivot: Vec3,
  unit: number,
  { shape, tolerance }: ShipProfile['collider'],
): Steps<readonly Shape[]> {
  let ofGrid = known.get(grid);
  if (!ofGrid) known.set(grid, (ofGrid = new Map()));
  const key = `${shape} ${tolerance}`;
  let shapes = ofGrid.get(key);
  if (!shapes) ofGrid.set(key, (shapes = yield* latticeShapes(grid, shape, tolerance)));
  return shapes.map((s): Shape => {
    if (s.kind === 'box') return { kind: 'box', middle: scale(sub(s.middle, pivot), unit), size: scale(s.size, unit) };
    return { ...s, positions: s.positions.map((v, i) => (v - pivot[i % 3]!) * unit) };
  });
}

function* latticeShapes(
  grid: VoxelGrid,
  shape: ShipProfile['collider']['shape'],
  tolerance: number,
): Steps<readonly Shape[]> {
  const whole = grid.contentBox();
  if (!whole) return [];
  switch (shape) {
    case 'none':
      return [];
    case 'one box':
    case 'boxes': {
      const boxes = shape === 'one box' ? [whole] : yield* boxCoverSteps(grid, tolerance);
      return boxes.map(({ min, size }): Shape => ({ kind: 'box', middle: add(min, scale(size, 0.5)), size }));
    }
    case 'convex':
      return (yield* convexPiecesSteps(grid, tolerance)).map(({ positions, triangles }): Shape => ({
        kind: 'hull',
        positions,
        indices: triangles,
      }));
    case 'exact': {
      const { positions, triangles } = yield* closedSurfaceSteps(grid, everyWay(byteTable(() => 0)));
      return [{ kind: 'mesh', positions: Float32Array.from(positions, (v) => v / 2), indices: triangles }];
    }
  }
}

/** Colliders of a node, named by the profile. */
export const namedColliders = (
  shapes: readonly Shape[],
  node: number,
  name: string,
  { names, collider }: ShipProfile,
): ShipCollider[] =>
  shapes.map((shape, i) => ({
    node,
    name: colliderName(names.collider, name, i + 1, shapes.length),
    moves: collider.moves,
    shape,
  }));
