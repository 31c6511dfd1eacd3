/** Types of the library `cdt2d`, which comes without; see `paths` in tsconfig.base.json. */

/**
 * Constrained Delaunay triangulation.
 *
 * @param points – no two alike
 * @param edges – pairs of their numbers
 * @returns triangles as triples of numbers
 */
export default function cdt2d(
  points: readonly (readonly [number, number])[],
  edges: readonly (readonly [number, number])[],
  options?: { readonly delaunay?: boolean; readonly interior?: boolean; readonly exterior?: boolean },
): [number, number, number][];
