import { type Mat4, type Vec3, invertMat, transformPoint } from '@sphalerite/core/math';
import { CHUNK, FACE_DIRECTIONS, type ChunkMesh, changedChunks, chunksOf, meshChunk } from '@sphalerite/core/mesh';
import { type VoxelGrid } from '@sphalerite/core/voxel';
import { type BufferGeometry, Group, type LineSegments, Matrix4, Mesh, type Material } from 'three';
import { chunkGeometries } from './chunk-geometry';
import { colourLines } from './colour-lines';

/** Chunks that are meshed at once on the spot; more go to a worker. */
const AT_ONCE = 8;

export type MeshInBackground = (grid: VoxelGrid, chunks: readonly Vec3[]) => Promise<(ChunkMesh | null)[]>;

export interface PartMaterials {
  readonly solid: Material;
  readonly ghost: Material;
  /** The part itself, seen through. */
  readonly glass: Material;
  /** Writes depth only, so that see-through neighbours do not pile up on themselves. */
  readonly depth: Material;
}

interface Chunk {
  readonly at: Vec3;
  readonly faces: Mesh[];
  readonly mesh: ChunkMesh;
  lines: LineSegments | null;
}

/** The drawn form of one placed part: chunk meshes that follow its grid, brick by brick. */
export class PartView {
  readonly group = new Group();
  private readonly chunks = new Map<string, Chunk>();
  private grid: VoxelGrid | null = null;
  private matrix: Mat4 | null = null;
  private inverse: Mat4 | null = null;
  private ghost = false;
  private glass = false;
  private lined = false;
  private version = 0;

  constructor(private materials: PartMaterials, private readonly background: MeshInBackground, private readonly changed: () => void) {
    this.group.matrixAutoUpdate = false;
  }

  setMatrix(matrix: Mat4): void {
    if (this.matrix === matrix) return;
    this.matrix = matrix;
    this.inverse = invertMat(matrix);
    this.group.matrix = new Matrix4().fromArray(matrix as number[]);
    this.group.matrixWorldNeedsUpdate = true;
  }

  /** Shows a grid; only chunks whose bricks differ are meshed. Gives whether all of it stands already. */
  setGrid(grid: VoxelGrid): void {
    if (grid === this.grid) return;
    const before = this.grid;
    this.grid = grid;
    const comparable = before !== null && before.bounds.min.every((v, i) => v === grid.bounds.min[i]) && before.bounds.size.every((v, i) => v === grid.bounds.size[i]);
    const dirty = comparable ? changedChunks(before, grid) : chunksOf(grid);
    if (!comparable) {
      const kept = new Set(dirty.map((c) => c.join()));
      for (const key of this.chunks.keys()) if (!kept.has(key)) this.put(key, [0, 0, 0], null);
    }
    const version = ++this.version;
    if (dirty.length <= AT_ONCE) {
      for (const c of dirty) this.put(c.join(), c, meshChunk(grid, ...(c as [number, number, number])));
      return;
    }
    void this.background(grid, dirty).then((meshes) => {
      // A newer grid may have come meanwhile; then this result is older than what stands.
      if (version !== this.version) {
        this.remesh(dirty);
        return;
      }
      dirty.forEach((c, i) => this.put(c.join(), c, meshes[i]!));
      this.changed();
    }, () => this.remesh(dirty));
  }

  private remesh(chunks: readonly Vec3[]): void {
    if (!this.grid) return;
    const grid = this.grid;
    void this.background(grid, chunks).then((meshes) => {
      if (grid !== this.grid) this.remesh(chunks);
      else {
        chunks.forEach((c, i) => this.put(c.join(), c, meshes[i]!));
        this.changed();
      }
    }, () => undefined);
  }

  setGhost(ghost: boolean): void {
    if (ghost === this.ghost) return;
    this.ghost = ghost;
    for (const c of this.chunks.values()) this.dress(c.faces);
  }

  /** See-through, with everything behind it showing. */
  setGlass(glass: boolean): void {
    if (glass === this.glass) return;
    this.glass = glass;
    for (const c of this.chunks.values()) this.dress(c.faces);
  }

  /** Lines where colours meet. */
  setLined(lined: boolean): void {
    if (lined === this.lined) return;
    this.lined = lined;
    for (const c of this.chunks.values()) this.line(c);
  }

  private line(c: Chunk): void {
    c.lines?.geometry.dispose();
    c.lines?.removeFromParent();
    c.lines = this.lined ? colourLines(c.mesh, c.at) : null;
    if (c.lines) this.group.add(c.lines);
  }

  setMaterials(materials: PartMaterials): void {
    if (materials === this.materials) return;
    this.materials = materials;
    for (const c of this.chunks.values()) this.dress(c.faces);
  }

  /** Leaves out faces that look away from the eye, chunk by chunk; without an eye all are drawn. */
  cull(eye: Vec3 | null, ahead: Vec3, orthographic: boolean): void {
    if (!this.inverse) return;
    if (!eye) {
      for (const { faces } of this.chunks.values()) for (const face of faces) face.visible = true;
      return;
    }
    const o = transformPoint(this.inverse, eye);
    const far = transformPoint(this.inverse, [eye[0] + ahead[0], eye[1] + ahead[1], eye[2] + ahead[2]]);
    const d: Vec3 = [far[0] - o[0], far[1] - o[1], far[2] - o[2]];
    for (const { at, faces } of this.chunks.values()) {
      for (const face of faces) {
        const direction = face.userData['direction'] as number;
        const axis = direction >> 1;
        const sign = FACE_DIRECTIONS[direction]![axis]!;
        face.visible = orthographic ? d[axis]! * sign < 0 : sign > 0 ? o[axis]! > at[axis]! * CHUNK : o[axis]! < (at[axis]! + 1) * CHUNK;
      }
    }
  }

  dispose(): void {
    for (const key of [...this.chunks.keys()]) this.put(key, [0, 0, 0], null);
    this.group.removeFromParent();
  }

  private put(key: string, at: Vec3, mesh: ChunkMesh | null): void {
    const old = this.chunks.get(key);
    if (old) {
      for (const f of old.faces) {
        f.geometry.dispose();
        f.removeFromParent();
      }
      old.lines?.geometry.dispose();
      old.lines?.removeFromParent();
      this.chunks.delete(key);
    }
    if (!mesh) return;
    const faces = chunkGeometries(mesh, at).flatMap((g, direction) => (g ? this.face(g, direction) : []));
    const chunk: Chunk = { at, faces, mesh, lines: null };
    this.chunks.set(key, chunk);
    this.dress(faces);
    this.group.add(...faces);
    if (this.lined) this.line(chunk);
  }

  private face(geometry: BufferGeometry, direction: number): Mesh[] {
    // The second mesh, of the same geometry, is shown only while the part is a ghost.
    return [false, true].map((depthOnly) => {
      const m = new Mesh(geometry);
      m.matrixAutoUpdate = false;
      m.userData['direction'] = direction;
      m.userData['depthOnly'] = depthOnly;
      return m;
    });
  }

  private dress(faces: readonly Mesh[]): void {
    for (const f of faces) {
      const depthOnly = f.userData['depthOnly'] as boolean;
      f.material = depthOnly ? this.materials.depth : this.ghost ? this.materials.ghost : this.glass ? this.materials.glass : this.materials.solid;
      f.renderOrder = depthOnly ? 2 : this.ghost ? 3 : 0;
      f.castShadow = !depthOnly && !this.ghost;
      f.receiveShadow = !depthOnly && !this.ghost && !this.glass;
      f.layers.set(depthOnly && !this.ghost ? 31 : 0);
    }
  }
}
