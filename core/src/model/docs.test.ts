import { readFileSync, writeFileSync } from 'node:fs';
import { expect, it } from 'vitest';
import { LISTED_KINDS, type RecordKind, rigKind } from '.';

const FILE = new URL('../../../docs/formats.md', import.meta.url);
const [BEGIN, END] = ['from core/src/model/kinds. -->\n', '<!-- End of the records. -->'];

/** The records of a project, a row a kind. */
function table(): string {
  const row = (k: RecordKind): string =>
    `| \`${k.list ?? k.name}${k.list === null ? '' : '[]'}\` | ${k.name} | ${k.since} | ${k.kept ? 'yes' : ''} | ${k.about} |`;
  return [
    '| field | kind | since format | goes into the bin | form |',
    '| --- | --- | --- | --- | --- |',
    ...[rigKind as RecordKind, ...LISTED_KINDS].map(row),
  ].join('\n');
}

it('docs/formats.md says of every kind of record what its declaration says (npm run docs writes it)', () => {
  const text = readFileSync(FILE, 'utf8');
  const from = text.indexOf(BEGIN) + BEGIN.length,
    to = text.indexOf(END);
  expect(from, 'the place of the table').toBeGreaterThan(BEGIN.length);
  if (process.env['UPDATE_DOCS']) writeFileSync(FILE, `${text.slice(0, from)}\n${table()}\n\n${text.slice(to)}`);
  // The formatter pads columns as it likes.
  const plain = (s: string): string => s.replace(/-{3,}/g, '---').replace(/ +/g, ' ').trim();
  expect(plain(readFileSync(FILE, 'utf8'))).toContain(plain(table()));
});
