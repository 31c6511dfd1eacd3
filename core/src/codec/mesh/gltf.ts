import { type Accessor, type Document, type GLTF, type Node, type Primitive, WebIO } from '@gltf-transform/core';
import {
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
  type EmissiveStrength,
  type InstancedMesh,
  KHRMaterialsEmissiveStrength,
  KHRMaterialsVariants,
  KHRMeshQuantization,
  KHRTextureTransform,
  type Transform as UvTransform,
} from '@gltf-transform/extensions';
import { type Mat4, type Transform, type Vec3, invertMat, mulMat, normalizeQuat, transformPoint } from '../../math';
import { fromLinear } from '../../palette';
import { CodecError } from '../codec-error';
import {
  MOST_NODES,
  MOST_TRIANGLES,
  type MeshClip,
  type MeshNode,
  type MeshPicture,
  type MeshScene,
  type MeshShape,
  type MeshSurface,
  type MeshTexture,
  type MeshTrack,
  type NamedBytes,
  PLAIN_SURFACE,
} from './mesh-scene';
import { checkedJson, glbJson } from './gltf-check';

const EXTENSIONS = [
  KHRMaterialsEmissiveStrength,
  KHRMaterialsVariants,
  KHRMeshQuantization,
  KHRTextureTransform,
  EXTMeshGPUInstancing,
  EXTMeshoptCompression,
  EXTTextureWebP,
];

/** Whether a file begins as a binary glTF. */
export const isGlb = (head: Uint8Array): boolean =>
  head[0] === 0x67 && head[1] === 0x6c && head[2] === 0x54 && head[3] === 0x46;

/**
 * Nodes with meshes, what they look like and how they move (glTF 2.0): one file, or a text with files beside it. Meshes that follow
 * joints come apart: each triangle goes to the joint that holds most of it.
 *
 * @param others – files given beside it, by the last piece of their paths
 * @throws CodecError when it is none, damaged, packed in a way that cannot be read, or more than can be worked with
 */
export async function readGltf(bytes: Uint8Array<ArrayBuffer>, others: readonly NamedBytes[]): Promise<MeshScene> {
  const binary = isGlb(bytes);
  const { json, resources, missing } = checkedJson(binary ? glbJson(bytes) : bytes, binary, others, (name) =>
    EXTENSIONS.some((e) => e.EXTENSION_NAME === name),
  );
  const io = new WebIO().registerExtensions(EXTENSIONS);
  if (json.extensionsUsed?.includes(EXTMeshoptCompression.EXTENSION_NAME)) {
    const { MeshoptDecoder } = await import('meshoptimizer/decoder');
    await MeshoptDecoder.ready;
    io.registerDependencies({ 'meshopt.decoder': MeshoptDecoder });
  }
  let doc: Document;
  try {
    doc = binary ? await io.readBinary(bytes) : await io.readJSON({ json: json as unknown as GLTF.IGLTF, resources });
  } catch {
    throw new CodecError('codec.damaged');
  }
  try {
    return { ...new Reading(doc).scene(), missing };
  } catch (e) {
    if (e instanceof CodecError) throw e;
    throw new CodecError('codec.damaged');
  }
}

class Reading {
  private readonly nodes: readonly Node[];
  private readonly places: ReadonlyMap<Node, number>;
  private readonly worlds: readonly Mat4[];
  private readonly surfaces: MeshSurface[] = [];
  private readonly shapes = new Map<Primitive, MeshShape | null>();
  private triangles = 0;

  constructor(private readonly doc: Document) {
    const root = doc.getRoot();
    // Of one scene: the one that is shown, or all where there is none.
    const scene = root.getDefaultScene() ?? root.listScenes()[0];
    const nodes: Node[] = [];
    if (scene) scene.traverse((n) => nodes.push(n));
    else nodes.push(...root.listNodes());
    if (nodes.length > MOST_NODES) throw new CodecError('codec.manyNodes', { most: MOST_NODES });
    this.nodes = nodes;
    this.places = new Map(nodes.map((n, i) => [n, i]));
    const worlds: Mat4[] = [];
    for (const n of nodes) {
      const above = n.getParentNode(),
        own = n.getMatrix() as unknown as Mat4;
      const at = above ? this.places.get(above) : undefined;
      worlds.push(at === undefined ? own : mulMat(worlds[at]!, own));
    }
    this.worlds = worlds;
  }

  scene(): MeshScene {
    const root = this.doc.getRoot();
    const materials = root.listMaterials();
    for (const m of materials) this.surfaces.push(surfaceOf(m, root.listTextures()));
    const shapes: MeshShape[][] = this.nodes.map(() => []);
    const copies: MeshNode[] = [],
      joints = new Set(root.listSkins().flatMap((k) => k.listJoints()));
    this.nodes.forEach((n, i) => {
      const mesh = n.getMesh();
      if (!mesh) return;
      const own = mesh.listPrimitives().flatMap((p) => this.shape(p, materials.indexOf(p.getMaterial()!)) ?? []);
      const skin = n.getSkin();
      const many = n.getExtension<InstancedMesh>(EXTMeshGPUInstancing.EXTENSION_NAME);
      if (skin) mesh.listPrimitives().forEach((p) => this.unskin(n, p, shapes));
      else if (many) copies.push(...copiesOf(n.getName(), i, many, own));
      else shapes[i]!.push(...own);
    });
    return {
      nodes: [
        ...this.nodes.map((n, i): MeshNode => {
          const above = n.getParentNode();
          const parent = above === null ? null : (this.places.get(above) ?? null);
          const extras = n.getExtras();
          const role = 'collider' in extras ? 'collider' : extras['point'] === true ? 'point' : 'node';
          const { t, q, s } = soundTransform({ t: n.getTranslation(), q: n.getRotation(), s: n.getScale() });
          const told = extras['cell'];
          const cell = typeof told === 'number' && told > 0 && told < 1e6 ? told : undefined;
          const carrier = n.getSkin() !== null && shapes[i]!.length === 0 && n.listChildren().length === 0;
          return {
            ...{ name: n.getName(), parent, rest: { t, q, s }, shapes: shapes[i]!, role, cell },
            ...{ joint: joints.has(n), carrier, set: typeof extras['set'] === 'string' ? extras['set'] : undefined },
          };
        }),
        ...copies,
      ],
      surfaces: this.surfaces,
      pictures: root.listTextures().map((t): MeshPicture => {
        const bytes = t.getImage();
        return { name: t.getName() || t.getURI(), bytes: bytes && bytes.slice() };
      }),
      clips: root.listAnimations().map((a) => this.clip(a)),
      metres: true,
      pivots: true,
      missing: [],
    };
  }

  private shape(p: Primitive, surface: number): MeshShape | null {
    let known = this.shapes.get(p);
    if (known === undefined) {
      known = shapeOf(p, surface, this.surfaces[surface]);
      this.shapes.set(p, known);
    }
    this.triangles += (known?.triangles.length ?? 0) / 3;
    if (this.triangles > MOST_TRIANGLES) throw new CodecError('codec.manyTriangles', { most: MOST_TRIANGLES });
    return known;
  }

  /** Gives each triangle of a mesh that follows joints to the one that holds most of it, where it stands at rest. */
  private unskin(n: Node, p: Primitive, shapes: readonly MeshShape[][]): void {
    const shape = this.shapes.get(p),
      skin = n.getSkin()!,
      joints = p.getAttribute('JOINTS_0'),
      weights = p.getAttribute('WEIGHTS_0');
    if (!shape || !joints || !weights) return;
    const list = skin.listJoints(),
      binds = skin.getInverseBindMatrices();
    const moved = list.map((j, k): Mat4 | null => {
      const at = this.places.get(j);
      if (at === undefined) return null;
      const bind = binds ? (binds.getElement(k, new Array<number>(16)) as unknown as Mat4) : null;
      return bind ? mulMat(this.worlds[at]!, bind) : this.worlds[at]!;
    });
    const count = shape.positions.length / 3,
      world = new Float64Array(count * 3),
      best = new Int32Array(count).fill(-1);
    for (let v = 0; v < count; v++) {
      const js = joints.getElement(v, [0, 0, 0, 0]),
        ws = weights.getElement(v, [0, 0, 0, 0]);
      const at: Vec3 = [shape.positions[v * 3]!, shape.positions[v * 3 + 1]!, shape.positions[v * 3 + 2]!];
      let most = 0,
        all = 0;
      for (let k = 0; k < 4; k++) {
        const m = moved[js[k]!];
        if (!m || !(ws[k]! > 0)) continue;
        const to = transformPoint(m, at);
        for (let a = 0; a < 3; a++) world[v * 3 + a]! += ws[k]! * to[a]!;
        all += ws[k]!;
        if (ws[k]! > most) [most, best[v]] = [ws[k]!, js[k]!];
      }
      if (all > 0) for (let a = 0; a < 3; a++) world[v * 3 + a]! /= all;
    }
    const own = new Map<number, number[]>();
    for (let i = 0; i < shape.triangles.length; i += 3) {
      const [a, b, c] = [0, 1, 2].map((k) => best[shape.triangles[i + k]!]!) as [number, number, number];
      const joint = b === c ? b : a;
      if (joint < 0) continue;
      let list = own.get(joint);
      if (!list) own.set(joint, (list = []));
      list.push(shape.triangles[i]!, shape.triangles[i + 1]!, shape.triangles[i + 2]!);
    }
    for (const [joint, triangles] of own) {
      const at = this.places.get(list[joint]!)!;
      shapes[at]!.push({ ...compacted(shape, world, triangles, invertMat(this.worlds[at]!)) });
    }
  }

  private clip(a: ReturnType<ReturnType<Document['getRoot']>['listAnimations']>[number]): MeshClip {
    const tracks = a.listChannels().flatMap((c): MeshTrack[] => {
      const node = c.getTargetNode(),
        path = c.getTargetPath(),
        sampler = c.getSampler();
      const at = node ? this.places.get(node) : undefined;
      if (at === undefined || !sampler || (path !== 'translation' && path !== 'rotation' && path !== 'scale'))
        return [];
      const [input, output] = [sampler.getInput(), sampler.getOutput()];
      if (!input || !output) return [];
      const interpolation = sampler.getInterpolation() as MeshTrack['interpolation'];
      const wide = path === 'rotation' ? 4 : 3,
        times = numbers(input, 1),
        values = numbers(output, wide);
      const per = interpolation === 'CUBICSPLINE' ? 3 * wide : wide;
      if (
        values.length < times.length * per ||
        !values.every((v) => Math.abs(v) < 1e9) ||
        ![...times].every((t, i) => t >= (times[i - 1] ?? 0))
      )
        return [];
      return [{ node: at, path, interpolation, times, values }];
    });
    return { name: a.getName(), tracks };
  }
}

/** @throws CodecError when a node stands nowhere, or is turned by nothing that is a turn */
function soundTransform({ t, q, s }: Transform): Transform {
  if (![...t, ...q, ...s].every((v) => Math.abs(v) < 1e9) || Math.hypot(...q) < 1e-6)
    throw new CodecError('codec.damaged');
  // What is smaller than any cube is there to be nothing, and its turn could not be told.
  return { t, q: normalizeQuat(q), s: s.map((v) => (Math.abs(v) < 1e-9 ? 0 : v)) as unknown as Vec3 };
}

/** All numbers of an accessor as they are meant. */
function numbers(a: Accessor, wide: number): Float64Array {
  const count = a.getCount(),
    raw = a.getArray(),
    own = a.getElementSize();
  const out = new Float64Array(count * wide);
  if (!raw) return out;
  if (!a.getNormalized() && own === wide) {
    out.set(raw);
    return out;
  }
  const element = new Array<number>(own).fill(0);
  for (let i = 0; i < count; i++) {
    a.getElement(i, element);
    for (let k = 0; k < wide; k++) out[i * wide + k] = k < own ? element[k]! : 1;
  }
  return out;
}

/** POINTS and LINES show nothing that becomes cubes. */
const [TRIANGLES, STRIP, FAN] = [4, 5, 6];

function shapeOf(p: Primitive, surface: number, look: MeshSurface | undefined): MeshShape | null {
  const position = p.getAttribute('POSITION');
  const mode = p.getMode();
  if (!position || (mode !== TRIANGLES && mode !== STRIP && mode !== FAN)) return null;
  const positions = numbers(position, 3),
    count = positions.length / 3;
  const indices = p.getIndices();
  const order = indices ? Uint32Array.from(numbers(indices, 1)) : Uint32Array.from({ length: count }, (_, i) => i);
  for (const i of order) if (i >= count) throw new CodecError('codec.damaged');
  const tint = p.getAttribute('COLOR_0'),
    set = (look as LookWithSet | undefined)?.set ?? 0,
    uv = p.getAttribute(`TEXCOORD_${set}`) ?? p.getAttribute('TEXCOORD_0');
  return {
    positions,
    triangles: mode === TRIANGLES ? order.slice(0, order.length - (order.length % 3)) : unrolled(order, mode === FAN),
    uvs: uv && placedUvs(Float32Array.from(numbers(uv, 2)), (look as LookWithSet | undefined)?.shift ?? null),
    colours: tint && Uint8Array.from(numbers(tint, 4), (v, i) => tintByte(v, i % 4 === 3)),
    surface,
  };
}
const tintByte = (v: number, alpha: boolean): number => {
  const share = Math.min(1, Math.max(0, v));
  return Math.round(255 * (alpha ? share : fromLinear(share)));
};

function unrolled(order: Uint32Array, fan: boolean): Uint32Array {
  const n = Math.max(0, order.length - 2),
    out = new Uint32Array(n * 3);
  for (let i = 0; i < n; i++)
    out.set(
      fan
        ? [order[0]!, order[i + 1]!, order[i + 2]!]
        : i % 2 === 0
          ? [order[i]!, order[i + 1]!, order[i + 2]!]
          : [order[i + 1]!, order[i]!, order[i + 2]!],
      i * 3,
    );
  return out;
}

/** Some triangles of a shape with vertices of their own, brought into another space. */
function compacted(shape: MeshShape, world: Float64Array, triangles: readonly number[], into: Mat4): MeshShape {
  const known = new Map<number, number>(),
    list: number[] = [];
  const own = Uint32Array.from(triangles, (v) => {
    let at = known.get(v);
    if (at === undefined) known.set(v, (at = list.push(v) - 1));
    return at;
  });
  const positions = new Float64Array(list.length * 3);
  list.forEach((v, i) =>
    positions.set(transformPoint(into, [world[v * 3]!, world[v * 3 + 1]!, world[v * 3 + 2]!]), i * 3),
  );
  const picked = <A extends Float32Array | Uint8Array>(
    of: A | null,
    wide: number,
    make: (n: number) => A,
  ): A | null => {
    if (!of) return null;
    const out = make(list.length * wide);
    list.forEach((v, i) => out.set(of.subarray(v * wide, (v + 1) * wide), i * wide));
    return out;
  };
  return {
    positions,
    triangles: own,
    uvs: picked(shape.uvs, 2, (n) => new Float32Array(n)),
    colours: picked(shape.colours, 4, (n) => new Uint8Array(n)),
    surface: shape.surface,
  };
}

function copiesOf(name: string, parent: number, many: InstancedMesh, shapes: readonly MeshShape[]): MeshNode[] {
  const of = (semantic: string, wide: number): Float64Array | null => {
    const a = many.getAttribute(semantic);
    return a && numbers(a, wide);
  };
  const [t, q, s] = [of('TRANSLATION', 3), of('ROTATION', 4), of('SCALE', 3)];
  const count = Math.max(...[t, q, s].map((v, i) => (v ? v.length / (i === 1 ? 4 : 3) : 0)));
  if (count > MOST_NODES) throw new CodecError('codec.manyNodes', { most: MOST_NODES });
  const three = (v: Float64Array | null, i: number, other: number): Vec3 =>
    v ? [v[i * 3]!, v[i * 3 + 1]!, v[i * 3 + 2]!] : [other, other, other];
  return Array.from({ length: count }, (_, i): MeshNode => ({
    name: `${name} ${i + 1}`.trim(),
    parent,
    rest: soundTransform({
      t: three(t, i, 0),
      q: q ? [q[i * 4]!, q[i * 4 + 1]!, q[i * 4 + 2]!, q[i * 4 + 3]!] : [0, 0, 0, 1],
      s: three(s, i, 1),
    }),
    shapes,
    role: 'node',
  }));
}

/** A surface and where its coordinates come from. */
interface LookWithSet extends MeshSurface {
  readonly set: number;
  readonly shift: UvTransform | null;
}

const REPEAT = 10497;

type Material = ReturnType<ReturnType<Document['getRoot']>['listMaterials']>[number];
type Texture = ReturnType<ReturnType<Document['getRoot']>['listTextures']>[number];

function surfaceOf(m: Material, textures: readonly Texture[]): LookWithSet {
  const texture = (t: Texture | null, info: ReturnType<Material['getBaseColorTextureInfo']>): MeshTexture | null =>
    t && { picture: textures.indexOf(t), repeats: (info?.getWrapS() ?? REPEAT) === REPEAT };
  const [r, g, b, a] = m.getBaseColorFactor();
  const strength =
    m.getExtension<EmissiveStrength>(KHRMaterialsEmissiveStrength.EXTENSION_NAME)?.getEmissiveStrength() ?? 1;
  const [er, eg, eb] = m.getEmissiveFactor();
  const info = m.getBaseColorTextureInfo();
  const mode = m.getAlphaMode();
  const numbers = [r, g, b, a, er, eg, eb, strength, m.getRoughnessFactor(), m.getMetallicFactor(), m.getAlphaCutoff()];
  if (!numbers.every((v) => v >= 0 && v < 1e6)) throw new CodecError('codec.damaged');
  return {
    ...PLAIN_SURFACE,
    name: m.getName(),
    colour: [r, g, b],
    opacity: mode === 'OPAQUE' ? 1 : a,
    picture: texture(m.getBaseColorTexture(), info),
    glow: [er * strength, eg * strength, eb * strength],
    glowPicture: texture(m.getEmissiveTexture(), m.getEmissiveTextureInfo()),
    roughness: m.getRoughnessFactor(),
    metalness: m.getMetallicFactor(),
    roughMetalPicture: texture(m.getMetallicRoughnessTexture(), m.getMetallicRoughnessTextureInfo()),
    clear: mode === 'MASK' ? 'cut' : mode === 'BLEND' ? 'through' : 'solid',
    cut: m.getAlphaCutoff(),
    set: info?.getTexCoord() ?? 0,
    shift: info?.getExtension<UvTransform>(KHRTextureTransform.EXTENSION_NAME) ?? null,
  };
}

/** Coordinates shifted, turned and scaled (KHR_texture_transform). */
function placedUvs(uvs: Float32Array, shift: UvTransform | null): Float32Array {
  if (!shift) return uvs;
  const [x, y] = shift.getOffset(),
    [w, h] = shift.getScale(),
    [sin, cos] = [Math.sin(shift.getRotation()), Math.cos(shift.getRotation())];
  for (let i = 0; i < uvs.length; i += 2) {
    const [u, v] = [uvs[i]! * w, uvs[i + 1]! * h];
    uvs[i] = cos * u + sin * v + x;
    uvs[i + 1] = -sin * u + cos * v + y;
  }
  return uvs;
}
