import type { JobKind, Jobs } from './jobs';
import { SentBricks } from './packed';
import { type FromWorker, JobCancelled, type ToWorker, WorkerCrashed } from './protocol';

export interface JobOptions<K extends JobKind> {
  readonly signal?: AbortSignal;
  onProgress?(progress: number, partial?: Jobs[K]['partial']): void;
  /** A worker of one's choice, for jobs shared out in lanes. */
  readonly worker?: number;
}

interface Pending {
  resolve(output: unknown): void;
  reject(error: Error): void;
  progress?(progress: number, partial?: unknown): void;
}
interface Seat {
  worker: Worker;
  readonly sent: SentBricks;
  readonly pending: Map<number, Pending>;
}
/** A worker that has been sent more bricks than this (80 MB) starts afresh. */
const MAX_SENT = 20_000;

/** A handful of workers that all know all jobs. Inputs are packed for the worker that gets them. */
export class WorkerPool {
  private readonly seats: Seat[] = [];
  private nextId = 1;

  constructor(
    private readonly make: () => Worker,
    readonly size: number,
  ) {}

  /** How many jobs are under way. */
  get busy(): number {
    return this.seats.reduce((n, s) => n + s.pending.size, 0);
  }

  /**
   * Runs a job on the least busy worker.
   *
   * @param pack – makes the input, given what packs grids for the chosen worker
   */
  run<K extends JobKind>(
    kind: K,
    pack: (sent: SentBricks) => Jobs[K]['input'],
    options: JobOptions<K> = {},
  ): Promise<Jobs[K]['output']> {
    if (options.signal?.aborted) return Promise.reject(new JobCancelled());
    const seat = this.seatFor(options.worker);
    if (seat.sent.count > MAX_SENT && seat.pending.size === 0) {
      seat.worker.postMessage({ type: 'forget' } satisfies ToWorker);
      seat.sent.forget();
    }
    const id = this.nextId++;
    const input = pack(seat.sent);
    const bricks = seat.sent.takeParcel();
    return new Promise((resolve, reject) => {
      const abort = (): void => seat.worker.postMessage({ type: 'cancel', id } satisfies ToWorker);
      options.signal?.addEventListener('abort', abort, { once: true });
      const settle = (): void => options.signal?.removeEventListener('abort', abort);
      seat.pending.set(id, {
        resolve: (o) => {
          settle();
          resolve(o as Jobs[K]['output']);
        },
        reject: (e) => {
          settle();
          reject(e);
        },
        progress: (p, partial) => options.onProgress?.(p, partial as Jobs[K]['partial']),
      });
      seat.worker.postMessage(
        { type: 'run', id, kind, input, bricks } as ToWorker,
        [bricks.cells.buffer, bricks.ids.buffer] as Transferable[],
      );
    });
  }

  private seatFor(index?: number): Seat {
    if (index !== undefined) {
      while (this.seats.length <= index % this.size) this.seats.push(this.open());
      return this.seats[index % this.size]!;
    }
    const free = this.seats.find((s) => s.pending.size === 0);
    if (free) return free;
    if (this.seats.length < this.size) {
      this.seats.push(this.open());
      return this.seats.at(-1)!;
    }
    return this.seats.reduce((a, b) => (b.pending.size < a.pending.size ? b : a));
  }

  private open(): Seat {
    const seat: Seat = { worker: this.make(), sent: new SentBricks(), pending: new Map() };
    const crash = (detail: string): void => {
      const jobs = [...seat.pending.values()];
      seat.pending.clear();
      seat.sent.forget();
      seat.worker.terminate();
      seat.worker = this.make();
      listen();
      for (const j of jobs) j.reject(new WorkerCrashed(detail));
    };
    const listen = (): void => {
      seat.worker.onmessage = ({ data }: MessageEvent<FromWorker>) => {
        const job = seat.pending.get(data.id);
        if (!job) return;
        if (data.type === 'progress') {
          job.progress?.(data.progress, data.partial);
          return;
        }
        seat.pending.delete(data.id);
        if (data.type === 'done') job.resolve(data.output);
        else if (data.name === 'JobCancelled') job.reject(new JobCancelled());
        else job.reject(Object.assign(new Error(data.message), { name: data.name }));
      };
      seat.worker.onerror = (e) => crash(e.message || 'error');
      seat.worker.onmessageerror = () => crash('unreadable message');
    };
    listen();
    return seat;
  }
}

let shared: WorkerPool | null = null;
/** The application's own workers: one for each core, at most four. */
export function sharedPool(): WorkerPool {
  shared ??= new WorkerPool(
    () => new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }),
    Math.max(1, Math.min(4, navigator.hardwareConcurrency || 2)),
  );
  return shared;
}
/** Jobs under way, without opening any worker. */
export const busyJobs = (): number => shared?.busy ?? 0;
