import { Document, type Material, type Node, WebIO } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength } from '@gltf-transform/extensions';
import type { Vec3 } from '../math';
import { type Part, type Project, composite, find, must, sideSuffix, withoutHelpers } from '../model';
import { surfaceOf } from '../mesh';
import { type Palette, paletteTable } from '../palette';
import { bonesInOrder } from '../rig';
import { bakeClip } from './bake-clip';
import { FileError } from './file-error';
import { paletteStrip } from './palette-strip';

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
 * bone, an animation for each clip. Metres, Y up, facing +Z. Vertices are relative to the part's pivot.
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
  for (const b of bonesInOrder(project.rig)) {
    const node = doc.createNode(b.name + sideSuffix(b.side))
      .setTranslation(metres(b.rest.t)).setRotation([...b.rest.q]).setScale([...b.rest.s]);
    (b.parent === null ? scene : nodes.get(b.parent)!).addChild(node);
    nodes.set(b.id, node);
  }

  const materials = new Map<string, MaterialPair>();
  const meshes = new Map<string, ReturnType<typeof buildMesh>>();
  let vertices = 0, triangles = 0, parts = 0, faces = 0;
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
      built = buildMesh(doc, buffer, part, materialsOf(doc, must(project.palettes, part.palette, 'palette'), materials), unit);
      meshes.set(part.id, built);
    }
    const node = doc.createNode(part.name + sideSuffix(part.side)).setMesh(built.mesh)
      .setTranslation(metres(mount.t)).setRotation([...mount.q]).setScale([...mount.s]);
    (mount.bone === null ? scene : nodes.get(mount.bone)!).addChild(node);
    vertices += built.vertices;
    triangles += built.triangles;
    faces += built.faces;
    parts++;
  }
  if (parts === 0) throw new FileError(`"${project.name}" has no cubes to export. Add some in Build first.`);

  for (const clip of project.clips) {
    const tracks = bakeClip(clip, project.rig);
    if (tracks.length === 0) {
      notes.push(`Clip "${clip.name}" has no keys and was left out.`);
      continue;
    }
    const animation = doc.createAnimation(clip.name);
    for (const track of tracks) {
      const values = track.channel === 'move' ? track.values.map((v) => v * unit) : track.values;
      const sampler = doc.createAnimationSampler().setInterpolation(track.interpolation)
        .setInput(doc.createAccessor().setType('SCALAR').setArray(track.times).setBuffer(buffer))
        .setOutput(doc.createAccessor().setType(track.channel === 'turn' ? 'VEC4' : 'VEC3').setArray(values).setBuffer(buffer));
      animation.addSampler(sampler).addChannel(
        doc.createAnimationChannel().setTargetNode(nodes.get(track.bone)!)
          .setTargetPath(({ move: 'translation', turn: 'rotation', scale: 'scale' } as const)[track.channel]).setSampler(sampler),
      );
    }
  }
  const bytes = await new WebIO().registerExtensions([KHRMaterialsEmissiveStrength]).writeBinary(doc);
  const root = doc.getRoot();
  return {
    result: bytes as Uint8Array<ArrayBuffer>, notes,
    counts: { nodes: root.listNodes().length, parts, clips: root.listAnimations().length, vertices, triangles, faces },
  };
}

interface MaterialPair { readonly solid: Material; readonly clear: Material; readonly palette: Palette }

/** Two materials a palette, solid and see-through, that read the same strips of one pixel a swatch. */
function materialsOf(doc: Document, palette: Palette, known: Map<string, MaterialPair>): MaterialPair {
  const old = known.get(palette.id);
  if (old) return old;
  const strip = paletteStrip(palette);
  const texture = (name: string, image: Uint8Array) => doc.createTexture(`${palette.name} ${name}`).setMimeType('image/png').setImage(image as Uint8Array<ArrayBuffer>);
  const colour = texture('colour', strip.colour);
  const surface = texture('roughness-metal', strip.roughnessMetal);
  const glow = strip.glow ? texture('glow', strip.glow) : null;
  const strength = strip.glowStrength > 1 ? doc.createExtension(KHRMaterialsEmissiveStrength).createEmissiveStrength().setEmissiveStrength(strip.glowStrength) : null;
  const make = (clear: boolean): Material => {
    const m = doc.createMaterial(palette.name + (clear ? ' clear' : ''))
      .setBaseColorTexture(colour).setMetallicRoughnessTexture(surface).setRoughnessFactor(1).setMetallicFactor(1);
    if (glow) m.setEmissiveTexture(glow).setEmissiveFactor([1, 1, 1]);
    if (strength) m.setExtension('KHR_materials_emissive_strength', strength);
    if (clear) m.setAlphaMode('BLEND');
    for (const info of [m.getBaseColorTextureInfo(), m.getMetallicRoughnessTextureInfo(), m.getEmissiveTextureInfo()]) {
      info?.setMagFilter(NEAREST).setMinFilter(NEAREST).setWrapS(CLAMP).setWrapT(CLAMP);
    }
    return m;
  };
  const pair: MaterialPair = { solid: make(false), clear: make(true), palette };
  const table = paletteTable(palette);
  // A material nobody uses would draw a remark from validators, so the clear one exists only when it is needed.
  if (!table.clear.includes(1)) pair.clear.dispose();
  known.set(palette.id, pair);
  return pair;
}
const NEAREST = 9728;
const CLAMP = 33071;

function buildMesh(doc: Document, buffer: ReturnType<Document['createBuffer']>, part: Part, materials: MaterialPair, unit: number) {
  const table = paletteTable(materials.palette);
  const mesh = doc.createMesh(part.name + sideSuffix(part.side));
  let vertices = 0, triangles = 0, faces = 0;
  for (const clear of [0, 1]) {
    const surface = surfaceOf(composite(part), (byte) => table.clear[byte] === clear);
    const n = surface.colours.length;
    if (n === 0) continue;
    const uv = new Float32Array(n * 2);
    for (let i = 0; i < n; i++) {
      uv[i * 2] = (surface.colours[i]! + 0.5) / 256;
      uv[i * 2 + 1] = 0.5;
    }
    const accessor = (type: 'VEC3' | 'VEC2' | 'SCALAR', array: Float32Array | Uint32Array | Uint16Array) =>
      doc.createAccessor().setType(type).setArray(array as Float32Array<ArrayBuffer>).setBuffer(buffer);
    mesh.addPrimitive(
      doc.createPrimitive().setMaterial(clear ? materials.clear : materials.solid)
        .setAttribute('POSITION', accessor('VEC3', pivotless(surface.positions, part, unit)))
        .setAttribute('NORMAL', accessor('VEC3', surface.normals))
        .setAttribute('TEXCOORD_0', accessor('VEC2', uv))
        .setIndices(accessor('SCALAR', n < 65535 ? Uint16Array.from(surface.indices) : surface.indices)),
    );
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

/** Counts for lists, without writing a byte. */
export function planGlb(whole: Project): GlbCounts {
  const project = withoutHelpers(whole);
  let vertices = 0, triangles = 0, parts = 0, faces = 0;
  for (const mount of project.rig.mounts) {
    const part = find(project.parts, mount.part);
    if (!part || part.hidden || composite(part).count === 0) continue;
    const s = surfaceOf(composite(part));
    vertices += s.colours.length;
    triangles += s.indices.length / 3;
    faces += s.faces;
    parts++;
  }
  return {
    nodes: project.rig.bones.length + parts, parts,
    clips: project.clips.filter((c) => c.lanes.length > 0).length, vertices, triangles, faces,
  };
}
