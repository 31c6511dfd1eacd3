import type { Side } from './kinds';

/** Ways in which names tell a side, as programs have them: behind, before, or as a word within. */
const FORMS: readonly (readonly [form: RegExp, left: string])[] = [
  [/^(.+?)[\s._-]+(left|right)$/i, 'left'],
  [/^(.+?)[\s._-]+(l|r)$/i, 'l'],
  [/^(.*[a-z\d])(Left|Right)$/, 'left'],
  [/^(.*[a-z\d])(L|R)$/, 'l'],
];
const BEFORE: readonly (readonly [form: RegExp, left: string])[] = [
  [/^(left|right)[\s._-]+(.+)$/i, 'left'],
  [/^(l|r)[._-]+(.+)$/i, 'l'],
  [/^(left|right)([A-Z].*)$/, 'left'],
];

/** A name without what tells its side, and that side. */
export function sideOfName(name: string): { readonly name: string; readonly side: Side } {
  for (const [form, left] of FORMS) {
    const m = form.exec(name);
    if (m) return { name: m[1]!, side: m[2]!.toLowerCase() === left ? 'left' : 'right' };
  }
  for (const [form, left] of BEFORE) {
    const m = form.exec(name);
    if (m) return { name: m[2]!, side: m[1]!.toLowerCase() === left ? 'left' : 'right' };
  }
  return { name, side: 'centre' };
}
