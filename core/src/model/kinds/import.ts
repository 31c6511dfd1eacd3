import * as z from 'zod';
import type { Id } from '../ids';
import { own, ref } from '../marks';
import { name } from './fields';
import type { RecordKind } from './record-kind';

/** What parts were made of, so that they can be made anew: the importer, its wishes and the files that it was given. */
export interface KeptImport {
  readonly id: Id;
  /** As the list of importers has it. */
  readonly importer: string;
  /** As the importer's schema has them; it checks them again before they are used. */
  readonly options: Readonly<Record<string, unknown>>;
  readonly files: readonly { readonly name: string; readonly blob: Id }[];
}

const MOST_FILES = 256;

export const importKind: RecordKind<'import', 'imports', KeptImport> = {
  name: 'import',
  plural: 'imports',
  list: 'imports',
  most: 4096,
  schema: z.strictObject({
    id: own('import'),
    importer: z.string().min(1).max(64),
    options: z.record(z.string().max(64), z.json()),
    files: z.array(z.strictObject({ name, blob: ref('blob') })).max(MOST_FILES),
  }),
  since: 11,
  upgrades: {},
  whileNamed: true,
};
