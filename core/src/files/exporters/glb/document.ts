import { type Accessor, type Animation, Document, type Material, type Mesh, type Node } from '@gltf-transform/core';
import { KHRMaterialsEmissiveStrength, KHRMaterialsVariants, type Variant } from '@gltf-transform/extensions';
import type { ShipMaterial, ShipModel, ShipPiece, ShipShape, ShipTrack } from '../../ship/ship-model';

const NEAREST = 9728;
const CLAMP = 33071;
/** Indices of 16 bits reach one less than this; the last is kept for other uses. */
const MOST_SHORT = 65535;

interface Accessors {
  readonly position: Accessor;
  readonly normal: Accessor;
  readonly uv: Accessor;
  readonly indices: Accessor;
}

/** A model as a glTF document: what several things share, it has once. */
export class GlbDocument {
  readonly doc = new Document();
  private readonly buffer = this.doc.createBuffer();
  private readonly shapes = new Map<number, Accessors>();
  private readonly meshes = new Map<number, Mesh>();
  private readonly materials = new Map<number, Material>();
  private readonly textures = new Map<number, ReturnType<Document['createTexture']>>();
  private readonly nodes: Node[] = [];
  private readonly variants: readonly Variant[];

  /** @param looks – whether colourways go along as variants */
  constructor(
    private readonly model: ShipModel,
    looks: boolean,
  ) {
    this.doc.getRoot().getAsset().generator = 'Sphalerite';
    const extension = looks && model.looks.length > 0 ? this.doc.createExtension(KHRMaterialsVariants) : null;
    this.variants = extension ? model.looks.map((name) => extension.createVariant(name)) : [];
  }

  addNodes(): void {
    const scene = this.doc.createScene(this.model.name);
    this.doc.getRoot().setDefaultScene(scene);
    for (const { name, parent, t, q, s, mesh } of this.model.nodes) {
      const node = this.doc
        .createNode(name)
        .setTranslation([...t])
        .setRotation([...q])
        .setScale([...s]);
      if (mesh !== null) node.setMesh(this.mesh(mesh));
      (parent === null ? scene : this.nodes[parent]!).addChild(node);
      this.nodes.push(node);
    }
  }

  /** An empty node for each box, as large as its scale, below the part that it stands for. */
  addColliders(): void {
    for (const { node, name, middle, size } of this.model.colliders)
      this.nodes[node]!.addChild(
        this.doc
          .createNode(name)
          .setTranslation([...middle])
          .setScale([...size])
          .setExtras({ collider: 'box' }),
      );
  }

  addClip(name: string, tracks: readonly ShipTrack[]): void {
    const animation = this.doc.createAnimation(name);
    for (const t of tracks) this.animate(animation, t);
  }

  private accessor(
    type: 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4',
    array: Float32Array | Uint32Array | Uint16Array,
  ): Accessor {
    return this.doc
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setBuffer(this.buffer);
  }

  private shape(index: number): Accessors {
    let known = this.shapes.get(index);
    if (!known) this.shapes.set(index, (known = this.accessorsOf(this.model.shapes[index]!)));
    return known;
  }
  private accessorsOf({ positions, normals, uv, indices }: ShipShape): Accessors {
    const short = positions.length / 3 < MOST_SHORT;
    return {
      position: this.accessor('VEC3', positions),
      normal: this.accessor('VEC3', normals),
      uv: this.accessor('VEC2', uv),
      indices: this.accessor('SCALAR', short ? Uint16Array.from(indices) : indices),
    };
  }

  private mesh(index: number): Mesh {
    let mesh = this.meshes.get(index);
    if (!mesh) {
      const { name, pieces } = this.model.meshes[index]!;
      mesh = this.doc.createMesh(name);
      for (const p of pieces) this.addPiece(mesh, p);
      this.meshes.set(index, mesh);
    }
    return mesh;
  }

  private addPiece(mesh: Mesh, { shape, material, looks }: ShipPiece): void {
    const { position, normal, uv, indices } = this.shape(shape);
    const primitive = this.doc
      .createPrimitive()
      .setAttribute('POSITION', position)
      .setAttribute('NORMAL', normal)
      .setAttribute('TEXCOORD_0', uv)
      .setIndices(indices)
      .setMaterial(this.material(material));
    mesh.addPrimitive(primitive);
    if (this.variants.length === 0) return;
    const extension = this.doc.createExtension(KHRMaterialsVariants);
    const list = extension.createMappingList();
    this.variants.forEach((variant, i) =>
      list.addMapping(extension.createMapping().setMaterial(this.material(looks[i]!)).addVariant(variant)),
    );
    primitive.setExtension('KHR_materials_variants', list);
  }

  private material(index: number): Material {
    let m = this.materials.get(index);
    if (!m) this.materials.set(index, (m = this.materialOf(this.model.materials[index]!)));
    return m;
  }
  private materialOf({ name, transparent, colour, roughnessMetal, glow, glowStrength }: ShipMaterial): Material {
    const m = this.doc
      .createMaterial(name)
      .setBaseColorTexture(this.texture(colour))
      .setMetallicRoughnessTexture(this.texture(roughnessMetal))
      .setRoughnessFactor(1)
      .setMetallicFactor(1);
    if (glow !== null) m.setEmissiveTexture(this.texture(glow)).setEmissiveFactor([1, 1, 1]);
    if (glowStrength > 1)
      m.setExtension(
        'KHR_materials_emissive_strength',
        this.doc
          .createExtension(KHRMaterialsEmissiveStrength)
          .createEmissiveStrength()
          .setEmissiveStrength(glowStrength),
      );
    if (transparent) m.setAlphaMode('BLEND');
    for (const info of [m.getBaseColorTextureInfo(), m.getMetallicRoughnessTextureInfo(), m.getEmissiveTextureInfo()])
      info?.setMagFilter(NEAREST).setMinFilter(NEAREST).setWrapS(CLAMP).setWrapT(CLAMP);
    return m;
  }
  private texture(index: number): ReturnType<Document['createTexture']> {
    let t = this.textures.get(index);
    if (!t) {
      const { name, png } = this.model.pictures[index]!;
      t = this.doc.createTexture(name).setMimeType('image/png').setImage(png);
      this.textures.set(index, t);
    }
    return t;
  }

  private animate(animation: Animation, { node, path, interpolation, times, values }: ShipTrack): void {
    const sampler = this.doc
      .createAnimationSampler()
      .setInterpolation(interpolation)
      .setInput(this.accessor('SCALAR', times))
      .setOutput(this.accessor(path === 'rotation' ? 'VEC4' : 'VEC3', values));
    animation
      .addSampler(sampler)
      .addChannel(
        this.doc.createAnimationChannel().setTargetNode(this.nodes[node]!).setTargetPath(path).setSampler(sampler),
      );
  }
}
