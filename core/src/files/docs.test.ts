import { readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { EXPORTERS, IMPORTERS, optionFields } from '.';
import { LISTED_KINDS, type RecordKind, deliveryGroups, rigKind } from '../model';
import { FORMS } from '../model/kinds/forms';

const FILE = new URL('../../../docs/formats.md', import.meta.url);

function formOf({ name }: RecordKind): string {
  const form = FORMS[name];
  if (!form) throw new Error(`The form of a ${name} is told in model/kinds/forms.ts.`);
  return form;
}

/** The records of a project, a row a kind. */
function records(): string[] {
  const row = (k: RecordKind): string =>
    `| \`${k.list ?? k.name}${k.list === null ? '' : '[]'}\` | ${k.name} | ${k.since} | ${k.kept ? 'yes' : ''} | ${formOf(k)} |`;
  return [
    '| field | kind | since format | goes into the bin | form |',
    '| --- | --- | --- | --- | --- |',
    ...[rigKind as RecordKind, ...LISTED_KINDS].map(row),
  ];
}

/** Every kind of file that is written, and what is made of files that are given. */
function files(): string[] {
  const options = (fields: ReturnType<typeof optionFields>): string =>
    fields.map((f) => `\`${f.key}\` (${String(f.preset)}): ${f.about || f.title}`).join('; ');
  return [
    '| `--format` | file | ending | made of | options and their presets |',
    '| --- | --- | --- | --- | --- |',
    ...EXPORTERS.map(
      (e) =>
        `| \`${e.id}\` | ${e.name}: ${e.about} | ${e.extensions[0]} | ${e.takes} | ${options(optionFields(e.options))} |`,
    ),
    '',
    '| files that are given | what is done with them |',
    '| --- | --- |',
    ...IMPORTERS.map((i) => `| ${i.extensions.join(', ')} | ${i.does} |`),
  ];
}

/** Every wish of a delivery profile, with what it is when nothing is said. */
function wishes(): string[] {
  return [
    '| wish | values | preset | what it means |',
    '| --- | --- | --- | --- |',
    ...Object.entries(deliveryGroups).flatMap(([group, schema]) =>
      optionFields(schema).map((f) => {
        const values = f.kind === 'switch' ? 'yes, no' : f.choices.length > 0 ? f.choices.join(', ') : f.kind;
        const preset = f.preset === '' ? 'nothing' : `\`${String(f.preset)}\``;
        return `| \`${group}.${f.key}\` | ${values} | ${preset} | ${f.title}: ${f.about} |`;
      }),
    ),
  ];
}

it.each([
  ['records', records, 'from core/src/model/kinds. -->\n', '<!-- End of the records. -->'],
  ['wishes', wishes, 'from core/src/model/kinds/delivery-profile.ts. -->\n', '<!-- End of the wishes. -->'],
  ['files', files, 'from core/src/files. -->\n', '<!-- End of the files. -->'],
] as const)(
  'docs/formats.md says of the %s what their declarations say (npm run docs writes it)',
  (_, rows, begin, end) => {
    const table = rows().join('\n');
    const text = readFileSync(FILE, 'utf8');
    const from = text.indexOf(begin) + begin.length,
      to = text.indexOf(end);
    expect(from, 'the place of the table').toBeGreaterThan(begin.length);
    if (process.env['UPDATE_DOCS']) writeFileSync(FILE, `${text.slice(0, from)}\n${table}\n\n${text.slice(to)}`);
    // The formatter pads columns as it likes.
    const plain = (s: string): string => s.replace(/-{3,}/g, '---').replace(/ +/g, ' ').trim();
    expect(plain(readFileSync(FILE, 'utf8'))).toContain(plain(table));
  },
);
