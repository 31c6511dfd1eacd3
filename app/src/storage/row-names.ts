import {
  ALL_KINDS,
  FormatError,
  type FoundBlob,
  type LooseJson,
  type Mark,
  mapMarked,
  projectSchema,
  upgradeProject,
  upgradePiece,
  upgradeRecord,
} from '@sphalerite/core/model';
import type { RecordRow, StepRow } from './database';
import { rootOf } from './old-database';
import { UnreadableError } from './storage-errors';
import { say } from '../words';

/** What stands in a row of its own, and how it is read. */
export type Apart = Extract<Mark, { mark: 'apart' }>;

/** The rows that a row names, by number. */
export interface Names {
  readonly records: Map<number, Apart>;
  readonly grids: Set<number>;
  readonly files: Set<number>;
}
export const noNames = (): Names => ({ records: new Map(), grids: new Set(), files: new Set() });

/** What a step says, in the form of today. @throws UnreadableError, FormatError when it is newer */
export const rootOfStep = (row: StepRow): LooseJson => whole(() => upgradeProject(rootOf(row), row.format));

/** What a record says, in the form of today, and the files that stood in an older one. @throws UnreadableError, FormatError */
export function jsonOfRecord(
  row: RecordRow,
  { of, upgrades }: Apart,
): { readonly json: unknown; readonly found: FoundBlob[] } {
  const kind = ALL_KINDS.find((k) => k.name === of);
  const found: FoundBlob[] = [];
  const json = kind
    ? whole(() => upgradeRecord(kind, row.json, row.format, (b) => void found.push(b)))
    : whole(() => upgradePiece(row.json, row.format, upgrades));
  return { json, found };
}

export const namesOfStep = (row: StepRow, into: Names): void => namesIn(projectSchema, rootOfStep(row), into);
export const namesOfRecord = (row: RecordRow, apart: Apart, into: Names): void =>
  namesIn(apart.piece, jsonOfRecord(row, apart).json, into);

/** Adds all numbers of rows that stand in the JSON of one. @throws UnreadableError when it is not of its form */
function namesIn(schema: Apart['piece'], json: unknown, into: Names): void {
  whole(() =>
    mapMarked(schema, ['apart', 'cells', 'bytes'], json, (mark, value, _at, inside) => {
      if (typeof value !== 'number') return mark.mark === 'apart' ? inside(value) : value;
      if (mark.mark === 'apart') into.records.set(value, mark);
      else (mark.mark === 'cells' ? into.grids : into.files).add(value);
      return value;
    }),
  );
}

/** What a check of the format refuses, or stumbles over, is damage here, unless it is newer. @throws UnreadableError, FormatError */
export function whole<T>(check: () => T): T {
  try {
    return check();
  } catch (e) {
    if (e instanceof FormatError && e.code === 'format.newer') throw e;
    const why = e instanceof FormatError ? e.message : say('storage.wrongForm');
    throw new UnreadableError(say('storage.damaged', { why }));
  }
}
