import type { VoxelGrid } from '../voxel';
import { FACE_DIRECTIONS, chunksOf, meshChunk } from './chunk-mesh';
import { forQuads } from './quad-corners';

/** A triangle mesh of a grid's surface, coloured by palette byte. */
export interface Surface {
  /** Lattice coordinates, 3 numbers a vertex. */
  readonly positions: Float32Array;
  readonly normals: Float32Array;
  /** Palette byte of each vertex. */
  readonly colours: Uint8Array;
  readonly indices: Uint32Array;
  /** Quads before they were cut into triangles. */
  readonly quads: number;
  /** Faces of single cubes that they cover. */
  readonly faces: number;
}

/**
 * Exposed faces, merged where they are flat and of one colour, corners of one colour and direction shared.
 *
 * @param accept – keeps only faces of these palette bytes; all by default
 */
export function surfaceOf(grid: VoxelGrid, accept: (byte: number) => boolean = () => true): Surface {
  const positions: number[] = [];
  const normals: number[] = [];
  const colours: number[] = [];
  const indices: number[] = [];
  const known = new Map<string, number>();
  let quads = 0,
    faces = 0;
  for (const at of chunksOf(grid)) {
    const mesh = meshChunk(grid, at[0], at[1], at[2]);
    if (!mesh) continue;
    forQuads(mesh, (d, colour, c) => {
      if (!accept(colour)) return;
      quads++;
      // Two of the three extents are the sides; along the face's own axis there is none.
      faces += [0, 1, 2].reduce(
        (area, a) => area * (Math.max(c[a]!, c[a + 3]!, c[a + 6]!) - Math.min(c[a]!, c[a + 3]!, c[a + 6]!) || 1),
        1,
      );
      const corner: number[] = [];
      for (let k = 0; k < 12; k += 3) {
        const key = `${c[k]},${c[k + 1]},${c[k + 2]},${d},${colour}`;
        let i = known.get(key);
        if (i === undefined) {
          i = colours.length;
          known.set(key, i);
          positions.push(c[k]!, c[k + 1]!, c[k + 2]!);
          normals.push(...FACE_DIRECTIONS[d]!);
          colours.push(colour);
        }
        corner.push(i);
      }
      indices.push(corner[0]!, corner[1]!, corner[2]!, corner[0]!, corner[2]!, corner[3]!);
    });
  }
  return {
    positions: Float32Array.from(positions),
    normals: Float32Array.from(normals),
    colours: Uint8Array.from(colours),
    indices: Uint32Array.from(indices),
    quads,
    faces,
  };
}
