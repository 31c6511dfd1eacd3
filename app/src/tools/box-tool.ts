import { type Box, type Vec3, boxFromCells, boxVolume, floor } from '@sphalerite/core/math';
import { axisOf } from '@sphalerite/core/sculpt';
import { alongAxis, onPlane, targetCell } from './geometry';
import { type Change, IDLE, type Ray, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';
import { effectiveVerb } from './verbs';

/**
 * A box as footprint, then height: press and drag over a surface for the footprint, let go, move for the
 * height, click to set. Erase and Paint grow into the body, Add out of it.
 */
export class BoxTool implements Tool {
  private phase: 'idle' | 'footprint' | 'height' = 'idle';
  private anchor: Vec3 = [0, 0, 0];
  private corner: Vec3 = [0, 0, 0];
  private normal: Vec3 = [0, 1, 0];
  /** A point of the surface that the press began on; the footprint is drawn along it. */
  private surface: Vec3 = [0, 0, 0];
  private layers = 1;
  /** Where along the normal the pointer was when the height began. */
  private from: number | null = null;

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    const verb = effectiveVerb(ctx);
    if (event.type === 'cancel') {
      this.phase = 'idle';
      return IDLE;
    }
    if (event.type === 'commit') return this.phase === 'height' ? this.finish(ctx) : IDLE;
    if (this.phase === 'idle') {
      const cell = event.pick ? targetCell(verb, event.pick) : null;
      if (!cell) return IDLE;
      if (event.type !== 'down') return { ...IDLE, cells: [{ min: cell, size: [1, 1, 1] }] };
      this.phase = 'footprint';
      this.anchor = this.corner = cell;
      this.normal = event.pick!.normal;
      this.surface = event.pick!.cell.map((v, i) => v + 0.5 + this.normal[i]! / 2) as unknown as Vec3;
      this.layers = 1;
      return this.show(ctx);
    }
    if (this.phase === 'footprint') {
      this.corner = this.cornerUnder(event.ray) ?? this.corner;
      if (event.type === 'up') {
        this.phase = 'height';
        this.from = this.heightUnder(event.ray);
      }
      return this.show(ctx);
    }
    const at = this.heightUnder(event.ray);
    if (at !== null && this.from !== null) {
      // Erase and Paint go inwards, so there the way down counts up.
      const moved = Math.round(at - this.from) * (verb === 'add' ? 1 : -1);
      this.layers = moved >= 0 ? 1 + moved : moved - 1;
    }
    return event.type === 'down' ? this.finish(ctx) : this.show(ctx);
  }

  /** The cell of the footprint's plane that the pointer is over. */
  private cornerUnder(ray: Ray): Vec3 | null {
    const axis = axisOf(this.normal);
    const hit = onPlane(ray, this.surface, this.normal);
    if (!hit) return null;
    const c = [...floor(hit)] as [number, number, number];
    c[axis] = this.anchor[axis];
    // A pointer near the horizon would reach thousands of cells away.
    return c.map((v, i) => Math.max(this.anchor[i]! - 255, Math.min(this.anchor[i]! + 255, v))) as unknown as Vec3;
  }

  private heightUnder(ray: Ray): number | null {
    return alongAxis(ray, [this.corner[0] + 0.5, this.corner[1] + 0.5, this.corner[2] + 0.5], this.normal);
  }

  private box(verb: string): Box {
    const k = (Math.abs(this.layers) - 1) * Math.sign(this.layers) * (verb === 'add' ? 1 : -1);
    const far: Vec3 = [this.corner[0] + this.normal[0] * k, this.corner[1] + this.normal[1] * k, this.corner[2] + this.normal[2] * k];
    return boxFromCells(this.anchor, far);
  }

  private change(ctx: ToolContext): Change {
    const verb = effectiveVerb(ctx);
    return { kind: 'stroke', stroke: { verb, value: ctx.value, boxes: [this.box(verb)], mirror: ctx.mirror } };
  }

  private show(ctx: ToolContext): ToolOutput {
    const box = this.box(effectiveVerb(ctx));
    const asks = this.phase === 'height' ? 'move for the height, click to set it' : '';
    return { preview: this.change(ctx), commit: null, cells: [box], face: null, asks, active: true, measure: { size: box.size, count: boxVolume(box) } };
  }

  private finish(ctx: ToolContext): ToolOutput {
    this.phase = 'idle';
    return { ...IDLE, commit: this.change(ctx) };
  }
}
