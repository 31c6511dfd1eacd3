import { type Component, computed, shallowReactive, shallowRef } from 'vue';
import { say } from '../words';

/** One thing that can be done: menus, shortcuts, the command search and tooltips all come from here. */
export interface Command {
  readonly id: string;
  readonly title: string;
  readonly group: string;
  /** As in "Ctrl+Shift+Z"; Ctrl stands for ⌘ too. */
  readonly keys?: readonly string[];
  readonly icon?: Component;
  /** Commands it shares a shortcut with, and comes before while it can run. */
  readonly before?: readonly string[];
  /** `true`, or why it cannot be done now. Absent means always. */
  readonly enabled?: () => true | string;
  /** Shown as pressed, for switches. */
  readonly on?: () => boolean;
  run(args?: unknown): unknown;
}

const registry = shallowReactive(new Map<string, Command>());
/** The screen each belongs to; those of none are there everywhere. */
const places = new Map<string, string>();
export const placeOf = (id: string): string => places.get(id) ?? '';

/** Adds commands; gives what takes them away again. */
export function addCommands(list: readonly Command[], screen = ''): () => void {
  for (const c of list) {
    registry.set(c.id, c);
    places.set(c.id, screen);
  }
  return () => {
    for (const c of list) if (registry.get(c.id) === c) registry.delete(c.id);
  };
}

export const findCommand = (id: string): Command | undefined => registry.get(id);
export const allCommands = computed(() =>
  [...registry.values()].sort((a, b) => a.group.localeCompare(b.group) || a.title.localeCompare(b.title)),
);
/** Why a command cannot be done now; null when it can. */
export function whyNot(c: Command): string | null {
  const can = c.enabled?.() ?? true;
  return can === true ? null : can;
}
export const isEnabled = (c: Command): boolean => whyNot(c) === null;

/** @throws Error when there is no such command or it cannot run now */
export async function runCommand(id: string, args?: unknown): Promise<unknown> {
  const c = registry.get(id);
  if (!c) throw new Error(`There is no command "${id}" on this screen.`);
  const why = whyNot(c);
  if (why) throw new Error(say('command.cannot', { title: c.title, why }));
  return c.run(args);
}

/** Shortcuts that the artist has set, by command; an empty list is none at all. */
const ownKeys = shallowRef<Readonly<Record<string, readonly string[]>>>({});
export const setOwnKeys = (keys: Readonly<Record<string, readonly string[]>>): void => void (ownKeys.value = keys);
/** The shortcuts of a command as they are now. */
export const keysFor = (c: Pick<Command, 'id' | 'keys'>): readonly string[] => ownKeys.value[c.id] ?? c.keys ?? [];

const NAMED: Readonly<Record<string, string>> = {
  ' ': 'Space',
  ArrowUp: 'Up',
  ArrowDown: 'Down',
  ArrowLeft: 'Left',
  ArrowRight: 'Right',
  Escape: 'Esc',
  '+': 'Plus',
};

/** A key press as shortcuts are written. */
export function keysOf(e: KeyboardEvent): string {
  const name =
    NAMED[e.key] ?? (e.code.startsWith('Digit') ? e.code.slice(5) : e.key.length === 1 ? e.key.toUpperCase() : e.key);
  const shift = e.shiftKey && (e.key.length > 1 || /[A-Z0-9]/i.test(name));
  return `${e.ctrlKey || e.metaKey ? 'Ctrl+' : ''}${e.altKey ? 'Alt+' : ''}${shift ? 'Shift+' : ''}${name}`;
}

/** The command a key press means, if it can run. */
export function commandFor(e: KeyboardEvent): Command | undefined {
  const keys = keysOf(e);
  const meant = [...registry.values()].filter((c) => keysFor(c).includes(keys) && isEnabled(c));
  return meant.find((c) => !meant.some((o) => o.before?.includes(c.id)));
}
