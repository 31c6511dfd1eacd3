import type { Vec3 } from '@sphalerite/core/math';
import { CHUNK, type ChunkMesh } from '@sphalerite/core/mesh';
import type { BufferGeometry } from 'three';
import { chunkGeometries, wholeGeometry } from './chunk-geometry';
import { colourLines } from './colour-lines';

/** A piece of a surface as it is handed to the graphics card; each form is made when it is first asked for. */
export interface Piece {
  /** The box it lies in, in the lattice. */
  readonly lo: Vec3;
  readonly hi: Vec3;
  /** One a direction, for what stands alone: those turned away are left out. */
  faces(): readonly (BufferGeometry | null)[];
  /** All together, for what stands many times. */
  whole(): BufferGeometry | null;
  /** Lines where colours meet. */
  lines(): BufferGeometry | null;
  dispose(): void;
}

/** Pieces by key, and who is told when one is another. */
export interface Skin {
  readonly pieces: ReadonlyMap<string, Piece>;
}

function once<T>(make: () => T): { (): T; made(): T | undefined } {
  let value: { readonly v: T } | null = null;
  const get = (): T => (value ??= { v: make() }).v;
  return Object.assign(get, { made: () => value?.v });
}

/** The piece of a chunk, of the bytes that are taken. */
export function chunkPiece(mesh: ChunkMesh, takes: (byte: number) => boolean): Piece {
  const faces = once(() => chunkGeometries(mesh, takes)),
    whole = once(() => wholeGeometry(mesh, takes)),
    lines = once(() => colourLines(mesh));
  const [x, y, z] = mesh.origin;
  return {
    lo: mesh.origin,
    hi: [x + CHUNK, y + CHUNK, z + CHUNK],
    faces,
    whole,
    lines,
    dispose() {
      for (const g of faces.made() ?? []) g?.dispose();
      whole.made()?.dispose();
      lines.made()?.dispose();
    },
  };
}
