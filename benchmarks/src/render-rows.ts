import { type Compared, type Made, compared, comparedPictures, demoPictures, noiseOf, timeFor } from './tracing-error';
import { laneTimes } from './lanes';
import { type Row, ms } from './rows';

const TRUTH = 1024;
/** Samples at which both are judged. */
const AT = 32;

/** Time to the same error, today's tracer against the one it was: by sampling alone, and with the noise taken out. */
export async function renderRows(): Promise<Row[]> {
  const pictures = comparedPictures().flatMap((p: Compared): Row[] => {
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
    return [row('traced, as it is', raw, 4), row('traced, without noise', calm, 8), ...calmRows(name, raw, calm)];
  });
  const demos = demoPictures().flatMap((demo): Row[] => {
    const { raw, calm } = noiseOf(demo, TRUTH);
    return [manyRow(demo.name, raw, calm), ...calmRows(demo.name, raw, calm)];
  });
  const [one, two] = await laneTimes(8);
  return [
    ...pictures,
    ...demos,
    {
      name: 'a picture of the lit room by two workers',
      ours: ms(two),
      theirs: `${ms(one)} by one`,
      ratio: one / two,
      goal: '≥ 1.7×',
      ok: one / two >= 1.7,
    },
  ];
}

const errorOf = (made: readonly Made[], samples: number): number => made.find((m) => m.samples === samples)!.error;

/** A few samples without noise against many as they are. */
function manyRow(name: string, raw: readonly Made[], calm: readonly Made[]): Row {
  const ratio = errorOf(raw, 96) / errorOf(calm, 16);
  return {
    name: `16 samples without noise: ${name}`,
    ours: `error ${errorOf(calm, 16).toExponential(1)}`,
    theirs: `${errorOf(raw, 96).toExponential(1)} of 96 as they are`,
    ratio,
    goal: '≥ 1×',
    ok: ratio >= 1,
  };
}

/** Whether taking the noise out does harm at any count of samples. */
function calmRows(name: string, raw: readonly Made[], calm: readonly Made[]): Row[] {
  const worst = calm
    .map(({ samples, error }) => ({ samples, error, ratio: errorOf(raw, samples) / error }))
    .reduce((a, b) => (b.ratio < a.ratio ? b : a));
  const mean = Math.max(...calm.map((m, i) => Math.abs(m.mean / raw[i]!.mean - 1)));
  return [
    {
      name: `without noise at no count worse: ${name}`,
      ours: `error ${worst.error.toExponential(1)} of ${worst.samples}, its worst`,
      theirs: `${errorOf(raw, worst.samples).toExponential(1)} as they are`,
      ratio: worst.ratio,
      goal: '≥ 1×',
      ok: worst.ratio >= 1,
    },
    {
      name: `light without noise: ${name}`,
      ours: `${(mean * 100).toFixed(2)} % off in the mean, at most`,
      theirs: 'as it is',
      ratio: 0.01 / mean,
      goal: '≤ 1 %',
      ok: mean <= 0.01,
    },
  ];
}
