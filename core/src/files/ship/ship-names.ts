import type { ShipProfile } from './ship-profile';

const words = (name: string): string[] => name.split(/[\s_-]+/).filter((w) => w !== '');

/** A name as the target wants it: prefix, the word or words, what tells its side. */
export function spelt(
  name: string,
  side: 'left' | 'right' | 'centre',
  { prefix, letters, left, right }: ShipProfile['names'],
): string {
  const end = side === 'centre' ? '' : side === 'left' ? left : right;
  switch (letters) {
    case 'as they are':
      return prefix + name + end;
    case 'small_letters':
      return prefix + words(name).join('_').toLowerCase() + end;
    case 'small-letters':
      return prefix + words(name).join('-').toLowerCase() + end;
    case 'JoinedWords':
      return (
        prefix +
        words(name)
          .map((w) => w.charAt(0).toUpperCase() + w.slice(1))
          .join('') +
        end
      );
  }
}

/** The name of a collider by the profile's pattern. @param n – its number among `of` of them */
export const colliderName = (pattern: string, name: string, n: number, of: number): string =>
  // A single one needs no number, nor what stands before it.
  (of === 1 ? pattern.replace(/[\s_-]*\{n\}/g, '') : pattern.replaceAll('{n}', String(n))).replaceAll('{name}', name);

/** Names that are all different: those that are taken get a number. */
export function distinct(names: readonly string[]): string[] {
  const taken = new Set<string>();
  return names.map((name) => {
    let free = name;
    for (let n = 2; taken.has(free); n++) free = `${name}_${n}`;
    taken.add(free);
    return free;
  });
}
