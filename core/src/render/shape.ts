import { type Mat4, type Vec3, cross, invertMat, length, normalize, placedExtent } from '../math';
import type { VoxelGrid } from '../voxel';
import { type ShapeGlow, shapeGlow } from './glow';
import type { TraceSurfaces } from './material';
import { type RayGrid, rayGridOf } from './ray-grid';

/** A grid in the colours of a palette, made once however often it stands. */
export interface TraceShape {
  readonly grid: RayGrid;
  readonly surfaces: TraceSurfaces;
  /** Its glowing faces; null when nothing of it glows. */
  readonly glow: ShapeGlow | null;
  /** Whether any of it may be see-through. */
  readonly glassy: boolean;
}

/** A shape where it stands. */
export interface TraceInstance {
  readonly shape: TraceShape;
  /** Lattice → world, and back. */
  readonly toWorld: Float64Array;
  readonly toLocal: Float64Array;
  /** Unit normals of the lattice's axes in the world, 3 × 3. */
  readonly axes: Float64Array;
  /** Areas of a cube's faces in the world, by the axis that they look along. */
  readonly areas: Float64Array;
  /** World box. */
  readonly lo: Vec3;
  readonly hi: Vec3;
}

const rayGrids = new WeakMap<VoxelGrid, RayGrid | null>();
const shapes = new WeakMap<VoxelGrid, Map<TraceSurfaces, TraceShape>>();

/** The shape of a grid in some colours, the same each time; null when it is empty. */
export function traceShape(grid: VoxelGrid, surfaces: TraceSurfaces): TraceShape | null {
  let ray = rayGrids.get(grid);
  if (ray === undefined) rayGrids.set(grid, (ray = rayGridOf(grid)));
  if (!ray) return null;
  let byColour = shapes.get(grid);
  if (!byColour) shapes.set(grid, (byColour = new Map()));
  let shape = byColour.get(surfaces);
  if (!shape) {
    const glassy = ray.cells.some((v) => v !== 0 && surfaces.opacity[v]! < 1);
    shape = { grid: ray, surfaces, glow: shapeGlow(grid, surfaces), glassy };
    byColour.set(surfaces, shape);
  }
  return shape;
}

/** A grid as an instance; null when it is empty. `matrix` takes lattice points to the world. */
export function traceInstance(grid: VoxelGrid, surfaces: TraceSurfaces, matrix: Mat4): TraceInstance | null {
  const shape = traceShape(grid, surfaces);
  if (!shape) return null;
  const axes = new Float64Array(9);
  for (let a = 0; a < 3; a++) axes.set(normalize([matrix[a * 4]!, matrix[a * 4 + 1]!, matrix[a * 4 + 2]!]), a * 3);
  return {
    shape,
    toWorld: Float64Array.from(matrix),
    toLocal: Float64Array.from(invertMat(matrix)),
    axes,
    areas: Float64Array.from([0, 1, 2], (a) => {
      const b = ((a + 1) % 3) * 4,
        c = ((a + 2) % 3) * 4;
      const side = (o: number): Vec3 => [matrix[o]!, matrix[o + 1]!, matrix[o + 2]!];
      return length(cross(side(b), side(c)));
    }),
    // The cubes themselves: the grid for rays is wider by up to three cells.
    ...placedExtent(matrix, grid.contentBox()!),
  };
}

/** How many edges of its cubes a way of so many units of the world is long there. @param dx – with dy and dz the direction, of length 1 */
export const cubesAlong = ({ toLocal: m }: TraceInstance, way: number, dx: number, dy: number, dz: number): number =>
  way *
  Math.hypot(
    m[0]! * dx + m[4]! * dy + m[8]! * dz,
    m[1]! * dx + m[5]! * dy + m[9]! * dz,
    m[2]! * dx + m[6]! * dy + m[10]! * dz,
  );
