import { type Axis, type Vec3, boxFromCells, floor, mapVec } from '@sphalerite/core/math';
import { type Shape, type Tip, axisOf, shapeCells } from '@sphalerite/core/sculpt';
import { alongAxis, onPlane, targetCell } from './geometry';
import {
  type Change,
  IDLE,
  type Pick,
  type Ray,
  type Tool,
  type ToolContext,
  type ToolEvent,
  type ToolOutput,
} from './tool';
import { effectiveVerb, valueAt } from './verbs';

/**
 * From cell to cell: a straight line or steps by a drag, or a curve through clicked points, set by Enter or by a
 * click on its last point. Where the pointer leaves the cubes, the line goes on in the plane it began in.
 */
export class LineTool implements Tool {
  private points: Vec3[] = [];
  private end: Vec3 = [0, 0, 0];
  private normal: Vec3 = [0, 1, 0];
  private value = 1;
  private drawing = false;

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    const verb = effectiveVerb(ctx);
    if (event.type === 'cancel') return this.stop();
    if (event.type === 'commit') return this.points.length > 1 ? this.finish(ctx) : this.stop();
    if (event.type === 'nudge' && this.points.length > 0) {
      const by = event.by;
      this.points = this.points.map((p) => [p[0] + by[0], p[1] + by[1], p[2] + by[2]]);
      this.end = this.points.at(-1)!;
      return this.show(ctx);
    }
    if (event.type !== 'move' && event.type !== 'down' && event.type !== 'up')
      return this.points.length > 0 ? this.show(ctx) : IDLE;
    const cell = event.pick ? targetCell(verb, event.pick) : null;
    if (this.points.length === 0) {
      if (!cell) return IDLE;
      if (event.type !== 'down')
        return {
          ...IDLE,
          shapes: [
            { kind: 'line', from: cell, to: cell, tip: this.tip(ctx), endSize: ctx.card.endSize, joined: false },
          ],
        };
      this.points = [cell];
      this.end = cell;
      this.normal = event.pick!.normal;
      this.value = valueAt(ctx, event.pick);
      this.drawing = true;
      return this.show(ctx);
    }
    this.end = this.under(event.ray, event.pick, cell) ?? this.end;
    if (ctx.card.path === 'curve') {
      if (event.type === 'down') {
        const last = this.points.at(-1)!;
        if (this.points.length > 1 && last.every((v, i) => v === this.end[i])) return this.finish(ctx);
        this.points = [...this.points, this.end];
      }
      return this.show(ctx);
    }
    if (event.type === 'up' && this.drawing) {
      this.points = [this.points[0]!, this.end];
      return this.finish(ctx);
    }
    return this.show(ctx);
  }

  /** The cell under the pointer: on cubes as they are, else in the upright plane or the level the line began in. */
  private under(ray: Ray, pick: Pick | null, cell: Vec3 | null): Vec3 | null {
    if (cell && pick && !pick.floor) return cell;
    const from = this.points.at(-1)!;
    const at: Vec3 = [from[0] + 0.5, from[1] + 0.5, from[2] + 0.5];
    if (axisOf(this.normal) === 1 && !pick) {
      const up = alongAxis(ray, at, [0, 1, 0]);
      const hit = onPlane(ray, at, Math.abs(ray.dir[0]) > Math.abs(ray.dir[2]) ? [1, 0, 0] : [0, 0, 1]);
      if (hit && up !== null) return near(floor(hit), from);
    }
    if (cell) return cell;
    const hit = onPlane(ray, at, this.normal);
    return hit ? near(floor(hit), from) : null;
  }

  private tip(ctx: ToolContext): Tip {
    return { form: ctx.card.tip === 'disc' ? 'cube' : ctx.card.tip, size: ctx.card.size, axis: 1 };
  }

  private shape(ctx: ToolContext): Shape {
    const { card } = ctx;
    const tip = this.tip(ctx),
      endSize = card.endSize;
    const from = this.points[0]!;
    if (card.path === 'curve')
      return {
        kind: 'curve',
        points: this.drawing ? [...this.points, this.end] : this.points,
        tip,
        endSize,
        joined: card.joined,
      };
    if (card.path === 'steps')
      return { kind: 'steps', from, to: this.end, up: 1 as Axis, rise: card.rise, run: card.run, tip, endSize };
    return { kind: 'line', from, to: this.end, tip, endSize, joined: card.joined };
  }

  private change(ctx: ToolContext): Change {
    return {
      kind: 'stroke',
      verb: effectiveVerb(ctx),
      value: ctx.card.grow ? this.value : ctx.value,
      shapes: [this.shape(ctx)],
    };
  }

  private show(ctx: ToolContext): ToolOutput {
    const change = this.change(ctx);
    const shape = this.shape(ctx);
    const asks = ctx.card.path === 'curve' ? 'click the next point, Enter to set the curve' : '';
    return {
      ...IDLE,
      preview: change,
      shapes: [shape],
      asks,
      active: true,
      measure: { size: boxFromCells(this.points[0]!, this.end).size, count: shapeCells(shape).count },
    };
  }

  private finish(ctx: ToolContext): ToolOutput {
    this.drawing = ctx.card.path === 'curve' ? false : this.drawing;
    const commit = this.change(ctx);
    this.stop();
    return { ...IDLE, commit };
  }

  private stop(): ToolOutput {
    this.points = [];
    this.drawing = false;
    return IDLE;
  }
}

/** A pointer near the horizon would reach thousands of cells away. */
const near = (c: Vec3, from: Vec3): Vec3 => mapVec(c, (v, i) => Math.max(from[i]! - 255, Math.min(from[i]! + 255, v)));
