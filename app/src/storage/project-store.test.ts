import 'fake-indexeddb/auto';
import { type Project, idsFrom, makeProject, projectToJson } from '@sphalerite/core/model';
import {
  type History,
  addBoneEdit,
  addPartEdit,
  apply,
  current,
  deletePartEdit,
  editContext,
  record,
  resizePartEdit,
  restoreEdit,
  startHistory,
  strokeEdit,
  undo,
} from '@sphalerite/core/project';
import { boxStroke } from '@sphalerite/core/sculpt';
import { seededRandom } from '@sphalerite/core/math';
import { beforeEach, describe, expect, it } from 'vitest';
import { db } from './database';
import { ProjectWriter, TakenOverError, sweep } from './project-store';
import { EMPTY_VIEW, type ViewState } from './view-state';

type H = History<ViewState>;
let n = 0;
const ctx = () => editContext(`store test ${n++}`, n);
const step = (h: H, project: Project, label = `step ${n}`): H =>
  record(h, {
    label,
    at: n,
    where: 'Build',
    project,
    viewBefore: EMPTY_VIEW,
    viewAfter: { ...EMPTY_VIEW, part: project.parts[0]?.id ?? null },
  });
const start = (): H => startHistory(makeProject('lamp', 'Lamp', idsFrom('lamp'), 'prop', [40, 40, 40]), EMPTY_VIEW, 0);
const cube = (p: Project, x: number, y: number, z: number, value: number): Project =>
  apply(
    p,
    strokeEdit,
    {
      part: p.parts[0]!.id,
      layer: p.parts[0]!.layers[0]!.id,
      stroke: boxStroke(value === 0 ? 'erase' : 'add', value, [{ min: [x, y, z], size: [1, 1, 1] }]),
    },
    ctx(),
  );
/** All that makes two histories the same: every step's project with its cells, and which step is now. */
const facts = (h: H) => ({
  now: h.now,
  steps: h.entries.map((e) => ({
    label: e.label,
    at: e.at,
    view: e.viewAfter,
    json: projectToJson(e.project),
    cells: e.project.parts.map((p) =>
      p.layers.map((l) =>
        [...l.grid.bricks()].map((b) => [b.at, [...b.brick].reduce((a, v, i) => (a * 31 + v * (i + 1)) >>> 0, 7)]),
      ),
    ),
  })),
});
const counts = async () => ({
  records: await db.records.count(),
  grids: await db.grids.count(),
  bricks: await db.bricks.count(),
  entries: await db.entries.count(),
});

beforeEach(async () => {
  await db.delete();
  await db.open();
});

describe('ProjectWriter', () => {
  it.each([1, 2, 3])('a random history of seed %i comes back whole, saved at any moments', async (seed) => {
    const random = seededRandom(seed);
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    for (let i = 0; i < 140; i++) {
      const p = current(h);
      const at = (): number => Math.floor(random() * 40) - 20;
      const kind = random();
      if (kind < 0.7) h = step(h, cube(p, at(), at() + 20, at(), Math.floor(random() * 5)));
      else if (kind < 0.8) h = undo(h);
      else if (kind < 0.86)
        h = step(h, apply(p, addPartEdit, { name: 'Part', bounds: { min: [0, 0, 0], size: [5, 5, 5] } }, ctx()));
      else if (kind < 0.9 && p.parts.length > 1)
        h = step(h, apply(p, deletePartEdit, { part: p.parts.at(-1)!.id }, ctx()));
      else if (kind < 0.94 && p.bin.length > 0) h = step(h, apply(p, restoreEdit, { item: p.bin[0]!.id }, ctx()));
      else if (kind < 0.97) h = step(h, apply(p, addBoneEdit, { name: 'Bone', parent: null, t: [0, i, 0] }, ctx()));
      else
        h = step(
          h,
          apply(
            p,
            resizePartEdit,
            { part: p.parts[0]!.id, bounds: { min: [-20 - (i % 7), 0, -20], size: [40 + (i % 7), 40, 41] }, cut: true },
            ctx(),
          ),
        );
      if (random() < 0.3) await writer.save(h);
    }
    await writer.save(h);
    expect(facts(await new ProjectWriter('lamp', 1).load())).toEqual(facts(h));
    await sweep('lamp');
    const swept = await new ProjectWriter('lamp', 1).load();
    expect(facts(swept)).toEqual(facts(h));
  });

  it('rows written before there were colourways are read as projects without any', async () => {
    const writer = new ProjectWriter('lamp', 1);
    await writer.save(start());
    await db.entries.toCollection().modify((row) => {
      const { colourways: _none, ...fields } = row.root.fields as Project;
      row.root.fields = fields;
    });
    await db.records.toCollection().modify((row) => {
      const json = row.json as { samples?: number; colourway?: null };
      if (json.samples !== undefined) delete json.colourway;
    });
    const { entries } = await new ProjectWriter('lamp', 1).load();
    expect(entries[0]!.project.colourways).toEqual([]);
    expect(entries[0]!.project.shots.map((s) => s.colourway)).toEqual([null]);
    expect(entries[0]!.project.parts).toHaveLength(1);
  });

  it('one cube writes one brick and a few short rows, far under 64 KB', async () => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    h = step(h, cube(current(h), 1, 1, 1, 3));
    await writer.save(h);
    const before = await counts();
    h = step(h, cube(current(h), 2, 1, 1, 3));
    const bytes = await writer.save(h);
    const after = await counts();
    expect(bytes).toBeLessThan(16 * 1024);
    expect([
      after.bricks - before.bricks,
      after.grids - before.grids,
      after.records - before.records,
      after.entries - before.entries,
    ]).toEqual([1, 1, 1, 1]);
    expect(await writer.save(h)).toBe(0);
  });

  it('goes on where a loaded history stopped, sharing what is stored already', async () => {
    const first = new ProjectWriter('lamp', 1);
    let h = start();
    for (let i = 0; i < 5; i++) h = step(h, cube(current(h), i, 0, 0, 2));
    await first.save(h);
    const second = new ProjectWriter('lamp', 1);
    let loaded = await second.load();
    const before = await counts();
    loaded = step(undo(loaded), cube(current(undo(loaded)), 9, 9, 9, 4));
    await second.save(loaded);
    expect((await counts()).entries).toBe(before.entries);
    expect((await counts()).bricks - before.bricks).toBeLessThanOrEqual(1);
    expect(facts(await new ProjectWriter('lamp', 1).load())).toEqual(facts(loaded));
  });

  it('a writer whose right was taken over writes nothing any more', async () => {
    const old = new ProjectWriter('lamp', 1);
    let h = start();
    await old.save(h);
    await db.heads.update('lamp', { epoch: 2 });
    const before = await counts();
    h = step(h, cube(current(h), 1, 1, 1, 3));
    await expect(old.save(h)).rejects.toBeInstanceOf(TakenOverError);
    expect(await counts()).toEqual(before);
    const now = new ProjectWriter('lamp', 2);
    await now.load();
    await now.save(h);
    expect((await counts()).entries).toBe(2);
  });

  it('a save that fails half-way leaves the last state whole, and the next one catches up', async () => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    const sound = facts(h);
    h = step(h, cube(current(h), 1, 1, 1, 3));
    const stop = (): never => {
      throw new Error('disk full');
    };
    db.entries.hook('creating', stop);
    await expect(writer.save(h)).rejects.toThrow();
    db.entries.hook('creating').unsubscribe(stop);
    expect(facts(await new ProjectWriter('lamp', 1).load())).toEqual(sound);
    await writer.save(h);
    expect(facts(await new ProjectWriter('lamp', 1).load())).toEqual(facts(h));
  });
});
