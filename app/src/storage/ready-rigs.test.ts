import 'fake-indexeddb/auto';
import { afterEach, expect, it, vi } from 'vitest';
import { db } from './database';
import { listReadyRigs, readyRigFile } from './ready-rigs';

afterEach(() => vi.unstubAllGlobals());

const own = {
  id: 'a',
  name: 'Heron',
  kind: 'creature',
  bones: 9,
  parts: 8,
  clips: ['Wade'],
  file: Uint8Array.of(1, 2),
};
const shipped = [{ name: 'Biped', kind: 'character', bones: 20, parts: 15, clips: [], file: 'ready-biped.sphal' }];
const answer = (body: unknown, ok = true): unknown =>
  vi.stubGlobal('fetch', () => Promise.resolve({ ok, json: () => Promise.resolve(body) }));

it('the list has those that ship and one’s own; rows that make no sense are left out of it', async () => {
  answer(shipped);
  await db.readyRigs.add(own as never);
  for (const [i, wrong] of [
    { ...own, name: '' },
    { ...own, kind: 'spoon' },
    { ...own, bones: -1 },
    { ...own, clips: [7] },
    { ...own, parts: undefined },
  ].entries())
    await db.readyRigs.add({ ...wrong, id: `wrong ${i}` } as never);
  const list = await listReadyRigs();
  expect(list.map((r) => r.name)).toEqual(['Biped', 'Heron']);
  expect([...(await readyRigFile(list[1]!))]).toEqual([1, 2]);
  await db.readyRigs.clear();
  await expect(readyRigFile(list[1]!)).rejects.toThrow('“Heron” is no longer kept here');
});

it('a list that ships garbled, or does not come, is told', async () => {
  answer([{ ...shipped[0], file: '../elsewhere.sphal' }]);
  await expect(listReadyRigs()).rejects.toThrow();
  answer(null, false);
  await expect(listReadyRigs()).rejects.toThrow('could not be loaded');
});
