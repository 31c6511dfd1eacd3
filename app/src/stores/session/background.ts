import type { Project } from '@sphalerite/core/model';
import type { Edit } from '@sphalerite/core/project';
import { shallowRef } from 'vue';
import { freshId } from '../../storage/shelf';
import { editInBackground } from '../../workers/background-edit';
import { sharedPool } from '../../workers/pool';
import { JobCancelled } from '../../workers/protocol';

/** Long work on the project that is under way. */
export interface BackgroundJob {
  readonly label: string;
  stop(): void;
}

/** Edits that would hold the page up, in a worker. */
export function useBackground(project: () => Project | null) {
  const job = shallowRef<BackgroundJob | null>(null);

  /**
   * What an edit makes of the project, told as a job that can be stopped; null when there is another one.
   *
   * @throws JobCancelled, or what the edit throws
   */
  async function run<A>(label: string, edit: Edit<A>, args: A): Promise<{ before: Project; after: Project } | null> {
    const before = project();
    if (!before || job.value) return null;
    const stop = new AbortController();
    job.value = { label, stop: () => stop.abort() };
    try {
      const how = { seed: freshId(), now: Date.now(), signal: stop.signal };
      return { before, after: await editInBackground(sharedPool(), before, edit, args, how) };
    } finally {
      job.value = null;
    }
  }

  /** What an edit would give, worked out in a worker; null when it was stopped, overtaken or refused. */
  async function tryInBackground<A>(edit: Edit<A>, args: A, signal: AbortSignal): Promise<Project | null> {
    const before = project();
    if (!before) return null;
    try {
      const after = await editInBackground(sharedPool(), before, edit, args, {
        seed: freshId(),
        now: Date.now(),
        signal,
      });
      return project() === before && !signal.aborted ? after : null;
    } catch (e) {
      if (e instanceof JobCancelled || signal.aborted || (e as Error).name === 'EditError') return null;
      throw e;
    }
  }
  return { job, run, tryInBackground };
}
