import { describe, expect, it } from 'vitest';
import {
  type Command,
  addCommands,
  allCommands,
  commandFor,
  findCommand,
  keysFor,
  keysOf,
  runCommand,
  setOwnKeys,
  whyNot,
} from './commands';

const press = (key: string, code: string, more: Partial<KeyboardEvent> = {}): KeyboardEvent =>
  ({ key, code, ctrlKey: false, metaKey: false, altKey: false, shiftKey: false, ...more }) as KeyboardEvent;

describe('shortcuts as they are written', () => {
  it.each([
    [press('z', 'KeyZ', { ctrlKey: true }), 'Ctrl+Z'],
    [press('Z', 'KeyZ', { metaKey: true, shiftKey: true }), 'Ctrl+Shift+Z'],
    [press('!', 'Digit1', { shiftKey: true }), 'Shift+1'],
    [press('1', 'Digit1'), '1'],
    [press('ArrowUp', 'ArrowUp', { shiftKey: true }), 'Shift+Up'],
    [press('Escape', 'Escape'), 'Esc'],
    [press('\\', 'Backslash'), '\\'],
    [press('<', 'Comma', { shiftKey: true }), '<'],
    [press('PageDown', 'PageDown', { altKey: true }), 'Alt+PageDown'],
  ])('%#', (event, keys) => expect(keysOf(event)).toBe(keys));
});

describe('the registry', () => {
  const log: unknown[] = [];
  const make = (id: string, more: Partial<Command> = {}): Command => ({
    id,
    title: id,
    group: 'Test',
    keys: ['Q'],
    run: (a) => log.push([id, a]),
    ...more,
  });

  it('finds by key only what can run now, and runs by id with arguments', async () => {
    let open = false;
    const off = addCommands([make('one', { enabled: () => open || 'it is shut' }), make('two', { keys: ['W'] })]);
    expect(commandFor(press('q', 'KeyQ'))).toBeUndefined();
    await expect(runCommand('one')).rejects.toThrow('“one” cannot be done now: it is shut.');
    open = true;
    expect(commandFor(press('q', 'KeyQ'))!.id).toBe('one');
    await runCommand('two', 5);
    expect(log).toEqual([['two', 5]]);
    off();
    expect(findCommand('one')).toBeUndefined();
    await expect(runCommand('one')).rejects.toThrow('no command "one"');
  });

  it('of two on one key the one that says it comes before is meant, while it can run; keys of one’s own count instead', () => {
    let floats = true;
    const set = make('set', { keys: ['Enter'], before: ['use'], enabled: () => floats || 'nothing floats' });
    const off = addCommands([make('use', { keys: ['Enter'] }), set]);
    expect(commandFor(press('Enter', 'Enter'))!.id).toBe('set');
    floats = false;
    expect(whyNot(set)).toBe('nothing floats');
    expect(commandFor(press('Enter', 'Enter'))!.id).toBe('use');
    setOwnKeys({ use: ['F8'], set: [] });
    expect(commandFor(press('Enter', 'Enter'))).toBeUndefined();
    expect(commandFor(press('F8', 'F8'))!.id).toBe('use');
    setOwnKeys({});
    expect(keysFor(set)).toEqual(['Enter']);
    off();
  });

  it('a screen that leaves does not take away what the next one brought under the same name', () => {
    const off = addCommands([make('shared')]);
    const later = make('shared', { title: 'newer' });
    const off2 = addCommands([later]);
    off();
    expect(allCommands.value).toContain(later);
    off2();
    expect(allCommands.value).not.toContain(later);
  });
});
