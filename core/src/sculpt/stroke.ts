import { type Box, boxEnd, intersectBoxes } from '../math';
import { BRICK, type GridDraft, type VoxelGrid, brickRange, isUniformBrick } from '../voxel';
import { type MirrorPlanes, mirrorBoxes } from './mirror';

export const STROKE_VERBS = ['add', 'erase', 'paint'] as const;
export type StrokeVerb = (typeof STROKE_VERBS)[number];

/** What a stroke does, in plain data. */
export interface Stroke {
  readonly verb: StrokeVerb;
  /** Palette byte for add and paint. */
  readonly value: number;
  /** The cells it covers, before mirroring; single cells are boxes of size 1. */
  readonly boxes: readonly Box[];
  readonly mirror: MirrorPlanes;
}

/**
 * The layer after a stroke. Add fills only cells that look empty in `seen` (all visible layers), erase
 * and paint touch only cells of this layer. Cells outside the bounds are left out.
 */
export function applyStroke(layer: VoxelGrid, seen: VoxelGrid, stroke: Stroke): VoxelGrid {
  return layer.edit((d) => {
    for (const box of mirrorBoxes(stroke.boxes, stroke.mirror)) {
      if (stroke.verb === 'erase') d.fillBox(box, 0);
      else if (stroke.verb === 'add') addBox(d, seen, box, stroke.value);
      else paintBox(d, box, stroke.value);
    }
  });
}

/** Whole empty bricks are filled at once, so that a box of millions of cells costs thousands of steps. */
function addBox(d: GridDraft, seen: VoxelGrid, wanted: Box, value: number): void {
  const box = intersectBoxes(wanted, d.bounds);
  if (box.size.some((s) => s <= 0)) return;
  const [lo, hi] = brickRange(box);
  for (let bz = lo[2]; bz <= hi[2]; bz++) {
    for (let by = lo[1]; by <= hi[1]; by++) {
      for (let bx = lo[0]; bx <= hi[0]; bx++) {
        const part = intersectBoxes(box, { min: [bx * BRICK, by * BRICK, bz * BRICK], size: [BRICK, BRICK, BRICK] });
        const brick = seen.brickAt(bx, by, bz);
        if (!brick) d.fillBox(part, value);
        else if (!isUniformBrick(brick)) forCells(part, (x, y, z) => { if (seen.get(x, y, z) === 0) d.set(x, y, z, value); });
      }
    }
  }
}

function paintBox(d: GridDraft, wanted: Box, value: number): void {
  forCells(intersectBoxes(wanted, d.bounds), (x, y, z) => { if (d.get(x, y, z) !== 0) d.set(x, y, z, value); });
}

export function forCells(box: Box, visit: (x: number, y: number, z: number) => void): void {
  const e = boxEnd(box);
  for (let z = box.min[2]; z < e[2]; z++) {
    for (let y = box.min[1]; y < e[1]; y++) for (let x = box.min[0]; x < e[0]; x++) visit(x, y, z);
  }
}
