import { withoutTransparent } from '@sphalerite/core/mesh';
import { faceBytes } from '@sphalerite/core/terrain';
import type { Geometry } from '@sphalerite/core/scene';
import { byteTable } from '@sphalerite/core/voxel';
import type { DataTexture } from 'three';
import { cubePictures, cubePiece } from './cube-skin';
import { GridSkin, type MeshInBackground, type OnTheSpot } from './grid-skin';
import type { Piece, Skin } from './skin';

/** What is told of pieces that change. */
export interface ShapeUser {
  /** @param clear – whether the piece is of the faces that let light through */
  pieceChanged(clear: boolean, key: string): void;
  /** Everything is another. */
  allChanged(): void;
}

const NOTHING: Skin = { pieces: new Map<string, Piece>() };
const NONE_CLEAR = byteTable();
let count = 0;

/**
 * A geometry as it is drawn, made once however often it stands. It follows its geometry from one grid to the next, so that a
 * stroke meshes what it touched.
 */
export class Shape {
  readonly id = count++;
  readonly users = new Set<ShapeUser>();
  /** The faces of a terrain cube; null for cubes of a grid. */
  pictures: DataTexture | null = null;
  private shown: Geometry | null = null;
  private transparent: Uint8Array = NONE_CLEAR;
  private grid: { solid: GridSkin; clear: GridSkin | null } | null = null;
  private cube: { piece: Piece; clear: boolean } | null = null;

  constructor(
    private readonly background: MeshInBackground,
    private readonly arrived: () => void,
  ) {}

  /** Pieces of faces that let no light through, or of those that do. */
  skin(clear: boolean): Skin {
    if (this.cube) return this.cube.clear === clear ? { pieces: new Map([['cube', this.cube.piece]]) } : NOTHING;
    return (clear ? this.grid?.clear : this.grid?.solid) ?? NOTHING;
  }

  /** Quads that it is drawn with; null while its first are on their way. */
  get quads(): number | null {
    if (this.cube) return 6;
    const { solid, clear } = this.grid ?? { solid: null, clear: null };
    if (!solid || solid.quads === null) return null;
    return solid.quads + (clear?.quads ?? 0);
  }

  /** @param transparent – 1 for each byte that lets light through in a palette it is seen in */
  show(geometry: Geometry, transparent: Uint8Array, spot: OnTheSpot): void {
    const other = transparent !== this.transparent && transparent.some((v, i) => v !== this.transparent[i]);
    if (geometry === this.shown && !other) return;
    this.shown = geometry;
    this.transparent = transparent;
    if (geometry.kind === 'grid') this.showGrid(geometry.grid, other, spot);
    else this.showCube(geometry);
  }

  private newSkin(clear: boolean, takes?: (byte: number) => boolean): GridSkin {
    const changed = (key: string): void => this.users.forEach((u) => u.pieceChanged(clear, key));
    return new GridSkin(this.background, changed, this.arrived, takes);
  }

  private showGrid(grid: Extract<Geometry, { kind: 'grid' }>['grid'], other: boolean, spot: OnTheSpot): void {
    if (this.cube) this.clear();
    this.grid ??= { solid: this.newSkin(false), clear: null };
    if (other || !this.grid.clear) {
      const takes = (byte: number): boolean => this.transparent[byte] === 1;
      if (!this.transparent.includes(1)) {
        this.grid.clear?.dispose();
        this.grid.clear = null;
      } else if (this.grid.clear) this.grid.clear.setTakes(takes);
      else this.grid.clear = this.newSkin(true, takes);
    }
    this.grid.solid.setGrid(withoutTransparent(grid, this.transparent), spot);
    this.grid.clear?.setGrid(grid, spot);
  }

  private showCube({ set, cube }: Extract<Geometry, { kind: 'cube' }>): void {
    this.clear();
    this.pictures = cubePictures(set, cube);
    const clear = cube.faces.some((_, i) => faceBytes(set, cube, i).some((b) => this.transparent[b] === 1));
    this.cube = { piece: cubePiece(set.texels), clear };
    this.users.forEach((u) => u.allChanged());
  }

  private clear(): void {
    this.grid?.solid.dispose();
    this.grid?.clear?.dispose();
    this.grid = null;
    const old = this.cube;
    this.cube = null;
    this.pictures?.dispose();
    this.pictures = null;
    if (old) {
      this.users.forEach((u) => u.allChanged());
      old.piece.dispose();
    }
  }

  dispose(): void {
    this.clear();
  }
}
