import { expect, it } from 'vitest';
import { type TreeRow, seenRows, withName } from './tree';

const TREE: TreeRow[] = [
  {
    id: 'hips',
    name: 'Hips',
    children: [
      { id: 'chest', name: 'Chest', children: [{ id: 'arm', name: 'Upper arm', more: 'left' }] },
      { id: 'thigh', name: 'Thigh', more: 'left' },
    ],
  },
  { id: 'goal', name: 'Foot goal', more: 'left' },
];
const seen = (rows: readonly TreeRow[], ...folded: string[]) =>
  seenRows(rows, new Set(folded)).map((s) => `${s.level} ${s.row.id} ${s.parent}`);

it('rows are seen from top to bottom, but for those under a folded one', () => {
  expect(seen(TREE)).toEqual(['1 hips null', '2 chest hips', '3 arm chest', '2 thigh hips', '1 goal null']);
  expect(seen(TREE, 'chest')).toEqual(['1 hips null', '2 chest hips', '2 thigh hips', '1 goal null']);
  expect(seen(TREE, 'hips', 'goal')).toEqual(['1 hips null', '1 goal null']);
  expect(seen([])).toEqual([]);
});

it('a filter keeps what bears the words and all it hangs on', () => {
  const names = (words: string) => seenRows(withName(TREE, words), new Set()).map((s) => s.row.id);
  expect(names('ARM')).toEqual(['hips', 'chest', 'arm']);
  expect(names('left')).toEqual(['hips', 'chest', 'arm', 'thigh', 'goal']);
  expect(names(' chest ')).toEqual(['hips', 'chest']);
  expect(names('nothing')).toEqual([]);
  expect(withName(TREE, '  ')).toBe(TREE);
});
