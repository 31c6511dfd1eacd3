// @ts-expect-error – the library comes without types; what it takes and gives is said below.
import cdt2d from 'cdt2d';

/**
 * Constrained Delaunay triangulation of what edges enclose, holes left out.
 *
 * @param points – no two alike
 * @param edges – pairs of their numbers; none crosses another
 * @returns triangles as triples of numbers, either way round
 */
export const triangulate = (
  points: readonly (readonly [number, number])[],
  edges: readonly (readonly [number, number])[],
): (readonly [number, number, number])[] =>
  (cdt2d as (p: typeof points, e: typeof edges, o: { readonly exterior: boolean }) => [number, number, number][])(
    points,
    edges,
    { exterior: false },
  );
