const NUMBER = String.raw`-?(?:\d+\.?\d*|\.\d+)`;
const ONE = new RegExp(`^(${NUMBER})$`);
const STEP = new RegExp(`^\\s*([-+*/])\\s*(${NUMBER})`);
const FIRST = new RegExp(`^\\s*(${NUMBER})`);

/**
 * A typed number or sum, worked out from left to right as a pocket calculator does: "12", "12*1.5", "7+3-2"; a sum that
 * begins with `*`, `/` or `+` goes on from what stands there. A comma counts as a point.
 *
 * @returns NaN for anything else
 */
export function readSum(text: string, now: number): number {
  let rest = text.replaceAll(',', '.').trim();
  if (rest === '') return NaN;
  let value: number;
  const first = FIRST.exec(rest);
  if (first) {
    if (ONE.test(rest)) return Number(rest);
    value = Number(first[1]);
    rest = rest.slice(first[0].length);
  } else if (/^[+*/]/.test(rest)) value = now;
  else return NaN;
  while (rest.trim() !== '') {
    const step = STEP.exec(rest);
    if (!step) return NaN;
    const by = Number(step[2]);
    value = step[1] === '+' ? value + by : step[1] === '-' ? value - by : step[1] === '*' ? value * by : value / by;
    rest = rest.slice(step[0].length);
  }
  return Number.isFinite(value) ? value : NaN;
}
