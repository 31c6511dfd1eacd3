import type { JobKind, Jobs } from './jobs';
import type { BrickParcel } from './packed';
import { say } from '../words';

/** Page to worker. */
export type ToWorker =
  | {
      [K in JobKind]: {
        readonly type: 'run';
        readonly id: number;
        readonly kind: K;
        readonly input: Jobs[K]['input'];
        readonly bricks: BrickParcel;
        /** Rests while a hand is at work. */
        readonly patient: boolean;
      };
    }[JobKind]
  | { readonly type: 'cancel'; readonly id: number }
  | { readonly type: 'forget' }
  | { readonly type: 'giveWay' };

/** Worker to page. */
export type FromWorker =
  | { readonly type: 'progress'; readonly id: number; readonly progress: number; readonly partial?: unknown }
  | { readonly type: 'done'; readonly id: number; readonly output: unknown }
  | {
      readonly type: 'failed';
      readonly id: number;
      readonly name: string;
      readonly message: string;
      readonly code?: unknown;
      readonly params?: unknown;
    };

export class JobCancelled extends Error {
  override readonly name = 'JobCancelled';
  constructor() {
    super('The work was cancelled.');
  }
}
/** The worker died or could not read a message; the same input may be tried again. */
export class WorkerCrashed extends Error {
  override readonly name = 'WorkerCrashed';
  constructor(detail: string) {
    super(say('workers.crashed', { detail }));
  }
}
/** Workers die as soon as they are started: nothing more is asked of them. */
export class WorkersBroken extends Error {
  override readonly name = 'WorkersBroken';
  constructor(detail: string) {
    super(say('workers.broken', { detail }));
  }
}
