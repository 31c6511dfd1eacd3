import type { Part } from './kinds';

/** Names of the groups in which parts lie, each once, in the order in which they are met. */
export const groupsOfParts = (parts: readonly Part[]): string[] => [...new Set(parts.flatMap((p) => p.group ?? []))];

/** Parts as they lie in lists: a group with all its parts where the first of them lies. */
export type Lying =
  { readonly group: null; readonly parts: readonly [Part] } | { readonly group: string; readonly parts: Part[] };

export function lying(parts: readonly Part[]): Lying[] {
  const groups = new Map<string, Lying & { readonly group: string }>();
  const out: Lying[] = [];
  for (const part of parts) {
    const known = part.group === null ? undefined : groups.get(part.group);
    if (known) known.parts.push(part);
    else if (part.group === null) out.push({ group: null, parts: [part] });
    else {
      const fresh = { group: part.group, parts: [part] };
      groups.set(part.group, fresh);
      out.push(fresh);
    }
  }
  return out;
}
