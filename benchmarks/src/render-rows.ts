import { type Compared, type Made, compared, comparedPictures, timeFor } from './tracing-error';
import type { Row } from './rows';

const TRUTH = 1024;
/** Samples at which both are judged. */
const AT = 32;

/** Time to the same error, today's tracer against the one it was: by sampling alone, and with the noise taken out. */
export function renderRows(): Row[] {
  return comparedPictures().flatMap((p: Compared): Row[] => {
    const { theirs, raw, calm, name } = compared(p, TRUTH);
    const row = (what: string, made: readonly Made[], goal: number): Row => {
      const m = made.find((x) => x.samples === AT)!;
      const before = timeFor(m.error, theirs);
      const ratio = before / m.ms;
      return {
        name: `${what}: ${name}, 240×135`,
        ours: `${(m.ms / 1000).toFixed(2)} s to an error of ${m.error.toExponential(1)}`,
        theirs: `${(before / 1000).toFixed(2)} s by the tracer before`,
        ratio,
        goal: `≥ ${goal}×`,
        ok: ratio >= goal,
      };
    };
    return [row('traced, as it is', raw, 4), row('traced, without noise', calm, 8)];
  });
}
