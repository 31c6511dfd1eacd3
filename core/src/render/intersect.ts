import { GridHit, intersectGrid } from './ray-grid';
import type { TraceInstance } from './shape';
import type { TraceScene } from './trace-scene';

/** Nodes that may wait at once: two a level, and the tree is cut in the middle at the worst. */
const MAX_DEPTH = 512;

/** How far along a ray a box begins, by slabs, with one over the direction; infinite when it is missed or begins beyond `tMax`. */
function nearOf(
  boxes: Float64Array,
  o: number,
  ox: number,
  oy: number,
  oz: number,
  ix: number,
  iy: number,
  iz: number,
  tMax: number,
): number {
  const x0 = (boxes[o]! - ox) * ix,
    x1 = (boxes[o + 3]! - ox) * ix;
  const y0 = (boxes[o + 1]! - oy) * iy,
    y1 = (boxes[o + 4]! - oy) * iy;
  const z0 = (boxes[o + 2]! - oz) * iz,
    z1 = (boxes[o + 5]! - oz) * iz;
  const near = Math.max(Math.min(x0, x1), Math.min(y0, y1), Math.min(z0, z1), 0);
  const far = Math.min(Math.max(x0, x1), Math.max(y0, y1), Math.max(z0, z1), tMax);
  return near > far ? Infinity : near;
}

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
  /** Nodes still to be looked at, and how far away their boxes begin. */
  private readonly stack = new Int32Array(MAX_DEPTH);
  private readonly nears = new Float64Array(MAX_DEPTH);

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
    this.walkTree(scene, ox, oy, oz, dx, dy, dz, ix, iy, iz, tMin);
    const floor = scene.light.groundY;
    if (floor !== null && dy < 0) {
      const t = (floor - oy) / dy;
      if (t > tMin && t < this.t) this.takeFloor(t);
    }
    return this.instance !== -2;
  }

  /** Down the tree, the nearer of two boxes first; what lies behind what was met is passed by. */
  private walkTree(
    scene: TraceScene,
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    ix: number,
    iy: number,
    iz: number,
    tMin: number,
  ): void {
    const { instances } = scene;
    const { boxes, first, count, order } = scene.tree;
    const { stack, nears } = this;
    if (instances.length === 0) return;
    let top = 0;
    stack[0] = 0;
    nears[0] = nearOf(boxes, 0, ox, oy, oz, ix, iy, iz, this.t);
    while (top >= 0) {
      const node = stack[top]!,
        near = nears[top]!;
      top--;
      if (near > this.t || near === Infinity) continue;
      const from = first[node]!,
        n = count[node]!;
      if (n > 0) {
        for (let k = from; k < from + n; k++) {
          const instance = order[k]!;
          this.meet(instances[instance]!, instance, ox, oy, oz, dx, dy, dz, tMin);
        }
        continue;
      }
      const a = nearOf(boxes, from * 6, ox, oy, oz, ix, iy, iz, this.t),
        b = nearOf(boxes, from * 6 + 6, ox, oy, oz, ix, iy, iz, this.t);
      const [far, close] = a <= b ? [from + 1, from] : [from, from + 1];
      if (Math.max(a, b) < Infinity) {
        stack[++top] = far;
        nears[top] = Math.max(a, b);
      }
      if (Math.min(a, b) < Infinity) {
        stack[++top] = close;
        nears[top] = Math.min(a, b);
      }
    }
  }

  private meet(
    i: TraceInstance,
    instance: number,
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    tMin: number,
  ): void {
    const m = i.toLocal;
    const lx = m[0]! * ox + m[4]! * oy + m[8]! * oz + m[12]!;
    const ly = m[1]! * ox + m[5]! * oy + m[9]! * oz + m[13]!;
    const lz = m[2]! * ox + m[6]! * oy + m[10]! * oz + m[14]!;
    const ex = m[0]! * dx + m[4]! * dy + m[8]! * dz;
    const ey = m[1]! * dx + m[5]! * dy + m[9]! * dz;
    const ez = m[2]! * dx + m[6]! * dy + m[10]! * dz;
    const t = intersectGrid(i.shape.grid, lx, ly, lz, ex, ey, ez, tMin, this.t, this.hit);
    if (t < this.t) this.take(t, instance, i);
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
