import { type Vec3, add, cross, dot, normalize, scale, sub } from '@sphalerite/core/math';
import type { Camera } from '@sphalerite/core/model';
import { OrthographicCamera, PerspectiveCamera } from 'three';

export const VIEWS = {
  front: [0, 0],
  back: [Math.PI, 0],
  left: [Math.PI / 2, 0],
  right: [-Math.PI / 2, 0],
  top: [0, Math.PI / 2],
  bottom: [0, -Math.PI / 2],
} as const;
export type ViewName = keyof typeof VIEWS;

export interface CameraState {
  readonly yaw: number;
  readonly pitch: number;
  readonly distance: number;
  readonly target: Vec3;
  readonly orthographic: boolean;
  readonly fov: number;
  readonly lens: Lens;
}

/** What a lens does besides: degrees it is turned by, how far the picture is moved over it, how wide it must see at least. */
export interface Lens {
  readonly roll: number;
  readonly shift: readonly [number, number];
  /** Width by height of a picture that must be seen whole; null for the view's own. */
  readonly aspect: number | null;
}
const PLAIN: Lens = { roll: 0, shift: [0, 0], aspect: null };
const OWN_FOV = 30;

/** A camera that circles a point: turn and tilt in radians, from the front and level. */
export class OrbitCamera {
  yaw = 0.55;
  pitch = 0.28;
  distance = 80;
  target: Vec3 = [0, 18, 0];
  /** Vertical, in degrees. */
  fov = OWN_FOV;
  lens: Lens = PLAIN;
  orthographic = false;
  /** Whether it stays where it is, whatever hands do; to be told where to stand still moves it. */
  locked = false;
  private readonly perspective = new PerspectiveCamera(this.fov, 1, 0.5, 4000);
  private readonly flat = new OrthographicCamera(-1, 1, 1, -1, -2000, 4000);

  get ahead(): Vec3 {
    const c = Math.cos(this.pitch);
    return [-Math.sin(this.yaw) * c, -Math.sin(this.pitch), -Math.cos(this.yaw) * c];
  }
  get right(): Vec3 {
    return [Math.cos(this.yaw), 0, -Math.sin(this.yaw)];
  }
  get up(): Vec3 {
    return normalize(cross(this.right, this.ahead));
  }
  get eye(): Vec3 {
    return add(this.target, scale(this.ahead, -this.distance));
  }
  /** Height of the view at the target, in world units. */
  get span(): number {
    return 2 * this.distance * Math.tan((this.fov * Math.PI) / 360);
  }

  turn(dx: number, dy: number): void {
    if (this.locked) return;
    this.yaw -= dx * 0.008;
    this.pitch = Math.max(-Math.PI / 2, Math.min(Math.PI / 2, this.pitch + dy * 0.008));
  }
  /** Moves the target by pixels of a view `height` pixels high. */
  pan(dx: number, dy: number, height: number): void {
    if (this.locked) return;
    const k = this.span / height;
    this.target = add(this.target, add(scale(this.right, -dx * k), scale(this.up, dy * k)));
  }
  /** Nearer (factor below 1) or farther, holding the point under (u, v) in −1…1 still. */
  zoom(factor: number, u = 0, v = 0, aspect = 1): void {
    if (this.locked) return;
    const next = Math.max(2, Math.min(1500, this.distance * factor));
    const k = (this.span / 2) * (1 - next / this.distance);
    this.target = add(this.target, add(scale(this.right, u * aspect * k), scale(this.up, v * k)));
    this.distance = next;
  }
  look(name: ViewName): void {
    [this.yaw, this.pitch] = VIEWS[name];
  }
  /** True isometric: all three axes equally foreshortened, without perspective. */
  lookIsometric(): void {
    this.yaw = Math.PI / 4;
    this.pitch = Math.atan(Math.SQRT1_2);
    this.orthographic = true;
  }
  /** The axis it looks along squarely and without perspective, or null. */
  get square(): 0 | 1 | 2 | null {
    if (!this.orthographic) return null;
    const i = this.ahead.findIndex((v) => Math.abs(v) > 1 - 1e-6);
    return i < 0 ? null : (i as 0 | 1 | 2);
  }
  /** Brings a ball into view. */
  frame(centre: Vec3, radius: number, aspect: number): void {
    this.target = centre;
    this.distance = Math.max(4, radius / Math.tan((this.fov * Math.PI) / 360) / Math.min(1, aspect) + radius * 0.4);
  }
  /**
   * Steps back, if it must, until every one of some points is in the picture.
   *
   * @param room – the share of half the picture, across and up, that they may take
   */
  includeAll(points: readonly Vec3[], aspect: number, room: readonly [number, number]): void {
    const half = Math.tan((this.fov * Math.PI) / 360);
    const { right, up, ahead } = this;
    for (const p of points) {
      const rel = sub(p, this.target);
      const across = Math.abs(dot(rel, right)) / (half * aspect * room[0]),
        over = Math.abs(dot(rel, up)) / (half * room[1]);
      // What stands nearer than the target is seen larger; without perspective it is not.
      const nearer = this.orthographic ? 0 : -dot(rel, ahead);
      this.distance = Math.max(this.distance, nearer + Math.max(across, over));
    }
  }
  /**
   * Comes as near as it can with all of some points in the picture, and looks at their middle there; the direction stays.
   *
   * @param room – what they may take of the picture, in −1…1 from left and bottom
   */
  fit(
    points: readonly Vec3[],
    aspect: number,
    room: { readonly lo: readonly [number, number]; readonly hi: readonly [number, number] },
  ): void {
    const half = Math.tan((this.fov * Math.PI) / 360),
      wide = [half * aspect, half] as const;
    const { right, up, ahead, orthographic } = this;
    // Each side of the picture is a plane that all points must lie within: the outermost of them says how near one may come,
    // and leaves room to either side along the axis that is not the tight one.
    const sides = [right, up].map((side, k) => {
      let [least, most] = [Infinity, -Infinity];
      for (const p of points) {
        const along = dot(p, side),
          deep = orthographic ? 0 : dot(p, ahead);
        most = Math.max(most, along - room.hi[k]! * wide[k]! * deep);
        least = Math.min(least, along - room.lo[k]! * wide[k]! * deep);
      }
      return { least, most, across: (room.hi[k]! - room.lo[k]!) * wide[k]! };
    });
    if (orthographic) this.distance = Math.max(4, ...sides.map((s) => (s.most - s.least) / s.across));
    const middle = scale(
      points.reduce((a, p) => add(a, p), [0, 0, 0] as Vec3),
      1 / points.length,
    );
    // Of the eye, in depth: without perspective the target is the middle, else what is in the middle stands at the target.
    const eye = orthographic
      ? dot(middle, ahead) - this.distance
      : Math.min(...sides.map((s) => (s.least - s.most) / s.across));
    if (!orthographic) this.distance = Math.max(4, dot(middle, ahead) - eye);
    this.target = scale(ahead, eye + this.distance);
    [right, up].forEach((side, k) => {
      const { least, most } = sides[k]!;
      const depth = orthographic ? this.distance : -eye;
      const at = (most + least) / 2 - ((room.hi[k]! + room.lo[k]!) / 2) * wide[k]! * depth;
      this.target = add(this.target, scale(side, at));
    });
  }
  /** All that says where it stands, to come back to. */
  state(): CameraState {
    const { yaw, pitch, distance, target, orthographic, fov, lens } = this;
    return { yaw, pitch, distance, target, orthographic, fov, lens };
  }
  restore(s: CameraState): void {
    Object.assign(this, s);
  }
  /** Stands where a shot's camera stands. */
  follow(camera: Camera): void {
    const d = [
      camera.target[0] - camera.eye[0],
      camera.target[1] - camera.eye[1],
      camera.target[2] - camera.eye[2],
    ] as const;
    const length = Math.hypot(...d);
    this.pitch = Math.asin(-d[1] / length);
    this.yaw = Math.atan2(-d[0], -d[2]);
    this.target = camera.target;
    this.orthographic = camera.kind !== 'perspective';
    this.fov = this.orthographic ? OWN_FOV : camera.fov;
    this.distance = this.orthographic ? camera.height / 2 / Math.tan((OWN_FOV * Math.PI) / 360) : length;
    this.lens = { ...this.lens, roll: camera.roll, shift: camera.shift };
  }

  /** The camera to draw with. */
  three(aspect: number): PerspectiveCamera | OrthographicCamera {
    const cam = this.orthographic ? this.flat : this.perspective;
    // A picture that is wider than the view is seen whole all the same.
    const wider = this.lens.aspect === null ? 1 : Math.max(1, this.lens.aspect / aspect);
    if (this.orthographic) {
      const h = (this.span / 2) * wider;
      this.flat.left = -h * aspect;
      this.flat.right = h * aspect;
      this.flat.top = h;
      this.flat.bottom = -h;
    } else {
      this.perspective.aspect = aspect;
      this.perspective.fov = (Math.atan(Math.tan((this.fov * Math.PI) / 360) * wider) * 360) / Math.PI;
      this.perspective.near = Math.max(0.2, this.distance / 200);
      this.perspective.far = this.distance * 12 + 1200;
    }
    cam.position.set(...this.eye);
    cam.up.set(...this.up);
    cam.lookAt(...this.target);
    cam.rotateZ((-this.lens.roll * Math.PI) / 180);
    cam.updateProjectionMatrix();
    this.moveOverLens(cam, aspect, wider);
    cam.updateMatrixWorld();
    return cam;
  }

  /** Moves the picture over the lens: what was beside it comes in without the lens being turned. */
  private moveOverLens(cam: PerspectiveCamera | OrthographicCamera, aspect: number, wider: number): void {
    const { shift } = this.lens;
    if (shift[0] === 0 && shift[1] === 0) return;
    // Told in halves of the picture, which may not fill the view.
    const frame = (this.lens.aspect ?? aspect) / aspect;
    const across = (shift[0] * frame) / wider,
      up = shift[1] / wider;
    const m = cam.projectionMatrix.elements;
    const at = cam === this.flat ? 12 : 8,
      sign = cam === this.flat ? -1 : 1;
    m[at]! += sign * across;
    m[at + 1]! += sign * up;
    cam.projectionMatrixInverse.copy(cam.projectionMatrix).invert();
  }
}
