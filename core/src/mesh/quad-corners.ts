import { type ChunkMesh, quadH, quadW, quadX, quadY, quadZ } from './chunk-mesh';

/**
 * The four corners of every quad of a chunk in lattice coordinates, counter-clockwise seen from outside.
 *
 * @param visit – called with the direction's index, the palette byte and 12 numbers (valid during the call only)
 */
export function forQuads(
  mesh: ChunkMesh,
  visit: (direction: number, colour: number, corners: Int32Array) => void,
): void {
  const c = new Int32Array(12);
  let i = 0;
  for (let d = 0; d < 6; d++) {
    const axis = d >> 1;
    const positive = (d & 1) === 0;
    for (let n = 0; n < mesh.counts[d]!; n++, i++) {
      const q = mesh.quads[i]!;
      const base = [quadX(q) + mesh.origin[0], quadY(q) + mesh.origin[1], quadZ(q) + mesh.origin[2]];
      const w = quadW(q),
        h = quadH(q);
      base[axis]! += positive ? 1 : 0;
      const u = axis === 0 ? 1 : 0;
      const v = axis === 2 ? 1 : 2;
      // u × v points along +axis for X (y×z) and Z (x×y), against it for Y (x×z).
      const forward = positive === (axis !== 1);
      for (let k = 0; k < 4; k++) {
        const onU = k === 1 || k === 2 ? w : 0;
        const onV = k >= 2 ? h : 0;
        const o = (forward ? k : 3 - k) * 3;
        c[o] = base[0]!;
        c[o + 1] = base[1]!;
        c[o + 2] = base[2]!;
        c[o + u]! += onU;
        c[o + v]! += onV;
      }
      visit(d, mesh.colours[i]!, c);
    }
  }
}
