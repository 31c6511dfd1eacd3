import { QUAT_IDENTITY, type Steps, type Vec3, quatFromAxisAngle, scale, sub } from '../../math';
import { type CoverBox, boxAround, boxCoverSteps, closedSurfaceSteps, convexPiecesSteps, everyWay } from '../../mesh';
import { type VoxelGrid, byteTable } from '../../voxel';
import type { ShipCollider } from './ship-model';
import { colliderName } from './ship-names';
import type { ShipProfile } from './ship-profile';

type Shape = ShipCollider['shape'];
/** What stands for a grid, and how far the farthest point of either is from the other. */
export interface ColliderShapes {
  readonly shapes: readonly Shape[];
  readonly error: number;
}
/** In the lattice, before pivot and unit. */
const known = new WeakMap<VoxelGrid, Map<string, ColliderShapes>>();

/** What stands for a grid where things bump into it, from a pivot, in units of the target. In pieces; memoised for as long as the grid lives. */
export function* colliderShapes(
  grid: VoxelGrid,
  pivot: Vec3,
  unit: number,
  { shape, tolerance }: ShipProfile['collider'],
): Steps<ColliderShapes> {
  let ofGrid = known.get(grid);
  if (!ofGrid) known.set(grid, (ofGrid = new Map()));
  const key = `${shape} ${tolerance}`;
  let found = ofGrid.get(key);
  if (!found) ofGrid.set(key, (found = yield* latticeShapes(grid, shape, tolerance)));
  return {
    shapes: found.shapes.map((s): Shape => {
      if (s.kind === 'box') return { ...s, middle: scale(sub(s.middle, pivot), unit), size: scale(s.size, unit) };
      return { ...s, positions: s.positions.map((v, i) => (v - pivot[i % 3]!) * unit) };
    }),
    error: found.error * unit,
  };
}

const AXES = [
  [1, 0, 0],
  [0, 1, 0],
  [0, 0, 1],
] as const;
const boxShape = ({ middle, size, turn }: CoverBox): Shape => ({
  kind: 'box',
  middle,
  size,
  turn: turn ? quatFromAxisAngle(AXES[turn.axis], turn.angle) : QUAT_IDENTITY,
});

function* latticeShapes(
  grid: VoxelGrid,
  shape: ShipProfile['collider']['shape'],
  tolerance: number,
): Steps<ColliderShapes> {
  switch (shape) {
    case 'none':
      return { shapes: [], error: 0 };
    case 'one box': {
      const { boxes, error } = boxAround(grid);
      return { shapes: boxes.map(boxShape), error };
    }
    case 'boxes': {
      const { boxes, error } = yield* boxCoverSteps(grid, tolerance);
      return { shapes: boxes.map(boxShape), error };
    }
    case 'convex': {
      const { pieces, error } = yield* convexPiecesSteps(grid, tolerance);
      return {
        shapes: pieces.map(({ positions, triangles }): Shape => ({ kind: 'hull', positions, indices: triangles })),
        error,
      };
    }
    case 'exact': {
      const { positions, triangles } = yield* closedSurfaceSteps(grid, everyWay(byteTable(() => 0)));
      if (triangles.length === 0) return { shapes: [], error: 0 };
      return {
        shapes: [{ kind: 'mesh', positions: Float32Array.from(positions, (v) => v / 2), indices: triangles }],
        error: 0,
      };
    }
  }
}

/** Colliders of a node, named by the profile. */
export const namedColliders = (
  { shapes, error }: ColliderShapes,
  node: number,
  name: string,
  { names, collider }: ShipProfile,
): ShipCollider[] =>
  shapes.map((shape, i) => ({
    node,
    name: colliderName(names.collider, name, i + 1, shapes.length),
    moves: collider.moves,
    error,
    shape,
  }));
