import 'fake-indexeddb/auto';
import { apply, current, editContext, keepPointEdit, redo, setPoints, undo } from '@sphalerite/core/project';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { db } from './database';
import { loadStored, openStored } from './open-stored';
import { ProjectWriter } from './project-writer';
import { TakenOverError } from './storage-errors';
import { sweep } from './sweep';
import { type H, anyEdit, facts, projectFacts, start } from './testing';

/** What must be in the database after each step, kept the plain way. */
interface Model {
  /** The history as it was saved last. */
  saved: H;
}
/** The window at work. */
interface Window {
  history: H;
  writer: ProjectWriter;
  epoch: number;
  /** A window that lost the project, and still tries to write. */
  loser: { writer: ProjectWriter; history: H } | null;
}
type Command = fc.AsyncCommand<Model, Window>;

async function opens(m: Model): Promise<void> {
  const { history } = await openStored('lamp', 0);
  expect(projectFacts(current(history))).toEqual(projectFacts(current(m.saved)));
}
const command = (name: string, run: (m: Model, w: Window) => Promise<void>): Command => ({
  check: () => true,
  toString: () => name,
  async run(m, w) {
    await run(m, w);
    await opens(m);
  },
});
const save = async (m: Model, w: Window): Promise<void> => {
  await w.writer.save(w.history);
  m.saved = w.history;
};
const edit = (w: Window, seed: number): void => void (w.history = anyEdit(w.history, seed));

const editing = (seed: number): Command => command(`edit(${seed})`, async (_m, w) => edit(w, seed));
const keeping = (seed: number): Command =>
  command(`restore point ${seed}`, async (_m, w) => {
    const kept = apply(current(w.history), keepPointEdit, { name: `At ${seed}` }, editContext(`keep ${seed}`, seed));
    w.history = setPoints(w.history, kept.restorePoints);
  });
const forgetting = command('delete the oldest restore point', async (_m, w) => {
  w.history = setPoints(w.history, current(w.history).restorePoints.slice(1));
});
const undoing = (n: number): Command =>
  command(`undo ×${n}`, async (_m, w) => {
    for (let i = 0; i < n; i++) w.history = undo(w.history);
  });
const redoing = command('redo', async (_m, w) => void (w.history = redo(w.history)));
const saving = command('save', save);
const sweeping = command('sweep', async (_m, w) => sweep(w.writer));
const failing = command('save that fails', async (m, w) => {
  const stop = (): never => {
    throw new Error('disk full');
  };
  db.steps.hook('creating', stop);
  const done = await w.writer.save(w.history).then(
    () => true,
    () => false,
  );
  db.steps.hook('creating').unsubscribe(stop);
  // Where no step was new there was nothing to stumble over.
  if (done) m.saved = w.history;
});
const sweepingWhileSaving = (seed: number): Command =>
  command(`sweep while saving, edit(${seed}), save`, async (m, w) => {
    const swept = sweep(w.writer);
    await save(m, w);
    edit(w, seed);
    await save(m, w);
    await swept;
  });
const reloading = command('reload', async (m, w) => {
  const { writer, history } = await loadStored('lamp', w.epoch);
  expect(facts(history)).toEqual(facts(m.saved));
  Object.assign(w, { writer, history });
});
const reloadingInHaste = (seed: number): Command =>
  command(`reload, edit(${seed}) and save before all is read`, async (m, w) => {
    const { writer, history, rest } = await openStored('lamp', w.epoch);
    Object.assign(w, { writer, history });
    edit(w, seed);
    const reading = rest();
    await w.writer.save(w.history);
    w.history = (await reading)(w.history);
    await save(m, w);
  });
const takingOver = command('take over', async (m, w) => {
  const loser = { writer: w.writer, history: w.history };
  await db.heads.update('lamp', { epoch: ++w.epoch });
  const { writer, history } = await loadStored('lamp', w.epoch);
  expect(facts(history)).toEqual(facts(m.saved));
  Object.assign(w, { writer, history, loser });
});
const losing = (seed: number): Command =>
  command(`the window before edits(${seed}), saves and sweeps`, async (_m, w) => {
    if (!w.loser) return;
    await expect(w.loser.writer.save(anyEdit(w.loser.history, seed))).rejects.toBeInstanceOf(TakenOverError);
    await sweep(w.loser.writer).catch((e) => expect(e).toBeInstanceOf(TakenOverError));
  });

const RUNS = Number(process.env['STORAGE_RUNS'] ?? 25);
const seeds = fc.integer({ min: 0, max: 1_000_000 });
const commands = fc.commands(
  [
    seeds.map(editing),
    seeds.map(editing),
    fc.integer({ min: 1, max: 4 }).map(undoing),
    fc.constant(redoing),
    seeds.map(keeping),
    fc.constant(forgetting),
    fc.constant(saving),
    fc.constant(saving),
    fc.constant(sweeping),
    fc.constant(failing),
    seeds.map(sweepingWhileSaving),
    fc.constant(reloading),
    seeds.map(reloadingInHaste),
    fc.constant(takingOver),
    seeds.map(losing),
  ],
  { maxCommands: 24, size: 'max' },
);

it(
  'no order of edits, undo, saves, sweeps, failures, reloads and take-overs loses anything that was saved',
  { timeout: 60_000 + RUNS * 4000 },
  async () => {
    await fc.assert(
      fc.asyncProperty(commands, async (list) => {
        await db.delete();
        await db.open();
        const history = start();
        const writer = new ProjectWriter('lamp', 1);
        await writer.save(history);
        const setup = () => ({
          model: { saved: history } as Model,
          real: { history, writer, epoch: 1, loser: null } as Window,
        });
        await fc.asyncModelRun(setup, [...list, saving, sweeping, reloading]);
      }),
      { numRuns: RUNS },
    );
  },
);
