import { Worker, isMainThread, parentPort, workerData } from 'node:worker_threads';
import { traceTiles } from '@sphalerite/core/render';
import { comparedPictures } from './tracing-error';

/** What of a picture a thread does. */
interface Share {
  readonly lane: number;
  readonly lanes: number;
  readonly samples: number;
}

/** In a thread of its own: traces shares of the lit room as they are asked for. Whether this is one. */
export function servesLane(): boolean {
  if (isMainThread || workerData !== 'lane') return false;
  const { ours } = comparedPictures()[1]!;
  const port = parentPort!;
  port.on('message', ({ lane, lanes, samples }: Share) => {
    let tiles = 0;
    for (const _ of traceTiles(ours, { samples, noise: 0, lane, lanes })) tiles++;
    port.postMessage(tiles);
  });
  port.postMessage('ready');
  return true;
}

const said = (w: Worker): Promise<unknown> => new Promise((resolve) => w.once('message', resolve));

/** Milliseconds for the lit room by one thread and by two, in turn; of several rounds that of the middle ratio. */
export async function laneTimes(samples: number, rounds = 9): Promise<readonly [number, number]> {
  const threads = [0, 1].map(() => new Worker(new URL(import.meta.url), { workerData: 'lane' }));
  await Promise.all(threads.map(said));
  const by = async (lanes: number): Promise<number> => {
    const began = performance.now();
    await Promise.all(
      threads.slice(0, lanes).map((t, lane) => {
        t.postMessage({ lane, lanes, samples } satisfies Share);
        return said(t);
      }),
    );
    return performance.now() - began;
  };
  // Each has compiled what it runs.
  await by(2);
  const times: [number, number][] = [];
  for (let i = 0; i < rounds; i++) times.push([await by(1), await by(2)]);
  await Promise.all(threads.map((t) => t.terminate()));
  times.sort((a, b) => a[0] / a[1] - b[0] / b[1]);
  return times[rounds >> 1]!;
}
