import { expect, it } from 'vitest';
import type { Command } from '../stores/commands';
import { findCommands } from './find-command';

const command = (id: string, title: string, more: Partial<Command> = {}): Command => ({
  id,
  title,
  group: 'View',
  run: () => undefined,
  ...more,
});
const LIST = [
  command('view.flat', 'Orthographic view: no perspective', { keys: ['O'] }),
  command('view.nearer', 'Zoom in'),
  command('view.farther', 'Zoom out'),
  command('edit.redo', 'Redo', { group: 'Edit', keys: ['Ctrl+Y'] }),
  command('reach.fill', 'Reach: fill', { group: 'Tools' }),
  command('tool.pick', 'Take the colour under the pointer', { group: 'Tools' }),
  command('mirror.x', 'Mirror X', { group: 'Symmetry', keys: ['M'] }),
  command('rig.mirrorLeft', 'Mirror the left side to the right', {
    group: 'Rig',
    enabled: () => 'choose a bone first',
  }),
];
const first = (query: string, recent: string[] = []): string | undefined => findCommands(LIST, query, recent)[0]?.id;

it('finds by the trade’s words, by other names, by parts of words and in spite of slips', () => {
  for (const [query, id] of [
    ['ortho', 'view.flat'],
    ['zoom out', 'view.farther'],
    ['redo', 'edit.redo'],
    ['bucket', 'reach.fill'],
    ['eyedropper', 'tool.pick'],
    ['eyedroper', 'tool.pick'],
    ['mirror x', 'mirror.x'],
    ['mirorr', 'mirror.x'],
    ['perspectiv', 'view.flat'],
  ] as const)
    expect([query, first(query)]).toEqual([query, id]);
  expect(findCommands(LIST, 'zoom mirror', [])).toEqual([]);
  expect(findCommands(LIST, 'qwxz', [])).toEqual([]);
});

it('puts what was used of late first where nothing else tells; what cannot be done now comes after its equals', () => {
  expect(
    findCommands(LIST, '', ['view.farther', 'mirror.x'])
      .slice(0, 2)
      .map((c) => c.id),
  ).toEqual(['view.farther', 'mirror.x']);
  expect(first('zoom')).toBe('view.nearer');
  expect(first('zoom', ['view.farther'])).toBe('view.farther');
  expect(findCommands(LIST, 'mirror', []).map((c) => c.id)).toEqual(['mirror.x', 'rig.mirrorLeft']);
});
