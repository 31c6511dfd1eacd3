import { type Vec3, mapVec } from '@sphalerite/core/math';
import { faceRegion } from '@sphalerite/core/sculpt';
import { MAX_EDGE } from '@sphalerite/core/voxel';
import { alongAxis } from './geometry';
import { type Change, IDLE, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';

/** Takes hold of a whole flat face and pulls it out or pushes it in, a layer a cube of way. */
export class ExtrudeTool implements Tool {
  private held: { cell: Vec3; normal: Vec3; from: number; area: number } | null = null;
  private layers = 0;

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    if (event.type === 'cancel') {
      this.held = null;
      return IDLE;
    }
    if (event.type !== 'move' && event.type !== 'down' && event.type !== 'up') return this.held ? this.show(ctx) : IDLE;
    const { pick } = event;
    if (!this.held) {
      if (!pick || pick.floor) return IDLE;
      const face = { cell: pick.cell, normal: pick.normal };
      if (event.type !== 'down') return { ...IDLE, face };
      const from = alongAxis(event.ray, middle(pick.cell), pick.normal) ?? 0;
      this.held = { ...face, from, area: faceRegion(ctx.seen, pick.cell, pick.normal, ctx.card.face).length };
      this.layers = 0;
      return this.show(ctx);
    }
    const at = alongAxis(event.ray, middle(this.held.cell), this.held.normal);
    if (at !== null) this.layers = Math.max(-MAX_EDGE, Math.min(MAX_EDGE, Math.round(at - this.held.from)));
    if (event.type !== 'up') return this.show(ctx);
    const commit = this.change(ctx);
    this.held = null;
    return { ...IDLE, commit };
  }

  private change(ctx: ToolContext): Change | null {
    const { cell, normal } = this.held!;
    return this.layers === 0
      ? null
      : {
          kind: 'extrude',
          extrusion: {
            cell,
            normal,
            reach: ctx.card.face,
            layers: this.layers,
            value: ctx.card.grow ? null : ctx.value,
            symmetry: ctx.symmetry,
          },
        };
  }

  private show(ctx: ToolContext): ToolOutput {
    const { cell, normal, area } = this.held!;
    const size = mapVec(normal, (n) => (n === 0 ? 0 : this.layers));
    return {
      ...IDLE,
      preview: this.change(ctx),
      face: this.layers === 0 ? { cell, normal } : null,
      active: true,
      measure: { size, count: area * Math.abs(this.layers) },
    };
  }
}
const middle = (c: Vec3): Vec3 => [c[0] + 0.5, c[1] + 0.5, c[2] + 0.5];
