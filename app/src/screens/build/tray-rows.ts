import type { Id, Lying, Part } from '@sphalerite/core/model';
import type { Place } from '../../components/drag';
import type { TreeRow } from '../../components/tree';

/** Rows of groups bear no id of a part, and none that a selector would stumble over. */
const GROUP = 'group-';
export const groupRow = (group: string): string => GROUP + encodeURIComponent(group);
/** The group that a row is of; null for that of a part. */
export const groupOfRow = (row: string): string | null =>
  row.startsWith(GROUP) ? decodeURIComponent(row.slice(GROUP.length)) : null;

const partRow = (p: Part): TreeRow => ({ id: p.id, name: p.name, ...(p.side === 'centre' ? {} : { more: p.side }) });

export const trayRows = (list: readonly Lying[]): TreeRow[] =>
  list.map((l): TreeRow =>
    l.group === null
      ? partRow(l.parts[0]!)
      : { id: groupRow(l.group), name: l.group, label: `Group ${l.group}`, children: l.parts.map(partRow) },
  );

/** Where parts go that are dropped on a row or beside it: before which part, in which group. */
export interface Lands {
  readonly before: Id | null;
  readonly group: string | null;
}

/** @param row – null where they are dropped below all */
export function landing(list: readonly Lying[], row: string | null, place: Place): Lands {
  if (row === null) return { before: null, group: null };
  const named = groupOfRow(row),
    at = list.findIndex((l) => (named === null ? l.parts.some((p) => p.id === row) : l.group === named)),
    there = list[at];
  if (!there) return { before: null, group: null };
  const next = list[at + 1]?.parts[0]?.id ?? null;
  if (named !== null && place === 'on') return { before: next, group: named };
  if (named !== null || there.group === null)
    return { before: place === 'before' ? there.parts[0]!.id : next, group: null };
  const within = there.parts.findIndex((p) => p.id === row) + (place === 'after' ? 1 : 0);
  return { before: there.parts[within]?.id ?? next, group: there.group };
}

/** Where a row goes by keys; null where it can go no further. */
export function stepping(list: readonly Lying[], row: string, by: 'up' | 'down' | 'in' | 'out'): Lands | null {
  const named = groupOfRow(row),
    at = list.findIndex((l) => (named === null ? l.parts.some((p) => p.id === row) : l.group === named)),
    there = list[at];
  if (!there) return null;
  const start = (l: Lying | undefined): Id | null => l?.parts[0]?.id ?? null;
  if (named !== null || there.group === null) {
    const above = list[at - 1];
    if (by === 'up') return above ? { before: start(above), group: named } : null;
    if (by === 'down') return list[at + 1] ? { before: start(list[at + 2]), group: named } : null;
    if (by === 'in' && named === null && above && above.group !== null)
      return { before: start(there), group: above.group };
    return null;
  }
  const within = there.parts.findIndex((p) => p.id === row);
  if (by === 'up') return within > 0 ? { before: there.parts[within - 1]!.id, group: there.group } : null;
  if (by === 'down')
    return within < there.parts.length - 1
      ? { before: there.parts[within + 2]?.id ?? start(list[at + 1]), group: there.group }
      : null;
  return by === 'out' ? { before: start(list[at + 1]), group: null } : null;
}
