import { boxVolume } from '@sphalerite/core/math';
import { type Shape, type StrokeVerb, shapeBox, strokeCells } from '@sphalerite/core/sculpt';
import type { CellSet } from '@sphalerite/core/voxel';
import { useSession } from '../../../stores/session';
import type { Change } from '../../../tools/tool';
import { useBuild } from '../build-state';
import { usePieceCopies } from '../selection/placing';

export type StrokeChange = Change & { readonly kind: 'stroke' };
export type StampChange = Change & { readonly kind: 'stamp' };

/** Cells of a shape's box above which it is not drawn anew with every move. */
export const LARGE = 1_500_000;

/** Cells to be looked at for a shape; trails, sets and full boxes cost next to nothing. */
const cellsOf = (s: Shape): number =>
  s.kind === 'dabs' || s.kind === 'set' || (s.kind === 'box' && !s.hollow) ? 0 : boxVolume(shapeBox(s));

/**
 * Shapes too large to be drawn anew with every move, and faces of too many cubes: their outline is shown, and a worker
 * makes them. `pulled` is how many cubes the face in hand would add or take.
 */
export function isLarge(c: Change, pulled: number): boolean {
  if (c.kind === 'stroke') return c.shapes.reduce((n, s) => n + cellsOf(s), 0) > LARGE;
  return c.kind === 'extrude' && pulled > LARGE / 5;
}

/** The arguments of the edits that make a tool's changes, on the layer in hand with the live symmetry. */
export function useChangeArguments() {
  const session = useSession();
  const build = useBuild();
  const copies = usePieceCopies();
  const target = () => ({ part: session.part!.id, layer: session.layer!.id, limit: build.limit });
  return {
    target,
    stroke: (c: StrokeChange & { readonly verb: StrokeVerb }) => ({
      ...target(),
      grow: build.grows,
      stroke: { verb: c.verb, value: c.value, shapes: c.shapes, symmetry: build.symmetry },
    }),
    stamp: (c: StampChange) => ({
      ...target(),
      clear: null,
      put: copies.images(c.grid, null).put,
      title: 'Stamp',
      grow: build.grows,
    }),
    /** The cells that a stroke covers, with their images. */
    cells: (c: StrokeChange): CellSet => strokeCells(c.shapes, build.symmetry, build.limit ?? session.part!.bounds),
  };
}
