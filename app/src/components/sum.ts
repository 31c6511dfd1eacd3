const NUMBER = String.raw`-?(?:\d+\.?\d*|\.\d+)`;
const ONE = new RegExp(`^(${NUMBER})$`);
const STEP = new RegExp(`^\\s*([-+*/])\\s*(${NUMBER})`);
const FIRST = new RegExp(`^\\s*(${NUMBER})`);

/**
 * A typed number or sum, times and divided first: "12", "12*1.5", "2+3*4"; a sum that begins with `*`, `/` or `+` goes on from
 * what stands there. A comma counts as a point.
 *
 * @returns NaN for anything else
 */
export function readSum(text: string, now: number): number {
  let rest = text.replaceAll(',', '.').trim();
  if (rest === '') return NaN;
  let term = now;
  const first = FIRST.exec(rest);
  if (first) {
    if (ONE.test(rest)) return Number(rest);
    term = Number(first[1]);
    rest = rest.slice(first[0].length);
  } else if (!/^[+*/]/.test(rest)) return NaN;
  let sum = 0;
  while (rest.trim() !== '') {
    const step = STEP.exec(rest);
    if (!step) return NaN;
    const by = Number(step[2]);
    if (step[1] === '*') term *= by;
    else if (step[1] === '/') term /= by;
    else {
      sum += term;
      term = step[1] === '+' ? by : -by;
    }
    rest = rest.slice(step[0].length);
  }
  return Number.isFinite(sum + term) ? sum + term : NaN;
}
