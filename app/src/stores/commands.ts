import { type Component, computed, shallowReactive } from 'vue';

/** One thing that can be done: menus, shortcuts, the command search and tooltips all come from here. */
export interface Command {
  readonly id: string;
  readonly title: string;
  readonly group: string;
  /** As in "Ctrl+Shift+Z"; Ctrl stands for ⌘ too. */
  readonly keys?: readonly string[];
  readonly icon?: Component;
  /** Absent means always. */
  readonly enabled?: () => boolean;
  /** Shown as pressed, for switches. */
  readonly on?: () => boolean;
  run(args?: unknown): unknown;
}

const registry = shallowReactive(new Map<string, Command>());

/** Adds commands; gives what takes them away again. */
export function addCommands(list: readonly Command[]): () => void {
  for (const c of list) registry.set(c.id, c);
  return () => {
    for (const c of list) if (registry.get(c.id) === c) registry.delete(c.id);
  };
}

export const findCommand = (id: string): Command | undefined => registry.get(id);
export const allCommands = computed(() =>
  [...registry.values()].sort((a, b) => a.group.localeCompare(b.group) || a.title.localeCompare(b.title)),
);
export const isEnabled = (c: Command): boolean => c.enabled?.() ?? true;

/** @throws Error when there is no such command or it cannot run now */
export async function runCommand(id: string, args?: unknown): Promise<unknown> {
  const c = registry.get(id);
  if (!c) throw new Error(`There is no command "${id}" on this screen.`);
  if (!isEnabled(c)) throw new Error(`"${c.title}" cannot be done now.`);
  return c.run(args);
}

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
  for (const c of registry.values()) if (c.keys?.includes(keys) && isEnabled(c)) return c;
  return undefined;
}
