import 'fake-indexeddb/auto';
import { readFileSync } from 'node:fs';
import { restoreEdit } from '@sphalerite/core/project';
import Dexie from 'dexie';
import { afterEach, describe, expect, it } from 'vitest';
import { blobId, blobTypeOf, migrateProject, projectToJson } from '@sphalerite/core/model';
import { db } from './database';
import { loadStored } from './open-stored';
import { pieceCounts } from './project-writer';
import { sweep } from './sweep';
import { cube, facts, step } from './testing';

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
  afterEach(() => db.delete());
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
    expect(clip?.kind === 'clip' && clip.record.lanes[0]!.turn[0]!.ease).toBe('linear');
    const next = cube(history, ...history.entries[0]!.project.parts[0]!.bounds.min, 0);
    await writer.save(next);
    await sweep(writer);
    expect(facts((await loadStored(id, 3)).history)).toEqual(facts(next));
    expect((await pieceCounts(id)).slice(0, 3).every((n) => n > 0)).toBe(true);
  });
});

interface Rows6 {
  heads: { id: string }[];
  steps: object[];
  recordRows: object[];
  gridRows: { table: { i32: number[] } }[];
  brickRows: { cells: { u8: string } }[];
}
/** Rows as format 6 left them, in the second layout of the database. */
async function rowsOf6(): Promise<string> {
  const file = new URL('../../fixtures/rows-format-6.json', import.meta.url);
  const rows = JSON.parse(readFileSync(file, 'utf8')) as Rows6;
  const old = new Dexie('sphalerite');
  const keyed = {
    steps: '[project+seq]',
    recordRows: '[project+id]',
    gridRows: '[project+id]',
    brickRows: '[project+id]',
  };
  old.version(4).stores({ heads: 'id', thumbnails: 'id', settings: 'key', readyRigs: 'id', ...keyed });
  await old.table('heads').bulkAdd(rows.heads);
  await old.table('steps').bulkAdd(rows.steps);
  await old.table('recordRows').bulkAdd(rows.recordRows);
  await old.table('gridRows').bulkAdd(rows.gridRows.map((g) => ({ ...g, table: Int32Array.from(g.table.i32) })));
  await old
    .table('brickRows')
    .bulkAdd(rows.brickRows.map((b) => ({ ...b, cells: Uint8Array.from(Buffer.from(b.cells.u8, 'base64')) })));
  old.close();
  return rows.heads[0]!.id;
}

describe('a database of format 6', () => {
  afterEach(() => db.delete());
  it('keeps pictures as blobs from now on, and what lay in the bin comes back', async () => {
    const id = await rowsOf6();
    await db.open();
    const { writer, history } = await loadStored(id, 3);
    expect(history.entries).toHaveLength(12);
    for (const { project } of history.entries) expect(() => migrateProject(projectToJson(project))).not.toThrow();
    const blobs = history.entries.map((e) => e.project.blobs.length);
    expect(blobs).toEqual([0, 1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2]);
    const last = history.entries[11]!.project;
    expect(new Set(last.references.map((r) => r.blob))).toEqual(new Set([last.blobs[0]!.id]));
    expect(last.blobs.every((b) => b.id === blobId(b.bytes) && blobTypeOf(b.bytes) === 'image/png')).toBe(true);
    // The very same file in every step.
    expect(last.blobs[0]).toBe(history.entries[1]!.project.blobs[0]);
    expect(last.bin.map((b) => b.kind)).toEqual(['part', 'clip', 'bone']);
    expect(last.parts[0]!.regions!.list.map((r) => r.name)).toEqual(['Bow']);
    const back = step(history, restoreEdit, { item: last.bin[0]!.id });
    expect(back.entries.at(-1)!.project.references.map((r) => r.name)).toContain('Crate from the side');
    await writer.save(back);
    await sweep(writer);
    const again = await loadStored(id, 3);
    expect(facts(again.history)).toEqual(facts(back));
    expect((await pieceCounts(id))[3]).toBe(2);
  });
});
