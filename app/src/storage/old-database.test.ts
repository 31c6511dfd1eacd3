import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import Dexie from 'dexie';
import { afterAll, describe, expect, it } from 'vitest';
import { migrateProject, projectToJson } from '@sphalerite/core/model';
import { db } from './database';
import { loadStored } from './open-stored';
import { pieceCounts } from './project-writer';
import { sweep } from './sweep';
import { cube, facts } from './testing';

interface OldRows {
  heads: { id: string }[];
  entries: object[];
  records: object[];
  grids: { table: { i32: number[] } }[];
  bricks: { cells: { u8: string } }[];
}

/** A database as format 5 left it: written by that version, then kept as JSON. */
async function oldDatabase(): Promise<string> {
  const file = new URL('../../fixtures/rows-format-5.json', import.meta.url);
  const rows = JSON.parse(readFileSync(file, 'utf8')) as OldRows;
  const old = new Dexie('sphalerite');
  old.version(1).stores({
    heads: 'id',
    entries: '[project+seq], project',
    records: '++id, project',
    grids: '++id, project',
    bricks: '++id, project',
    settings: 'key',
  });
  old.version(2).stores({ readyRigs: 'id' });
  await old.table('heads').bulkAdd(rows.heads);
  await old.table('entries').bulkAdd(rows.entries);
  await old.table('records').bulkAdd(rows.records);
  await old.table('grids').bulkAdd(rows.grids.map((g) => ({ ...g, table: Int32Array.from(g.table.i32) })));
  await old
    .table('bricks')
    .bulkAdd(rows.bricks.map((b) => ({ ...b, cells: Uint8Array.from(Buffer.from(b.cells.u8, 'base64')) })));
  old.close();
  return rows.heads[0]!.id;
}

describe('a database of format 5', () => {
  afterAll(() => db.delete());
  it('is carried over with its whole history, and worked on as any other', async () => {
    const id = await oldDatabase();
    await db.open();
    expect([...db.tables.map((t) => t.name)].sort()).not.toContain('entries');
    const { writer, history } = await loadStored(id, 3);
    expect(history.entries.map((e) => e.label)).toEqual([
      'Opened',
      'Cube 0',
      'Cube 1',
      'Cube 2',
      'Cube 3',
      'Crate',
      'Crate away',
      'Clip away',
    ]);
    expect(history.now).toBe(6);
    for (const { project } of history.entries) expect(() => migrateProject(projectToJson(project))).not.toThrow();
    const eases = history.entries[0]!.project.clips[0]!.lanes.flatMap((l) => l.turn.map((k) => k.ease));
    expect(new Set(eases)).toEqual(new Set(['linear', 'ease']));
    const last = history.entries[7]!.project;
    const clip = last.bin.find((b) => b.kind === 'clip');
    expect(clip?.kind === 'clip' && clip.clip.lanes[0]!.turn[0]!.ease).toBe('linear');
    const next = cube(history, ...history.entries[0]!.project.parts[0]!.bounds.min, 0);
    await writer.save(next);
    await sweep(writer);
    expect(facts((await loadStored(id, 3)).history)).toEqual(facts(next));
    expect((await pieceCounts(id)).every((n) => n > 0)).toBe(true);
  });
});
