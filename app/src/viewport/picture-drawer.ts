import { type Extent, type Vec3, uniteExtents } from '@sphalerite/core/math';
import type { Camera } from '@sphalerite/core/model';
import type { DrawnFilm, TraceLamp, TraceLight } from '@sphalerite/core/render';
import { type DrawList, instanceExtent } from '@sphalerite/core/scene';
import {
  Color,
  DirectionalLight,
  FloatType,
  Group,
  HemisphereLight,
  type Material,
  Mesh,
  PCFShadowMap,
  PlaneGeometry,
  PointLight,
  Scene,
  ShadowMaterial,
  SpotLight,
  WebGLRenderTarget,
  WebGLRenderer,
} from 'three';
import { DrawnScene } from './drawn/drawn-scene';
import type { MeshInBackground } from './drawn/grid-skin';
import { OrbitCamera } from './orbit-camera';

/** Lamps that light a picture at once: each is reckoned for every pixel. */
const MOST_LAMPS = 8;
/** What the shader gives in place of light. */
const PASSES = { albedo: 0, light: 1, normal: 2, depth: 3 } as const;

/** What is drawn. */
export interface ToDraw {
  readonly list: DrawList;
  readonly camera: Camera;
  readonly light: TraceLight;
  readonly lamps: readonly TraceLamp[];
  readonly glow: number;
  /** Height of the ground that shadows fall on; null for none. */
  readonly floor: number | null;
  /** Whether nothing but the shadows is seen. */
  readonly groundAlone: boolean;
  readonly size: readonly [number, number];
  /** Whether what stands at each pixel is told as well. */
  readonly guided: boolean;
}

/** Draws pictures of any size beside the view, as the view draws but in the light of a shot. */
export class PictureDrawer {
  private readonly renderer = new WebGLRenderer({ alpha: true });
  private readonly scene = new Scene();
  private readonly uniforms = { edges: { value: 0 }, lit: { value: 1 }, glow: { value: 1 }, around: { value: 1 } };
  private readonly drawn: DrawnScene;
  private readonly camera = new OrbitCamera();
  private readonly sky = new HemisphereLight();
  private readonly sun = new DirectionalLight();
  private readonly lamps = new Group();
  private readonly shade = new ShadowMaterial({ color: 0, depthWrite: false });
  private readonly floor = new Mesh(new PlaneGeometry(1, 1).rotateX(-Math.PI / 2), this.shade);
  private waiting = 0;
  private rested: (() => void)[] = [];

  constructor(mesh: MeshInBackground) {
    const counted: MeshInBackground = async (grid, chunks) => {
      this.waiting++;
      try {
        return await mesh(grid, chunks);
      } finally {
        // What came is put in place right after.
        setTimeout(() => --this.waiting === 0 && this.rested.splice(0).forEach((f) => f()));
      }
    };
    this.drawn = new DrawnScene(counted, () => undefined, this.uniforms);
    this.renderer.shadowMap.enabled = true;
    this.renderer.shadowMap.type = PCFShadowMap;
    this.renderer.setClearColor(0, 0);
    this.sun.castShadow = true;
    this.sun.shadow.mapSize.set(2048, 2048);
    this.sun.shadow.bias = -0.0015;
    this.sun.shadow.normalBias = 0.5;
    this.floor.receiveShadow = true;
    this.floor.scale.setScalar(4000);
    this.scene.add(this.drawn.group, this.sky, this.sun, this.sun.target, this.lamps, this.floor);
  }

  async draw(what: ToDraw): Promise<DrawnFilm> {
    this.drawn.set([{ list: what.list, styleOf: () => 'plain', shift: [0, 0, 0], lined: false, moment: false }]);
    if (this.waiting > 0) await new Promise<void>((done) => this.rested.push(done));
    this.drawn.cull(null, [0, 0, -1], false);
    this.lightBy(what);
    const [width, height] = what.size;
    this.camera.follow(what.camera);
    const light = this.pass('light', width, height);
    const n = width * height;
    const film = { width, height, light: new Float32Array(n * 3), cover: new Float32Array(n) };
    turned(light, width, height, (i, r, g, b, a) => {
      film.light.set([r, g, b], i * 3);
      film.cover[i] = Math.min(1, a);
    });
    if (!what.guided) return { ...film, guides: null };
    const guides = {
      ...{ albedo: new Float32Array(n * 3), normal: new Float32Array(n * 3) },
      ...{ depth: new Float32Array(n), id: new Float32Array(n) },
    };
    this.floor.visible = false;
    for (const layer of ['albedo', 'normal'] as const)
      turned(this.pass(layer, width, height), width, height, (i, r, g, b) => guides[layer].set([r, g, b], i * 3));
    turned(this.pass('depth', width, height), width, height, (i, r, _g, _b, a) => {
      guides.depth[i] = r;
      // Things are not told apart here, only from the ground and the sky.
      guides.id[i] = a > 0.5 ? 2 : 0;
    });
    return { ...film, guides };
  }

  dispose(): void {
    this.drawn.dispose();
    this.shade.dispose();
    this.floor.geometry.dispose();
    this.renderer.dispose();
    this.renderer.forceContextLoss();
  }

  /** One of the passes as floats, from the bottom row up. */
  private pass(which: keyof typeof PASSES, width: number, height: number): Float32Array {
    const { renderer } = this;
    this.uniforms.lit.value = PASSES[which];
    const target = new WebGLRenderTarget(width, height, { type: FloatType, samples: which === 'light' ? 4 : 0 });
    const out = new Float32Array(width * height * 4);
    renderer.setRenderTarget(target);
    renderer.clear();
    renderer.render(this.scene, this.camera.three(width / height));
    renderer.readRenderTargetPixels(target, 0, 0, width, height, out);
    renderer.setRenderTarget(null);
    target.dispose();
    return out;
  }

  /** A white wall in full sun of strength 1 shows 1, and so it does under an even sky of 1. */
  private lightBy({ light, lamps, glow, list, floor, groundAlone }: ToDraw): void {
    const { sky, sunColour, sunDirection, ambient } = light;
    const extents = list.flatMap((i) => instanceExtent(i) ?? []);
    const all = extents.reduce<Extent | null>((e, x) => uniteExtents(e, x), null) ?? {
      lo: [-1, -1, -1] as Vec3,
      hi: [1, 1, 1] as Vec3,
    };
    const middle = all.lo.map((v, a) => (v + all.hi[a]!) / 2),
      reach = Math.hypot(...all.lo.map((v, a) => all.hi[a]! - v)) / 2 + 4;
    const up = (c: number): number => sky.above[c]! + ambient[c]!,
      // The ground throws some of it back.
      down = (c: number): number => 0.35 * (up(c) + sunColour[c]! * Math.max(0, sunDirection[1]));
    this.sky.color.setRGB(up(0), up(1), up(2));
    this.sky.groundColor.setRGB(down(0), down(1), down(2));
    this.sky.intensity = Math.PI;
    this.uniforms.around.value = Math.min(1.5, (sky.mean[0] + sky.mean[1] + sky.mean[2]) / 2.1);
    this.uniforms.glow.value = glow;
    const strength = Math.max(...sunColour);
    this.sun.color.setRGB(...(sunColour.map((v) => v / (strength || 1)) as [number, number, number]));
    this.sun.intensity = strength * Math.PI;
    this.sun.target.position.set(...(middle as [number, number, number]));
    this.sun.position
      .set(...(sunDirection as [number, number, number]))
      .multiplyScalar(reach * 2)
      .add(this.sun.target.position);
    const c = this.sun.shadow.camera;
    c.left = c.bottom = -reach;
    c.right = c.top = reach;
    c.near = 0.5;
    c.far = reach * 4;
    c.updateProjectionMatrix();
    // Where the sun is kept off, what is left is the share of the sky.
    const sun = strength * Math.max(0, sunDirection[1]),
      rest = Math.max(up(0), up(1), up(2));
    this.shade.opacity = sun + rest > 0 ? sun / (sun + rest) : 0;
    this.floor.visible = floor !== null;
    this.floor.position.y = (floor ?? 0) + 0.02;
    this.colourless(groundAlone);
    this.lamps.clear();
    const bright = (l: TraceLamp): number => Math.max(...l.colour);
    for (const l of [...lamps].sort((a, b) => bright(b) - bright(a)).slice(0, MOST_LAMPS)) this.addLamp(l, bright(l));
  }

  /** Things that throw shadows and are not seen themselves. */
  private colourless(on: boolean): void {
    this.drawn.group.traverse((o) => {
      if (!(o instanceof Mesh)) return;
      for (const m of [o.material as Material | Material[]].flat()) {
        m.colorWrite = !on;
        m.depthWrite = !on && !m.transparent;
      }
    });
  }

  private addLamp({ kind, at, ahead, colour, cosOuter }: TraceLamp, bright: number): void {
    const tint = new Color().setRGB(...(colour.map((v) => v / bright) as [number, number, number]));
    const lamp =
      kind === 'point'
        ? new PointLight(tint, bright * Math.PI)
        : new SpotLight(tint, bright * Math.PI, 0, kind === 'panel' ? Math.PI / 2.1 : Math.acos(cosOuter), 0.4);
    lamp.position.set(...at);
    if (lamp instanceof SpotLight) {
      lamp.target.position.set(at[0] + ahead[0], at[1] + ahead[1], at[2] + ahead[2]);
      this.lamps.add(lamp.target);
    }
    this.lamps.add(lamp);
  }
}

/** Pixels that stand from the bottom up, by their number from the top. */
function turned(
  rgba: Float32Array,
  width: number,
  height: number,
  each: (i: number, r: number, g: number, b: number, a: number) => void,
): void {
  for (let y = 0; y < height; y++)
    for (let x = 0; x < width; x++) {
      const o = ((height - 1 - y) * width + x) * 4;
      each(y * width + x, rgba[o]!, rgba[o + 1]!, rgba[o + 2]!, rgba[o + 3]!);
    }
}
