import { type Vec3, add, placedExtent, type Extent, uniteExtents } from '@sphalerite/core/math';
import { type Project, composite } from '@sphalerite/core/model';
import { type Palette, paletteTable } from '@sphalerite/core/palette';
import { byteTable, type VoxelGrid } from '@sphalerite/core/voxel';
import { type PlacedPart, type Pose, placeParts } from '@sphalerite/core/rig';
import {
  DirectionalLight,
  type DataTexture,
  GridHelper,
  HemisphereLight,
  Mesh,
  MeshBasicMaterial,
  PCFShadowMap,
  PlaneGeometry,
  Scene,
  ShadowMaterial,
  Vector3,
  WebGLRenderer,
} from 'three';
import { type CubeMaterialUniforms, cubeMaterial, paletteTexture } from './cube-material';
import { OrbitCamera } from './orbit-camera';
import { type Overlay, OverlayView } from './overlay';
import { type MeshInBackground, type PartCopy, type PartMaterials, PartView } from './part-view';

/** What the view shows; given whole, drawn by difference. */
export interface ViewScene {
  readonly project: Project;
  readonly pose: Pose;
  /** Parts to leave out. */
  readonly without: (placed: PlacedPart) => boolean;
  /** Parts to draw faintly. */
  readonly faint: (placed: PlacedPart) => boolean;
  /** Lines: none, between cubes, or where colours meet. */
  readonly edges: 'none' | 'cubes' | 'colours';
  /** Light on the cubes; without, swatches show as they are. */
  readonly lit: boolean;
  readonly glow: boolean;
  /** Parts to see through. */
  readonly glass?: (placed: PlacedPart) => boolean;
  /** What shows of a part, when that is not all its visible layers. */
  readonly gridOf?: (placed: PlacedPart) => VoxelGrid | null;
  readonly shadows: boolean;
  readonly grid: boolean;
  /** The same cubes again in other colours, each so far from the first; geometry is made once for all. */
  readonly copies?: readonly SceneCopy[];
  /** A hand is moving: shadows follow when it rests. */
  readonly hurry?: boolean;
}

/** A second look of the whole project beside the first. */
export interface SceneCopy {
  readonly palettes: readonly Palette[];
  readonly shift: Vec3;
  /** Where it stands in another pose, faintly: the moments before and after. */
  readonly pose?: Pose;
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
  private readonly parts = new Map<string, PartView>();
  private readonly palettes = new Map<string, Look>();
  private readonly depth = new MeshBasicMaterial({ colorWrite: false });
  private readonly sun = new DirectionalLight(0xfff4e2, 2.1);
  private readonly floor: Mesh;
  private readonly grid: GridHelper;
  private readonly sized: ResizeObserver;
  private frame = 0;
  private lost = false;
  private current: ViewScene | null = null;
  placed: readonly PlacedPart[] = [];
  /** Frames drawn so far, for tests of drawing on demand. */
  frames = 0;
  /** Pictures that the graphics card holds, for tests of letting them go. */
  get textures(): number {
    return this.renderer.info.memory.textures;
  }
  /** Called after each frame, for whatever follows the camera. */
  onFrame: () => void = () => undefined;

  constructor(
    private readonly host: HTMLElement,
    private readonly background: MeshInBackground,
  ) {
    this.renderer = new WebGLRenderer({ antialias: true, alpha: true, powerPreference: 'high-performance' });
    this.renderer.setPixelRatio(Math.min(2, devicePixelRatio));
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
      new ShadowMaterial({ opacity: 0.2, color: 0x3a2f22 }),
    );
    this.floor.receiveShadow = true;
    this.floor.scale.setScalar(600);
    this.grid = new GridHelper(96, 48, 0x8a7f70, 0x8a7f70);
    for (const m of [this.grid.material].flat()) {
      m.transparent = true;
      m.opacity = 0.16;
      m.depthWrite = false;
    }
    this.scene.add(this.floor, this.grid, this.overlay.group);
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
  /** Whether nothing waits to be drawn. */
  get still(): boolean {
    return this.frame === 0;
  }

  /** Asks for a picture with the next frame of the browser. */
  invalidate(): void {
    if (this.frame !== 0) return;
    this.frame = requestAnimationFrame(() => {
      this.frame = 0;
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
    this.placed = placeParts(next.project, next.pose);
    const seen = new Set<string>();
    const posed = next.copies?.map(
      (c) => c.pose && new Map(placeParts(next.project, c.pose).map((o) => [o.mount.id, o.matrix])),
    );
    for (const p of this.placed) {
      if (next.without(p)) continue;
      const key = p.mount.id;
      seen.add(key);
      const palette = next.project.palettes.find((o) => o.id === p.part.palette)!;
      const materials = this.materialsOf(next, palette, 0);
      const others = (next.copies ?? []).map((c) => c.palettes.find((o) => o.id === p.part.palette)!);
      const copies: PartCopy[] =
        next.copies?.map((c, i) => ({
          materials: this.materialsOf(next, others[i]!, c.pose ? 0 : i + 1),
          shift: c.shift,
          matrix: posed?.[i]?.get(p.mount.id) ?? null,
        })) ?? [];
      let view = this.parts.get(key);
      if (!view) {
        view = new PartView(materials, this.background, () => {
          this.renderer.shadowMap.needsUpdate = this.current?.shadows ?? false;
          this.invalidate();
        });
        this.parts.set(key, view);
        this.scene.add(view.group);
      }
      view.setMaterials(materials, copies);
      view.setGhost(next.faint(p));
      view.setMatrix(p.matrix);
      view.setGlass(next.glass?.(p) ?? false);
      view.setLined(next.edges === 'colours' && !next.faint(p));
      view.setGrid(next.gridOf?.(p) ?? composite(p.part), this.transparentOf([palette, ...others]));
    }
    for (const [key, view] of this.parts) {
      if (seen.has(key)) continue;
      view.dispose();
      this.parts.delete(key);
    }
    for (const p of this.palettes.values()) {
      p.uniforms.edges.value = next.edges === 'cubes' ? 1 : 0;
      p.uniforms.lit.value = next.lit ? 1 : 0;
      p.uniforms.glow.value = next.glow ? 1 : 0;
    }
    this.grid.visible = next.grid;
    this.sun.castShadow = next.shadows;
    this.floor.visible = next.shadows;
    if (!next.hurry) this.renderer.shadowMap.needsUpdate = next.shadows;
    this.invalidate();
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

  /** Where a point of the world stands on the page, in CSS pixels. */
  screenOf(p: Vec3): { x: number; y: number; ahead: boolean } {
    const box = this.canvas.getBoundingClientRect();
    const v = new Vector3(...p).project(this.camera.three(this.aspect));
    return { x: box.left + ((v.x + 1) / 2) * box.width, y: box.top + ((1 - v.y) / 2) * box.height, ahead: v.z < 1 };
  }

  /** Frames parts, or everything there is. */
  frameParts(which: (p: PlacedPart) => boolean = () => true): void {
    let all: Extent | null = null;
    const shifts: Vec3[] = [[0, 0, 0], ...(this.current?.copies?.map((c) => c.shift) ?? [])];
    for (const p of this.placed.filter(which)) {
      const { lo, hi } = placedExtent(p.matrix, composite(p.part).contentBox() ?? p.part.bounds);
      for (const s of shifts) all = uniteExtents(all, { lo: add(lo, s), hi: add(hi, s) });
    }
    if (all) this.frameBox(all.lo, all.hi);
  }

  /** Frames a box of the world. */
  frameBox(lo: Vec3, hi: Vec3): void {
    const centre: Vec3 = [(lo[0] + hi[0]) / 2, (lo[1] + hi[1]) / 2, (lo[2] + hi[2]) / 2];
    const { height } = this.size;
    // The line that says where one is and the chips take a strip at the top.
    const tall = (hi[1] - lo[1]) / 2 / (1 - 70 / Math.max(260, height));
    const radius = Math.max(
      tall,
      Math.hypot(hi[0] - lo[0], hi[2] - lo[2]) / (this.current?.copies?.length ? 2.4 * this.aspect : 2.4),
      3,
    );
    this.camera.frame([centre[0], centre[1] + (hi[1] - lo[1]) * 0.03, centre[2]], radius * 1.14, this.aspect);
    this.invalidate();
  }

  /** The view as it is, as a PNG; drawn and read in one task, because a later read-back is blank. */
  capture(): Promise<Blob> {
    this.draw();
    return new Promise((resolve, reject) => {
      this.canvas.toBlob((b) => (b ? resolve(b) : reject(new Error('The view could not be read.'))), 'image/png');
    });
  }

  dispose(): void {
    cancelAnimationFrame(this.frame);
    this.sized.disconnect();
    for (const v of this.parts.values()) v.dispose();
    for (const p of this.palettes.values()) p.texture.dispose();
    this.renderer.dispose();
    this.canvas.remove();
  }

  private draw(): void {
    if (this.lost) return;
    const cam = this.camera.three(this.aspect);
    this.fitShadow();
    // Faces turned away from the eye still throw shadows, so they stay in when the shadows are drawn anew.
    const whole = this.renderer.shadowMap.needsUpdate;
    for (const v of this.parts.values())
      v.cull(whole ? null : this.camera.eye, this.camera.ahead, this.camera.orthographic);
    this.renderer.render(this.scene, cam);
    this.frames++;
    this.onFrame();
  }

  private fitShadow(): void {
    const reach = Math.max(30, Math.min(220, this.extent()));
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

  private extent(): number {
    let r = 30;
    for (const p of this.placed) r = Math.max(r, ...p.part.bounds.size.map((s) => s * p.part.cell));
    return Math.ceil(r / 16) * 16;
  }

  private resize(): void {
    const { width, height } = this.size;
    this.renderer.setSize(width, height);
    this.invalidate();
  }

  /** Materials of a palette for copy `copy`; a changed palette changes their texture only. */
  private materialsOf(scene: ViewScene, palette: Palette, copy: number): PartMaterials {
    const key = `${copy} ${palette.id}`;
    let entry = this.palettes.get(key);
    if (!entry) {
      const uniforms: CubeMaterialUniforms = {
        swatches: { value: paletteTexture(palette) },
        edges: { value: scene.edges === 'cubes' ? 1 : 0 },
        lit: { value: scene.lit ? 1 : 0 },
        glow: { value: scene.glow ? 1 : 0 },
      };
      const make = (form: Parameters<typeof cubeMaterial>[1]) => cubeMaterial(uniforms, form);
      entry = {
        source: palette,
        texture: uniforms.swatches.value,
        materials: {
          solid: make('solid'),
          over: make('over'),
          transparent: make('transparent'),
          ghost: make('ghost'),
          glass: make('glass'),
          depth: this.depth,
        },
        uniforms,
      };
      this.palettes.set(key, entry);
    } else if (entry.source !== palette) {
      entry.texture.dispose();
      entry.texture = paletteTexture(palette);
      entry.uniforms.swatches.value = entry.texture;
      entry.source = palette;
    }
    return entry.materials;
  }

  /** 1 for each byte that is see-through in one of the looks. */
  private transparentOf(looks: readonly Palette[]): Uint8Array {
    if (looks.length === 1) return paletteTable(looks[0]!).transparent;
    const out = byteTable();
    for (const p of looks) paletteTable(p).transparent.forEach((v, i) => (out[i]! |= v));
    return out;
  }
}

interface Look {
  source: Palette;
  texture: DataTexture;
  readonly materials: PartMaterials;
  readonly uniforms: CubeMaterialUniforms;
}
