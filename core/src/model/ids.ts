import { type Random, hashText, seededRandom } from '../math';

/** Short, random, safe in file names. Unique within a project by chance of 36⁸. */
export type Id = string;

const DIGITS = '0123456789abcdefghijklmnopqrstuvwxyz';
export const makeId = (random: Random): Id =>
  Array.from({ length: 8 }, () => DIGITS[Math.floor(random() * 36)]).join('');

/** A stream of ids that is the same for the same name, so that previews repeat and demo files are reproducible. */
export function idsFrom(name: string): () => Id {
  const random = seededRandom(hashText(name));
  return () => makeId(random);
}

/** `wanted`, or `wanted 2`, `wanted 3`… when it is taken. */
export function freeName(wanted: string, taken: Iterable<string>): string {
  const used = new Set(taken);
  if (!used.has(wanted)) return wanted;
  const stem = wanted.replace(/ \d+$/, '');
  for (let n = 2; ; n++) if (!used.has(`${stem} ${n}`)) return `${stem} ${n}`;
}
