import { type Extent, type Vec3, add, boxCorners, placedExtent, sub, uniteExtents } from '@sphalerite/core/math';
import { type DrawInstance, type DrawList, instanceExtent } from '@sphalerite/core/scene';
import {
  DirectionalLight,
  GridHelper,
  HemisphereLight,
  Mesh,
  PCFShadowMap,
  PlaneGeometry,
  Scene,
  ShadowMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { type CoarsenInBackground, Detail, type Eye, type SeenInstance } from './drawn/detail';
import type { Sharpness } from './sharpness';
import { DrawnScene } from './drawn/drawn-scene';
import type { MeshInBackground } from './drawn/grid-skin';
import type { DrawStyle } from './drawn/style';
import { DrawnLamps } from './drawn/drawn-lamps';
import { OrbitCamera } from './orbit-camera';
import { type Overlay, OverlayView } from './overlay';

/** What the view shows; given whole, drawn by difference. */
export interface ViewScene {
  readonly list: DrawList;
  /** How each is drawn, null to leave it out; without, all plainly. */
  readonly styleOf?: (i: DrawInstance) => DrawStyle | null;
  /** Lines: none, between cubes, or where colours meet. */
  readonly edges: 'none' | 'cubes' | 'colours';
  /** Light on the cubes; without, swatches show as they are. */
  readonly lit: boolean;
  readonly glow: boolean;
  readonly shadows: boolean;
  readonly grid: boolean;
  /** Edge of a cube of what is worked on: that of a square of the floor; 1 by default. */
  readonly cube?: number;
  /** Height of the floor, in project units; 0 by default. */
  readonly floor?: number;
  readonly besides?: readonly Beside[];
  /** Lamps that light the cubes; the brightest few, since each costs with every pixel. */
  readonly lamps?: readonly ViewLamp[];
  /** A hand is moving: shadows follow when it rests. */
  readonly hurry?: boolean;
}

/** A lamp where it shines, in the world. */
export interface ViewLamp {
  readonly at: Vec3;
  /** A point far along the way that it shines. */
  readonly towards: Vec3;
  readonly colour: string;
  /** As bright as the drawn light makes it. */
  readonly power: number;
  /** Half the angle of its cone, in radians; null for all around. */
  readonly cone: number | null;
}

/** What stands beside what is worked on: other looks, and moments before and after. */
export interface Beside {
  readonly list: DrawList;
  readonly shift: Vec3;
  /** Drawn faintly, as where it was or will be. */
  readonly moment: boolean;
}

/** A ray in the world. */
export interface WorldRay {
  readonly origin: Vec3;
  readonly dir: Vec3;
}

/**
 * The drawn world: parts, floor, overlay, one camera. Framework-free; draws only when something changed.
 */
export class Viewport {
  readonly camera = new OrbitCamera();
  readonly canvas: HTMLCanvasElement;
  private readonly renderer: WebGLRenderer;
  private readonly scene = new Scene();
  private readonly overlay = new OverlayView(() => this.invalidateOverlay());
  private lastOverlay: Overlay | null = null;
  private readonly uniforms = { edges: { value: 0 }, lit: { value: 1 }, glow: { value: 1 }, around: { value: 1 } };
  private readonly drawn: DrawnScene;
  private readonly detail: Detail;
  /** What stands for the list, from where it is looked at. */
  private seen: DrawList = [];
  private readonly sun = new DirectionalLight(0xfff4e2, 2.1);
  private readonly floor: Mesh;
  private readonly lit = new DrawnLamps();
  private readonly grid: GridHelper;
  private readonly sized: ResizeObserver;
  private waiting = 0;
  private lost = false;
  /** What was framed last, and where the camera stood for it. */
  private framed: (Extent & { readonly whole: boolean; readonly distance: number; readonly target: Vec3 }) | null =
    null;
  private current: ViewScene | null = null;
  /** What stands in the view, drawn or left out. */
  list: DrawList = [];
  /** How far from the middle shadows fall. */
  private reach = 30;
  /** Frames drawn so far, for tests of drawing on demand. */
  frames = 0;
  /** Pictures that the graphics card holds, for tests of letting them go. */
  get textures(): number {
    return this.renderer.info.memory.textures;
  }
  /** Quads that are drawn, for tests of the level of detail. */
  get quads(): number {
    return this.drawn.quads;
  }
  /** Called after each frame, for whatever follows the camera. */
  onFrame: () => void = () => undefined;

  constructor(
    private readonly host: HTMLElement,
    background: { readonly mesh: MeshInBackground; readonly coarsen: CoarsenInBackground },
  ) {
    const arrived = (): void => {
      this.renderer.shadowMap.needsUpdate = this.current?.shadows ?? false;
      this.invalidate();
    };
    this.drawn = new DrawnScene(background.mesh, arrived, this.uniforms);
    this.detail = new Detail(background.coarsen, (g) => this.drawn.quadsOf(g), arrived);
    this.renderer = new WebGLRenderer({ antialias: true, alpha: true, powerPreference: 'high-performance' });
    this.sharpen('fine');
    this.renderer.setClearColor(0x000000, 0);
    // Asking each program for its errors stops everything until it is compiled; the tests would show a broken one.
    this.renderer.debug.checkShaderErrors = import.meta.env.DEV;
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = PCFShadowMap;
    this.renderer.shadowMap.autoUpdate = false;
    this.canvas = this.renderer.domElement;
    this.canvas.tabIndex = 0;
    host.append(this.canvas);
    this.scene.add(new HemisphereLight(0xf6f7ff, 0xc4b198, 2.05));
    this.sun.position.set(60, 110, 90);
    this.sun.castShadow = true;
    this.sun.shadow.mapSize.set(1024, 1024);
    this.sun.shadow.bias = -0.0015;
    this.sun.shadow.normalBias = 0.5;
    this.scene.add(this.sun, this.sun.target);
    this.floor = new Mesh(
      new PlaneGeometry(1, 1).rotateX(-Math.PI / 2),
      // It hides nothing that reaches below it, transparent things included.
      new ShadowMaterial({ opacity: 0.2, color: 0x3a2f22, depthWrite: false }),
    );
    this.floor.receiveShadow = true;
    this.floor.scale.setScalar(600);
    this.grid = new GridHelper(96, 96, 0x8a7f70, 0x8a7f70);
    for (const m of [this.grid.material].flat()) {
      m.transparent = true;
      m.opacity = 0.16;
      m.depthWrite = false;
    }
    this.scene.add(this.drawn.group, this.lit.group, this.floor, this.grid, this.overlay.group);
    // The browser may take the graphics away and give them back; all buffers are made again by three then.
    this.canvas.addEventListener('webglcontextlost', (e) => {
      e.preventDefault();
      this.lost = true;
    });
    this.canvas.addEventListener('webglcontextrestored', () => {
      this.lost = false;
      this.renderer.shadowMap.needsUpdate = true;
      this.invalidate();
    });
    this.sized = new ResizeObserver(() => this.resize());
    this.sized.observe(host);
    this.resize();
  }

  get size(): { width: number; height: number } {
    return { width: Math.max(1, this.host.clientWidth), height: Math.max(1, this.host.clientHeight) };
  }
  get aspect(): number {
    return this.size.width / this.size.height;
  }
  /** Whether a scene is drawn, and not only the empty ground. */
  get drawsScene(): boolean {
    return this.current !== null;
  }
  /** Whether nothing waits to be drawn. */
  get still(): boolean {
    return this.waiting === 0;
  }

  /** How many pixels are drawn for each of the screen's: what it has, one at most, or a quarter of one. */
  sharpen(sharpness: Sharpness): void {
    const ratio = { fine: Math.min(2, devicePixelRatio), plain: Math.min(1, devicePixelRatio), quick: 0.5 }[sharpness];
    if (ratio === this.renderer.getPixelRatio()) return;
    this.renderer.setPixelRatio(ratio);
    this.invalidate();
  }

  /** Asks for a picture with the next frame of the browser. */
  invalidate(): void {
    if (this.waiting !== 0) return;
    this.waiting = requestAnimationFrame(() => {
      this.waiting = 0;
      this.draw();
    });
  }

  setOverlay(overlay: Overlay): void {
    this.lastOverlay = overlay;
    this.overlay.set(overlay);
    this.invalidate();
  }

  private invalidateOverlay(): void {
    if (this.lastOverlay) this.setOverlay(this.lastOverlay);
  }

  setScene(next: ViewScene): void {
    this.current = next;
    if (next.list !== this.list) this.reach = shadowReach(next.list);
    this.list = next.list;
    this.show(this.detail.seen(next.list, this.eye));
    this.lit.set(next.lamps ?? []);
    this.uniforms.edges.value = next.edges === 'cubes' ? 1 : 0;
    this.uniforms.lit.value = next.lit ? 1 : 0;
    this.uniforms.glow.value = next.glow ? 1 : 0;
    // A square of the floor is a cube of what is worked on, wherever that is small enough to be seen so.
    this.grid.scale.setScalar(next.cube ?? 1);
    this.grid.position.y = this.floor.position.y = next.floor ?? 0;
    this.grid.visible = next.grid;
    this.sun.castShadow = next.shadows;
    this.floor.visible = next.shadows;
    if (!next.hurry) this.renderer.shadowMap.needsUpdate = next.shadows;
    this.invalidate();
  }

  private get eye(): Eye {
    const { camera } = this;
    const half = Math.tan((camera.fov * Math.PI) / 360) * (camera.orthographic ? camera.distance : 1);
    const { eye: at, ahead, orthographic } = camera;
    return {
      at,
      ahead,
      orthographic,
      pixels: (this.size.height * Math.max(1, this.renderer.getPixelRatio())) / (2 * half),
    };
  }
  private show(seen: DrawList): void {
    const { styleOf = (): DrawStyle => 'plain', edges, besides = [] } = this.current!;
    const whole = (i: SeenInstance): DrawStyle | null => styleOf(i.whole ?? i);
    this.seen = seen;
    this.drawn.set([
      { list: seen, styleOf: whole, shift: [0, 0, 0], lined: edges === 'colours', moment: false },
      ...besides.map((b) => ({ ...b, styleOf, lined: false })),
    ]);
  }

  /** The ray under a point of the page. */
  rayAt(clientX: number, clientY: number): WorldRay {
    const box = this.canvas.getBoundingClientRect();
    const u = ((clientX - box.left) / box.width) * 2 - 1,
      v = 1 - ((clientY - box.top) / box.height) * 2;
    const cam = this.camera.three(this.aspect);
    const near = new Vector3(u, v, -1).unproject(cam),
      far = new Vector3(u, v, 1).unproject(cam);
    const d = far.sub(near).normalize();
    return { origin: [near.x, near.y, near.z], dir: [d.x, d.y, d.z] };
  }

  /** Where points of the world stand on the page as it is now, in CSS pixels; for many at once. */
  projection(): (p: Vec3) => { x: number; y: number; ahead: boolean } {
    const box = this.canvas.getBoundingClientRect();
    const camera = this.camera.three(this.aspect);
    const v = new Vector3();
    return (p) => {
      v.set(...p).project(camera);
      return { x: box.left + ((v.x + 1) / 2) * box.width, y: box.top + ((1 - v.y) / 2) * box.height, ahead: v.z < 1 };
    };
  }
  /** Where a point of the world stands on the page, in CSS pixels. */
  screenOf(p: Vec3): { x: number; y: number; ahead: boolean } {
    return this.projection()(p);
  }

  /** What some of what stands there takes up, copies beside it included; null when there is none. */
  extentOf(which: (i: DrawInstance) => boolean): Extent | null {
    let all: Extent | null = null;
    const shifts: Vec3[] = [[0, 0, 0], ...(this.current?.besides?.map((c) => c.shift) ?? [])];
    for (const i of this.list.filter(which)) {
      const { lo, hi } = instanceExtent(i) ?? boundsExtent(i);
      for (const s of shifts) all = uniteExtents(all, { lo: add(lo, s), hi: add(hi, s) });
    }
    return all;
  }
  /** Frames everything; for a picture that is narrower than the view, `aspect` says how wide. */
  frame(aspect = this.aspect): void {
    if (this.camera.locked) return;
    const all = this.extentOf(() => true);
    if (!all) return;
    const narrow = Math.min(aspect, this.aspect);
    this.frameBox(all.lo, all.hi, narrow);
    // Of a scene that is wider than tall a ball would leave much of the picture empty.
    const wide = Math.max(all.hi[0] - all.lo[0], all.hi[2] - all.lo[2]);
    if (wide < 1.2 * (all.hi[1] - all.lo[1]) || !this.list.some((i) => i.source.path.length > 0)) return;
    const corners = this.list.flatMap((i) => {
      const { lo, hi } = instanceExtent(i) ?? boundsExtent(i);
      return boxCorners({ min: lo, size: sub(hi, lo) });
    });
    const { height } = this.size;
    const room = {
      lo: [-0.92 * Math.min(1, narrow / this.aspect), -0.9],
      hi: [0.92 * Math.min(1, narrow / this.aspect), 1 - 150 / Math.max(400, height)],
    } as const;
    this.camera.fit(corners, this.aspect, room);
    this.framed = { ...all, whole: true, distance: this.camera.distance, target: this.camera.target };
  }

  /** Looks along another direction. What was framed, and not come nearer to since, is framed again. */
  look(turn: (camera: OrbitCamera) => void): void {
    if (this.camera.locked) return;
    const { framed } = this;
    const still = this.holdsStill;
    turn(this.camera);
    if (still) this.frameAgain(framed!);
    else this.invalidate();
  }
  /** Whether the camera is as near, and looks at the same, as when something was framed. */
  private get holdsStill(): boolean {
    const { framed, camera } = this;
    return framed !== null && framed.distance === camera.distance && framed.target === camera.target;
  }
  private frameAgain(framed: NonNullable<Viewport['framed']>): void {
    if (framed.whole) this.frame();
    else this.frameBox(framed.lo, framed.hi);
  }

  /** Frames a box of the world. */
  frameBox(lo: Vec3, hi: Vec3, aspect = this.aspect): void {
    if (this.camera.locked) return;
    const centre: Vec3 = [(lo[0] + hi[0]) / 2, (lo[1] + hi[1]) / 2, (lo[2] + hi[2]) / 2];
    const { height } = this.size;
    // The line that says where one is and the chips take a strip at the top.
    const tall = (hi[1] - lo[1]) / 2 / (1 - 70 / Math.max(260, height));
    const radius = Math.max(
      tall,
      Math.hypot(hi[0] - lo[0], hi[2] - lo[2]) / (this.current?.besides?.length ? 2.4 * aspect : 2.4),
      3,
    );
    this.camera.frame([centre[0], centre[1] + (hi[1] - lo[1]) * 0.03, centre[2]], radius * 1.14, aspect);
    const corners = boxCorners({ min: lo, size: sub(hi, lo) });
    this.camera.includeAll(corners, aspect, [0.96, 1 - 110 / Math.max(400, height)]);
    this.framed = { lo, hi, whole: false, distance: this.camera.distance, target: this.camera.target };
    this.invalidate();
  }

  /** The view as it is, as a PNG; drawn and read in one task, because a later read-back is blank. */
  capture(): Promise<Blob> {
    const ratio = this.renderer.getPixelRatio();
    if (ratio < 1) this.renderer.setPixelRatio(1);
    this.draw();
    return new Promise<Blob>((resolve, reject) => {
      this.canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('The view could not be read.'))), 'image/png');
      if (ratio < 1) this.renderer.setPixelRatio(ratio);
      this.invalidate();
    });
  }

  dispose(): void {
    cancelAnimationFrame(this.waiting);
    this.sized.disconnect();
    this.drawn.dispose();
    this.renderer.dispose();
    this.canvas.remove();
  }

  private draw(): void {
    if (this.lost) return;
    const cam = this.camera.three(this.aspect);
    const seen = this.detail.seen(this.list, this.eye);
    if (seen !== this.seen && this.current) this.show(seen);
    this.fitShadow();
    // Faces turned away from the eye still throw shadows, so they stay in when the shadows are drawn anew.
    const whole = this.renderer.shadowMap.needsUpdate;
    this.drawn.cull(whole ? null : this.camera.eye, this.camera.ahead, this.camera.orthographic);
    this.renderer.render(this.scene, cam);
    this.frames++;
    this.onFrame();
  }

  private fitShadow(): void {
    const reach = this.reach;
    const c = this.sun.shadow.camera;
    if (c.right !== reach) {
      c.left = c.bottom = -reach;
      c.right = c.top = reach;
      c.near = 1;
      c.far = 600;
      c.updateProjectionMatrix();
      this.sun.position.set(90, 165, 135);
      this.renderer.shadowMap.needsUpdate = true;
    }
  }

  private resize(): void {
    const { width, height } = this.size;
    this.renderer.setSize(width, height);
    // A scene is framed by what of it is seen; in a picture of another shape that is something else.
    if (this.framed?.whole && this.holdsStill) this.frame();
    this.invalidate();
  }
}

/** The box in the world of a volume without cubes. */
function boundsExtent({ geometry, matrix }: DrawInstance): Extent {
  if (geometry.kind === 'cube') throw new Error('A terrain cube is never empty.');
  return placedExtent(matrix, geometry.grid.bounds);
}

/** How far shadows have to reach for the largest volume. */
function shadowReach(list: DrawList): number {
  let r = 30;
  for (const { geometry, matrix } of list) {
    const size = geometry.kind === 'grid' ? Math.max(...geometry.grid.bounds.size) : geometry.set.texels;
    r = Math.max(r, size * Math.hypot(matrix[0]!, matrix[1]!, matrix[2]!));
  }
  return Math.min(220, Math.ceil(r / 16) * 16);
}
