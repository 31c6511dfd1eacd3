import type { Box, Extent, Vec3 } from '@sphalerite/core/math';
import {
  AnimationMixer,
  Box3,
  BoxGeometry,
  type BufferGeometry,
  CanvasTexture,
  Color,
  ConeGeometry,
  EdgesGeometry,
  Group,
  LineSegments,
  type Material,
  Matrix4,
  Mesh,
  MeshBasicMaterial,
  MeshLambertMaterial,
  MeshNormalMaterial,
  type MeshStandardMaterial,
  NearestFilter,
  type Object3D,
  RepeatWrapping,
  type Texture,
  Vector3,
  WireframeGeometry,
} from 'three';
import { GLTFLoader } from 'three/examples/jsm/loaders/GLTFLoader.js';
import { HONEY, INK, RESIN, TONES, boxFill, boxLines, fillMaterial, lineMaterial, segments } from './overlay-materials';

/** What is looked at of a file. */
export const ARRIVED_LOOKS = ['plain', 'wire', 'normals', 'slots', 'texture', 'second'] as const;
export type ArrivedLook = (typeof ARRIVED_LOOKS)[number];

/** How a file stands in the world of the view. */
export interface ArrivedPlace {
  /** Columns of the turn that the file was given: where X, Y and Z of the project point there. */
  readonly axes: readonly [Vec3, Vec3, Vec3];
  /** Project units in a unit of the file. */
  readonly scale: number;
  /** Project units in a metre. */
  readonly metre: number;
}

/** A slot as it is seen: its name in the file, and the colour that stands for it. */
export interface SlotMark {
  readonly name: string;
  readonly colour: string;
}
/** Figures of a file as a reader finds them. */
export interface ArrivedFacts {
  readonly triangles: number;
  readonly points: number;
  readonly meshes: number;
  readonly clips: readonly { readonly name: string; readonly seconds: number }[];
  readonly slots: readonly SlotMark[];
  readonly colliders: number;
  /** How far the farthest point of colliders, or of what they stand for, is from the other; in the file's units. */
  readonly within: number;
  readonly second: boolean;
}

/** Colours that are told apart at a glance, however many slots there are. */
const slotColour = (i: number): Color => new Color().setHSL((0.09 + i * 0.381966) % 1, 0.5, i % 2 === 0 ? 0.5 : 0.66);

/** Squares with a cross line, so that one sees which way coordinates run. */
function checker(): CanvasTexture {
  const c = document.createElement('canvas');
  c.width = c.height = 64;
  const g = c.getContext('2d')!;
  for (let y = 0; y < 8; y++)
    for (let x = 0; x < 8; x++) {
      g.fillStyle = (x + y) % 2 === 0 ? '#efe6d6' : `hsl(${x * 40} 45% ${35 + y * 5}%)`;
      g.fillRect(x * 8, y * 8, 8, 8);
    }
  const t = new CanvasTexture(c);
  t.magFilter = NearestFilter;
  t.wrapS = t.wrapT = RepeatWrapping;
  t.channel = 1;
  return t;
}

/** A game file as a reader finds it, standing in the view. */
export class ArrivedModel {
  readonly group = new Group();
  readonly facts: ArrivedFacts;
  /** What it takes up at rest, in the view's world. */
  readonly extent: Extent | null;
  private readonly meshes: { readonly mesh: Mesh; readonly own: MeshStandardMaterial; wire: LineSegments | null }[] =
    [];
  private readonly mixer: AnimationMixer;
  private readonly made: (Material | Texture | BufferGeometry)[] = [];

  private constructor(
    private readonly gltf: Awaited<ReturnType<GLTFLoader['parseAsync']>>,
    place: ArrivedPlace,
  ) {
    const { scene } = gltf;
    const holder = new Group();
    holder.add(scene);
    holder.matrixAutoUpdate = false;
    const [x, y, z] = place.axes.map((a) => new Vector3(...a)) as [Vector3, Vector3, Vector3];
    holder.matrix = new Matrix4()
      .makeBasis(x, y, z)
      .transpose()
      .scale(new Vector3(place.scale, place.scale, place.scale));
    this.group.add(holder);
    this.group.updateMatrixWorld(true);
    const slots = new Map<string, SlotMark>();
    let points = 0,
      triangles = 0,
      second = false,
      colliders = 0,
      within = 0;
    const all: Object3D[] = [];
    scene.traverse((o) => void all.push(o));
    for (const o of all) {
      o.userData['keep'] = true;
      if ('collider' in o.userData) {
        colliders++;
        within = Math.max(within, Number(o.userData['within']));
        this.addCollider(o);
        continue;
      }
      if (!(o instanceof Mesh) || inCollider(o)) continue;
      const own = o.material as MeshStandardMaterial;
      if (!slots.has(own.name))
        slots.set(own.name, { name: own.name, colour: `#${slotColour(slots.size).getHexString()}` });
      const geometry = o.geometry as BufferGeometry;
      points += geometry.getAttribute('position').count;
      triangles += (geometry.getIndex()?.count ?? 0) / 3;
      second ||= geometry.hasAttribute('uv1');
      o.castShadow = true;
      o.receiveShadow = true;
      o.frustumCulled = false;
      this.meshes.push({ mesh: o as Mesh, own, wire: null });
    }
    this.mixer = new AnimationMixer(scene);
    const box = new Box3();
    for (const { mesh } of this.meshes) box.expandByObject(mesh);
    this.extent = box.isEmpty() ? null : { lo: box.min.toArray(), hi: box.max.toArray() };
    this.facts = {
      triangles,
      points,
      meshes: this.meshes.length,
      clips: gltf.animations.map((a) => ({ name: a.name, seconds: a.duration })),
      slots: [...slots.values()],
      colliders,
      within,
      second,
    };
    this.addMarks(place);
    this.look('plain');
    this.showColliders(false);
  }

  /** Reads a GLB. @throws when it cannot be read */
  static async read(bytes: Uint8Array<ArrayBuffer>, place: ArrivedPlace): Promise<ArrivedModel> {
    const loader = new GLTFLoader();
    // Compiled only for files that need it; its name stands in the file's JSON then.
    if (new TextDecoder().decode(bytes.subarray(0, 65536)).includes('EXT_meshopt_compression'))
      loader.setMeshoptDecoder((await import('meshoptimizer/decoder')).MeshoptDecoder);
    const copy = bytes.slice().buffer;
    return new ArrivedModel(await loader.parseAsync(copy, ''), place);
  }

  look(look: ArrivedLook): void {
    for (const m of this.meshes) {
      // Made when it is first wanted: of a large file that takes its time.
      if (look === 'wire') m.wire ??= this.wireOf(m.mesh);
      if (m.wire) m.wire.visible = look === 'wire';
      m.mesh.material = this.materialFor(look, m.own, m.mesh);
    }
  }
  private wireOf(mesh: Mesh): LineSegments {
    const wire = new LineSegments(
      this.kept(new WireframeGeometry(mesh.geometry as BufferGeometry)),
      lineMaterial(INK, 0.7, true),
    );
    wire.userData['keep'] = true;
    wire.frustumCulled = false;
    mesh.add(wire);
    return wire;
  }
  private materialFor(look: ArrivedLook, own: MeshStandardMaterial, mesh: Mesh): Material {
    const flat = !(mesh.geometry as BufferGeometry).hasAttribute('normal');
    const key = `${look} ${flat}`;
    const known = (own.userData['looks'] ??= {}) as Record<string, Material>;
    return (known[key] ??= this.kept(this.newMaterial(look, own, flat)));
  }
  private newMaterial(look: ArrivedLook, own: MeshStandardMaterial, flat: boolean): Material {
    const { map, transparent, alphaTest } = own;
    switch (look) {
      case 'normals':
        return new MeshNormalMaterial({ flatShading: flat });
      case 'slots':
        return new MeshLambertMaterial({
          color: this.facts.slots.find((s) => s.name === own.name)!.colour,
          flatShading: flat,
        });
      case 'texture':
        return new MeshBasicMaterial({ map, transparent, alphaTest });
      case 'second':
        return new MeshBasicMaterial({ map: this.kept(checker()) });
      case 'plain':
      case 'wire':
        return new MeshLambertMaterial({
          map,
          transparent,
          alphaTest,
          flatShading: flat,
          emissive: own.emissive,
          emissiveMap: own.emissiveMap,
          emissiveIntensity: Math.min(1.4, own.emissiveIntensity),
        });
    }
  }
  private kept<T extends Material | Texture | BufferGeometry>(o: T): T {
    this.made.push(o);
    return o;
  }

  private addCollider(node: Object3D): void {
    const fill = fillMaterial(TONES.verdigris, 0.13),
      line = lineMaterial(TONES.verdigris, 0.9, false);
    const shapes: BufferGeometry[] = [];
    if (node instanceof Mesh) shapes.push(node.geometry as BufferGeometry);
    node.traverse((o) => o !== node && o instanceof Mesh && shapes.push(o.geometry as BufferGeometry));
    if (shapes.length === 0) shapes.push(this.kept(new BoxGeometry(1, 1, 1)));
    if (node instanceof Mesh) node.material = INVISIBLE;
    for (const shape of shapes) {
      const body = new Mesh(shape, fill),
        edges = new LineSegments(this.kept(new EdgesGeometry(shape, 8)), line);
      for (const o of [body, edges]) {
        o.userData['keep'] = true;
        o.userData['ofCollider'] = true;
        o.renderOrder = 14;
        o.frustumCulled = false;
        node.add(o);
        this.shown.push(o);
      }
    }
  }
  private readonly shown: Object3D[] = [];
  showColliders(on: boolean): void {
    for (const o of this.shown) o.visible = on;
  }

  /** A cube of a metre beside it, and an arrow the way it faces. */
  private addMarks({ metre }: ArrivedPlace): void {
    const e = this.extent;
    if (!e) return;
    const cube = this.metreCube(metre)!;
    const front = e.hi[2] + 0.06 * metre,
      long = 0.3 * metre,
      middle = (e.lo[0] + e.hi[0]) / 2;
    const cone = new Mesh(new ConeGeometry(0.07 * metre, 0.16 * metre, 4), fillMaterial(RESIN, 1));
    cone.rotation.x = Math.PI / 2;
    cone.position.set(middle, 0.012 * metre, front + long);
    const marks = [
      boxFill(cube, HONEY, 0.16),
      boxLines(cube, RESIN, 0.9, true, 0),
      segments([middle, 0.012 * metre, front, middle, 0.012 * metre, front + long], RESIN, 1, 9, true),
      // Its zero, with the axes of the file as they lie here.
      ...([0x0, 0x1, 0x2] as const).map((a) => {
        const to = [0, 0, 0];
        to[a] = 0.25 * metre;
        return segments([0, 0, 0, ...to], [TONES.x, TONES.y, TONES.z][a]!, 1, 16);
      }),
      cone,
    ];
    for (const m of marks) m.traverse((o) => (o.userData['keep'] = true));
    this.group.add(...marks);
  }
  /** Where the cube of a metre stands; null when there is nothing to stand beside. */
  metreCube(metre: number): Box | null {
    const e = this.extent;
    return e && { min: [e.hi[0] + 0.35 * metre, 0, -0.5 * metre], size: [metre, metre, metre] };
  }

  /** What a person stands next to, so as to come to its other side than the metre cube. */
  beforeIt(metre: number): Extent | null {
    const e = this.extent;
    if (!e) return null;
    const x = e.lo[0] - 0.85 * metre;
    return { lo: [x, 0, -0.5 * metre], hi: [x, metre, 0.5 * metre] };
  }
  /** The largest picture of the file, as it can be drawn; null when there is none. */
  picture(): { readonly image: CanvasImageSource; readonly width: number; readonly height: number } | null {
    const all = this.meshes.flatMap(({ own }) => {
      const image = own.map?.image as (ImageBitmap & CanvasImageSource) | undefined;
      return image ? [{ image, width: image.width, height: image.height }] : [];
    });
    return all.sort((a, b) => b.width * b.height - a.width * a.height)[0] ?? null;
  }

  /** Shows a moment of a clip, in seconds; null for rest. */
  pose(clip: string | null, seconds: number): void {
    this.mixer.stopAllAction();
    const animation = this.gltf.animations.find((a) => a.name === clip);
    if (!animation) return;
    this.mixer.clipAction(animation).play();
    this.mixer.setTime(seconds);
  }

  dispose(): void {
    this.mixer.stopAllAction();
    for (const m of this.made) m.dispose();
    for (const { mesh, own } of this.meshes) {
      (mesh.geometry as BufferGeometry).dispose();
      for (const t of [own.map, own.emissiveMap, own.roughnessMap, own.metalnessMap]) t?.dispose();
      own.dispose();
    }
    this.group.removeFromParent();
  }
}

const INVISIBLE = new MeshBasicMaterial({ visible: false });
/** Whether something belongs to a collider's drawing or hangs on a collider. */
const inCollider = (o: Object3D): boolean =>
  'ofCollider' in o.userData || (o.parent !== null && ('collider' in o.parent.userData || inCollider(o.parent)));
