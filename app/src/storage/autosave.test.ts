import { idsFrom, makeProject } from '@sphalerite/core/model';
import { type History, startHistory } from '@sphalerite/core/project';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EMPTY_VIEW, type ViewState } from './view-state';
import { Autosaver, type SaveState } from './autosave';
import { TakenOverError } from './storage-errors';

const history = (n: number): History<ViewState> =>
  startHistory(makeProject('p', `Version ${n}`, idsFrom('autosave')), EMPTY_VIEW, n);

function make(save: () => Promise<number> = async () => 100) {
  const saved: number[] = [];
  const states: SaveState[] = [];
  const writer = {
    save: async (h: History<ViewState>) => {
      const bytes = await save();
      saved.push(h.entries[0]!.at);
      return bytes;
    },
  };
  const saver = new Autosaver(
    writer,
    (s) => states.push(s),
    (e) => !(e instanceof TakenOverError),
  );
  return { saver, saved, states };
}
beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('Autosaver', () => {
  it('writes the first change at once, without waiting for a timer', async () => {
    const { saver, saved, states } = make();
    saver.changed(history(1));
    expect(states).toEqual(['pending', 'saving']);
    await Promise.resolve();
    await Promise.resolve();
    expect(saved).toEqual([1]);
    await vi.advanceTimersByTimeAsync(0);
    expect([saver.idle, saver.lastBytes, states.at(-1)]).toEqual([true, 100, 'saved']);
  });

  it('of changes that follow each other quickly it writes the newest, ten times a second at most', async () => {
    const { saver, saved } = make();
    for (let t = 0; t < 1000; t += 10) {
      saver.changed(history(t));
      await vi.advanceTimersByTimeAsync(10);
    }
    await vi.advanceTimersByTimeAsync(200);
    expect(saved.at(-1)).toBe(990);
    expect(saved.length).toBeGreaterThanOrEqual(9);
    expect(saved.length).toBeLessThanOrEqual(12);
    expect(saver.idle).toBe(true);
  });

  it('never writes two at a time, and takes what came meanwhile next', async () => {
    let free: () => void = () => undefined;
    const { saver, saved } = make(() => new Promise((r) => (free = () => r(1))));
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(300);
    saver.changed(history(2));
    const flushed = saver.flush();
    expect(saved).toEqual([]);
    free();
    await vi.advanceTimersByTimeAsync(0);
    free();
    await flushed;
    expect(saved).toEqual([1, 2]);
  });

  it('tries again by itself after a failure, with growing pauses, and keeps the newest work', async () => {
    let fail = true;
    const tries: number[] = [];
    const { saver, saved, states } = make(async () => {
      tries.push(Date.now());
      if (fail) throw new Error('full');
      return 5;
    });
    const begun = Date.now();
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(300);
    expect([states.at(-1), saver.idle, saver.failing]).toEqual(['failed', false, true]);
    saver.changed(history(2));
    await vi.advanceTimersByTimeAsync(7500);
    expect(tries.map((t) => Math.round((t - begun) / 1000))).toEqual([0, 1, 3, 7]);
    fail = false;
    await vi.advanceTimersByTimeAsync(8000);
    expect(saved).toEqual([2]);
    expect([states.at(-1), saver.idle, saver.failing]).toEqual(['saved', true, false]);
  });

  it('does not try again what cannot succeed', async () => {
    let tries = 0;
    const { saver, states } = make(async () => {
      tries++;
      throw new TakenOverError();
    });
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(120_000);
    expect([tries, states.at(-1)]).toEqual([1, 'failed']);
  });

  it('after it is stopped nothing is written any more', async () => {
    const { saver, saved } = make();
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(10);
    saver.changed(history(2));
    saver.stop();
    saver.changed(history(3));
    await vi.advanceTimersByTimeAsync(2000);
    expect(saved).toEqual([1]);
  });
});
