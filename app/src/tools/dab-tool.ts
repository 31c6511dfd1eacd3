import { type Axis, type Box, type Vec3, uniteBoxes, mapVec } from '@sphalerite/core/math';
import { POINT_TIP, type Shape, type Tip, axisOf, tipBox, tipCentre } from '@sphalerite/core/sculpt';
import { onPlane, targetCell } from './geometry';
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
 * Which way an even tip leans from its cell: away from the surface, alike on all sides of a body, and along the surface
 * towards the corner the pointer is nearest to.
 */
function leanOf(ray: Ray, pick: Pick, cell: Vec3): Vec3 {
  const hit = onPlane(ray, pick.point ?? mapVec(pick.cell, (v, i) => v + 0.5 + pick.normal[i]! / 2), pick.normal);
  return mapVec(cell, (c, i) =>
    pick.normal[i] !== 0 ? (pick.normal[i]! > 0 ? 1 : 0) : hit && hit[i]! - c < 0.5 ? 0 : 1,
  );
}

type Dab = Shape & { readonly value?: number };

/**
 * A tip a touch, or a trail of tips while dragging. The trail clings to the surface as it was when
 * the stroke began (picks are made against that), so it never climbs on cubes it has just added.
 */
export class DabTool implements Tool {
  private trail: Dab[] | null = null;
  private readonly seen = new Set<string>();
  private box: Box = { min: [0, 0, 0], size: [0, 0, 0] };

  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    const verb = effectiveVerb(ctx);
    if (event.type === 'cancel') {
      this.trail = null;
      return IDLE;
    }
    if (event.type !== 'move' && event.type !== 'down' && event.type !== 'up') return IDLE;
    const { pick } = event;
    const cell = pick ? targetCell(verb, pick) : null;
    const tip: Tip =
      ctx.card.reach === 'point'
        ? POINT_TIP
        : { form: ctx.card.tip, size: ctx.card.size, axis: (pick ? axisOf(pick.normal) : 1) as Axis };
    const centre = cell && tipCentre(tip, cell, leanOf(event.ray, pick!, cell));
    if (event.type === 'down' && centre) {
      this.trail = [];
      this.seen.clear();
      this.box = { min: [0, 0, 0], size: [0, 0, 0] };
    }
    const here: Dab[] = centre ? [{ kind: 'dabs', tip, centres: [centre] }] : [];
    if (!this.trail) return { ...IDLE, shapes: here };
    if (centre && event.type !== 'up') this.take(tip, centre, valueAt(ctx, pick), ctx);
    const change: Change = { kind: 'stroke', verb, value: ctx.value, shapes: this.trail };
    if (event.type === 'up') {
      this.trail = null;
      return { ...IDLE, commit: change };
    }
    return {
      ...IDLE,
      preview: change,
      shapes: here,
      active: true,
      measure: { size: this.box.size, count: ctx.card.reach === 'point' ? this.trail.length : null },
    };
  }

  private take(tip: Tip, centre: Vec3, value: number, ctx: ToolContext): void {
    const key = `${centre.join()} ${tip.form === 'disc' ? tip.axis : ''}`;
    if (this.seen.has(key)) return;
    this.seen.add(key);
    // A new list each time, and the same shapes in it, so that a preview knows how far it has come.
    this.trail = [...this.trail!, { kind: 'dabs', tip, centres: [centre], ...(ctx.card.grow ? { value } : {}) }];
    this.box = uniteBoxes(this.box, tipBox(tip, centre));
  }
}
