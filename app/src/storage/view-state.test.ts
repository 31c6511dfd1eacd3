import { expect, it } from 'vitest';
import { EMPTY_VIEW, chosenAnew, inHand, viewSchema } from './view-state';

it('several records of a kind are chosen, the last of them in hand; the others stay as they were', () => {
  const one = chosenAnew(EMPTY_VIEW, { part: 'a', layer: 'l' });
  const view = chosenAnew(one, { part: ['a', 'b', 'c'], bone: 'x' });
  expect([view.chosen.part, inHand(view, 'part'), inHand(view, 'bone'), view.layer]).toEqual([
    ['a', 'b', 'c'],
    'c',
    'x',
    'l',
  ]);
  expect(inHand(chosenAnew(view, { part: null }), 'part')).toBeNull();
  expect(chosenAnew(view, { layer: null }).layer).toBeNull();
});

it('views of older steps name one record of each kind; garbled ones are empty', () => {
  const old = { part: 'a', layer: null, bone: null, clip: 'c', shot: null };
  expect(viewSchema.parse(old)).toEqual(chosenAnew(EMPTY_VIEW, { part: 'a', clip: 'c' }));
  const now = chosenAnew(EMPTY_VIEW, { part: ['a', 'b'], colourway: 'w' });
  expect(viewSchema.parse(structuredClone(now))).toEqual(now);
  for (const garbled of [null, 7, { chosen: 9 }, { chosen: { part: [1, 2] } }, { layer: {} }])
    expect(viewSchema.parse(garbled)).toEqual(EMPTY_VIEW);
});
