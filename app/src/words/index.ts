import { EN } from './en';

export type WordKey = keyof typeof EN;
type Params = Readonly<Record<string, string | number>>;

const LANGUAGE = 'en';
const rules = new Intl.PluralRules(LANGUAGE);

/**
 * A sentence of the catalogue, filled in. Figures get their thousands; `n` decides between one and many as the language has it.
 *
 * @throws Error when something that the sentence names is not given
 */
export function say(key: WordKey, params: Params = {}): string {
  const entry: string | { readonly one: string; readonly other: string } = EN[key];
  const text = typeof entry === 'string' ? entry : entry[rules.select(Number(params['n'])) === 'one' ? 'one' : 'other'];
  return text.replace(/\{(\w+)\}/g, (_, name: string) => {
    const value = params[name];
    if (value === undefined) throw new Error(`“${key}” wants ${name}.`);
    return typeof value === 'number' ? value.toLocaleString(LANGUAGE) : value;
  });
}
/** How many there are of something: "1 bone", "2,616 cubes". */
export const counted = (
  n: number,
  what: 'bones' | 'clips' | 'cubes' | 'keys' | 'parts' | 'pieces' | 'swatches' | 'triangles',
): string => say(what, { n });
