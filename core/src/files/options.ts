import * as z from 'zod';

/** An option as a form or a help text shows it. */
export interface OptionField {
  readonly key: string;
  readonly title: string;
  readonly about: string;
  readonly kind: 'switch' | 'number' | 'choice' | 'colour' | 'text';
  /** Of a choice. */
  readonly choices: readonly string[];
  /** Of a number; null for no end. */
  readonly least: number | null;
  readonly most: number | null;
  /** Whether only whole numbers are any. */
  readonly whole: boolean;
  readonly preset: unknown;
}

/** The fields of a schema of options, in its order. */
export function optionFields(schema: z.ZodType): OptionField[] {
  const json = z.toJSONSchema(schema, { io: 'input' }) as { properties?: Record<string, Record<string, unknown>> };
  return Object.entries(json.properties ?? {}).map(([key, f]): OptionField => {
    const end = (name: string): number | null => (typeof f[name] === 'number' ? f[name] : null);
    return {
      key,
      title: String(f['title'] ?? key),
      about: String(f['description'] ?? ''),
      kind: f['enum']
        ? 'choice'
        : f['type'] === 'boolean'
          ? 'switch'
          : f['format'] === 'colour'
            ? 'colour'
            : f['type'] === 'string'
              ? 'text'
              : 'number',
      choices: (f['enum'] as string[] | undefined) ?? [],
      least: end('minimum'),
      most: end('maximum'),
      whole: f['type'] === 'integer',
      preset: f['default'],
    };
  });
}

/** Options as words of a command line, `key=value`. @throws RangeError naming the word and what would do */
export function optionsFromWords(schema: z.ZodType, words: readonly string[]): unknown {
  const fields = optionFields(schema);
  const given: Record<string, unknown> = {};
  for (const word of words) {
    const [key, value = ''] = word.split(/=(.*)/s);
    const field = fields.find((f) => f.key === key);
    if (!field)
      throw new RangeError(
        `There is no option "${key}" here. ${fields.length > 0 ? `Options are: ${fields.map((f) => f.key).join(', ')}.` : 'This format has none.'}`,
      );
    given[field.key] =
      field.kind === 'number'
        ? Number(value)
        : field.kind === 'switch' && /^(yes|no)$/.test(value)
          ? value === 'yes'
          : value;
  }
  const parsed = schema.safeParse(given);
  if (parsed.success) return parsed.data;
  const key = String(parsed.error.issues[0]!.path[0]);
  const field = fields.find((f) => f.key === key)!;
  const would =
    field.kind === 'switch'
      ? 'yes or no'
      : field.kind === 'choice'
        ? field.choices.join(', ')
        : field.kind === 'text'
          ? 'a shorter text'
          : `a number from ${field.least ?? 'any'} to ${field.most ?? 'any'}`;
  throw new RangeError(`"${String(given[key])}" is nothing that ${key} can be. Give ${would}.`);
}
