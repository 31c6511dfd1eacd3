import { idsFrom, makeProject } from '@sphalerite/core/model';
import { type History, startHistory } from '@sphalerite/core/project';
import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { EMPTY_VIEW, type ViewState } from './view-state';
import { Autosaver, type SaveState } from './autosave';
import type { ProjectWriter } from './project-store';

const history = (n: number): History<ViewState> =>
  startHistory(makeProject('p', `Version ${n}`, idsFrom('autosave')), EMPTY_VIEW, n);

function make(save: (h: History<ViewState>) => Promise<number> = async () => 100) {
  const saved: number[] = [];
  const states: SaveState[] = [];
  const writer = {
    save: async (h: History<ViewState>) => {
      const bytes = await save(h);
      saved.push(h.entries[0]!.at);
      return bytes;
    },
  } as unknown as ProjectWriter;
  return { saver: new Autosaver(writer, (s) => states.push(s)), saved, states };
}
beforeEach(() => vi.useFakeTimers());
afterEach(() => vi.useRealTimers());

describe('Autosaver', () => {
  it('waits for a little quiet, and writes the newest only', async () => {
    const { saver, saved, states } = make();
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(100);
    saver.changed(history(2));
    await vi.advanceTimersByTimeAsync(200);
    expect(saved).toEqual([]);
    expect(saver.idle).toBe(false);
    await vi.advanceTimersByTimeAsync(60);
    expect(saved).toEqual([2]);
    expect(saver.idle).toBe(true);
    expect(saver.lastBytes).toBe(100);
    expect(states).toEqual(['pending', 'pending', 'saving', 'saved']);
  });

  it('writes within a second even when the hand never rests', async () => {
    const { saver, saved } = make();
    for (let t = 0; t < 1100; t += 100) {
      saver.changed(history(t));
      await vi.advanceTimersByTimeAsync(100);
    }
    expect(saved.length).toBeGreaterThanOrEqual(1);
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

  it('keeps what could not be written and tries it again', async () => {
    let fail = true;
    const { saver, saved, states } = make(async () => {
      if (fail) throw new Error('full');
      return 5;
    });
    saver.changed(history(1));
    await vi.advanceTimersByTimeAsync(300);
    expect(states.at(-1)).toBe('failed');
    expect(saver.idle).toBe(false);
    fail = false;
    await saver.flush();
    expect(saved).toEqual([1]);
    expect(states.at(-1)).toBe('saved');
  });

  it('after it is stopped nothing is written any more', async () => {
    const { saver, saved } = make();
    saver.changed(history(1));
    saver.stop();
    saver.changed(history(2));
    await vi.advanceTimersByTimeAsync(2000);
    expect(saved).toEqual([]);
  });
});
