import { describe, expect, it } from 'vitest';
import { SCREENS } from '../../screens/list';
import catalogue from './catalogue.json';
import { type Bound, clashesOf } from './clashes';
import { readShortcuts, writeShortcuts } from './shortcut-file';

const command = (id: string, keys: string[], before: string[] = []): Bound => ({ id, title: id, keys, before });
const onScreen = (screen: string): Bound[] => catalogue.filter((c) => c.screen === '' || c.screen === screen);

describe('shortcuts that clash', () => {
  it('are those that mean two commands, but for those that say which comes first', () => {
    const list = [command('a', ['Q', 'W']), command('b', ['W']), command('c', ['E']), command('d', ['E'], ['c'])];
    expect(clashesOf(list).map((c) => [c.keys, c.commands.map((o) => o.id)])).toEqual([['W', ['a', 'b']]]);
    // Three on one key: the third is settled with one of them only.
    expect(clashesOf([...list, command('e', ['E'])]).map((c) => c.keys)).toEqual(['W', 'E']);
  });
  it.each(SCREENS.map((s) => s.id))('there are none on %s as it comes', (screen) => {
    expect(onScreen(screen).length).toBeGreaterThan(30);
    expect(clashesOf(onScreen(screen)).map((c) => [c.keys, ...c.commands.map((o) => o.id)])).toEqual([]);
  });
  it('no key that a browser keeps for itself is given out', () => {
    const kept = ['Ctrl+T', 'Ctrl+N', 'Ctrl+W', 'Ctrl+Shift+T', 'Ctrl+Shift+N', 'Ctrl+Shift+W', 'F11', 'F12'];
    expect(catalogue.filter((c) => c.keys.some((k) => kept.includes(k)))).toEqual([]);
  });
});

describe('a file of shortcuts', () => {
  const keys = { 'edit.undo': ['F8'], 'view.flat': [] };
  it('comes back as it was saved', () => expect(readShortcuts(writeShortcuts(keys), 'mine.json')).toEqual(keys));
  it.each(['', '{', '[]', '{"kind":"palette"}', '{"kind":"shortcuts","version":2,"keys":{}}'])(
    'that is none gets a sentence: %j',
    (text) => expect(() => readShortcuts(text, 'mine.json')).toThrow(/“mine\.json” is not a file of shortcuts/),
  );
  it('takes no key that is not a text', () =>
    expect(() => readShortcuts('{"kind":"shortcuts","version":1,"keys":{"a":[1]}}', 'x')).toThrow());
});
