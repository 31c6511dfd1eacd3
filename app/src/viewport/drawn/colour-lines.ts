import { CHUNK, type ChunkMesh, FACE_DIRECTIONS, forQuads } from '@sphalerite/core/mesh';
import { BufferGeometry, Float32BufferAttribute } from 'three';

/** Lines along the faces of a chunk wherever two colours, or a colour and nothing, meet in one plane. */
export function colourLines(mesh: ChunkMesh): BufferGeometry | null {
  const at = mesh.origin;
  // One flat picture for each direction and plane: the colour of every face, 0 where there is none.
  const planes = new Map<number, Uint8Array>();
  forQuads(mesh, (d, colour, c) => {
    const axis = d >> 1,
      u = axis === 0 ? 1 : 0,
      v = axis === 2 ? 1 : 2;
    const us = [c[u]!, c[3 + u]!, c[6 + u]!, c[9 + u]!],
      vs = [c[v]!, c[3 + v]!, c[6 + v]!, c[9 + v]!];
    const key = d * 64 + (c[axis]! - at[axis]!);
    let p = planes.get(key);
    if (!p) planes.set(key, (p = new Uint8Array(CHUNK * CHUNK)));
    for (let y = Math.min(...vs); y < Math.max(...vs); y++)
      p.fill(colour, Math.min(...us) - at[u]! + (y - at[v]!) * CHUNK, Math.max(...us) - at[u]! + (y - at[v]!) * CHUNK);
  });
  const points: number[] = [];
  for (const [key, p] of planes) {
    const d = key >> 6,
      axis = d >> 1,
      u = axis === 0 ? 1 : 0,
      v = axis === 2 ? 1 : 2;
    const level = (key & 63) + at[axis]! + FACE_DIRECTIONS[d]![axis]! * 0.008;
    const push = (a: number, b: number): void => {
      const q = [0, 0, 0];
      q[axis] = level;
      q[u] = a + at[u]!;
      q[v] = b + at[v]!;
      points.push(...q);
    };
    for (let j = 0; j < CHUNK; j++) {
      for (let i = 0; i < CHUNK; i++) {
        const here = p[i + j * CHUNK]!;
        // Borders of the chunk are left out: what lies beyond is not known here.
        if (i > 0 && p[i - 1 + j * CHUNK] !== here) {
          push(i, j);
          push(i, j + 1);
        }
        if (j > 0 && p[i + (j - 1) * CHUNK] !== here) {
          push(i, j);
          push(i + 1, j);
        }
      }
    }
  }
  if (points.length === 0) return null;
  return new BufferGeometry().setAttribute('position', new Float32BufferAttribute(points, 3));
}
