import type { Box } from '@sphalerite/core/math';

/** The textbook greedy mesher: a mask of colours for each slice, rectangles taken off it. Counts quads only. */
export function textbookGreedy(cells: Uint8Array, { size }: Box): number {
  let quads = 0;
  const [nx, ny, nz] = size;
  const at = (x: number, y: number, z: number): number =>
    x < 0 || y < 0 || z < 0 || x >= nx || y >= ny || z >= nz ? 0 : cells[(z * ny + y) * nx + x]!;
  for (let d = 0; d < 3; d++) {
    const u = (d + 1) % 3,
      v = (d + 2) % 3;
    const mask = new Int32Array(size[u]! * size[v]!);
    const p = [0, 0, 0],
      q = [0, 0, 0];
    q[d] = 1;
    for (p[d] = -1; p[d]! < size[d]!;) {
      let n = 0;
      for (p[v] = 0; p[v]! < size[v]!; p[v]!++) {
        for (p[u] = 0; p[u]! < size[u]!; p[u]!++) {
          const a = at(p[0]!, p[1]!, p[2]!),
            b = at(p[0]! + q[0]!, p[1]! + q[1]!, p[2]! + q[2]!);
          mask[n++] = (a !== 0) === (b !== 0) ? 0 : a !== 0 ? a : -b;
        }
      }
      p[d]!++;
      n = 0;
      for (let j = 0; j < size[v]!; j++) {
        for (let i = 0; i < size[u]!;) {
          const c = mask[n]!;
          if (c === 0) {
            i++;
            n++;
            continue;
          }
          let w = 1;
          while (i + w < size[u]! && mask[n + w] === c) w++;
          let h = 1;
          grow: for (; j + h < size[v]!; h++)
            for (let k = 0; k < w; k++) if (mask[n + k + h * size[u]!] !== c) break grow;
          quads++;
          for (let l = 0; l < h; l++) for (let k = 0; k < w; k++) mask[n + k + l * size[u]!] = 0;
          i += w;
          n += w;
        }
      }
    }
  }
  return quads;
}
