import { type Mat4, type Vec3, invertMat, transformPoint } from '@sphalerite/core/math';
import { FACE_DIRECTIONS } from '@sphalerite/core/mesh';
import {
  type BufferGeometry,
  Group,
  InstancedBufferAttribute,
  InstancedMesh,
  LineBasicMaterial,
  LineSegments,
  Mesh,
  type Object3D,
} from 'three';
import type { Look } from './look';
import type { Shape, ShapeUser } from './shape';
import type { Piece } from './skin';
import { type FullStyle, type Pass, passesOf } from './style';

const lineMaterial = new LineBasicMaterial({ color: 0x2a2521, transparent: true, opacity: 0.55 });

/** One of a batch, where it stands in it. */
export interface Slot {
  batch: Batch;
  index: number;
}

/** Lines that are drawn at each of some matrices; three asks for the mark, not for the class. */
class InstancedLines extends LineSegments {
  readonly isInstancedMesh = true;
  readonly instanceColor = null;
  readonly morphTexture = null;
  override count = 0;
  constructor(
    geometry: BufferGeometry,
    public instanceMatrix: InstancedBufferAttribute,
  ) {
    super(geometry, lineMaterial);
    this.frustumCulled = false;
  }
}

interface Hung {
  readonly piece: Piece;
  /** By direction when it stands alone; otherwise as they are drawn. */
  readonly objects: Object3D[];
}

/**
 * All that is of one shape, in one look and style. What stands alone is drawn by the six directions of its faces, those that
 * look away left out; what stands more than once is drawn in one go.
 */
export class Batch implements ShapeUser {
  readonly group = new Group();
  private readonly slots: Slot[] = [];
  private matrices = new InstancedBufferAttribute(new Float32Array(16), 16);
  private hung = new Map<string, Hung>();
  private alone: boolean | null = null;

  constructor(
    readonly shape: Shape,
    readonly look: Look,
    private readonly style: FullStyle,
  ) {
    this.group.matrixAutoUpdate = false;
    shape.users.add(this);
  }

  get count(): number {
    return this.slots.length;
  }

  add(matrix: Mat4): Slot {
    const index = this.slots.length;
    if ((index + 1) * 16 > this.matrices.array.length) this.grow();
    const slot: Slot = { batch: this, index };
    this.slots.push(slot);
    this.matrices.array.set(matrix, index * 16);
    return slot;
  }

  /** The last takes the place of the one that goes. */
  remove(slot: Slot): void {
    const last = this.slots.pop()!;
    if (last === slot) return;
    this.matrices.array.copyWithin(slot.index * 16, last.index * 16, last.index * 16 + 16);
    last.index = slot.index;
    this.slots[last.index] = last;
  }

  /** Brings what is drawn in line with who is in; called after adding and removing. */
  settle(): void {
    const alone = this.slots.length === 1;
    if (alone !== this.alone) {
      this.alone = alone;
      this.group.matrix.identity();
      this.allChanged();
    }
    if (alone) {
      this.group.matrix.fromArray(this.matrices.array as Float32Array);
      this.group.matrixWorldNeedsUpdate = true;
      return;
    }
    this.matrices.needsUpdate = true;
    for (const { objects } of this.hung.values()) for (const o of objects) this.point(o as InstancedMesh);
  }

  pieceChanged(clear: boolean, key: string): void {
    // Nothing hangs before it is settled how it stands.
    if (this.alone === null) return;
    this.unhang(`${clear}/${key}`);
    const piece = this.shape.skin(clear).pieces.get(key);
    if (piece) this.hang(clear, key, piece);
  }

  allChanged(): void {
    for (const key of [...this.hung.keys()]) this.unhang(key);
    if (this.slots.length === 0) return;
    for (const clear of [false, true])
      for (const [key, piece] of this.shape.skin(clear).pieces) this.hang(clear, key, piece);
  }

  /**
   * Leaves out faces that look away from the eye, piece by piece, where one stands alone; of many all are drawn.
   *
   * @param eye – in the world of the batch's group; null draws all
   * @param ahead – where it looks
   */
  cull(eye: Vec3 | null, ahead: Vec3, orthographic: boolean): void {
    if (!this.alone) return;
    const back = eye && invertMat(Array.from(this.matrices.array.subarray(0, 16)) as unknown as Mat4);
    const o = back && transformPoint(back, eye);
    const far = back && transformPoint(back, [eye[0] + ahead[0], eye[1] + ahead[1], eye[2] + ahead[2]]);
    for (const { piece, objects } of this.hung.values()) {
      for (const face of objects) {
        const direction = face.userData['direction'] as number | undefined;
        if (direction === undefined) continue;
        const axis = direction >> 1,
          sign = FACE_DIRECTIONS[direction]![axis]!;
        face.visible =
          !o || !far
            ? true
            : orthographic
              ? (far[axis]! - o[axis]!) * sign < 0
              : sign > 0
                ? o[axis]! > piece.lo[axis]!
                : o[axis]! < piece.hi[axis]!;
      }
    }
  }

  dispose(): void {
    for (const { objects } of this.hung.values()) for (const o of objects) if (o instanceof InstancedMesh) o.dispose();
    for (const key of [...this.hung.keys()]) this.unhang(key);
    this.shape.users.delete(this);
    this.group.removeFromParent();
  }

  private grow(): void {
    const more = new InstancedBufferAttribute(new Float32Array(this.matrices.array.length * 2), 16);
    more.array.set(this.matrices.array);
    this.matrices = more;
  }

  private point(o: InstancedMesh | InstancedLines): void {
    o.instanceMatrix = this.matrices;
    o.count = this.slots.length;
    // Made again when it is next asked whether any of it is seen.
    if (o instanceof InstancedMesh) o.boundingSphere = null;
  }

  private unhang(key: string): void {
    // Their matrices stay with the card: the batch's other pieces stand by the same.
    for (const o of this.hung.get(key)?.objects ?? []) o.removeFromParent();
    this.hung.delete(key);
  }

  private hang(clear: boolean, key: string, piece: Piece): void {
    const passes = passesOf(this.style, this.look, clear, this.shape.pictures);
    const objects = this.alone ? this.facesOf(piece, passes) : this.manyOf(piece, passes);
    const lines = this.style.lined && !clear ? piece.lines() : null;
    if (lines) {
      const drawn = this.alone ? new LineSegments(lines, lineMaterial) : new InstancedLines(lines, this.matrices);
      drawn.matrixAutoUpdate = false;
      if (!this.alone) this.point(drawn as InstancedLines);
      objects.push(drawn);
    }
    if (objects.length > 0) this.group.add(...objects);
    this.hung.set(`${clear}/${key}`, { piece, objects });
  }

  private facesOf(piece: Piece, passes: readonly Pass[]): Object3D[] {
    return piece.faces().flatMap((g, direction) =>
      g
        ? passes.map((pass) => {
            const m = styled(new Mesh(g), pass);
            m.userData['direction'] = direction;
            return m;
          })
        : [],
    );
  }

  private manyOf(piece: Piece, passes: readonly Pass[]): Object3D[] {
    const whole = piece.whole();
    if (!whole) return [];
    return passes.map((pass) => {
      const m = styled(new InstancedMesh(whole, pass.material, 0), pass);
      this.point(m);
      return m;
    });
  }
}

function styled<M extends Mesh>(mesh: M, pass: Pass): M {
  mesh.matrixAutoUpdate = false;
  mesh.material = pass.material;
  mesh.renderOrder = pass.order;
  mesh.castShadow = pass.casts;
  mesh.receiveShadow = pass.receives;
  return mesh;
}
