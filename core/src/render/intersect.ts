import { gridHit, intersectGrid } from './ray-grid';
import type { TraceInstance, TraceScene } from './trace-scene';

/** What `intersectScene` met last; valid until its next call. */
export const hit = {
  /** Distance along the (unit) direction. */
  t: Infinity,
  /** −1 for the floor. */
  instance: -1,
  /** Palette byte. */
  value: 0,
  nx: 0,
  ny: 1,
  nz: 0,
};

const missesBox = (
  i: TraceInstance,
  ox: number,
  oy: number,
  oz: number,
  ix: number,
  iy: number,
  iz: number,
  tMax: number,
): boolean => {
  const x0 = (i.lo[0] - ox) * ix,
    x1 = (i.hi[0] - ox) * ix;
  const y0 = (i.lo[1] - oy) * iy,
    y1 = (i.hi[1] - oy) * iy;
  const z0 = (i.lo[2] - oz) * iz,
    z1 = (i.hi[2] - oz) * iz;
  const near = Math.max(Math.min(x0, x1), Math.min(y0, y1), Math.min(z0, z1), 0);
  const far = Math.min(Math.max(x0, x1), Math.max(y0, y1), Math.max(z0, z1), tMax);
  return near > far;
};

/**
 * The nearest thing along a ray. Each ray is carried into every grid's own space with its direction not
 * normalised, so that distances compare. Returns whether anything was met; details go to `hit`.
 */
export function intersectScene(
  scene: TraceScene,
  ox: number,
  oy: number,
  oz: number,
  dx: number,
  dy: number,
  dz: number,
  tMin: number,
  tMax: number,
): boolean {
  hit.t = tMax;
  hit.instance = -2;
  const ix = 1 / dx,
    iy = 1 / dy,
    iz = 1 / dz;
  const list = scene.instances;
  for (let k = 0; k < list.length; k++) {
    const i = list[k]!;
    if (missesBox(i, ox, oy, oz, ix, iy, iz, hit.t)) continue;
    const m = i.toLocal;
    const lx = m[0]! * ox + m[4]! * oy + m[8]! * oz + m[12]!;
    const ly = m[1]! * ox + m[5]! * oy + m[9]! * oz + m[13]!;
    const lz = m[2]! * ox + m[6]! * oy + m[10]! * oz + m[14]!;
    const ex = m[0]! * dx + m[4]! * dy + m[8]! * dz;
    const ey = m[1]! * dx + m[5]! * dy + m[9]! * dz;
    const ez = m[2]! * dx + m[6]! * dy + m[10]! * dz;
    const t = intersectGrid(i.grid, lx, ly, lz, ex, ey, ez, tMin, hit.t);
    if (t < hit.t) {
      hit.t = t;
      hit.instance = k;
      hit.value = gridHit.value;
      const a = gridHit.axis * 3;
      hit.nx = i.axes[a]! * gridHit.sign;
      hit.ny = i.axes[a + 1]! * gridHit.sign;
      hit.nz = i.axes[a + 2]! * gridHit.sign;
    }
  }
  const floor = scene.light.groundY;
  if (floor !== null && dy < 0) {
    const t = (floor - oy) / dy;
    if (t > tMin && t < hit.t) {
      hit.t = t;
      hit.instance = -1;
      hit.value = 0;
      hit.nx = 0;
      hit.ny = 1;
      hit.nz = 0;
    }
  }
  return hit.instance !== -2;
}
