import type { Steps } from '@sphalerite/core/math';
import type { JobContext } from './kinds';

/** Runs work in pieces, telling how far it is and letting messages in between. */
export async function drive<T>(steps: Steps<T>, ctx: JobContext<never>): Promise<T> {
  for (;;) {
    const s = steps.next();
    if (s.done) return s.value;
    ctx.report(s.value);
    await ctx.breathe();
  }
}
