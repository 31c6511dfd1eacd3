import { type Vec3, mapVec } from '@sphalerite/core/math';
import type { Shape } from '@sphalerite/core/sculpt';
import type { ToolCard } from '../../tools/card';
import type { BuildHand } from './build-hand';
import { useBuild } from './build-state';
import type { strokeControl } from './strokes/stroke-control';

/** The line or flight of steps that a card draws between two cells. */
function lineShape(card: ToolCard, from: Vec3, to: Vec3): Shape {
  if (card.path !== 'steps')
    return { kind: 'line', from, to, tip: { form: 'cube', size: 1, axis: 1 }, endSize: 1, joined: card.joined };
  const { rise, run, size, endSize } = card;
  return { kind: 'steps', from, to, up: 1, rise, run, tip: { form: 'cube', size, axis: 1 }, endSize };
}

/** A dab of a point or brush at a cell. */
function dabShape(card: ToolCard, cell: Vec3): Shape {
  const tip = { form: card.tip, size: card.reach === 'brush' ? card.size : 1, axis: 1 as const };
  const centre = mapVec(cell, (c) => 2 * c + (tip.size % 2 === 1 ? 1 : 2));
  return { kind: 'dabs', tip, centres: [centre] };
}

/** Acts at the keyboard cursor as a click there would; shapes go from corner to corner. */
export function actAtCursor(cell: Vec3, hand: BuildHand, strokes: ReturnType<typeof strokeControl>): void {
  const build = useBuild();
  const { card } = build;
  const { verb, reach } = card;
  const value = build.swatch?.byte ?? 1;
  const normal: Vec3 = [0, 1, 0];
  if (build.measuring) {
    const r = hand.ruler.value;
    hand.ruler.value = r && !r.set ? { ...r, to: cell, set: true } : { from: cell, to: cell, set: false };
    return;
  }
  switch (reach) {
    case 'extrude': {
      const { face, grow } = card;
      const { symmetry } = build;
      const extrusion = { cell, normal, reach: face, layers: 1, value: grow ? null : value, symmetry };
      strokes.run({ kind: 'extrude', extrusion });
      return;
    }
    case 'fill': {
      const query = { kind: card.region, cell, normal, diagonals: card.diagonals };
      strokes.run({ kind: 'region', verb, value, query });
      return;
    }
    case 'point':
    case 'brush':
    case 'stamp':
    case 'opening':
      strokes.run({ kind: 'stroke', verb, value, shapes: [dabShape(card, cell)] });
      return;
    case 'line':
    case 'box':
    case 'ellipsoid':
    case 'cylinder': {
      const from = hand.anchor.value;
      if (!from) {
        hand.anchor.value = cell;
        return;
      }
      if (reach === 'line') strokes.run({ kind: 'stroke', verb, value, shapes: [lineShape(card, from, cell)] });
      else {
        // The same tool that the pointer feeds makes the shape, held by its box.
        strokes.feed({ type: 'box', box: hand.cursorBox.value! });
        strokes.feed({ type: 'commit' });
      }
      hand.anchor.value = null;
    }
  }
}
