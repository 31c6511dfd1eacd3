import { type ChunkMesh, FACE_DIRECTIONS, forQuads } from '@sphalerite/core/mesh';
import type { Vec3 } from '@sphalerite/core/math';
import { BufferAttribute, BufferGeometry } from 'three';

/** A chunk's faces as six geometries, one a direction, so that those turned away are not drawn at all; only of bytes that are taken. */
export function chunkGeometries(
  mesh: ChunkMesh,
  at: Vec3,
  takes: (byte: number) => boolean = () => true,
): (BufferGeometry | null)[] {
  const taken = [0, 0, 0, 0, 0, 0];
  for (let d = 0, i = 0; d < 6; d++)
    for (let k = 0; k < mesh.counts[d]!; k++, i++) if (takes(mesh.colours[i]!)) taken[d]!++;
  const targets = taken.map((n) =>
    n === 0
      ? null
      : {
          position: new Float32Array(n * 12),
          swatch: new Float32Array(n * 4),
          index: n * 4 < 65536 ? new Uint16Array(n * 6) : new Uint32Array(n * 6),
          n: 0,
        },
  );
  forQuads(mesh, at as [number, number, number], (d, colour, c) => {
    if (!takes(colour)) return;
    const t = targets[d]!;
    t.position.set(c, t.n * 12);
    t.swatch.fill(colour, t.n * 4, t.n * 4 + 4);
    const v = t.n * 4;
    t.index.set([v, v + 1, v + 2, v, v + 2, v + 3], t.n * 6);
    t.n++;
  });
  return targets.map((t, d) => {
    if (!t) return null;
    const g = new BufferGeometry();
    const normals = new Int8Array(t.n * 12);
    for (let i = 0; i < t.n * 4; i++) normals.set(FACE_DIRECTIONS[d]!, i * 3);
    g.setAttribute('position', new BufferAttribute(t.position, 3));
    g.setAttribute('normal', new BufferAttribute(normals, 3, false));
    g.setAttribute('swatch', new BufferAttribute(t.swatch, 1));
    g.setIndex(new BufferAttribute(t.index, 1));
    g.computeBoundingSphere();
    return g;
  });
}
