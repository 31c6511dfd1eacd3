import * as z from 'zod';
import { say } from '../../words';

const fileSchema = z.object({
  kind: z.literal('shortcuts'),
  version: z.literal(1),
  keys: z.record(z.string().max(80), z.array(z.string().max(40)).max(4)),
});
export type OwnKeys = z.infer<typeof fileSchema>['keys'];

/** Shortcuts of one's own as a file to share: JSON, only what differs from how it comes. */
export const writeShortcuts = (keys: OwnKeys): string =>
  `${JSON.stringify({ kind: 'shortcuts', version: 1, keys }, null, 2)}\n`;

/** @throws Error with a sentence when the text is no such file */
export function readShortcuts(text: string, name: string): OwnKeys {
  let json: unknown;
  try {
    json = JSON.parse(text);
  } catch {
    throw new Error(say('shortcuts.noJson', { name }));
  }
  const read = fileSchema.safeParse(json);
  if (!read.success) throw new Error(say('shortcuts.noFile', { name }));
  return read.data.keys;
}
