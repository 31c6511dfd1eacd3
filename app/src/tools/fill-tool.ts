import { targetCell } from './geometry';
import { IDLE, type Tool, type ToolContext, type ToolEvent, type ToolOutput } from './tool';
import { effectiveVerb, valueAt } from './verbs';

/** One click takes everything that belongs together: of one colour, connected, a face, or the empty space around. */
export class FillTool implements Tool {
  handle(event: ToolEvent, ctx: ToolContext): ToolOutput {
    if (event.type !== 'move' && event.type !== 'down') return IDLE;
    const { pick } = event;
    if (!pick) return IDLE;
    const verb = effectiveVerb(ctx);
    const { region: kind, diagonals } = ctx.card;
    const cell = kind === 'space' ? targetCell('add', pick) : pick.floor ? null : pick.cell;
    if (!cell) return IDLE;
    if (event.type !== 'down')
      return {
        ...IDLE,
        ...(pick.floor
          ? { shapes: [{ kind: 'box', box: { min: cell, size: [1, 1, 1] } }] }
          : { face: { cell: pick.cell, normal: pick.normal } }),
      };
    return {
      ...IDLE,
      commit: {
        kind: 'region',
        verb,
        value: valueAt(ctx, pick),
        query: { kind, cell, normal: pick.normal, diagonals },
      },
    };
  }
}
