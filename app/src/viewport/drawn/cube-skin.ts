import type { Vec3 } from '@sphalerite/core/math';
import { FACE_DIRECTIONS } from '@sphalerite/core/mesh';
import type { TerrainCube, TerrainSet } from '@sphalerite/core/model';
import { FACE_FRAMES, faceBytes } from '@sphalerite/core/terrain';
import { BufferAttribute, BufferGeometry, DataTexture, NearestFilter, RedFormat, UnsignedByteType } from 'three';
import type { Piece } from './skin';

/** The pictures of a cube's six faces side by side, as palette bytes. */
export function cubePictures(set: TerrainSet, cube: TerrainCube): DataTexture {
  const n = set.texels;
  const bytes = new Uint8Array(6 * n * n);
  cube.faces.forEach((_, i) => {
    const face = faceBytes(set, cube, i);
    for (let y = 0; y < n; y++) bytes.set(face.subarray(y * n, y * n + n), (y * 6 + i) * n);
  });
  const t = new DataTexture(bytes, 6 * n, n, RedFormat, UnsignedByteType);
  t.magFilter = t.minFilter = NearestFilter;
  t.unpackAlignment = 1;
  t.needsUpdate = true;
  return t;
}

/** The six faces of a cube of so many texels, each vertex with its place in {@link cubePictures}. */
export function cubePiece(texels: number): Piece {
  const faces = FACE_DIRECTIONS.map((_, i) => quads([i], texels)),
    whole = quads([0, 1, 2, 3, 4, 5], texels);
  return {
    lo: [0, 0, 0],
    hi: [texels, texels, texels],
    faces: () => faces,
    whole: () => whole,
    lines: () => null,
    dispose: () => [...faces, whole].forEach((g) => g.dispose()),
  };
}

function quads(directions: readonly number[], n: number): BufferGeometry {
  const position: number[] = [],
    normal: number[] = [],
    place: number[] = [],
    index: number[] = [];
  for (const d of directions) {
    const { right, up } = FACE_FRAMES[d]!,
      out = FACE_DIRECTIONS[d]!;
    const corner = (u: number, v: number): Vec3 => {
      const at = (a: 0 | 1 | 2): number => (n / 2) * (1 + out[a] + right[a] * u + up[a] * v);
      return [at(0), at(1), at(2)];
    };
    const v = position.length / 3;
    for (const [x, y] of [
      [-1, -1],
      [1, -1],
      [1, 1],
      [-1, 1],
    ] as const) {
      position.push(...corner(x, y));
      normal.push(...out);
      place.push((d + (x + 1) / 2) / 6, (y + 1) / 2);
    }
    index.push(v, v + 1, v + 2, v, v + 2, v + 3);
  }
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(new Float32Array(position), 3));
  g.setAttribute('normal', new BufferAttribute(new Float32Array(normal), 3));
  g.setAttribute('swatch', new BufferAttribute(new Float32Array(place), 2));
  g.setIndex(index);
  g.computeBoundingSphere();
  return g;
}
