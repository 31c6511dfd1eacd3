import { type Axis, type Box, type Vec3, boxFromCells, floor, mapVec } from '@sphalerite/core/math';
import { axisOf } from '@sphalerite/core/sculpt';
import { onPlane } from './geometry';
import { type Change, IDLE, type Ray, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';

/**
 * A window, door or panel in one drag over a wall. It waits for Enter or a click, so that border, recess and filling
 * can still be chosen; a plain click puts one of the last size there.
 */
export class OpeningTool implements Tool {
  private anchor: Vec3 | null = null;
  private face: Box | null = null;
  private normal: Vec3 = [0, 0, 1];
  private waiting = false;
  private last: readonly [number, number] = [6, 8];

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    switch (event.type) {
      case 'cancel':
        return this.stop();
      case 'commit':
        return this.waiting ? this.finish(ctx) : IDLE;
      case 'refresh':
        return this.waiting ? this.show(ctx) : IDLE;
      case 'nudge':
        if (this.waiting)
          this.face = {
            min: [this.face!.min[0] + event.by[0], this.face!.min[1] + event.by[1], this.face!.min[2] + event.by[2]],
            size: this.face!.size,
          };
        return this.waiting ? this.show(ctx) : IDLE;
      case 'height':
        return IDLE;
      case 'box':
        if (this.waiting) this.face = event.box;
        return this.waiting ? this.show(ctx) : IDLE;
    }
    if (this.waiting) return event.type === 'down' ? this.finish(ctx) : this.show(ctx);
    const { pick } = event;
    if (!this.anchor) {
      if (!pick || pick.floor) return IDLE;
      if (event.type !== 'down') return { ...IDLE, face: { cell: pick.cell, normal: pick.normal } };
      this.anchor = pick.cell;
      this.normal = pick.normal;
      this.face = boxFromCells(pick.cell, pick.cell);
      return this.show(ctx);
    }
    this.face = boxFromCells(this.anchor, this.under(event.ray) ?? this.anchor);
    if (event.type === 'up') {
      const [u, v] = this.flat();
      const small = this.face.size[u] <= 1 && this.face.size[v] <= 1;
      if (small) {
        const min = [...this.anchor] as [number, number, number],
          size = [1, 1, 1] as [number, number, number];
        size[u] = this.last[0];
        size[v] = this.last[1];
        min[u] -= this.last[0] >> 1;
        // A door stands where it was clicked; a window is centred on the click.
        min[v] -= ctx.card.sill || v !== 1 ? this.last[1] >> 1 : 0;
        this.face = { min, size };
      } else this.last = [this.face.size[u], this.face.size[v]];
      this.waiting = true;
    }
    return this.show(ctx);
  }

  /** Across and up the wall. */
  private flat(): readonly [Axis, Axis] {
    const axis = axisOf(this.normal);
    return axis === 1 ? [0, 2] : axis === 0 ? [2, 1] : [0, 1];
  }

  private under(ray: Ray): Vec3 | null {
    const axis = axisOf(this.normal);
    const hit = onPlane(
      ray,
      mapVec(this.anchor!, (v, i) => v + 0.5 + this.normal[i]! / 2),
      this.normal,
    );
    if (!hit) return null;
    const c = [...floor(hit)] as [number, number, number];
    c[axis] = this.anchor![axis];
    return mapVec(c, (v, i) => Math.max(this.anchor![i]! - 255, Math.min(this.anchor![i]! + 255, v)));
  }

  private change(ctx: ToolContext): Change {
    const { border, proud, recess, sill, filling } = ctx.card;
    return {
      kind: 'opening',
      opening: {
        face: this.face!,
        normal: this.normal,
        border,
        proud,
        recess,
        sill,
        frame: ctx.value,
        filling: filling === 0 ? null : filling,
      },
    };
  }

  private show(ctx: ToolContext): ToolOutput {
    const size = this.face!.size;
    return {
      ...IDLE,
      preview: this.change(ctx),
      active: true,
      waiting: this.waiting ? this.face : null,
      measure: { size, count: null },
      asks: this.waiting ? 'change its border, recess or filling below; Enter or a click sets it' : '',
    };
  }

  private finish(ctx: ToolContext): ToolOutput {
    const commit = this.change(ctx);
    this.stop();
    return { ...IDLE, commit };
  }

  private stop(): ToolOutput {
    this.anchor = this.face = null;
    this.waiting = false;
    return IDLE;
  }
}
