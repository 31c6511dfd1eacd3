import {
  type Accessor,
  type Animation,
  Document,
  type Material,
  type Mesh,
  type Node,
  type Scene,
} from '@gltf-transform/core';
import {
  KHRMaterialsEmissiveStrength,
  EXTMeshGPUInstancing,
  KHRLightsPunctual,
  KHRMaterialsVariants,
  KHRMeshQuantization,
  type Variant,
} from '@gltf-transform/extensions';
import { type Mat4, add, mul, mulMat, rotate, scale } from '../../math';
import { inverseBinds } from '../ship/join-meshes';
import type { ShipMaterial, ShipModel, ShipPiece, ShipShape, ShipTrack } from '../ship/ship-model';
import { type Steps16, sixteenBits } from './sixteen-bits';

const NEAREST = 9728;
const CLAMP = 33071;
const REPEAT = 10497;
/** Indices of 16 bits reach one less than this; the last is kept for other uses. */
const MOST_SHORT = 65535;

interface Accessors {
  readonly position: Accessor;
  readonly normal: Accessor | null;
  readonly uv: Accessor;
  readonly uv2: Accessor | null;
  readonly indices: Accessor;
  readonly joints: Accessor | null;
  readonly weights: Accessor | null;
}

/** A model as a glTF document: what several things share, it has once. */
export class GlbDocument {
  readonly doc = new Document();
  private readonly buffer = this.doc.createBuffer();
  private readonly shapes = new Map<string, Accessors>();
  private readonly meshes = new Map<number, Mesh>();
  private readonly materials = new Map<number, Material>();
  private readonly textures = new Map<number, ReturnType<Document['createTexture']>>();
  private readonly nodes: (Node | null)[] = [];
  private readonly variants: readonly Variant[];

  /**
   * @param quantized – whether positions are whole numbers of half cubes, normals bytes and coordinates shorts
   * @param instancing – whether what stands many times is one node with places
   */
  constructor(
    private readonly model: ShipModel,
    private readonly quantized: boolean,
    private readonly instancing = false,
  ) {
    this.doc.getRoot().getAsset().generator = 'Sphalerite';
    const extension = model.looks.length > 0 ? this.doc.createExtension(KHRMaterialsVariants) : null;
    this.variants = extension ? model.looks.map((name) => extension.createVariant(name)) : [];
    if (quantized) this.doc.createExtension(KHRMeshQuantization).setRequired(true);
  }

  addNodes(): void {
    const scene = this.doc.createScene(this.model.name);
    this.doc.getRoot().setDefaultScene(scene);
    const { groups, alone } = this.instanced();
    for (const [i, { name, parent, t, q, s }] of this.model.nodes.entries()) {
      // Nothing asks for a node that only shows what is instanced.
      if (alone.has(i)) {
        this.nodes.push(null);
        continue;
      }
      const node = this.doc
        .createNode(name)
        .setTranslation([...t])
        .setRotation([...q])
        .setScale([...s]);
      (parent === null ? scene : this.nodeAt(parent)).addChild(node);
      this.nodes.push(node);
    }
    // What is a place only is told from a bone when it comes back.
    for (const p of this.model.points) this.nodeAt(p).setExtras({ point: true });
    this.addLamps();
    this.addInstances(groups, scene);
    this.model.nodes.forEach(({ mesh, skinned, name, set }, i) => {
      if (mesh === null || groups.has(i)) return;
      const step = this.model.shapes[this.model.meshes[mesh]!.pieces[0]?.shape ?? -1]?.step;
      // A plain block would not tell how small its cubes are.
      const cell = step && !skinned ? { cell: step * 2 } : {};
      this.nodeAt(i).setExtras({ ...cell, ...(set === undefined ? {} : { set }) });
      const steps = this.quantized ? sixteenBits(this.model, mesh) : null;
      const made = this.mesh(mesh, steps);
      const node = this.nodeAt(i);
      if (skinned) node.setMesh(made).setSkin(this.skin(steps));
      else if (!steps) node.setMesh(made);
      // Whole numbers become lengths on a node between, so that nothing else on this one is scaled.
      else
        node.addChild(
          this.doc
            .createNode(`${name} shape`)
            .setTranslation([...steps.from])
            .setScale([steps.step, steps.step, steps.step])
            .setMesh(made),
        );
    });
  }

  private nodeAt = (i: number): Node => this.nodes[i]!;

  /**
   * What shows the same mesh beside each other, each node with all of its group, where instancing is wished; and those of them that
   * nothing else asks for.
   */
  private instanced(): { groups: ReadonlyMap<number, readonly number[]>; alone: ReadonlySet<number> } {
    const groups = new Map<number, readonly number[]>();
    if (!this.instancing) return { groups, alone: new Set() };
    const { nodes, points, colliders, joints, clips } = this.model;
    const moved = new Set(clips.flatMap((c) => c.tracks().map((t) => t.node)));
    const asked = new Set([
      ...[...points, ...joints, ...colliders.map((c) => c.node)],
      ...nodes.flatMap((n) => (n.parent === null ? [] : [n.parent])),
    ]);
    const alike = new Map<string, number[]>();
    nodes.forEach((n, i) => {
      if (n.mesh === null || n.skinned || n.set !== undefined || moved.has(i)) return;
      const key = `${n.parent} ${n.mesh}`;
      alike.set(key, [...(alike.get(key) ?? []), i]);
    });
    for (const mine of alike.values()) if (mine.length > 1) for (const i of mine) groups.set(i, mine);
    return { groups, alone: new Set([...groups.keys()].filter((i) => !asked.has(i) && !nodes[i]!.lamp)) };
  }

  /** A node for each group, with a place for each that it stands for. Whole numbers become lengths in the places themselves. */
  private addInstances(groups: ReadonlyMap<number, readonly number[]>, scene: Scene): void {
    for (const mine of new Set(groups.values())) {
      const { parent, mesh, name } = this.model.nodes[mine[0]!]!,
        steps = this.quantized ? sixteenBits(this.model, mesh!) : null;
      const places = mine.map((i) => {
        const { t, q, s } = this.model.nodes[i]!;
        return steps ? { t: add(t, rotate(q, mul(s, steps.from))), q, s: scale(s, steps.step) } : { t, q, s };
      });
      const column = (type: 'VEC3' | 'VEC4', of: (p: (typeof places)[number]) => readonly number[]): Accessor =>
        this.accessor(type, Float32Array.from(places.flatMap((p) => [...of(p)])));
      const batch = this.doc
        .createExtension(EXTMeshGPUInstancing)
        .setRequired(true)
        .createInstancedMesh()
        .setAttribute(
          'TRANSLATION',
          column('VEC3', (p) => p.t),
        )
        .setAttribute(
          'ROTATION',
          column('VEC4', (p) => p.q),
        )
        .setAttribute(
          'SCALE',
          column('VEC3', (p) => p.s),
        );
      const node = this.doc
        .createNode(`${name} ×${mine.length}`)
        .setMesh(this.mesh(mesh!, steps))
        .setExtension('EXT_mesh_gpu_instancing', batch);
      (parent === null ? scene : this.nodeAt(parent)).addChild(node);
    }
  }

  private addLamps(): void {
    if (!this.model.nodes.some((n) => n.lamp)) return;
    const extension = this.doc.createExtension(KHRLightsPunctual);
    this.model.nodes.forEach(({ lamp, name }, i) => {
      if (!lamp) return;
      const light = extension
        .createLight(name)
        .setType(lamp.kind)
        .setColor([...lamp.colour])
        .setIntensity(lamp.intensity);
      if (lamp.kind === 'spot') light.setInnerConeAngle(lamp.inner).setOuterConeAngle(lamp.outer);
      this.nodeAt(i).setExtension('KHR_lights_punctual', light);
    });
  }

  private skin(steps: Steps16 | null): ReturnType<Document['createSkin']> {
    const skin = this.doc.createSkin(this.model.name);
    for (const n of this.model.joints) skin.addJoint(this.nodeAt(n));
    const from: Mat4 | null =
      steps &&
      ([
        ...[steps.step, 0, 0, 0],
        ...[0, steps.step, 0, 0],
        ...[0, 0, steps.step, 0],
        ...[...steps.from, 1],
      ] as unknown as Mat4);
    const binds = inverseBinds(this.model).flatMap((m) => [...(from ? mulMat(m, from) : m)]);
    return skin.setInverseBindMatrices(this.accessor('MAT4', Float32Array.from(binds)));
  }

  /** Nodes that things bump into: boxes empty and as large as their scale, others with a mesh that no reader shows. */
  addColliders(): void {
    let unseen: Material | null = null;
    for (const { node, name, moves, error, shape } of this.model.colliders) {
      // To a tenth of a millimetre: how far off it is at most.
      const within = Math.ceil(error * 1e4 - 1e-6) / 1e4;
      const made = this.doc.createNode(name).setExtras({ collider: shape.kind, moves, within });
      this.nodeAt(node).addChild(made);
      if (shape.kind === 'box')
        made
          .setTranslation([...shape.middle])
          .setRotation([...shape.turn])
          .setScale([...shape.size]);
      else {
        unseen ??= this.doc.createMaterial('collider').setBaseColorFactor([1, 1, 1, 0]).setAlphaMode('MASK');
        const short = shape.positions.length / 3 < MOST_SHORT;
        made.setMesh(
          this.doc.createMesh(name).addPrimitive(
            this.doc
              .createPrimitive()
              .setAttribute('POSITION', this.accessor('VEC3', shape.positions))
              .setIndices(this.accessor('SCALAR', short ? Uint16Array.from(shape.indices) : shape.indices))
              .setMaterial(unseen),
          ),
        );
      }
    }
  }

  addClip(name: string, tracks: readonly ShipTrack[]): void {
    const animation = this.doc.createAnimation(name);
    for (const t of tracks) this.animate(animation, t);
  }

  private accessor(
    type: 'SCALAR' | 'VEC2' | 'VEC3' | 'VEC4' | 'MAT4',
    array: Float32Array | Uint32Array | Uint16Array | Int16Array | Int8Array | Uint8Array,
    normalized = false,
  ): Accessor {
    return this.doc
      .createAccessor()
      .setType(type)
      .setArray(array as Float32Array<ArrayBuffer>)
      .setNormalized(normalized)
      .setBuffer(this.buffer);
  }

  private shape(index: number, steps: Steps16 | null): Accessors {
    const key = `${index} ${steps ? `${steps.step} ${steps.from.join()}` : ''}`;
    let known = this.shapes.get(key);
    if (!known) this.shapes.set(key, (known = this.accessorsOf(this.model.shapes[index]!, steps)));
    return known;
  }
  private accessorsOf({ positions, normals, uv, uv2, indices, joints }: ShipShape, steps: Steps16 | null): Accessors {
    const count = positions.length / 3;
    const short = count < MOST_SHORT;
    const flat = (of: Float32Array): Accessor =>
      steps && of.every((v) => v >= 0 && v <= 1)
        ? this.accessor(
            'VEC2',
            Uint16Array.from(of, (v) => Math.round(v * 65535)),
            true,
          )
        : this.accessor('VEC2', of);
    return {
      position: this.accessor('VEC3', steps ? steps.whole(positions) : positions),
      normal:
        normals &&
        (steps
          ? this.accessor(
              'VEC3',
              Int8Array.from(normals, (v) => Math.round(v * 127)),
              true,
            )
          : this.accessor('VEC3', normals)),
      uv: flat(uv),
      uv2: uv2 && flat(uv2),
      indices: this.accessor('SCALAR', short ? Uint16Array.from(indices) : indices),
      joints:
        joints &&
        this.accessor(
          'VEC4',
          Uint16Array.from({ length: count * 4 }, (_, i) => (i % 4 === 0 ? joints[i / 4]! : 0)),
        ),
      weights:
        joints &&
        this.accessor(
          'VEC4',
          Uint8Array.from({ length: count * 4 }, (_, i) => (i % 4 === 0 ? 255 : 0)),
          true,
        ),
    };
  }

  private mesh(index: number, steps: Steps16 | null): Mesh {
    let mesh = this.meshes.get(index);
    if (!mesh) {
      const { name, pieces } = this.model.meshes[index]!;
      mesh = this.doc.createMesh(name);
      for (const p of pieces) this.addPiece(mesh, p, steps);
      this.meshes.set(index, mesh);
    }
    return mesh;
  }

  private addPiece(mesh: Mesh, { shape, material, looks }: ShipPiece, steps: Steps16 | null): void {
    const { position, normal, uv, uv2, indices, joints, weights } = this.shape(shape, steps);
    const primitive = this.doc
      .createPrimitive()
      .setAttribute('POSITION', position)
      .setAttribute('NORMAL', normal)
      .setAttribute('TEXCOORD_0', uv)
      .setAttribute('TEXCOORD_1', uv2)
      .setAttribute('JOINTS_0', joints)
      .setAttribute('WEIGHTS_0', weights)
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
  private materialOf({
    name,
    transparent,
    repeats,
    colour,
    roughnessMetal,
    glow,
    glowStrength,
  }: ShipMaterial): Material {
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
    if (transparent) m.setAlphaMode(transparent === 'mask' ? 'MASK' : 'BLEND');
    const wrap = repeats ? REPEAT : CLAMP;
    for (const info of [m.getBaseColorTextureInfo(), m.getMetallicRoughnessTextureInfo(), m.getEmissiveTextureInfo()])
      info?.setMagFilter(NEAREST).setMinFilter(NEAREST).setWrapS(wrap).setWrapT(wrap);
    return m;
  }
  private texture(index: number): ReturnType<Document['createTexture']> {
    let t = this.textures.get(index);
    if (!t) {
      const { name, type, bytes } = this.model.pictures[index]!;
      t = this.doc.createTexture(name).setMimeType(type).setImage(bytes);
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
        this.doc.createAnimationChannel().setTargetNode(this.nodeAt(node)).setTargetPath(path).setSampler(sampler),
      );
  }
}
