import { type Box, boxVolume, intersectBoxes, uniteBoxes } from '../math';
import { CellSet, type VoxelGrid } from '../voxel';
import { mirrorBoxes } from './mirror';
import { type Shape, shapeBox, shapeCells } from './shape';
import { type Symmetry, symmetricSet } from './symmetry';

export const STROKE_VERBS = ['add', 'erase', 'paint'] as const;
export type StrokeVerb = (typeof STROKE_VERBS)[number];

/** What a stroke does, in plain data. */
export interface Stroke {
  readonly verb: StrokeVerb;
  /** Palette byte for add and paint. */
  readonly value: number;
  /** What it covers, before mirroring. Each may have a byte of its own, taken from the cube it is built on. */
  readonly shapes: readonly (Shape & { readonly value?: number })[];
  readonly symmetry: Symmetry;
}

/** The cells of shapes with all their symmetric copies inside `limit`. */
export function strokeCells(shapes: readonly Shape[], symmetry: Symmetry, limit: Box): CellSet {
  const sets = shapes.map(shapeCells);
  if (sets.length === 1) return symmetricSet(sets[0]!, symmetry, limit);
  const all = new CellSet(sets.map((s) => s.box).reduce(uniteBoxes, { min: [0, 0, 0], size: [0, 0, 0] }));
  for (const s of sets) s.runs((x0, x1, y, z) => all.addRun(x0, x1, y, z));
  return symmetricSet(all, symmetry, limit);
}

/** The box that all of a stroke would fill, its copies included. */
export function strokeBox(shapes: readonly Shape[], symmetry: Symmetry): Box | null {
  const far: Box = { min: [-1024, -1024, -1024], size: [2048, 2048, 2048] };
  const box = shapes
    .map(shapeBox)
    .filter((b) => boxVolume(b) > 0)
    .reduce(uniteBoxes, { min: [0, 0, 0], size: [0, 0, 0] });
  return boxVolume(box) === 0
    ? null
    : (strokeCells([{ kind: 'set', set: CellSet.ofBoxes([box]) }], symmetry, far).tight ?? null);
}

/**
 * The layer after a stroke. Add fills only cells that look empty in `seen` (all visible layers), erase
 * and paint touch only cells of this layer. Cells outside the bounds, or outside `limit`, are left out.
 */
export function applyStroke(layer: VoxelGrid, seen: VoxelGrid, stroke: Stroke, limit: Box = layer.bounds): VoxelGrid {
  const inside = intersectBoxes(limit, layer.bounds);
  const boxes = plainBoxes(stroke, inside);
  // Boxes into empty space, or out of anything, need no look at single cells.
  if (
    boxes &&
    (stroke.verb === 'erase' || (stroke.verb === 'add' && boxes.every((b) => CellSet.filled(seen, b).isEmpty)))
  ) {
    return layer.edit((d) => boxes.forEach((b) => d.fillBox(b, stroke.verb === 'erase' ? 0 : stroke.value)), inside);
  }
  const groups = new Map<number, Shape[]>();
  for (const s of stroke.shapes) {
    const value = s.value ?? stroke.value;
    const list = groups.get(value);
    if (list) list.push(s);
    else groups.set(value, [s]);
  }
  return layer.edit((d) => {
    let taken: CellSet | null = null;
    for (const [value, shapes] of groups) {
      let set = strokeCells(shapes, stroke.symmetry, inside);
      // What an earlier colour of the same stroke has covered is not covered again.
      if (taken) set = set.minus(taken);
      if (groups.size > 1) taken = taken ? taken.union(set) : set;
      if (stroke.verb === 'erase') d.fillSet(set, 0);
      else if (stroke.verb === 'add') d.fillSet(set.minus(CellSet.filled(seen, set.box)), value);
      else d.fillSet(set.intersect(CellSet.filled(layer, set.box)), value);
    }
  }, inside);
}

/** The stroke as boxes with their mirror images, when it is nothing else; null otherwise. */
function plainBoxes({ shapes, symmetry }: Stroke, inside: Box): readonly Box[] | null {
  if (symmetry.radial || shapes.length > 64) return null;
  const boxes = shapes.flatMap((s) => (s.kind === 'box' && !s.hollow && s.value === undefined ? [s.box] : []));
  return boxes.length < shapes.length
    ? null
    : mirrorBoxes(boxes, symmetry.mirror)
        .map((b) => intersectBoxes(b, inside))
        .filter((b) => boxVolume(b) > 0);
}
