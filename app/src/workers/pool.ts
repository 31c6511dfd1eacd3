import type { JobKind, Jobs } from './jobs';
import type { SentBricks } from './packed';
import { JobCancelled, type WorkersBroken } from './protocol';
import { type Job, Restarts, Seat } from './seat';

export interface JobOptions<K extends JobKind> {
  readonly signal?: AbortSignal;
  onProgress?(progress: number, partial?: Jobs[K]['partial']): void;
  /** A worker of one's choice, for jobs shared out in lanes. */
  readonly worker?: number;
  /** Rests while a hand is at work: what takes long and nobody looks at. */
  readonly patient?: boolean;
  /** Buffers of the input that the page needs no more: they are handed over instead of copied. */
  readonly transfer?: readonly Transferable[];
}

/** Jobs that cannot look up while they run: one at a time in a worker of their own, which is ended to stop them. */
const ALONE: ReadonlySet<JobKind> = new Set<JobKind>(['edit', 'bringIn']);
/** Deaths of workers in a row before no more are started. */
const MOST_DEATHS = 4;
/** Milliseconds between two words to workers that a hand is at work. */
const OFTEN = 100;

/** A handful of workers that all know all jobs. Inputs are packed for the worker that gets them. */
export class WorkerPool {
  private readonly seats: Seat[] = [];
  private readonly alone: Seat;
  private readonly restarts: Restarts;
  private nextId = 1;
  private gaveWay = -Infinity;

  /** @param onBroken – told once when workers do not start */
  constructor(
    private readonly make: () => Worker,
    readonly size: number,
    onBroken: (error: WorkersBroken) => void = () => undefined,
  ) {
    this.restarts = new Restarts(MOST_DEATHS, onBroken);
    this.alone = new Seat(make, true, this.restarts);
  }

  /** How many jobs are under way that somebody waits for. */
  get busy(): number {
    return [...this.seats, this.alone].reduce((n, s) => n + s.asked, 0);
  }

  /**
   * Runs a job on the least busy worker.
   *
   * @param pack – makes the input, given what packs grids for the chosen worker
   * @throws JobCancelled as soon as the signal says so, WorkerCrashed, WorkersBroken, or what the job throws
   */
  run<K extends JobKind>(
    kind: K,
    pack: (sent: SentBricks) => Jobs[K]['input'],
    options: JobOptions<K> = {},
  ): Promise<Jobs[K]['output']> {
    const { signal } = options;
    if (signal?.aborted) return Promise.reject(new JobCancelled());
    const seat = ALONE.has(kind) ? this.alone : this.seatFor(options.worker);
    return new Promise((resolve, reject) => {
      const stop = (): void => seat.stop(job);
      const settle = (): void => signal?.removeEventListener('abort', stop);
      const job: Job = {
        id: this.nextId++,
        kind,
        pack,
        transfer: options.transfer ?? [],
        patient: options.patient ?? false,
        resolve: (o) => {
          settle();
          resolve(o as Jobs[K]['output']);
        },
        reject: (e) => {
          settle();
          reject(e);
        },
        progress: (p, partial) => options.onProgress?.(p, partial as Jobs[K]['partial']),
      };
      signal?.addEventListener('abort', stop, { once: true });
      seat.take(job);
    });
  }

  /** A hand is at work: patient jobs leave the machine to it for a moment. */
  giveWay(): void {
    const now = performance.now();
    if (now - this.gaveWay < OFTEN) return;
    this.gaveWay = now;
    for (const s of this.seats) s.giveWay();
  }

  private seatFor(index?: number): Seat {
    const open = (): Seat => {
      this.seats.push(new Seat(this.make, false, this.restarts));
      return this.seats.at(-1)!;
    };
    if (index !== undefined) {
      while (this.seats.length <= index % this.size) open();
      return this.seats[index % this.size]!;
    }
    const free = this.seats.find((s) => s.load === 0);
    if (free) return free;
    return this.seats.length < this.size ? open() : this.seats.reduce((a, b) => (b.load < a.load ? b : a));
  }
}

let shared: WorkerPool | null = null;
let tellBroken: (error: WorkersBroken) => void = () => undefined;
/** The application's own workers: one for each core, at most four, and one for work that has to be ended to stop it. */
export function sharedPool(): WorkerPool {
  shared ??= new WorkerPool(
    () => new Worker(new URL('./compute.worker.ts', import.meta.url), { type: 'module' }),
    Math.max(1, Math.min(4, navigator.hardwareConcurrency || 2)),
    (e) => tellBroken(e),
  );
  return shared;
}
/** Who is told when workers do not start. */
export const onWorkersBroken = (tell: (error: WorkersBroken) => void): void => void (tellBroken = tell);
/** {@link WorkerPool.giveWay}, without opening any worker. */
export const giveWay = (): void => shared?.giveWay();
/** Jobs under way, without opening any worker. */
export const busyJobs = (): number => shared?.busy ?? 0;
