import { type JobKind, handlerOf } from './jobs';
import { BrickMirror } from './packed';
import { type FromWorker, JobCancelled, type ToWorker } from './protocol';

const bricks = new BrickMirror();
const cancelled = new Set<number>();
const channel = new MessageChannel();
const waiting: (() => void)[] = [];
channel.port1.onmessage = () => waiting.shift()?.();

/** Lets queued messages through without the delay of a timer. */
const turnOfLoop = (): Promise<void> =>
  new Promise((resolve) => {
    waiting.push(resolve);
    channel.port2.postMessage(null);
  });

/** Buffers that can be handed over instead of copied. */
function buffersOf(value: unknown, found = new Set<ArrayBuffer>()): ArrayBuffer[] {
  if (ArrayBuffer.isView(value)) found.add(value.buffer as ArrayBuffer);
  else if (Array.isArray(value)) for (const v of value) buffersOf(v, found);
  else if (value && typeof value === 'object') for (const v of Object.values(value)) buffersOf(v, found);
  return [...found];
}
const post = (message: FromWorker, payload?: unknown): void =>
  self.postMessage(message, { transfer: buffersOf(payload) });

self.onmessage = ({ data }: MessageEvent<ToWorker>) => {
  if (data.type === 'cancel') {
    cancelled.add(data.id);
    return;
  }
  if (data.type === 'forget') {
    bricks.forget();
    return;
  }
  if (data.type === 'giveWay') {
    restsUntil = performance.now() + REST;
    return;
  }
  bricks.receive(data.bricks);
  // Projects build on one another in the order they arrive. One that cannot be opened ends the worker, and all is sent anew.
  if ('project' in data.input) bricks.openProject(data.input.project);
  void run(data);
};

/** Milliseconds between two words about progress: each makes the page draw its bar again. */
const OFTEN = 80;
/** Milliseconds that patient jobs rest after a hand was last seen at work. */
const REST = 300;
let restsUntil = -Infinity;

async function run({ id, kind, input, patient }: Extract<ToWorker, { type: 'run' }>): Promise<void> {
  let told = -Infinity;
  try {
    // Whoever gave up on this before it began has said so in a message that waits behind it.
    await turnOfLoop();
    if (cancelled.has(id)) throw new JobCancelled();
    const work = (await handlerOf(kind as JobKind)) as (i: unknown, c: unknown) => Promise<unknown>;
    const output = await work(input, {
      bricks,
      report: (progress: number, partial?: unknown) => {
        const now = performance.now();
        if (partial === undefined && now - told < OFTEN) return;
        told = now;
        post({ type: 'progress', id, progress, partial }, partial);
      },
      breathe: async () => {
        await turnOfLoop();
        for (let left; patient && !cancelled.has(id) && (left = restsUntil - performance.now()) > 0;)
          await new Promise((r) => setTimeout(r, left));
        if (cancelled.has(id)) throw new JobCancelled();
      },
    });
    post({ type: 'done', id, output }, output);
  } catch (e) {
    const { name, message, code, params } = e as Error & { code?: unknown; params?: unknown };
    post({ type: 'failed', id, name, message, ...(code === undefined ? {} : { code, params }) });
  } finally {
    cancelled.delete(id);
  }
}
