import { type Mat4, type Vec3, invertMat, transformPoint } from '@sphalerite/core/math';
import { withoutTransparent } from '@sphalerite/core/mesh';
import { byteTable, type VoxelGrid } from '@sphalerite/core/voxel';
import { Group, Matrix4, type Material } from 'three';
import { CubeMeshes, type FaceStyle, type MeshInBackground } from './cube-meshes';

export type { MeshInBackground } from './cube-meshes';

/** Materials of one palette in one look. */
export interface PartMaterials {
  readonly solid: Material;
  /** The same once more over ghosts that stand before it. */
  readonly over: Material;
  /** Swatches that let light through. */
  readonly transparent: Material;
  /** Neighbours. */
  readonly ghost: Material;
  /** The part itself, seen through. */
  readonly glass: Material;
  /** Writes depth only, so that see-through neighbours do not pile up on themselves. */
  readonly depth: Material;
}

/** A copy of a part in other colours, beside it. */
export interface PartCopy {
  readonly materials: PartMaterials;
  /** In the world. */
  readonly shift: Vec3;
  /** Where a faint copy in another pose stands; null for one that stands as the part does. */
  readonly matrix: Mat4 | null;
}

/** The drawn form of one placed part: solid cubes, see-through ones, and copies of both in other colours. */
export class PartView {
  readonly group = new Group();
  private readonly solid: CubeMeshes;
  private transparentMeshes: CubeMeshes | null = null;
  private transparent = byteTable();
  private copies: readonly PartCopy[] = [];
  private groups: Group[] = [];
  private grid: VoxelGrid | null = null;
  private matrix: Mat4 | null = null;
  private ghost = false;
  private glass = false;
  private lined = false;

  constructor(
    private materials: PartMaterials,
    private readonly background: MeshInBackground,
    private readonly changed: () => void,
  ) {
    this.group.matrixAutoUpdate = false;
    this.groups = [this.newGroup()];
    this.solid = new CubeMeshes(this.groups[0]!, background, changed);
    this.applyStyles();
  }

  private newGroup(): Group {
    const g = new Group();
    g.matrixAutoUpdate = false;
    this.group.add(g);
    return g;
  }

  setMatrix(matrix: Mat4): void {
    if (this.matrix === matrix) return;
    this.matrix = matrix;
    this.place();
  }

  /** Each copy stands where the part does, shifted in the world. */
  private place(): void {
    if (!this.matrix) return;
    this.groups.forEach((g, i) => {
      const m = new Matrix4().fromArray(((i > 0 && this.copies[i - 1]!.matrix) || this.matrix) as number[]);
      const [x, y, z] = i === 0 ? [0, 0, 0] : this.copies[i - 1]!.shift;
      g.matrix = new Matrix4().makeTranslation(x, y, z).multiply(m);
      g.matrixWorldNeedsUpdate = true;
    });
  }

  /**
   * @param transparent – 1 for each see-through byte
   */
  setGrid(grid: VoxelGrid, transparent: Uint8Array): void {
    if (transparent !== this.transparent && transparent.some((v, i) => v !== this.transparent[i])) {
      this.transparent = transparent as Uint8Array<ArrayBuffer>;
      const takes = (byte: number): boolean => this.transparent[byte] === 1;
      if (!transparent.includes(1)) {
        this.transparentMeshes?.dispose();
        this.transparentMeshes = null;
      } else if (this.transparentMeshes) this.transparentMeshes.setTakes(takes);
      else {
        this.transparentMeshes = new CubeMeshes(this.groups[0]!, this.background, this.changed, takes);
        this.applyStyles();
      }
      this.grid = null;
    }
    if (grid === this.grid) return;
    this.grid = grid;
    this.solid.setGrid(withoutTransparent(grid, this.transparent));
    this.transparentMeshes?.setGrid(grid);
  }

  setGhost(ghost: boolean): void {
    if (ghost === this.ghost) return;
    this.ghost = ghost;
    this.applyStyles();
  }

  /** See-through, with everything behind it showing. */
  setGlass(glass: boolean): void {
    if (glass === this.glass) return;
    this.glass = glass;
    this.applyStyles();
  }

  /** Lines where colours meet. */
  setLined(lined: boolean): void {
    if (lined === this.lined) return;
    this.lined = lined;
    this.solid.setLined(lined);
  }

  setMaterials(materials: PartMaterials, copies: readonly PartCopy[] = []): void {
    const same =
      copies.length === this.copies.length &&
      copies.every(
        (c, i) =>
          c.materials === this.copies[i]!.materials &&
          c.matrix === this.copies[i]!.matrix &&
          c.shift.every((v, a) => v === this.copies[i]!.shift[a]),
      );
    if (materials === this.materials && same) return;
    this.materials = materials;
    this.copies = copies;
    while (this.groups.length < copies.length + 1) this.groups.push(this.newGroup());
    for (const g of this.groups.splice(copies.length + 1)) g.removeFromParent();
    this.place();
    this.applyStyles();
  }

  /** Leaves out faces that look away from the eye, chunk by chunk; without an eye all are drawn. */
  cull(eye: Vec3 | null, ahead: Vec3, orthographic: boolean): void {
    if (!this.matrix) return;
    this.groups.forEach((_, i) => {
      const inverse = invertMat((i > 0 && this.copies[i - 1]!.matrix) || this.matrix!);
      const shift = i === 0 ? [0, 0, 0] : this.copies[i - 1]!.shift;
      const from: Vec3 | null = eye && [eye[0] - shift[0]!, eye[1] - shift[1]!, eye[2] - shift[2]!];
      const o = from && transformPoint(inverse, from);
      const far = from && transformPoint(inverse, [from[0] + ahead[0], from[1] + ahead[1], from[2] + ahead[2]]);
      const d: Vec3 = o && far ? [far[0] - o[0], far[1] - o[1], far[2] - o[2]] : [0, 0, 0];
      this.solid.cull(i, o, d, orthographic);
      this.transparentMeshes?.cull(i, o, d, orthographic);
    });
  }

  dispose(): void {
    this.solid.dispose();
    this.transparentMeshes?.dispose();
    this.group.removeFromParent();
  }

  private applyStyles(): void {
    const haunted = this.copies.some((c) => c.matrix !== null);
    const looks = [
      { m: this.materials, ghost: this.ghost, posed: false },
      ...this.copies.map((c) => ({ m: c.materials, ghost: this.ghost, posed: c.matrix !== null })),
    ];
    const plain = (material: Material, order: number, casts: boolean, receives: boolean): FaceStyle => ({
      material,
      order,
      casts,
      receives,
      visible: true,
    });
    // A ghost first writes its depth, so that only its nearest faces are mixed with what is behind.
    const solid = ({ m, ghost, posed }: (typeof looks)[number]): FaceStyle[] => {
      // Moments before and after write no depth, so that the figure of now shows over them.
      if (posed) return [plain(m.ghost, 3, false, false)];
      if (ghost) return [plain(m.depth, 2, false, false), plain(m.ghost, 3, false, false)];
      return this.glass
        ? [plain(m.glass, 0, true, false)]
        : haunted
          ? [plain(m.solid, 0, true, true), plain(m.over, 4, false, true)]
          : [plain(m.solid, 0, true, true)];
    };
    const transparent = (look: (typeof looks)[number]): FaceStyle[] =>
      look.ghost || look.posed
        ? solid(look)
        : this.glass
          ? [plain(look.m.glass, 1, false, false)]
          : [plain(look.m.transparent, 1, false, true)];
    this.solid.setCopies(this.groups, looks.map(solid));
    this.transparentMeshes?.setCopies(this.groups, looks.map(transparent));
  }
}
