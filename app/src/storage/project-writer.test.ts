import 'fake-indexeddb/auto';
import { type History, current, redo, renameProjectEdit, undo } from '@sphalerite/core/project';
import { beforeEach, describe, expect, it } from 'vitest';
import { db } from './database';
import { loadStored, openStored } from './open-stored';
import { ProjectWriter, pieceCounts } from './project-writer';
import { GoneError, TakenOverError } from './storage-errors';
import { sweep } from './sweep';
import { type H, anyEdit, cube, facts, projectFacts, start, step } from './testing';
import type { ViewState } from './view-state';

const load = async (epoch = 1): Promise<History<ViewState>> => (await loadStored('lamp', epoch)).history;
const steps = (): Promise<number> => db.steps.count();

beforeEach(async () => {
  await db.delete();
  await db.open();
});

describe('saving', () => {
  it.each([1, 2, 3])('a random history of seed %i comes back whole, saved at any moments', async (seed) => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    for (let i = 0; i < 120; i++) {
      h = i % 11 === 5 ? undo(h) : anyEdit(h, seed * 1000 + i);
      if (i % 3 === 0) await writer.save(h);
    }
    await writer.save(h);
    expect(facts(await load())).toEqual(facts(h));
    await sweep(writer);
    expect(facts(await load())).toEqual(facts(h));
  });

  it('one cube writes one brick and a few short rows, far under 64 KB', async () => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    h = cube(h, 1, 1, 1, 3);
    await writer.save(h);
    const before = await pieceCounts('lamp');
    h = cube(h, 2, 1, 1, 3);
    expect(await writer.save(h)).toBeLessThan(16 * 1024);
    expect((await pieceCounts('lamp')).map((c, i) => c - before[i]!)).toEqual([1, 1, 1, 0]);
    expect(await writer.save(h)).toBe(0);
  });

  it('what is stored already is shared after a reload, the very next delta included', async () => {
    let h = start();
    for (let i = 0; i < 5; i++) h = cube(h, i, 0, 0, 2);
    await new ProjectWriter('lamp', 1).save(h);
    const { writer, history } = await loadStored('lamp', 1);
    const before = await pieceCounts('lamp');
    h = cube(undo(history), 9, 9, 9, 4);
    expect(await writer.save(h)).toBeLessThan(16 * 1024);
    expect(await steps()).toBe(6);
    expect((await pieceCounts('lamp')).map((c, i) => c - before[i]!)).toEqual([1, 1, 1, 0]);
    expect(facts(await load())).toEqual(facts(h));
  });

  it('a save that fails half-way leaves the last state whole, and the next one catches up', async () => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    const sound = facts(h);
    h = cube(h, 1, 1, 1, 3);
    const stop = (): never => {
      throw new Error('disk full');
    };
    db.steps.hook('creating', stop);
    await expect(writer.save(h)).rejects.toThrow();
    db.steps.hook('creating').unsubscribe(stop);
    expect(facts(await load())).toEqual(sound);
    await writer.save(h);
    expect(facts(await load())).toEqual(facts(h));
  });

  it('a writer whose right was taken over writes nothing any more, nor does its sweep', async () => {
    const old = new ProjectWriter('lamp', 1);
    let h = start();
    await old.save(h);
    h = undo(cube(h, 1, 1, 1, 3));
    await old.save(redo(h));
    await db.heads.update('lamp', { epoch: 2 });
    const before = await pieceCounts('lamp');
    await expect(old.save(cube(h, 2, 1, 1, 3))).rejects.toBeInstanceOf(TakenOverError);
    expect(await pieceCounts('lamp')).toEqual(before);
    const { writer, history } = await loadStored('lamp', 2);
    await writer.save(cube(undo(history), 5, 5, 5, 1));
    const rows = await pieceCounts('lamp');
    await expect(sweep(old)).rejects.toBeInstanceOf(TakenOverError);
    expect(await pieceCounts('lamp')).toEqual(rows);
  });

  it('a project that was deleted meanwhile is not written half over nothing', async () => {
    const writer = new ProjectWriter('lamp', 1);
    const h = start();
    await writer.save(h);
    await db.heads.delete('lamp');
    await expect(writer.save(cube(h, 1, 1, 1, 3))).rejects.toBeInstanceOf(GoneError);
    expect(await db.heads.count()).toBe(0);
    await new ProjectWriter('lamp', 1).save(h);
    expect(facts(await load())).toEqual(facts(h));
  });
});

describe('the sweep', () => {
  it('never takes a grid that the writer still builds on: saved, undone, overwritten, swept, drawn on', async () => {
    const writer = new ProjectWriter('lamp', 1);
    let h = start();
    await writer.save(h);
    h = cube(h, 1, 1, 1, 3);
    await writer.save(h);
    h = undo(h);
    h = step(h, renameProjectEdit, { name: 'Lamp post' });
    await writer.save(h);
    await sweep(writer);
    h = cube(h, 2, 2, 2, 3);
    await writer.save(h);
    expect(facts(await load())).toEqual(facts(h));
  });

  it('leaves what a save takes up again while it is at work', async () => {
    const writer = new ProjectWriter('lamp', 1);
    const begun = start();
    await writer.save(begun);
    const drawn = cube(begun, 1, 1, 1, 3);
    await writer.save(drawn);
    const renamed = step(begun, renameProjectEdit, { name: 'Lamp post' });
    await writer.save(renamed);
    // The very project that was dropped comes back as a new step, saved while the sweep has looked already.
    const again = { ...drawn, entries: [...renamed.entries, { ...drawn.entries[1]! }], now: 2 };
    const [, bytes] = await Promise.all([sweep(writer), writer.save(again)]);
    expect(bytes).toBeGreaterThan(0);
    expect(facts(await load())).toEqual(facts(again));
    await sweep(writer);
    expect(facts(await load())).toEqual(facts(again));
  });

  it('deletes all that no step needs', async () => {
    const writer = new ProjectWriter('lamp', 1);
    const begun = start();
    await writer.save(begun);
    const before = await pieceCounts('lamp');
    let h: H = begun;
    for (let i = 0; i < 9; i++) h = cube(h, i, 1, 1, 3);
    await writer.save(h);
    const other = step(begun, renameProjectEdit, { name: 'Lamp post' });
    await writer.save(other);
    await sweep(writer);
    expect(await pieceCounts('lamp')).toEqual(before);
    expect(facts(await load())).toEqual(facts(other));
  });
});

describe('opening', () => {
  it('the present is there first; saves made before the rest is read keep all of it', async () => {
    let h = start();
    for (let i = 0; i < 6; i++) h = cube(h, i, 0, 0, 2);
    h = undo(undo(h));
    await new ProjectWriter('lamp', 1).save(h);
    const { writer, history, rest } = await openStored('lamp', 1);
    expect(history.entries).toHaveLength(1);
    expect(projectFacts(current(history))).toEqual(projectFacts(current(h)));
    await writer.save(history);
    expect(facts(await load())).toEqual(facts(h));
    const edited = cube(history, 9, 9, 9, 1);
    await writer.save(edited);
    const whole = (await rest())(edited);
    const meant = { ...edited, entries: [...h.entries.slice(0, h.now + 1), edited.entries[1]!], now: h.now + 1 };
    expect(facts(whole)).toEqual(facts(meant));
    await writer.save(whole);
    expect(facts(await load())).toEqual(facts(meant));
  });

  it('what is read back shares its bricks and lists with the steps beside it', async () => {
    let h = start();
    for (let i = 0; i < 90; i++) h = cube(h, (i % 10) - 18, Math.floor(i / 10), -18, 2 + (i % 3));
    h = cube(step(h, renameProjectEdit, { name: 'Lamp post' }), 9, 9, 9, 1);
    await new ProjectWriter('lamp', 1).save(h);
    const { entries } = await load();
    const grids = entries.map((e) => e.project.parts[0]!.layers[0]!.grid);
    // Beyond a full table every 64 steps, too.
    for (let i = 1; i < 90; i++) expect(grids[i]!.changedBricks(grids[i - 1]!)).toHaveLength(1);
    const [before, after] = entries.slice(-3);
    expect(after!.project.parts).toBe(before!.project.parts);
    expect(after!.project.rig).toBe(before!.project.rig);
    expect(after!.project.target).toBe(before!.project.target);
  });

  it('a damaged step is passed over for the nearest whole one, with a sentence, and stays where it is', async () => {
    let h = start();
    for (let i = 0; i < 3; i++) h = cube(h, i, 0, 0, 2);
    await new ProjectWriter('lamp', 1).save(h);
    const last = (await db.steps.toArray()).at(-1)!;
    await db.recordRows.delete(['lamp', (last.root['parts'] as number[])[0]!]);
    const { writer, history, notes, rest } = await openStored('lamp', 1);
    expect(notes.join()).toMatch(/damaged.*opens at “step \d+”/);
    expect(projectFacts(current(history))).toEqual(projectFacts(h.entries[2]!.project));
    const whole = (await rest())(history);
    expect(whole.entries.map((e) => e.label)).toEqual(h.entries.slice(0, 3).map((e) => e.label));
    await writer.save(cube(whole, 7, 7, 7, 1));
    expect(await db.steps.get(['lamp', last.seq])).toBeDefined();
  });

  it('a project from a newer version is refused with a way out', async () => {
    await new ProjectWriter('lamp', 1).save(start());
    await db.heads.update('lamp', { format: 99 });
    await expect(openStored('lamp', 1)).rejects.toThrow(/format 99.*newer Sphalerite/);
    await expect(openStored('nobody', 1)).rejects.toThrow(/no longer on the shelf/);
  });
});
