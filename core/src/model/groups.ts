import type { Id } from './ids';
import { lookUp } from './records';

/** A long list in groups, in order; where a group ends means nothing. What changes one record leaves all other groups as they are. */
export type Groups<T> = readonly (readonly T[])[];

interface Named {
  readonly id: Id;
}

/** A list in groups of up to `size`. */
export const grouped = <T>(list: readonly T[], size: number): Groups<T> =>
  Array.from({ length: Math.ceil(list.length / size) }, (_, i) => list.slice(i * size, (i + 1) * size));

/** With more records at the end. */
export function appended<T>(groups: Groups<T>, more: readonly T[], size: number): Groups<T> {
  if (more.length === 0) return groups;
  const last = groups.at(-1) ?? [];
  return last.length < size
    ? [...groups.slice(0, -1), ...grouped([...last, ...more], size)]
    : [...groups, ...grouped(more, size)];
}

/** Ids that are looked for group by group; of more of them every record is asked. */
const FEW = 32;

/** The record of that id, in whichever group. */
export function findIn<T extends Named>(groups: Groups<T>, id: Id): T | undefined {
  for (const group of groups) {
    const record = lookUp(group, id);
    if (record) return record;
  }
  return undefined;
}

/**
 * With some records replaced, or left out where `change` gives null. The same groups where nothing changed, and the same list
 * when nothing did anywhere; a group that became empty goes.
 */
export function changed<T extends Named>(
  groups: Groups<T>,
  ids: ReadonlySet<Id>,
  change: (record: T) => T | null,
): Groups<T> {
  const few = ids.size <= FEW ? [...ids] : null;
  const holds = (group: readonly T[]): boolean =>
    few ? few.some((id) => lookUp(group, id)) : group.some((r) => ids.has(r.id));
  let any = false;
  const out = groups.map((group) => {
    if (!holds(group)) return group;
    const next = group.flatMap((r) => (ids.has(r.id) ? (change(r) ?? []) : r));
    if (next.length === group.length && next.every((r, i) => r === group[i])) return group;
    any = true;
    return next;
  });
  return any ? out.filter((g) => g.length > 0) : groups;
}
