/**
 * How the faces around a lattice point hang together. Where cubes meet in an edge or a corner alone, the surface touches itself;
 * each cube's two faces at such an edge belong together, so that the surface is cut there into sheets that are each closed.
 * A sheet around one point is an umbrella; a point has one vertex for each.
 *
 * The eight cells around a point are numbered 4z + 2y + x, with 0 for the lower and 1 for the higher side of it.
 */

/** For each of the 256 ways to fill the cells: the umbrella (0–3) of the face of cell c across axis a, at `256·24`'s place c·3 + a. */
const table = new Uint8Array(256 * 24);

function fill(config: number): void {
  const filled = (cell: number): boolean => ((config >> cell) & 1) === 1;
  const parent = Array.from({ length: 24 }, (_, i) => i);
  const root = (i: number): number => (parent[i] === i ? i : (parent[i] = root(parent[i]!)));
  /** The face between two cells that lie beside each other along an axis; −1 where there is none. */
  const face = (a: number, b: number, axis: number): number => {
    if (filled(a) === filled(b)) return -1;
    return (filled(a) ? a : b) * 3 + axis;
  };
  for (let axis = 0; axis < 3; axis++) {
    const u = 1 << ((axis + 1) % 3),
      v = 1 << ((axis + 2) % 3);
    for (const side of [0, 1 << axis]) {
      // The four cells around one of the six edges that meet here, in a ring.
      const ring = [side, side | u, side | u | v, side | v];
      const faces = ring.map((cell, i) =>
        face(cell, ring[(i + 1) % 4]!, i % 2 === 0 ? (axis + 1) % 3 : (axis + 2) % 3),
      );
      const there = faces.filter((f) => f >= 0);
      const join = (a: number, b: number): void => void (parent[root(a)] = root(b));
      if (there.length === 2) join(there[0]!, there[1]!);
      // All four: those of one cube belong together.
      if (there.length === 4)
        for (const cell of ring.filter(filled)) {
          const [a, b] = there.filter((f) => Math.floor(f / 3) === cell) as [number, number];
          join(a, b);
        }
    }
  }
  const numbers = new Map<number, number>();
  for (let f = 0; f < 24; f++) {
    const cell = Math.floor(f / 3);
    if (!filled(cell) || filled(cell ^ (1 << (f % 3)))) continue;
    const r = root(f);
    if (!numbers.has(r)) numbers.set(r, numbers.size);
    table[config * 24 + f] = numbers.get(r)!;
  }
}
for (let config = 0; config < 256; config++) fill(config);

/** The umbrella that the face of a cell across an axis belongs to. @param config – a bit for each filled cell around the point */
export const umbrellaOf = (config: number, cell: number, axis: number): number => table[config * 24 + cell * 3 + axis]!;
