import type { LooseJson } from '@sphalerite/core/model';
import type { Transaction } from 'dexie';
import type { StepRow } from './database';

/** The root of a step as it was stored up to format 5. */
interface OldRoot {
  fields: Record<string, unknown>;
  rig: number;
  [list: string]: unknown;
}

/** Rows carried over at a time: about a megabyte of bricks. */
const CHUNK = 256;

/**
 * Carries rows of the first layout of the database over to the second: numbers stay, but count within a project, and rows
 * say their format. Up to format 5 they did not; 1 makes reading add whatever came later.
 */
export async function copyOldRows(tx: Transaction): Promise<void> {
  const carry = async (from: string, to: string, change: (row: never) => object): Promise<void> => {
    const keys = await tx.table(from).toCollection().primaryKeys();
    for (let i = 0; i < keys.length; i += CHUNK) {
      const rows = await tx.table(from).bulkGet(keys.slice(i, i + CHUNK));
      await tx.table(to).bulkAdd(rows.map((r) => change(r as never)));
    }
  };
  await carry('entries', 'steps', ({ root, ...row }: { root: OldRoot }) => {
    const { fields, rig, ...lists } = root;
    return { ...row, format: 1, root: { fields, rig, lists } };
  });
  await carry('records', 'recordRows', (row: object) => ({ ...row, format: 1 }));
  await carry('grids', 'gridRows', (row: object) => row);
  await carry('bricks', 'brickRows', (row: object) => row);
  const heads = (await tx.table('heads').toArray()) as { id: string; thumbnail?: Blob | null }[];
  for (const { thumbnail, ...head } of heads) {
    await tx.table('heads').put(head);
    if (thumbnail) await tx.table('thumbnails').put({ id: head.id, png: thumbnail });
  }
}

/** The root of a step, in the form it has since format 7: with numbers in its lists. */
export function rootOf({ format, root }: StepRow): LooseJson {
  if (format >= 7) return root;
  const { fields, rig, lists } = root as unknown as OldRoot & { lists: LooseJson };
  return { ...fields, ...lists, rig };
}
