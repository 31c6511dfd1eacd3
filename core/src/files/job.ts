import type { Steps } from '../math';

/** Who runs long work: is told how far it has come, and may let others in between two pieces, or stop it by throwing. */
export interface FileJob {
  report(share: number): void;
  breathe(): Promise<void>;
}
/** Tells nobody and waits for nothing. */
export const QUIET_JOB: FileJob = { report: () => undefined, breathe: () => Promise.resolve() };

/** Runs steps as part of a job. */
export async function inPieces<T>(steps: Steps<T>, job: FileJob): Promise<T> {
  for (;;) {
    const s = steps.next();
    if (s.done) return s.value;
    job.report(s.value);
    await job.breathe();
  }
}
