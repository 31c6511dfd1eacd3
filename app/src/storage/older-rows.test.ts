import 'fake-indexeddb/auto';
import { idsFrom, makeProject } from '@sphalerite/core/model';
import {
  addBoneEdit,
  addClipEdit,
  apply,
  current,
  editContext,
  setKeyEdit,
  startHistory,
} from '@sphalerite/core/project';
import { beforeEach, expect, it } from 'vitest';
import { db } from './database';
import { loadStored } from './open-stored';
import { ProjectWriter } from './project-writer';
import { sweep } from './sweep';
import { projectFacts, step } from './testing';
import { EMPTY_VIEW } from './view-state';

const ctx = () => editContext(`older ${Math.random()}`);

beforeEach(async () => {
  await db.delete();
  await db.open();
});

it('lanes that were stored before bones could spin, in rows of their own, open and are gone on with', async () => {
  let p = apply(
    // Shots had another form.
    { ...makeProject('mill', 'Mill', idsFrom('mill')), shots: [] },
    addBoneEdit,
    { name: 'Sail', parent: null, t: [0, 9, 0] },
    ctx(),
  );
  p = apply(p, addClipEdit, { name: 'Turn', frames: 24, fps: 24, loop: true }, ctx());
  const key = { clip: p.clips[0]!.id, bone: p.rig.bones[0]!.id } as const;
  p = apply(p, setKeyEdit, { ...key, channel: 'move', key: { time: 0, ease: 'ease', value: [0, 1, 0] } }, ctx());
  const writer = new ProjectWriter('mill', 1);
  await writer.save(startHistory(p, EMPTY_VIEW, 0));
  // As format 7 had them.
  await db.steps.toCollection().modify({ format: 7 });
  const lanes: unknown[] = [];
  await db.recordRows.toCollection().modify((row: { format: number; json: unknown }) => {
    row.format = 7;
    if (typeof row.json !== 'object' || row.json === null || !('hinge' in row.json)) return;
    const { hinge: _none, ...lane } = row.json;
    row.json = lane;
    lanes.push(lane);
  });
  expect(lanes).toHaveLength(1);
  const { writer: again, history } = await loadStored('mill', 1);
  expect(projectFacts(current(history))).toEqual(projectFacts(p));
  // What comes next is written in the form of today, and the sweep knows both.
  const spun = step(history, setKeyEdit, {
    ...key,
    channel: 'hinge',
    key: { time: 0, ease: 'linear', value: [0, 0, 63] },
  });
  await again.save(spun);
  await sweep(again);
  const both = (await loadStored('mill', 1)).history;
  expect(both.entries.map((e) => projectFacts(e.project))).toEqual(spun.entries.map((e) => projectFacts(e.project)));
});
