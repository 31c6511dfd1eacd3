import { type Animation, Document, type Node, WebIO } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsVariants } from '@gltf-transform/extensions';
import type { Vec3 } from '../math';
import {
  type Bone,
  type Id,
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
import { surfaceOf, withoutClear } from '../mesh';
import { type Palette, everClear } from '../palette';
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
export async function exportGlb(whole: Project): Promise<GlbExport> {
  const project = withoutHelpers(whole);
  const notes: string[] = [];
  const doc = new Document();
  doc.getRoot().getAsset().generator = 'Sphalerite';
  const buffer = doc.createBuffer();
  const scene = doc.createScene(project.name);
  doc.getRoot().setDefaultScene(scene);
  const unit = project.metresPerUnit;
  const metres = (v: Vec3): [number, number, number] => [v[0] * unit, v[1] * unit, v[2] * unit];

  const nodes = new Map<string, Node>();
  const shipped = shippedBones(project.rig);
  if (shipped.length < project.rig.bones.length)
    notes.push(
      `${project.rig.bones.length - shipped.length} bones that only steer others were left out; what they do is in the clips.`,
    );
  for (const b of shipped) {
    const node = doc
      .createNode(b.name + sideSuffix(b.side))
      .setTranslation(metres(b.rest.t))
      .setRotation([...b.rest.q])
      .setScale([...b.rest.s]);
    (b.parent === null ? scene : nodes.get(b.parent)!).addChild(node);
    nodes.set(b.id, node);
  }

  for (const t of project.rig.attachments) {
    nodes.get(t.bone)?.addChild(
      doc
        .createNode(t.name + sideSuffix(t.side))
        .setTranslation(metres(t.t))
        .setRotation([...t.q]),
    );
  }

  const materials = new PaletteMaterials(doc, project);
  const meshes = new Map<string, ReturnType<typeof buildMesh>>();
  let vertices = 0,
    triangles = 0,
    parts = 0,
    faces = 0;
  const worn = new Map<Id, Node>();
  for (const mount of project.rig.mounts) {
    const part = must(project.parts, mount.part, 'part');
    if (part.hidden) {
      notes.push(`"${part.name}${sideSuffix(part.side)}" is hidden and was left out.`);
      continue;
    }
    if (composite(part).count === 0) {
      notes.push(`"${part.name}${sideSuffix(part.side)}" is empty and was left out.`);
      continue;
    }
    if (part.layers.some((l) => l.hidden)) notes.push(`Hidden layers of "${part.name}" were left out.`);
    let built = meshes.get(part.id);
    if (!built) {
      built = buildMesh(
        doc,
        buffer,
        part,
        must(project.palettes, part.palette, 'palette'),
        materials,
        project.colourways,
        unit,
      );
      meshes.set(part.id, built);
    }
    const node = doc
      .createNode(part.name + sideSuffix(part.side))
      .setMesh(built.mesh)
      .setTranslation(metres(mount.t))
      .setRotation([...mount.q])
      .setScale(isWorn(project.rig, mount) ? [...mount.s] : [0, 0, 0]);
    worn.set(mount.id, node);
    (mount.bone === null ? scene : nodes.get(mount.bone)!).addChild(node);
    vertices += built.vertices;
    triangles += built.triangles;
    faces += built.faces;
    parts++;
  }
  if (parts === 0) throw new FileError(`"${project.name}" has no cubes to export. Add some in Build first.`);

  const animate = (
    animation: Animation,
    node: Node,
    path: 'translation' | 'rotation' | 'scale',
    interpolation: 'STEP' | 'LINEAR' | 'CUBICSPLINE',
    times: Float32Array,
    values: Float32Array,
  ): void => {
    const sampler = doc
      .createAnimationSampler()
      .setInterpolation(interpolation)
      .setInput(
        doc
          .createAccessor()
          .setType('SCALAR')
          .setArray(times as Float32Array<ArrayBuffer>)
          .setBuffer(buffer),
      )
      .setOutput(
        doc
          .createAccessor()
          .setType(path === 'rotation' ? 'VEC4' : 'VEC3')
          .setArray(values as Float32Array<ArrayBuffer>)
          .setBuffer(buffer),
      );
    animation
      .addSampler(sampler)
      .addChannel(doc.createAnimationChannel().setTargetNode(node).setTargetPath(path).setSampler(sampler));
  };
  for (const clip of project.clips.filter((c) => c.ships)) {
    const tracks = bakeClip(clip, project.rig).filter((t) => nodes.has(t.bone)),
      swaps = bakeSwaps(clip, project.rig).filter((s) => worn.has(s.mount));
    if (tracks.length + swaps.length === 0) {
      notes.push(`Clip "${clip.name}" has no keys and was left out.`);
      continue;
    }
    const animation = doc.createAnimation(clip.name);
    for (const track of tracks) {
      const values = track.channel === 'move' ? track.values.map((v) => v * unit) : track.values;
      animate(
        animation,
        nodes.get(track.bone)!,
        ({ move: 'translation', turn: 'rotation', scale: 'scale' } as const)[track.channel],
        track.interpolation,
        track.times,
        values,
      );
    }
    for (const s of swaps) animate(animation, worn.get(s.mount)!, 'scale', 'STEP', s.times, s.values);
  }
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
  const solid = withoutClear(composite(part), everClear(palette, ways));
  for (const group of materials.groups(palette)) {
    const surface = surfaceOf(group.clear ? composite(part) : solid, (byte) => group.bytes[byte] === 1);
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
    materials.dress(primitive, palette, group);
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
export function planGlb(whole: Project): GlbCounts {
  const project = withoutHelpers(whole);
  const shipped = new Set(shippedBones(project.rig).map((b) => b.id));
  let vertices = 0,
    triangles = 0,
    parts = 0,
    faces = 0;
  for (const mount of project.rig.mounts) {
    const part = find(project.parts, mount.part);
    if (!part || part.hidden || composite(part).count === 0) continue;
    const clear = everClear(must(project.palettes, part.palette, 'palette'), project.colourways);
    const solid = withoutClear(composite(part), clear);
    for (const s of solid === composite(part)
      ? [surfaceOf(solid)]
      : [surfaceOf(solid), surfaceOf(composite(part), (byte) => clear[byte] === 1)]) {
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
