/** A sentence, or the two of them for one and for many. What is in braces is filled in; `n` decides between one and many. */
export type Entry = string | { readonly one: string; readonly other: string };
export type Params = Readonly<Record<string, string | number>>;

const LANGUAGE = 'en';
const rules = new Intl.PluralRules(LANGUAGE);

/**
 * What says the sentences of a catalogue, filled in. Figures get their thousands; `n` decides between one and many as the
 * language has it. What it gives throws an Error when something that the sentence names is not given.
 */
export const speaker =
  <K extends string>(catalogue: Readonly<Record<K, Entry>>) =>
  (key: K, params: Params = {}): string => {
    const entry: Entry = catalogue[key];
    const text =
      typeof entry === 'string' ? entry : entry[rules.select(Number(params['n'])) === 'one' ? 'one' : 'other'];
    return text.replace(/\{(\w+)\}/g, (_, name: string) => {
      const value = params[name];
      if (value === undefined) throw new Error(`“${key}” wants ${name}.`);
      return typeof value === 'number' ? value.toLocaleString(LANGUAGE) : value;
    });
  };
