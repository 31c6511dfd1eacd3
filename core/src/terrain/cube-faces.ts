import type { Vec3 } from '../math';
import { type TerrainCube, type TerrainSet, must } from '../model';

/** The way right and up of a face's picture as one looks at it from outside, in the order of `cube.faces`. */
export const FACE_FRAMES: readonly { readonly right: Vec3; readonly up: Vec3 }[] = [
  { right: [0, 0, -1], up: [0, 1, 0] },
  { right: [0, 0, 1], up: [0, 1, 0] },
  { right: [1, 0, 0], up: [0, 0, -1] },
  { right: [1, 0, 0], up: [0, 0, 1] },
  { right: [1, 0, 0], up: [0, 1, 0] },
  { right: [-1, 0, 0], up: [0, 1, 0] },
];

/**
 * What a face of a cube shows as one looks at it: its picture, mirrored left to right if it is, then turned
 * counter-clockwise by its quarter turns.
 *
 * @param face – its index in `cube.faces`
 * @returns `texels²` palette bytes, a row after the other from the bottom, each from left to right; new every time
 */
export function faceBytes(set: TerrainSet, cube: TerrainCube, face: number): Uint8Array {
  const { picture, turns, mirrored } = cube.faces[face]!;
  const n = set.texels;
  const { grid } = must(set.pictures, picture, 'face picture');
  const out = new Uint8Array(n * n);
  for (let y = 0; y < n; y++) {
    for (let x = 0; x < n; x++) {
      // Back by as many turns, clockwise.
      let u = x,
        v = y;
      for (let k = 0; k < turns; k++) [u, v] = [v, n - 1 - u];
      out[y * n + x] = grid.get(mirrored ? n - 1 - u : u, v, 0);
    }
  }
  return out;
}
