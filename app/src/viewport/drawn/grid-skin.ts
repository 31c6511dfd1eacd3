import type { Vec3 } from '@sphalerite/core/math';
import { type ChunkMesh, changedChunks, chunksOf, meshChunk } from '@sphalerite/core/mesh';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { type Piece, type Skin, chunkPiece } from './skin';

export type MeshInBackground = (grid: VoxelGrid, chunks: readonly Vec3[]) => Promise<(ChunkMesh | null)[]>;

/** Chunks of one grid that are meshed on the spot; more go to a worker. */
const AT_ONCE = 8;
/** Chunks of all grids that come in together. */
const ALL_AT_ONCE = 64;

/** How many chunks may still be meshed on the spot in one go. */
export class OnTheSpot {
  private left = ALL_AT_ONCE;
  take(chunks: number): boolean {
    if (chunks > AT_ONCE || chunks > this.left) return false;
    this.left -= chunks;
    return true;
  }
}

interface Chunk {
  readonly at: Vec3;
  readonly mesh: ChunkMesh;
}

/** The surface of a grid, which follows it chunk by chunk. */
export class GridSkin implements Skin {
  readonly pieces = new Map<string, Piece>();
  private readonly chunks = new Map<string, Chunk>();
  private grid: VoxelGrid | null = null;
  private version = 0;
  /** Of all its chunks; null until the first are in. */
  quads: number | null = null;

  /**
   * @param changed – told of each piece that is new, another or gone
   * @param arrived – told when a worker's pieces are in
   * @param takes – which palette bytes are drawn
   */
  constructor(
    private readonly background: MeshInBackground,
    private readonly changed: (key: string) => void,
    private readonly arrived: () => void,
    private takes: (byte: number) => boolean = () => true,
  ) {}

  /** Shows a grid; only chunks whose bricks differ are meshed. */
  setGrid(grid: VoxelGrid, spot = new OnTheSpot()): void {
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
      for (const { at } of [...this.chunks.values()]) if (!kept.has(at.join())) this.put(at, null);
    }
    const version = ++this.version;
    if (spot.take(dirty.length)) {
      for (const c of dirty) this.put(c, meshChunk(grid, ...(c as [number, number, number])));
      return;
    }
    void this.background(grid, dirty).then(
      (meshes) => {
        // A newer grid may have come meanwhile; then this result is older than what stands.
        if (version !== this.version) {
          this.remesh(dirty);
          return;
        }
        dirty.forEach((c, i) => this.put(c, meshes[i]!));
        this.arrived();
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
          chunks.forEach((c, i) => this.put(c, meshes[i]!));
          this.arrived();
        }
      },
      () => undefined,
    );
  }

  /** Other bytes are drawn; everything is made anew. */
  setTakes(takes: (byte: number) => boolean): void {
    this.takes = takes;
    for (const c of [...this.chunks.values()]) this.put(c.at, c.mesh);
  }

  dispose(): void {
    this.grid = null;
    for (const { at } of [...this.chunks.values()]) this.put(at, null);
  }

  private put(at: Vec3, mesh: ChunkMesh | null): void {
    const key = at.join();
    const old = this.pieces.get(key);
    this.quads = (this.quads ?? 0) + quadsOf(mesh) - quadsOf(this.chunks.get(key)?.mesh ?? null);
    if (!mesh && !old) return;
    this.pieces.delete(key);
    this.chunks.delete(key);
    if (mesh) {
      this.chunks.set(key, { at, mesh });
      this.pieces.set(key, chunkPiece(mesh, this.takes));
    }
    this.changed(key);
    // What is drawn has let go of it by now.
    old?.dispose();
  }
}

const quadsOf = (mesh: ChunkMesh | null): number => mesh?.counts.reduce((a, n) => a + n, 0) ?? 0;
