import { type Vec3, mapVec } from '@sphalerite/core/math';
import { axisOf, movedGrid, quarterTurned } from '@sphalerite/core/sculpt';
import type { VoxelGrid } from '@sphalerite/core/voxel';
import { targetCell } from './geometry';
import { type Change, IDLE, type Pick, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';
import { effectiveVerb } from './verbs';

/** Puts the stamp in hand where it clings to the surface: its back to the wall, or its foot on the ground. */
export class StampTool implements Tool {
  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    if (event.type !== 'move' && event.type !== 'down') return IDLE;
    if (!event.pick || !ctx.stamp) return IDLE;
    const verb = effectiveVerb(ctx);
    const grid = clingingTo(ctx.stamp, event.pick, targetCell('add', event.pick)!);
    const change: Change = { kind: 'stamp', verb, grid };
    if (event.type === 'down') return { ...IDLE, commit: change };
    return {
      ...IDLE,
      preview: change,
      shapes: [{ kind: 'box', box: grid.bounds }],
      measure: { size: grid.bounds.size, count: grid.count },
    };
  }
}

/** The piece turned so that its front (+Z) looks out of an upright face, and moved to touch the surface at `cell`. */
export function clingingTo(piece: VoxelGrid, pick: Pick, cell: Vec3): VoxelGrid {
  const axis = axisOf(pick.normal);
  const quarters = axis === 0 ? (pick.normal[0] > 0 ? 1 : 3) : axis === 2 && pick.normal[2] < 0 ? 2 : 0;
  const turned = quarterTurned(piece, 1, quarters);
  const b = turned.bounds;
  const by = mapVec(b.min, (m, a) =>
    a === axis
      ? pick.normal[a]! > 0
        ? cell[a]! - m
        : cell[a]! - (m + b.size[a]! - 1)
      : a === 1 && axis !== 1
        ? cell[a]! - m - (b.size[a]! >> 1)
        : cell[a]! - m - (b.size[a]! >> 1),
  );
  return movedGrid(turned, by);
}
