import type { JobKind } from './jobs';
import { SentBricks } from './packed';
import { type FromWorker, JobCancelled, type ToWorker, WorkerCrashed, WorkersBroken } from './protocol';

/** A job on its way through a seat. */
export interface Job {
  readonly id: number;
  readonly kind: JobKind;
  readonly transfer: readonly Transferable[];
  /** Whether it rests while a hand is at work. */
  readonly patient: boolean;
  pack(sent: SentBricks): unknown;
  resolve(output: unknown): void;
  reject(error: Error): void;
  progress(share: number, partial?: unknown): void;
}

/** A worker that has been sent more bricks than this (80 MB) starts afresh. */
const MAX_SENT = 20_000;
/** Milliseconds that a worker has for stopping by itself before it is killed, where it may be. */
const GRACE = 400;

/** How often workers may die with nothing done between before no more are started. */
export class Restarts {
  private deaths = 0;
  private reason = '';
  constructor(
    private readonly most: number,
    private readonly onBroken: (error: WorkersBroken) => void,
  ) {}

  get broken(): WorkersBroken | null {
    return this.deaths > this.most ? new WorkersBroken(this.reason) : null;
  }
  died(reason: string): void {
    this.reason = reason;
    this.deaths++;
    if (this.deaths === this.most + 1) this.onBroken(this.broken!);
  }
  worked(): void {
    this.deaths = 0;
  }
}

/**
 * A worker and the jobs it has been given. It may be `alone` with one job at a time; then a job that does not stop when
 * it is asked to is stopped by ending its worker.
 */
export class Seat {
  private worker: Worker | null = null;
  private readonly sent = new SentBricks();
  private readonly running = new Map<number, Job>();
  /** Jobs that were given up by whoever asked, but whose worker has not let go of them. */
  private readonly stopping = new Set<number>();
  private waiting: Job[] = [];

  constructor(
    private readonly make: () => Worker,
    private readonly alone: boolean,
    private readonly restarts: Restarts,
  ) {}

  /** Jobs that somebody waits for. */
  get asked(): number {
    return this.running.size - this.stopping.size + this.waiting.length;
  }
  /** Jobs that keep the worker from being free. */
  get load(): number {
    return this.running.size + this.waiting.length;
  }

  take(job: Job): void {
    const { broken } = this.restarts;
    if (broken) job.reject(broken);
    else if (this.alone && this.running.size > 0) this.waiting.push(job);
    else this.start(job);
  }

  /** Gives a job up. Whoever asked for it knows at once; the worker is told, and ended if it may be and does not hear. */
  stop(job: Job): void {
    job.reject(new JobCancelled());
    this.waiting = this.waiting.filter((w) => w !== job);
    if (!this.running.has(job.id)) return;
    this.stopping.add(job.id);
    this.post({ type: 'cancel', id: job.id });
    if (this.alone) setTimeout(() => this.running.has(job.id) && this.end(), GRACE);
  }

  /** Patient jobs rest for a moment. */
  giveWay(): void {
    if ([...this.running.values()].some((j) => j.patient)) this.post({ type: 'giveWay' });
  }

  private start(job: Job): void {
    this.worker ??= this.open();
    if (this.sent.count > MAX_SENT && this.running.size === 0) {
      this.post({ type: 'forget' });
      this.sent.forget();
    }
    let input: unknown;
    try {
      input = job.pack(this.sent);
    } catch (e) {
      // Whatever was packed until then will not be sent: the next job sends it anew.
      this.sent.forget();
      job.reject(e as Error);
      return;
    }
    const bricks = this.sent.takeParcel();
    const transfer = [bricks.cells.buffer, bricks.ids.buffer, ...this.sent.takeTables(), ...job.transfer];
    try {
      this.worker.postMessage(
        { type: 'run', id: job.id, kind: job.kind, input, bricks, patient: job.patient } as ToWorker,
        transfer,
      );
      this.running.set(job.id, job);
    } catch (e) {
      // What cannot be sent took its bricks along into nothing: the next job sends them anew.
      this.sent.forget();
      job.reject(e as Error);
    }
  }

  private post(message: ToWorker): void {
    this.worker?.postMessage(message);
  }

  private open(): Worker {
    const worker = this.make();
    worker.onmessage = ({ data }: MessageEvent<FromWorker>) => this.receive(data);
    worker.onerror = (e) => this.crash(e.message || 'error');
    worker.onmessageerror = () => this.crash('unreadable message');
    return worker;
  }

  private receive(data: FromWorker): void {
    const job = this.running.get(data.id);
    if (!job) return;
    if (data.type === 'progress') {
      if (!this.stopping.has(data.id)) job.progress(data.progress, data.partial);
      return;
    }
    this.restarts.worked();
    this.running.delete(data.id);
    this.stopping.delete(data.id);
    if (data.type === 'done') job.resolve(data.output);
    else if (data.name === 'JobCancelled') job.reject(new JobCancelled());
    else {
      const { name, message, code, params } = data;
      job.reject(Object.assign(new Error(message), { name }, code === undefined ? {} : { code, params }));
    }
    this.next();
  }

  private next(): void {
    const job = this.running.size === 0 ? this.waiting.shift() : undefined;
    if (job) this.take(job);
  }

  /** The worker died of itself: all it was at is lost. */
  private crash(reason: string): void {
    this.restarts.died(reason);
    const lost = this.end();
    for (const j of lost) j.reject(new WorkerCrashed(reason));
    if (!this.restarts.broken) return;
    for (const j of this.waiting) j.reject(this.restarts.broken);
    this.waiting = [];
  }

  /** Ends the worker; the next job gets a new one. Gives the jobs it was at. */
  private end(): Job[] {
    const lost = [...this.running.values()];
    this.running.clear();
    this.stopping.clear();
    this.sent.forget();
    this.worker?.terminate();
    this.worker = null;
    this.next();
    return lost;
  }
}
