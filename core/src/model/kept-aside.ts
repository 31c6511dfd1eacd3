import type { Id } from './ids';
import type { Part } from './kinds';

const known = new WeakMap<readonly Part[], ReadonlySet<Id>>();

/**
 * The wholes that were taken apart and kept, hidden, so that the step can be repeated: they belong to no figure, and are neither
 * counted nor mounted, checked nor shipped. Memoised by the list of parts.
 */
export function keptAside(parts: readonly Part[]): ReadonlySet<Id> {
  let set = known.get(parts);
  if (!set) {
    const wholes = new Set(parts.flatMap((p) => p.origin?.whole ?? []));
    known.set(parts, (set = new Set(parts.filter((p) => p.hidden && wholes.has(p.id)).map((p) => p.id))));
  }
  return set;
}

const others = new WeakMap<readonly Part[], readonly Part[]>();

/** Every part but the wholes that are kept aside. Memoised. */
export function partsInUse(parts: readonly Part[]): readonly Part[] {
  let list = others.get(parts);
  if (!list) {
    const aside = keptAside(parts);
    others.set(parts, (list = aside.size === 0 ? parts : parts.filter((p) => !aside.has(p.id))));
  }
  return list;
}
