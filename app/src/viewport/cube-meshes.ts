import { type Vec3 } from '@sphalerite/core/math';
import { CHUNK, type ChunkMesh, FACE_DIRECTIONS, changedChunks, chunksOf, meshChunk } from '@sphalerite/core/mesh';
import { type VoxelGrid } from '@sphalerite/core/voxel';
import { type BufferGeometry, type Group, type LineSegments, type Material, Mesh } from 'three';
import { chunkGeometries } from './chunk-geometry';
import { colourLines } from './colour-lines';

/** Chunks that are meshed at once on the spot; more go to a worker. */
const AT_ONCE = 8;

export type MeshInBackground = (grid: VoxelGrid, chunks: readonly Vec3[]) => Promise<(ChunkMesh | null)[]>;

/** How faces are drawn: with which material, in which order, and what they do with light. */
export interface FaceStyle {
  readonly material: Material;
  readonly order: number;
  readonly casts: boolean;
  readonly receives: boolean;
  readonly visible: boolean;
}

interface Chunk {
  readonly at: Vec3;
  /** The faces of each copy. */
  readonly faces: Mesh[][];
  readonly mesh: ChunkMesh;
  lines: LineSegments | null;
}

/**
 * Meshes of a grid that follow it chunk by chunk, drawn in one or several copies of the same geometry.
 *
 * @param takes – which palette bytes are drawn
 */
export class CubeMeshes {
  private readonly chunks = new Map<string, Chunk>();
  private groups: readonly Group[];
  private grid: VoxelGrid | null = null;
  private lined = false;
  private version = 0;
  /** The styles of each copy; several are drawn over one another. */
  private styles: readonly (readonly FaceStyle[])[] = [];

  constructor(
    group: Group,
    private readonly background: MeshInBackground,
    private readonly changed: () => void,
    private takes: (byte: number) => boolean = () => true,
  ) {
    this.groups = [group];
  }

  /** Shows a grid; only chunks whose bricks differ are meshed. */
  setGrid(grid: VoxelGrid): void {
    if (grid === this.grid) return;
    const before = this.grid;
    this.grid = grid;
    const comparable =
      before !== null &&
      before.bounds.min.every((v, i) => v === grid.bounds.min[i]) &&
      before.bounds.size.every((v, i) => v === grid.bounds.size[i]);
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
    void this.background(grid, dirty).then(
      (meshes) => {
        // A newer grid may have come meanwhile; then this result is older than what stands.
        if (version !== this.version) {
          this.remesh(dirty);
          return;
        }
        dirty.forEach((c, i) => this.put(c.join(), c, meshes[i]!));
        this.changed();
      },
      () => this.remesh(dirty),
    );
  }

  private remesh(chunks: readonly Vec3[]): void {
    if (!this.grid) return;
    const grid = this.grid;
    void this.background(grid, chunks).then(
      (meshes) => {
        if (grid !== this.grid) this.remesh(chunks);
        else {
          chunks.forEach((c, i) => this.put(c.join(), c, meshes[i]!));
          this.changed();
        }
      },
      () => undefined,
    );
  }

  /** Other bytes are drawn; everything is made anew. */
  setTakes(takes: (byte: number) => boolean): void {
    this.takes = takes;
    for (const c of [...this.chunks.values()]) this.put(c.at.join(), c.at, c.mesh);
  }

  /** The groups that hold the copies, and the styles of each. Geometry is made once for all. */
  setCopies(groups: readonly Group[], styles: readonly (readonly FaceStyle[])[]): void {
    const layers = (list: readonly (readonly FaceStyle[])[]): string => list.map((d) => d.length).join();
    const again =
      groups.length !== this.groups.length ||
      groups.some((g, i) => g !== this.groups[i]) ||
      layers(styles) !== layers(this.styles);
    this.groups = groups;
    this.styles = styles;
    for (const c of this.chunks.values()) {
      if (again) this.hang(c);
      else this.applyStyles(c);
    }
  }

  /** Lines where colours meet, on the first copy. */
  setLined(lined: boolean): void {
    if (lined === this.lined) return;
    this.lined = lined;
    for (const c of this.chunks.values()) this.line(c);
  }

  private line(c: Chunk): void {
    c.lines?.geometry.dispose();
    c.lines?.removeFromParent();
    c.lines = this.lined ? colourLines(c.mesh, c.at) : null;
    if (c.lines) this.groups[0]!.add(c.lines);
  }

  /**
   * Leaves out faces that look away from the eye, chunk by chunk.
   *
   * @param o – the eye in the lattice of copy `copy`; null draws all
   * @param d – where it looks
   */
  cull(copy: number, o: Vec3 | null, d: Vec3, orthographic: boolean): void {
    for (const { at, faces } of this.chunks.values()) {
      for (const face of faces[copy] ?? []) {
        if (!o) {
          face.visible = face.userData['shown'] as boolean;
          continue;
        }
        const direction = face.userData['direction'] as number;
        const axis = direction >> 1;
        const sign = FACE_DIRECTIONS[direction]![axis]!;
        const turned = orthographic
          ? d[axis]! * sign < 0
          : sign > 0
            ? o[axis]! > at[axis]! * CHUNK
            : o[axis]! < (at[axis]! + 1) * CHUNK;
        face.visible = turned && (face.userData['shown'] as boolean);
      }
    }
  }

  dispose(): void {
    for (const key of [...this.chunks.keys()]) this.put(key, [0, 0, 0], null);
  }

  private put(key: string, at: Vec3, mesh: ChunkMesh | null): void {
    const old = this.chunks.get(key);
    if (old) {
      for (const f of new Set(old.faces.flat().map((m) => m.geometry))) f.dispose();
      for (const f of old.faces.flat()) f.removeFromParent();
      old.lines?.geometry.dispose();
      old.lines?.removeFromParent();
      this.chunks.delete(key);
    }
    if (!mesh) return;
    const chunk: Chunk = { at, faces: [], mesh, lines: null };
    this.chunks.set(key, chunk);
    this.hang(chunk, chunkGeometries(mesh, at, this.takes));
    if (this.lined) this.line(chunk);
  }

  /** Makes the meshes of a chunk for all copies, from its geometry or that of the meshes it has. */
  private hang(chunk: Chunk, geometries?: readonly (BufferGeometry | null)[]): void {
    const known: (BufferGeometry | null)[] = geometries ? [...geometries] : [];
    for (const f of chunk.faces.flat()) {
      known[f.userData['direction'] as number] ??= f.geometry;
      f.removeFromParent();
    }
    // A chunk that loses its only meshes keeps none of its shapes; there is always a first copy.
    chunk.faces.splice(
      0,
      chunk.faces.length,
      ...this.groups.map((group, copy) => {
        const faces = known.flatMap((g, direction) =>
          g
            ? Array.from({ length: Math.max(1, this.styles[copy]?.length ?? 1) }, (_, layer) => {
                const m = new Mesh(g);
                m.matrixAutoUpdate = false;
                m.userData['direction'] = direction;
                m.userData['layer'] = layer;
                return m;
              })
            : [],
        );
        if (faces.length > 0) group.add(...faces);
        return faces;
      }),
    );
    this.applyStyles(chunk);
  }

  private applyStyles(chunk: Chunk): void {
    chunk.faces.forEach((faces, copy) => {
      for (const f of faces) {
        const style = this.styles[copy]?.[f.userData['layer'] as number];
        if (!style) continue;
        f.material = style.material;
        f.renderOrder = style.order;
        f.castShadow = style.casts;
        f.receiveShadow = style.receives;
        f.userData['shown'] = f.visible = style.visible;
      }
    });
  }
}
