import { type ChunkMesh, FACE_DIRECTIONS, forQuads } from '@sphalerite/core/mesh';
import { BufferAttribute, BufferGeometry } from 'three';

const ALL = (): boolean => true;

/** A chunk's faces as six geometries, one a direction, so that those turned away are not drawn at all; only of bytes that are taken. */
export const chunkGeometries = (
  mesh: ChunkMesh,
  takes: (byte: number) => boolean = ALL,
): readonly (BufferGeometry | null)[] => FACE_DIRECTIONS.map((_, d) => quadGeometry(mesh, (o) => o === d, takes));

/** All faces of a chunk that are taken as one geometry; null when there are none. */
export const wholeGeometry = (mesh: ChunkMesh, takes: (byte: number) => boolean = ALL): BufferGeometry | null =>
  quadGeometry(mesh, ALL, takes);

function quadGeometry(
  mesh: ChunkMesh,
  faces: (direction: number) => boolean,
  takes: (byte: number) => boolean,
): BufferGeometry | null {
  let n = 0;
  for (let d = 0, i = 0; d < 6; d++)
    for (let k = 0; k < mesh.counts[d]!; k++, i++) if (faces(d) && takes(mesh.colours[i]!)) n++;
  if (n === 0) return null;
  const position = new Float32Array(n * 12),
    normal = new Int8Array(n * 12),
    swatch = new Float32Array(n * 4),
    index = n * 4 < 65536 ? new Uint16Array(n * 6) : new Uint32Array(n * 6);
  let q = 0;
  forQuads(mesh, (d, colour, c) => {
    if (!faces(d) || !takes(colour)) return;
    position.set(c, q * 12);
    for (let k = 0; k < 4; k++) normal.set(FACE_DIRECTIONS[d]!, q * 12 + k * 3);
    swatch.fill(colour, q * 4, q * 4 + 4);
    const v = q * 4;
    index.set([v, v + 1, v + 2, v, v + 2, v + 3], q * 6);
    q++;
  });
  const g = new BufferGeometry();
  g.setAttribute('position', new BufferAttribute(position, 3));
  g.setAttribute('normal', new BufferAttribute(normal, 3, false));
  g.setAttribute('swatch', new BufferAttribute(swatch, 1));
  g.setIndex(new BufferAttribute(index, 1));
  g.computeBoundingSphere();
  return g;
}
