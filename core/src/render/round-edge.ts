import type { SceneRay } from './intersect';
import { isFilled } from './ray-grid';
import type { TraceScene } from './trace-scene';

const PLACE = new Float64Array(3);

/**
 * Bends the normal near edges of cubes where nothing stands beside them, as if they were rounded.
 *
 * @param x – with y and z, the place that was met, in the world
 * @param normal – of the face that was met; bent
 */
export function roundEdge(
  scene: TraceScene,
  met: SceneRay,
  x: number,
  y: number,
  z: number,
  normal: Float64Array,
): void {
  const { shape, toLocal: m, axes } = scene.instances[met.instance]!;
  const { grid } = shape;
  for (let a = 0; a < 3; a++) PLACE[a] = m[a]! * x + m[4 + a]! * y + m[8 + a]! * z + m[12 + a]! - grid.min[a as 0]!;
  const axis = met.axis;
  const outward = axes[axis * 3]! * met.nx + axes[axis * 3 + 1]! * met.ny + axes[axis * 3 + 2]! * met.nz > 0 ? 1 : -1;
  const cell = [Math.floor(PLACE[0]!), Math.floor(PLACE[1]!), Math.floor(PLACE[2]!)];
  cell[axis] = Math.round(PLACE[axis]!) - (outward > 0 ? 1 : 0);
  const width = scene.edges;
  for (let k = 1; k < 3; k++) {
    const b = (axis + k) % 3;
    const u = PLACE[b]! - cell[b]!;
    const side = u < width ? -1 : u > 1 - width ? 1 : 0;
    if (side === 0) continue;
    cell[b]! += side;
    const beside = isFilled(grid, cell[0]!, cell[1]!, cell[2]!);
    cell[axis]! += outward;
    const above = isFilled(grid, cell[0]!, cell[1]!, cell[2]!);
    cell[axis]! -= outward;
    cell[b]! -= side;
    if (beside || above) continue;
    const bend = side * (1 - (side < 0 ? u : 1 - u) / width);
    for (let a = 0; a < 3; a++) normal[a]! += axes[b * 3 + a]! * bend;
  }
  const l = 1 / Math.hypot(normal[0]!, normal[1]!, normal[2]!);
  for (let a = 0; a < 3; a++) normal[a]! *= l;
}
