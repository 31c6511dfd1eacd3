import { Refusal } from '../words';
import type { Id } from './ids';

/** What kind of thing was not there, and which. */
export class MissingError extends Refusal {
  override readonly name = 'MissingError';
  constructor(
    readonly what: string,
    readonly id: string,
  ) {
    super('records.missing', { what, id });
  }
}

interface Record {
  readonly id: Id;
}

export const find = <T extends Record>(list: readonly T[], id: Id | null): T | undefined =>
  list.find((r) => r.id === id);

/** The record of that id. @throws MissingError */
export function must<T extends Record>(list: readonly T[], id: Id, what: string): T {
  const r = find(list, id);
  if (!r) throw new MissingError(what, id);
  return r;
}

/** The list with one record replaced; the same list when `next` is the record it replaces. */
export function replaceRecord<T extends Record>(list: readonly T[], next: T): readonly T[] {
  const i = list.findIndex((r) => r.id === next.id);
  return i < 0 || list[i] === next ? list : list.with(i, next);
}

/** A list with the record moved to another index. */
export function moveRecord<T extends Record>(list: readonly T[], id: Id, index: number): readonly T[] {
  const from = list.findIndex((r) => r.id === id);
  if (from < 0 || from === index) return list;
  const rest = list.toSpliced(from, 1);
  return rest.toSpliced(Math.max(0, Math.min(rest.length, index)), 0, list[from]!);
}

const indexes = new WeakMap<object, ReadonlyMap<Id, unknown>>();

/** {@link find} for lists that are asked often: an index is made once for each list. */
export function lookUp<T extends Record>(list: readonly T[], id: Id): T | undefined {
  let index = indexes.get(list) as ReadonlyMap<Id, T> | undefined;
  if (!index) indexes.set(list, (index = new Map(list.map((r) => [r.id, r]))));
  return index.get(id);
}
