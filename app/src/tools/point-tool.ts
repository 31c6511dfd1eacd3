import type { Box, Vec3 } from '@sphalerite/core/math';
import { effectiveVerb } from './verbs';
import { targetCell } from './geometry';
import { type Change, IDLE, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';

/**
 * One cell a touch, or a trail of cells while dragging. The trail clings to the surface as it was when
 * the stroke began (picks are made against that), so it never climbs on cubes it has just added.
 */
export class PointTool implements Tool {
  private trail: Map<string, Box> | null = null;
  private lo: Vec3 = [0, 0, 0];
  private hi: Vec3 = [0, 0, 0];

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    const verb = effectiveVerb(ctx);
    if (event.type === 'cancel') {
      this.trail = null;
      return IDLE;
    }
    if (event.type === 'commit') return IDLE;
    const cell = event.pick ? targetCell(verb, event.pick) : null;
    if (event.type === 'down' && cell) {
      this.trail = new Map();
      this.lo = this.hi = cell;
    }
    if (!this.trail) return cell ? { ...IDLE, cells: [{ min: cell, size: [1, 1, 1] }] } : IDLE;
    if (cell && event.type !== 'up') this.take(cell);
    const boxes = [...this.trail.values()];
    const change: Change = { kind: 'stroke', stroke: { verb, value: ctx.value, boxes, mirror: ctx.mirror } };
    if (event.type === 'up') {
      this.trail = null;
      return { ...IDLE, commit: change };
    }
    return {
      preview: change, commit: null, cells: cell ? [{ min: cell, size: [1, 1, 1] }] : [], face: null, asks: '', active: true,
      measure: { size: [this.hi[0] - this.lo[0] + 1, this.hi[1] - this.lo[1] + 1, this.hi[2] - this.lo[2] + 1], count: boxes.length },
    };
  }

  private take(cell: Vec3): void {
    this.trail!.set(cell.join(), { min: cell, size: [1, 1, 1] });
    this.lo = [Math.min(this.lo[0], cell[0]), Math.min(this.lo[1], cell[1]), Math.min(this.lo[2], cell[2])];
    this.hi = [Math.max(this.hi[0], cell[0]), Math.max(this.hi[1], cell[1]), Math.max(this.hi[2], cell[2])];
  }
}
