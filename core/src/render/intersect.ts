import { GridHit, intersectGrid } from './ray-grid';
import type { TraceInstance, TraceScene } from './trace-scene';

/** A ray that misses the box of an instance: slab method, with one over the direction. */
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

/** What a ray meets in a scene; one serves for millions of rays, and holds what the last one met. */
export class SceneRay {
  /** Distance along the (unit) direction. */
  t = Infinity;
  /** Which instance; −1 for the floor. */
  instance = -1;
  /** Palette byte. */
  value = 0;
  /** Outward normal of the face, of length 1. */
  nx = 0.5;
  ny = 0.5;
  nz = 0.5;
  private readonly hit = new GridHit();

  /**
   * The nearest thing along a ray. Each ray is carried into every grid's own space with its direction not normalised, so
   * that distances compare. Returns whether anything was met.
   */
  intersect(
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
    this.t = tMax;
    this.instance = -2;
    const ix = 1 / dx,
      iy = 1 / dy,
      iz = 1 / dz;
    const list = scene.instances;
    for (let k = 0; k < list.length; k++) {
      const i = list[k]!;
      if (missesBox(i, ox, oy, oz, ix, iy, iz, this.t)) continue;
      const m = i.toLocal;
      const lx = m[0]! * ox + m[4]! * oy + m[8]! * oz + m[12]!;
      const ly = m[1]! * ox + m[5]! * oy + m[9]! * oz + m[13]!;
      const lz = m[2]! * ox + m[6]! * oy + m[10]! * oz + m[14]!;
      const ex = m[0]! * dx + m[4]! * dy + m[8]! * dz;
      const ey = m[1]! * dx + m[5]! * dy + m[9]! * dz;
      const ez = m[2]! * dx + m[6]! * dy + m[10]! * dz;
      const t = intersectGrid(i.grid, lx, ly, lz, ex, ey, ez, tMin, this.t, this.hit);
      if (t < this.t) this.take(t, k, i);
    }
    const floor = scene.light.groundY;
    if (floor !== null && dy < 0) {
      const t = (floor - oy) / dy;
      if (t > tMin && t < this.t) this.takeFloor(t);
    }
    return this.instance !== -2;
  }

  private take(t: number, instance: number, { axes }: TraceInstance): void {
    const { value, axis, sign } = this.hit;
    this.t = t;
    this.instance = instance;
    this.value = value;
    this.nx = axes[axis * 3]! * sign;
    this.ny = axes[axis * 3 + 1]! * sign;
    this.nz = axes[axis * 3 + 2]! * sign;
  }

  private takeFloor(t: number): void {
    this.t = t;
    this.instance = -1;
    this.value = 0;
    this.nx = 0;
    this.ny = 1;
    this.nz = 0;
  }
}
