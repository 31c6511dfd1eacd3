import type { Command } from '../../stores/commands';

export type Bound = Pick<Command, 'id' | 'title' | 'before'> & { readonly keys: readonly string[] };
export interface Clash {
  readonly keys: string;
  readonly commands: readonly Bound[];
}

/** Shortcuts that mean several commands at once; those of which one says that it comes before the other do not count. */
export function clashesOf(commands: readonly Bound[]): Clash[] {
  const by = new Map<string, Bound[]>();
  for (const c of commands) for (const k of c.keys) by.set(k, [...(by.get(k) ?? []), c]);
  const settled = (a: Bound, b: Bound): boolean =>
    a === b || (a.before?.includes(b.id) ?? false) || (b.before?.includes(a.id) ?? false);
  return [...by]
    .filter(([, list]) => list.some((a) => list.some((b) => !settled(a, b))))
    .map(([keys, list]) => ({ keys, commands: list }));
}
