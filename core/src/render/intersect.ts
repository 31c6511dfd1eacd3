import { WIDE } from './instance-tree';
import { meetFloor } from './floor';
import { GridHit, intersectGrid, leaveCells } from './ray-grid';
import type { TraceScene } from './trace-scene';

/** Nodes that may wait at once: three a level and one, and the tree is cut in the middle at the worst. */
const MAX_DEPTH = 512;

/** The instance of a ray that meets none, and of one that met something which was not looked up yet. */
const NOTHING = -2;
const MET = -3;

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
  /** Axis of the face in its lattice. */
  axis = 0;
  /** An instance that is passed by; −1 for none. */
  skip = -1;
  /** The ray in the scene: its origin and direction. */
  private readonly along = new Float64Array(6);
  /** The ray in the space of the grid it is looked for in, as {@link intersectGrid} takes it. */
  private readonly local = new Float64Array(8);
  private leaf = 0;
  private sign = 1;
  private readonly normal = new Float64Array(3);
  /** Whether anything that is met will do. */
  private any = false;
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
    this.instance = NOTHING;
    if (scene.instances.length > 0) {
      const a = this.along;
      a[0] = ox;
      a[1] = oy;
      a[2] = oz;
      a[3] = dx;
      a[4] = dy;
      a[5] = dz;
      this.local[6] = tMin;
      this.walkTree(scene);
      // Whoever only asks whether something stands in the way asks no more.
      if (this.instance === MET && !this.any) this.settle(scene);
    }
    const { floor } = scene;
    if (floor) {
      const t = meetFloor(floor, ox, oy, oz, dx, dy, dz, tMin, this.t, this.normal);
      if (t < this.t) this.takeFloor(t);
    }
    return this.instance !== NOTHING;
  }

  /** Takes over what another ray met. */
  copy(other: SceneRay): void {
    this.t = other.t;
    this.instance = other.instance;
    this.value = other.value;
    this.axis = other.axis;
    this.nx = other.nx;
    this.ny = other.ny;
    this.nz = other.nz;
  }

  /** Whether anything stands in the way of a ray, whatever it is: quicker than what is nearest. */
  blocked(
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
    this.any = true;
    const met = this.intersect(scene, ox, oy, oz, dx, dy, dz, tMin, tMax);
    this.any = false;
    return met;
  }

  /**
   * Down the tree, the nearest box first; what lies behind what was met is passed by. Boxes are met by slabs (Kay & Kajiya
   * 1986), whose near sides follow from the signs of the direction. One loop, since pieces that share its state cost twice the
   * time.
   */
  private walkTree(scene: TraceScene): void {
    const { boxes, links } = scene.tree;
    const { stack, nears, along } = this;
    const sorted = !this.any;
    const ox = along[0]!,
      oy = along[1]!,
      oz = along[2]!;
    const ix = 1 / along[3]!,
      iy = 1 / along[4]!,
      iz = 1 / along[5]!;
    const nearX = ix < 0 ? 12 : 0,
      nearY = iy < 0 ? 16 : 4,
      nearZ = iz < 0 ? 20 : 8;
    const farX = 12 - nearX,
      farY = 20 - nearY,
      farZ = 28 - nearZ;
    let top = 0;
    stack[0] = 0;
    nears[0] = 0;
    while (top >= 0) {
      const link = stack[top]!;
      if (nears[top--]! > this.t) continue;
      if (link < 0) {
        this.meet(scene, -1 - link);
        if (this.any && this.instance !== NOTHING) return;
        continue;
      }
      const first = top + 1,
        t = this.t;
      for (let k = 0; k < WIDE; k++) {
        const b = link * 24 + k;
        // Most boxes are missed on the way across the ground already, which scenes are widest on; a ray along a side of a box
        // gives no number there, and what is not known to be missed is looked into.
        let near = (boxes[b + nearX]! - ox) * ix,
          far = (boxes[b + farX]! - ox) * ix;
        if (far < 0 || near > t) continue;
        const nz = (boxes[b + nearZ]! - oz) * iz,
          fz = (boxes[b + farZ]! - oz) * iz;
        if (fz < 0 || nz > far || near > fz || nz > t) continue;
        if (nz > near) near = nz;
        if (fz < far) far = fz;
        const ny = (boxes[b + nearY]! - oy) * iy,
          fy = (boxes[b + farY]! - oy) * iy;
        if (fy < near || ny > far || fy < 0 || ny > t) continue;
        if (ny > near) near = ny;
        // The nearest comes to stand on top; whoever asks only whether anything stands in the way takes them as they come.
        let at = ++top;
        while (sorted && at > first && nears[at - 1]! < near) {
          stack[at] = stack[at - 1]!;
          nears[at] = nears[at - 1]!;
          at--;
        }
        stack[at] = links[link * WIDE + k]!;
        nears[at] = near;
      }
    }
  }

  private meet(scene: TraceScene, leaf: number): void {
    if (this.skip >= 0 && scene.tree.order[leaf] === this.skip) return;
    const m = scene.tree.toLocal,
      o = leaf * 12;
    const m0 = m[o]!,
      m1 = m[o + 1]!,
      m2 = m[o + 2]!,
      m3 = m[o + 3]!,
      m4 = m[o + 4]!,
      m5 = m[o + 5]!,
      m6 = m[o + 6]!,
      m7 = m[o + 7]!,
      m8 = m[o + 8]!;
    const { along, local } = this;
    const ox = along[0]!,
      oy = along[1]!,
      oz = along[2]!;
    const dx = along[3]!,
      dy = along[4]!,
      dz = along[5]!;
    local[0] = m0 * ox + m3 * oy + m6 * oz + m[o + 9]!;
    local[1] = m1 * ox + m4 * oy + m7 * oz + m[o + 10]!;
    local[2] = m2 * ox + m5 * oy + m8 * oz + m[o + 11]!;
    local[3] = m0 * dx + m3 * dy + m6 * dz;
    local[4] = m1 * dx + m4 * dy + m7 * dz;
    local[5] = m2 * dx + m5 * dy + m8 * dz;
    local[7] = this.t;
    const t = intersectGrid(scene.tree.grids[leaf]!, local, this.hit);
    if (t >= this.t) return;
    this.t = t;
    this.leaf = leaf;
    this.instance = MET;
    this.value = this.hit.value;
    this.axis = this.hit.axis;
    this.sign = this.hit.sign;
  }

  /** What was met in the end: looked up once a ray, since it lies far away in memory. */
  private settle({ tree, instances }: TraceScene): void {
    this.instance = tree.order[this.leaf]!;
    const { axes } = instances[this.instance]!,
      a = this.axis * 3;
    this.nx = axes[a]! * this.sign;
    this.ny = axes[a + 1]! * this.sign;
    this.nz = axes[a + 2]! * this.sign;
  }

  private takeFloor(t: number): void {
    this.t = t;
    this.instance = -1;
    this.value = 0;
    this.nx = this.normal[0]!;
    this.ny = this.normal[1]!;
    this.nz = this.normal[2]!;
  }

  /**
   * Goes on within cubes of one value of an instance, up to where they end: what comes next there stands in the fields as if it was met,
   * with value 0 where that is empty.
   */
  leave(
    scene: TraceScene,
    instance: number,
    value: number,
    ox: number,
    oy: number,
    oz: number,
    dx: number,
    dy: number,
    dz: number,
    tMin: number,
  ): void {
    const { toLocal: m, axes, shape } = scene.instances[instance]!;
    this.t = leaveCells(
      shape.grid,
      m[0]! * ox + m[4]! * oy + m[8]! * oz + m[12]!,
      m[1]! * ox + m[5]! * oy + m[9]! * oz + m[13]!,
      m[2]! * ox + m[6]! * oy + m[10]! * oz + m[14]!,
      m[0]! * dx + m[4]! * dy + m[8]! * dz,
      m[1]! * dx + m[5]! * dy + m[9]! * dz,
      m[2]! * dx + m[6]! * dy + m[10]! * dz,
      tMin,
      value,
      this.hit,
    );
    this.instance = instance;
    this.value = this.hit.value;
    this.axis = this.hit.axis;
    const a = this.axis * 3,
      s = this.hit.sign;
    this.nx = axes[a]! * s;
    this.ny = axes[a + 1]! * s;
    this.nz = axes[a + 2]! * s;
  }
}
