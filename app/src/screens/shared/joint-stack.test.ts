import { expect, it } from 'vitest';
import { jointStack } from './joint-stack';

const ON = ['goal', 'foot', 'toe'];
const at = (x: number) => ({ x, y: 50 });

it('takes the first joint of several, then with every further click at the same place the next, round again', () => {
  const stack = jointStack();
  const click = (x: number, inHand: string | null): string => {
    const bone = stack.press(at(x), ON, inHand);
    return stack.release() ?? bone;
  };
  let hand: string | null = null;
  const taken: string[] = [];
  for (let i = 0; i < 5; i++) taken.push((hand = click(20, hand)));
  expect(taken).toEqual(['goal', 'foot', 'toe', 'goal', 'foot']);
  // Elsewhere, or come by another way, what is in hand is kept by the first click.
  expect(click(60, hand)).toBe('foot');
  expect(click(20, 'toe')).toBe('toe');
});

it('a drag is no click, and one joint alone is always itself', () => {
  const stack = jointStack();
  stack.press(at(20), ON, null);
  stack.dragged();
  expect(stack.press(at(20), ON, 'goal')).toBe('goal');
  expect(stack.release()).toBeNull();
  for (let i = 0; i < 3; i++) {
    expect(stack.press(at(90), ['head'], 'head')).toBe('head');
    expect(stack.release()).toBeNull();
  }
});
