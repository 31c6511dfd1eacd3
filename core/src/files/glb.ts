import { type Animation, Document, type Node, type Scene, WebIO } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsVariants } from '@gltf-transform/extensions';
import { type Quat, type Steps, type Vec3, finish } from '../math';
import {
  type Bone,
  type Clip,
  type Id,
  type Mount,
  type Part,
  type Project,
  type Rig,
  composite,
  find,
  isWorn,
  must,
  sideSuffix,
  withoutHelpers,
} from '../model';
import { surfaceOf, withoutTransparent } from '../mesh';
import { type Palette, everTransparent } from '../palette';
import { PaletteMaterials } from './glb-materials';
import { bonesInOrder } from '../rig';
import { bakeClip, bakeSwaps } from './bake-clip';
import { FileError } from './file-error';

export interface GlbExport {
  readonly result: Uint8Array<ArrayBuffer>;
  /** What was left out or guessed, in sentences. */
  readonly notes: readonly string[];
  readonly counts: GlbCounts;
}
export interface GlbCounts {
  readonly nodes: number;
  readonly parts: number;
  readonly clips: number;
  readonly vertices: number;
  readonly triangles: number;
  /** Exposed faces of cubes, before merging. */
  readonly faces: number;
}

/**
 * The project as binary glTF 2.0: a node for each bone, a node with a mesh for each mounted part below its
 * bone, an animation for each clip. Metres, Y up, facing +Z. Vertices are relative to the part's pivot. Colourways go along
 * as material variants (KHR_materials_variants) over the same meshes.
 *
 * @throws FileError when there is nothing to export
 */
export const exportGlb = async (whole: Project): Promise<GlbExport> => encodeGlb(finish(glbSteps(whole)));

/** {@link exportGlb} up to its bytes, in pieces. */
export function* glbSteps(whole: Project): Steps<GlbDocument> {
  const project = withoutHelpers(whole);
  const glb = new GlbDocument(project);
  glb.addBones();
  glb.addAttachments();
  for (const [i, mount] of project.rig.mounts.entries()) {
    glb.addMount(mount);
    yield (i + 1) / project.rig.mounts.length;
  }
  if (glb.parts === 0) throw new FileError(`"${project.name}" has no cubes to export. Add some in Build first.`);
  for (const clip of project.clips) {
    if (clip.ships) glb.addClip(clip);
    yield 1;
  }
  return glb;
}

/** The bytes of a gathered document. */
export async function encodeGlb({ doc, notes, parts, vertices, triangles, faces }: GlbDocument): Promise<GlbExport> {
  const bytes = await new WebIO()
    .registerExtensions([KHRMaterialsEmissiveStrength, KHRMaterialsVariants])
    .writeBinary(doc);
  const root = doc.getRoot();
  return {
    result: bytes as Uint8Array<ArrayBuffer>,
    notes,
    counts: { nodes: root.listNodes().length, parts, clips: root.listAnimations().length, vertices, triangles, faces },
  };
}

type Built = ReturnType<typeof buildMesh>;
const PATHS = { move: 'translation', turn: 'rotation', scale: 'scale' } as const;

/** A glTF document as it is put together, with what was left out and how much went in. */
class GlbDocument {
  readonly doc = new Document();
  readonly notes: string[] = [];
  parts = 0;
  vertices = 0;
  triangles = 0;
  faces = 0;
  private readonly buffer = this.doc.createBuffer();
  private readonly scene: Scene;
  private readonly bones = new Map<Id, Node>();
  private readonly mounts = new Map<Id, Node>();
  private readonly meshes = new Map<Id, Built>();
  private readonly materials: PaletteMaterials;

  constructor(private readonly project: Project) {
    this.doc.getRoot().getAsset().generator = 'Sphalerite';
    this.scene = this.doc.createScene(project.name);
    this.doc.getRoot().setDefaultScene(this.scene);
    this.materials = new PaletteMaterials(this.doc, project);
  }

  addBones(): void {
    const { rig } = this.project;
    const shipped = shippedBones(rig);
    const left = rig.bones.length - shipped.length;
    if (left > 0) this.notes.push(`${left} bones that only steer others were left out; what they do is in the clips.`);
    for (const b of shipped) {
      const node = this.node(b.name + sideSuffix(b.side), b.rest.t, b.rest.q).setScale([...b.rest.s]);
      (b.parent === null ? this.scene : this.bones.get(b.parent)!).addChild(node);
      this.bones.set(b.id, node);
    }
  }

  addAttachments(): void {
    for (const t of this.project.rig.attachments)
      this.bones.get(t.bone)?.addChild(this.node(t.name + sideSuffix(t.side), t.t, t.q));
  }

  /** A mounted part below its bone; what is hidden or empty is noted. */
  addMount(mount: Mount): void {
    const part = must(this.project.parts, mount.part, 'part');
    const name = part.name + sideSuffix(part.side);
    if (part.hidden) this.notes.push(`"${name}" is hidden and was left out.`);
    else if (composite(part).count === 0) this.notes.push(`"${name}" is empty and was left out.`);
    if (part.hidden || composite(part).count === 0) return;
    if (part.layers.some((l) => l.hidden)) this.notes.push(`Hidden layers of "${part.name}" were left out.`);
    const built = this.meshOf(part);
    const node = this.node(name, mount.t, mount.q)
      .setMesh(built.mesh)
      .setScale(isWorn(this.project.rig, mount) ? [...mount.s] : [0, 0, 0]);
    this.mounts.set(mount.id, node);
    (mount.bone === null ? this.scene : this.bones.get(mount.bone)!).addChild(node);
    this.vertices += built.vertices;
    this.triangles += built.triangles;
    this.faces += built.faces;
    this.parts++;
  }

  addClip(clip: Clip): void {
    const { rig, metresPerUnit } = this.project;
    const tracks = bakeClip(clip, rig).filter((t) => this.bones.has(t.bone));
    const swaps = bakeSwaps(clip, rig).filter((s) => this.mounts.has(s.mount));
    if (tracks.length + swaps.length === 0) {
      this.notes.push(`Clip "${clip.name}" has no keys and was left out.`);
      return;
    }
    const animation = this.doc.createAnimation(clip.name);
    for (const { bone, channel, interpolation, times, values } of tracks) {
      const metres = channel === 'move' ? values.map((v) => v * metresPerUnit) : values;
      this.animate(animation, this.bones.get(bone)!, PATHS[channel], interpolation, times, metres);
    }
    for (const s of swaps) this.animate(animation, this.mounts.get(s.mount)!, 'scale', 'STEP', s.times, s.values);
  }

  private node(name: string, t: Vec3, q: Quat): Node {
    const unit = this.project.metresPerUnit;
    return this.doc
      .createNode(name)
      .setTranslation([t[0] * unit, t[1] * unit, t[2] * unit])
      .setRotation([...q]);
  }

  private meshOf(part: Part): Built {
    let built = this.meshes.get(part.id);
    if (!built) {
      const palette = must(this.project.palettes, part.palette, 'palette');
      const { colourways, metresPerUnit } = this.project;
      built = buildMesh(this.doc, this.buffer, part, palette, this.materials, colourways, metresPerUnit);
      this.meshes.set(part.id, built);
    }
    return built;
  }

  private animate(
    animation: Animation,
    node: Node,
    path: (typeof PATHS)[keyof typeof PATHS],
    interpolation: 'STEP' | 'LINEAR' | 'CUBICSPLINE',
    times: Float32Array,
    values: Float32Array,
  ): void {
    const accessor = (type: 'SCALAR' | 'VEC3' | 'VEC4', array: Float32Array) =>
      this.doc
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(this.buffer);
    const sampler = this.doc
      .createAnimationSampler()
      .setInterpolation(interpolation)
      .setInput(accessor('SCALAR', times))
      .setOutput(accessor(path === 'rotation' ? 'VEC4' : 'VEC3', values));
    animation
      .addSampler(sampler)
      .addChannel(this.doc.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler));
  }
}
export type { GlbDocument };

function buildMesh(
  doc: Document,
  buffer: ReturnType<Document['createBuffer']>,
  part: Part,
  palette: Palette,
  materials: PaletteMaterials,
  ways: Project['colourways'],
  unit: number,
) {
  const mesh = doc.createMesh(part.name + sideSuffix(part.side));
  let vertices = 0,
    triangles = 0,
    faces = 0;
  // One stretch of triangles for each material slot, and for what is see-through in it.
  const solid = withoutTransparent(composite(part), everTransparent(palette, ways));
  for (const group of materials.groups(palette)) {
    const surface = surfaceOf(group.transparent ? composite(part) : solid, (byte) => group.bytes[byte] === 1);
    const n = surface.colours.length;
    if (n === 0) continue;
    const uv = new Float32Array(n * 2);
    for (let i = 0; i < n; i++) {
      uv[i * 2] = (surface.colours[i]! + 0.5) / 256;
      uv[i * 2 + 1] = 0.5;
    }
    const accessor = (type: 'VEC3' | 'VEC2' | 'SCALAR', array: Float32Array | Uint32Array | Uint16Array) =>
      doc
        .createAccessor()
        .setType(type)
        .setArray(array as Float32Array<ArrayBuffer>)
        .setBuffer(buffer);
    const primitive = doc
      .createPrimitive()
      .setAttribute('POSITION', accessor('VEC3', pivotless(surface.positions, part, unit)))
      .setAttribute('NORMAL', accessor('VEC3', surface.normals))
      .setAttribute('TEXCOORD_0', accessor('VEC2', uv))
      .setIndices(accessor('SCALAR', n < 65535 ? Uint16Array.from(surface.indices) : surface.indices));
    materials.paint(primitive, palette, group);
    mesh.addPrimitive(primitive);
    vertices += n;
    triangles += surface.indices.length / 3;
    faces += surface.faces;
  }
  return { mesh, vertices, triangles, faces };
}

/** Lattice positions as metres from the part's pivot. */
function pivotless(positions: Float32Array, part: Part, unit: number): Float32Array {
  const k = part.cell * unit;
  return positions.map((v, i) => (v - part.pivot[i % 3]! / 2) * k);
}

/** The bones that go into a file, parents first: all but those kept at home that nothing else hangs on. */
function shippedBones(rig: Rig): Bone[] {
  const order = bonesInOrder(rig),
    needed = new Set<Id>();
  for (const b of order.toReversed()) {
    if (b.ships || needed.has(b.id) || rig.mounts.some((m) => m.bone === b.id)) {
      needed.add(b.id);
      if (b.parent !== null) needed.add(b.parent);
    }
  }
  return order.filter((b) => needed.has(b.id));
}

/** Counts for lists, without writing a byte. */
export const planGlb = (whole: Project): GlbCounts => finish(planGlbSteps(whole));

/** {@link planGlb} in pieces. */
export function* planGlbSteps(whole: Project): Steps<GlbCounts> {
  const project = withoutHelpers(whole);
  const shipped = new Set(shippedBones(project.rig).map((b) => b.id));
  let vertices = 0,
    triangles = 0,
    parts = 0,
    faces = 0;
  for (const [i, mount] of project.rig.mounts.entries()) {
    yield i / project.rig.mounts.length;
    const part = find(project.parts, mount.part);
    if (!part || part.hidden || composite(part).count === 0) continue;
    const transparent = everTransparent(must(project.palettes, part.palette, 'palette'), project.colourways);
    const solid = withoutTransparent(composite(part), transparent);
    for (const s of solid === composite(part)
      ? [surfaceOf(solid)]
      : [surfaceOf(solid), surfaceOf(composite(part), (byte) => transparent[byte] === 1)]) {
      vertices += s.colours.length;
      triangles += s.indices.length / 3;
      faces += s.faces;
    }
    parts++;
  }
  return {
    nodes: shipped.size + project.rig.attachments.filter((t) => shipped.has(t.bone)).length + parts,
    parts,
    clips: project.clips.filter((c) => c.ships && c.lanes.length + c.swaps.length > 0).length,
    vertices,
    triangles,
    faces,
  };
}
